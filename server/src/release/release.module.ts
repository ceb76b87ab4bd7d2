import { Module } from '@nestjs/common';
import { RosterModule } from '../roster/index.js';
import { Gate } from './gate.js';
import { Kinds } from './kinds.js';
import { ReachService } from './reach.service.js';
import { ReleaseController } from './release.controller.js';
import { ReleaseService } from './release.service.js';

@Module({
  imports: [RosterModule],
  controllers: [ReleaseController],
  providers: [Gate, Kinds, ReleaseService, ReachService],
  exports: [Gate, Kinds],
})
export class ReleaseModule {}
