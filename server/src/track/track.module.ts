import { Module } from '@nestjs/common';
import { MarksModule } from '../marks/index.js';
import { NewsModule } from '../news/index.js';
import { ReleaseModule } from '../release/index.js';
import { RosterModule } from '../roster/index.js';
import { TrackController } from './track.controller.js';
import { TrackService } from './track.service.js';

@Module({
  imports: [RosterModule, ReleaseModule, NewsModule, MarksModule],
  controllers: [TrackController],
  providers: [TrackService],
})
export class TrackModule {}
