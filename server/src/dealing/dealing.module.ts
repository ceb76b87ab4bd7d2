import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { PlacingModule } from '../placing/index.js';
import { SetsModule } from '../sets/index.js';
import { DealingController } from './dealing.controller.js';
import { DealsService } from './deals.service.js';
import { ExpertsService } from './experts.service.js';

@Module({
  imports: [CourseModule, SetsModule, PlacingModule],
  controllers: [DealingController],
  providers: [DealsService, ExpertsService],
  exports: [ExpertsService],
})
export class DealingModule {}
