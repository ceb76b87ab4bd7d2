import { FileText, FolderInput } from 'lucide-react';
import { lazy } from 'react';
import { AssignmentSettings, FolderSettings } from '@jigsaw/contract/handin';
import { assignmentFacts, folderFacts } from '@jigsaw/core/handin';
import type { KindOnPages } from '../kinds/index.js';
import { sayHandedIn } from './words.js';

const Page = lazy(() => import('./HandInPage.js'));
const OnDesk = lazy(() => import('./DeskWork.js'));

export const assignmentKind: KindOnPages<AssignmentSettings> = {
  ...assignmentFacts,
  word: 'Assignment',
  says: 'Members write their parts and add files; one hand-in for the group.',
  icon: FileText,
  settings: AssignmentSettings,
  usualPoints: '40',
  SettingsForm: lazy(async () => ({ default: (await import('./SettingsForms.js')).AssignmentForm })),
  afterDue: null,
  sayProgress: sayHandedIn,
  owed: 'To hand in',
  Page,
  OnDesk,
};

export const folderKind: KindOnPages<FolderSettings> = {
  ...folderFacts,
  word: 'Submission folder',
  says: 'Files of given types, from the group or from each student.',
  icon: FolderInput,
  settings: FolderSettings,
  usualPoints: '40',
  SettingsForm: lazy(async () => ({ default: (await import('./SettingsForms.js')).FolderForm })),
  afterDue: null,
  sayProgress: sayHandedIn,
  owed: 'To hand in',
  Page,
  OnDesk,
};
