import { Module } from '@nestjs/common';
import { RosterModule } from '../roster/index.js';
import { GroupsController } from './groups.controller.js';
import { BoardService } from './board.service.js';
import { GroupsService } from './groups.service.js';
import { SetsService } from './sets.service.js';
import { SignUpService } from './signUp.service.js';

@Module({ imports: [RosterModule], controllers: [GroupsController], providers: [SetsService, BoardService, GroupsService, SignUpService] })
export class GroupsModule {}
