import { Module } from '@nestjs/common';
import { CourseModule } from '../course/index.js';
import { OwnFilesModule } from '../ownFiles/index.js';
import { ReleaseModule } from '../release/index.js';
import { CopyHeads } from './copyHeads.service.js';
import { LatelyService } from './lately.service.js';
import { LastWrittenService } from './lastWritten.service.js';
import { MarksInRooms } from './marksInRooms.js';
import { News } from './news.service.js';
import { RoomsController } from './rooms.controller.js';
import { RoomLinesService } from './roomLines.service.js';
import { RoomsService } from './rooms.service.js';
import { SeenController } from './seen.controller.js';
import { StopsService } from './stops.service.js';
import { StaffNews } from './staffNews.service.js';
import { Stands } from './stands.js';

@Module({
  imports: [CourseModule, ReleaseModule, OwnFilesModule],
  controllers: [RoomsController, SeenController],
  providers: [
    RoomsService,
    RoomLinesService,
    StopsService,
    LatelyService,
    LastWrittenService,
    CopyHeads,
    News,
    StaffNews,
    Stands,
    MarksInRooms,
  ],
  exports: [RoomsService, CopyHeads, News, StaffNews, MarksInRooms],
})
export class RoomsModule {}
