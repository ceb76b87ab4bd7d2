import { DoorOpen } from 'lucide-react';
import { lazy } from 'react';
import { CallSettings } from '@jigsaw/contract/call';
import { callFacts } from '@jigsaw/core/call';
import type { KindOnPages } from '../kinds/index.js';

export const callKind: KindOnPages<CallSettings> = {
  ...callFacts,
  word: 'Standing call',
  says: 'A place to meet that stays open all term, for each group or for all.',
  icon: DoorOpen,
  settings: CallSettings,
  usualPoints: null,
  SettingsForm: null,
  isStanding: true,
  afterDue: null,
  sayProgress: null,
  owed: 'To meet',
  Page: lazy(() => import('./CallPage.js')),
  OnDesk: null,
};
