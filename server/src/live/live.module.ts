import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { IdentityModule } from '../identity/index.js';
import { Changes } from './changes.js';
import { LiveController } from './live.controller.js';
import { Streams } from './streams.js';

@Module({
  imports: [CourseModule, IdentityModule],
  controllers: [LiveController],
  providers: [Changes, Streams],
})
export class LiveModule {}
