import { MessagesSquare } from 'lucide-react';
import { lazy } from 'react';
import { DiscussionSettings } from '@jigsaw/contract/discussion';
import { discussionFacts } from '@jigsaw/core/discussion';
import type { KindOnPages } from '../kinds/index.js';
import { sayTalk } from './words.js';

export const discussionKind: KindOnPages<DiscussionSettings> = {
  ...discussionFacts,
  word: 'Discussion',
  says: 'Threads and replies, in each group or in the whole class.',
  icon: MessagesSquare,
  settings: DiscussionSettings,
  usualPoints: null,
  SettingsForm: lazy(() => import('./SettingsForm.js')),
  afterDue: 'Posts after the due date do not count towards the requirement.',
  sayProgress: sayTalk,
  owed: 'To write',
  Page: lazy(() => import('./DiscussionPage.js')),
  OnDesk: lazy(() => import('./DeskTalk.js')),
};
