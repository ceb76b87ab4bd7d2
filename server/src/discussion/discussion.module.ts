import { Module } from '@nestjs/common';
import { NewsModule } from '../news/index.js';
import { ReleaseModule } from '../release/index.js';
import { DiscussionController } from './discussion.controller.js';
import { DiscussionKind } from './discussion.kind.js';
import { DiscussionService } from './discussion.service.js';

@Module({
  imports: [ReleaseModule, NewsModule],
  controllers: [DiscussionController],
  providers: [DiscussionKind, DiscussionService],
})
export class DiscussionModule {}
