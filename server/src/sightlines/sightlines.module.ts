import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { SightlinesController } from './sightlines.controller.js';
import { SightlinesService } from './sightlines.service.js';

@Module({
  imports: [CourseModule],
  controllers: [SightlinesController],
  providers: [SightlinesService],
  exports: [SightlinesService],
})
export class SightlinesModule {}
