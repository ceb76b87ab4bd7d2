import { Module } from '@nestjs/common';
import type { NoticeSettings } from '@jigsaw/contract/notice';
import { noticeTalk } from '@jigsaw/core/notice';
import { DiscussionModule, Talks } from '../discussion/index.js';
import { Kinds, ReleaseModule } from '../release/index.js';
import { noticeKind } from './notice.kind.js';

@Module({ imports: [ReleaseModule, DiscussionModule] })
export class NoticeModule {
  constructor(kinds: Kinds, talks: Talks) {
    kinds.register(noticeKind);
    talks.register(noticeKind.name, (settings) => noticeTalk(settings as NoticeSettings));
  }
}
