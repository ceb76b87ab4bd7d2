import { BookMarked } from 'lucide-react';
import { lazy } from 'react';
import { ResourceSettings } from '@jigsaw/contract/resource';
import { resourceFacts } from '@jigsaw/core/resource';
import type { KindOnPages } from '../kinds/index.js';

export const resourceKind: KindOnPages<ResourceSettings> = {
  ...resourceFacts,
  word: 'Resource',
  says: 'Something to use: a page, files, a link.',
  icon: BookMarked,
  settings: ResourceSettings,
  usualPoints: null,
  SettingsForm: lazy(() => import('./SettingsForm.js')),
  afterDue: null,
  sayProgress: null,
  owed: 'To read',
  Page: lazy(() => import('./ResourcePage.js')),
  OnDesk: null,
};
