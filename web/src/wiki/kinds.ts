import { NotebookPen } from 'lucide-react';
import { lazy } from 'react';
import { WikiSettings } from '@jigsaw/contract/wiki';
import { wikiFacts } from '@jigsaw/core/wiki';
import type { KindOnPages } from '../kinds/index.js';
import { sayWiki } from './words.js';

export const wikiKind: KindOnPages<WikiSettings> = {
  ...wikiFacts,
  word: 'Wiki',
  says: 'Pages that a group writes together, with every version kept.',
  icon: NotebookPen,
  settings: WikiSettings,
  usualPoints: null,
  SettingsForm: lazy(() => import('./SettingsForm.js')),
  afterDue: null,
  sayProgress: sayWiki,
  owed: 'To write',
  Page: lazy(() => import('./WikiPage.js')),
  OnDesk: lazy(() => import('./DeskWiki.js')),
};
