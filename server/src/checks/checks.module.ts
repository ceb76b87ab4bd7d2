import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { ReleaseModule } from '../release/index.js';
import { SightlinesModule } from '../sightlines/index.js';
import { ChecksController } from './checks.controller.js';
import { ChecksService } from './checks.service.js';

@Module({
  imports: [CourseModule, ReleaseModule, SightlinesModule],
  controllers: [ChecksController],
  providers: [ChecksService],
})
export class ChecksModule {}
