import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { IdentityModule } from '../identity/index.js';
import { ReleaseModule } from '../release/index.js';
import { PracticeController } from './practice.controller.js';
import { PracticeService } from './practice.service.js';

@Module({
  imports: [IdentityModule, CourseModule, ReleaseModule],
  controllers: [PracticeController],
  providers: [PracticeService],
})
export class PracticeModule {}
