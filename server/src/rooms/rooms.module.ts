import { Module } from '@nestjs/common';
import { ReleaseModule } from '../release/index.js';
import { CopyHeads } from './copyHeads.service.js';
import { MarksInRooms } from './marksInRooms.js';
import { News } from './news.service.js';
import { RoomsController } from './rooms.controller.js';
import { RoomsService } from './rooms.service.js';
import { SeenController } from './seen.controller.js';

@Module({
  imports: [ReleaseModule],
  controllers: [RoomsController, SeenController],
  providers: [RoomsService, CopyHeads, News, MarksInRooms],
  exports: [CopyHeads, News, MarksInRooms],
})
export class RoomsModule {}
