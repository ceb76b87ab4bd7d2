import { Module } from '@nestjs/common';
import { RosterModule } from '../roster/index.js';
import { GroupsController } from './groups.controller.js';
import { DealsController } from './deals.controller.js';
import { DealsService } from './deals.service.js';
import { BoardService } from './board.service.js';
import { GroupsService } from './groups.service.js';
import { SetsService } from './sets.service.js';
import { SignUpService } from './signUp.service.js';

@Module({
  imports: [RosterModule],
  controllers: [GroupsController, DealsController],
  providers: [DealsService, SetsService, BoardService, GroupsService, SignUpService],
})
export class GroupsModule {}
