import { NoticeSettings } from '@jigsaw/contract/notice';
import { noticeFacts } from '@jigsaw/core/notice';
import { postsSql } from '../discussion/index.js';
import type { ActivityKind } from '../release/index.js';
import { asNews } from '../release/index.js';

/** Its text is its brief; what is replied is a talk. */
export const noticeKind: ActivityKind<NoticeSettings> = {
  ...noticeFacts,
  ...asNews,
  settings: NoticeSettings,
  itemsSql: (copies) => `${asNews.itemsSql(copies)} UNION ALL ${postsSql(copies)}`,
};
