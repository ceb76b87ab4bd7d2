import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { PlacingModule } from '../placing/index.js';
import { ReleaseModule } from '../release/index.js';
import { SightlinesModule } from '../sightlines/index.js';
import { ForeseenController } from './foreseen.controller.js';
import { ForeseenService } from './foreseen.service.js';

@Module({
  imports: [CourseModule, PlacingModule, ReleaseModule, SightlinesModule],
  controllers: [ForeseenController],
  providers: [ForeseenService],
})
export class ForeseenModule {}
