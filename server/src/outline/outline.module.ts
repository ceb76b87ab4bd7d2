import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { ReleaseModule } from '../release/index.js';
import { OutlineController } from './outline.controller.js';
import { OutlineService } from './outline.service.js';

@Module({
  imports: [CourseModule, ReleaseModule],
  controllers: [OutlineController],
  providers: [OutlineService],
})
export class OutlineModule {}
