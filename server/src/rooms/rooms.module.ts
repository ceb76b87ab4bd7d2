import { Module } from '@nestjs/common';
import { NewsModule } from '../news/index.js';
import { ReleaseModule } from '../release/index.js';
import { RoomsController } from './rooms.controller.js';
import { RoomsService } from './rooms.service.js';

@Module({
  imports: [ReleaseModule, NewsModule],
  controllers: [RoomsController],
  providers: [RoomsService],
  exports: [RoomsService],
})
export class RoomsModule {}
