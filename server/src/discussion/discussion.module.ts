import { Module } from '@nestjs/common';
import { ReleaseModule } from '../release/index.js';
import { RoomsModule } from '../rooms/index.js';
import { DiscussionController } from './discussion.controller.js';
import { DiscussionKind } from './discussion.kind.js';
import { DiscussionService } from './discussion.service.js';
import { Talks } from './talks.js';

@Module({
  imports: [ReleaseModule, RoomsModule],
  controllers: [DiscussionController],
  providers: [Talks, DiscussionKind, DiscussionService],
  exports: [Talks],
})
export class DiscussionModule {}
