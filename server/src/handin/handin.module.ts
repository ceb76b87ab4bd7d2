import { Module } from '@nestjs/common';
import { FilesModule } from '../files/index.js';
import { GroupWork, PlacingModule } from '../placing/index.js';
import { Kinds, ReleaseModule } from '../release/index.js';
import { Joining, RosterModule } from '../roster/index.js';
import { Credits } from './credits.js';
import { HandInController } from './handin.controller.js';
import { HandInKinds } from './handin.kinds.js';
import { HandInService } from './handin.service.js';
import { joinHandIns } from './joinEntries.js';
import { haveHandIns, WorkReader } from './work.js';

@Module({
  imports: [ReleaseModule, PlacingModule, RosterModule, FilesModule],
  controllers: [HandInController],
  providers: [HandInService, HandInKinds, WorkReader, Credits],
})
export class HandInModule {
  constructor(groupWork: GroupWork, credits: Credits, joining: Joining, kinds: Kinds) {
    groupWork.askedOf(credits);
    joining.addStep(joinHandIns);
    kinds.addTrace('work', haveHandIns);
  }
}
