import { Module } from '@nestjs/common';
import { ReleaseModule } from '../release/index.js';
import { RoomsModule } from '../rooms/index.js';
import { RosterModule } from '../roster/index.js';
import { DeskService } from './desk.service.js';
import { GradebookService } from './gradebook.service.js';
import { Markings } from './markings.js';
import { MarksController } from './marks.controller.js';
import { MyMarksService } from './myMarks.service.js';

@Module({
  imports: [RosterModule, ReleaseModule, RoomsModule],
  controllers: [MarksController],
  providers: [DeskService, MyMarksService, GradebookService, Markings],
  exports: [DeskService],
})
export class MarksModule {}
