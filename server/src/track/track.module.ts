import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { MarksModule } from '../marks/index.js';
import { MessagesModule } from '../messages/index.js';
import { ReleaseModule } from '../release/index.js';
import { RoomsModule } from '../rooms/index.js';
import { HomeService } from './home.service.js';
import { TrackController } from './track.controller.js';
import { TrackService } from './track.service.js';

@Module({
  imports: [CourseModule, ReleaseModule, RoomsModule, MarksModule, MessagesModule],
  controllers: [TrackController],
  providers: [TrackService, HomeService],
})
export class TrackModule {}
