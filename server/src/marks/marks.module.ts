import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { Kinds, ReleaseModule } from '../release/index.js';
import { MarksInRooms, RoomsModule } from '../rooms/index.js';
import { DeskService } from './desk.service.js';
import { DeskCounts } from './deskCounts.service.js';
import { ForesightService } from './foresight.service.js';
import { GradebookService } from './gradebook.service.js';
import { ManyMarksService } from './manyMarks.service.js';
import { MarkingService } from './marking.service.js';
import { haveMarks, Markings } from './markings.js';
import { MarksController } from './marks.controller.js';
import { MyMarksService } from './myMarks.service.js';

@Module({
  imports: [CourseModule, ReleaseModule, RoomsModule],
  controllers: [MarksController],
  providers: [
    DeskService,
    DeskCounts,
    MarkingService,
    MyMarksService,
    GradebookService,
    ForesightService,
    ManyMarksService,
    Markings,
  ],
  exports: [DeskCounts, MyMarksService],
})
export class MarksModule {
  constructor(kinds: Kinds, rooms: MarksInRooms, marks: MyMarksService, markings: Markings) {
    kinds.addTrace('mark', haveMarks);
    rooms.askedOf({
      copiesWithMark: (enrolmentId) => marks.copiesWithMark(enrolmentId),
      waitingIn: (accesses, manager) => markings.waitingIn(accesses, manager),
    });
  }
}
