import { Module } from '@nestjs/common';
import { FilesModule } from '../files/index.js';
import { ReleaseModule } from '../release/index.js';
import { RosterModule } from '../roster/index.js';
import { HandInController } from './handin.controller.js';
import { HandInKinds } from './handin.kinds.js';
import { HandInService } from './handin.service.js';
import { WorkReader } from './work.js';

@Module({
  imports: [ReleaseModule, RosterModule, FilesModule],
  controllers: [HandInController],
  providers: [HandInService, HandInKinds, WorkReader],
})
export class HandInModule {}
