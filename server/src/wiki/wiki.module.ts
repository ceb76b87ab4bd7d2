import { Module } from '@nestjs/common';
import { ReleaseModule } from '../release/index.js';
import { RoomsModule } from '../rooms/index.js';
import { WikiController } from './wiki.controller.js';
import { WikiKind } from './wiki.kind.js';
import { WikiService } from './wiki.service.js';

@Module({
  imports: [ReleaseModule, RoomsModule],
  controllers: [WikiController],
  providers: [WikiKind, WikiService],
})
export class WikiModule {}
