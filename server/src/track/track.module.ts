import { Module } from '@nestjs/common';
import { HandInModule } from '../handin/index.js';
import { MarksModule } from '../marks/index.js';
import { ReleaseModule } from '../release/index.js';
import { RosterModule } from '../roster/index.js';
import { TrackController } from './track.controller.js';
import { TrackService } from './track.service.js';

@Module({ imports: [RosterModule, ReleaseModule, HandInModule, MarksModule], controllers: [TrackController], providers: [TrackService] })
export class TrackModule {}
