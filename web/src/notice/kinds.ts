import { Megaphone } from 'lucide-react';
import { lazy } from 'react';
import { NoticeSettings } from '@jigsaw/contract/notice';
import { noticeFacts } from '@jigsaw/core/notice';
import type { KindOnPages } from '../kinds/index.js';

export const noticeKind: KindOnPages<NoticeSettings> = {
  ...noticeFacts,
  word: 'Notice',
  says: 'Something to be read, by everyone or by each group, with replies or without.',
  icon: Megaphone,
  settings: NoticeSettings,
  usualPoints: null,
  SettingsForm: lazy(() => import('./SettingsForm.js')),
  afterDue: null,
  sayProgress: null,
  owed: 'To read',
  Page: lazy(() => import('./NoticePage.js')),
  OnDesk: null,
};
