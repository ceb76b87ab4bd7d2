import { FileText, FolderInput } from 'lucide-react';
import { lazy } from 'react';
import { AssignmentSettings, FolderSettings } from '@jigsaw/contract/handin';
import type { KindOnPages } from '../kinds/index.js';
import { sayHandedIn } from './words.js';

const Page = lazy(() => import('./HandInPage.js'));
const Work = lazy(() => import('./DeskWork.js'));

export const assignmentKind: KindOnPages<AssignmentSettings> = {
  name: 'assignment',
  word: 'Assignment',
  says: 'Members write their parts and add files; one hand-in for the group.',
  icon: FileText,
  settings: AssignmentSettings,
  usualPoints: '40',
  modes: () => ['own', 'read-along'],
  markFor: () => 'group',
  SettingsForm: lazy(async () => ({ default: (await import('./SettingsForms.js')).AssignmentForm })),
  isHandedIn: true,
  sayProgress: sayHandedIn,
  owed: 'To hand in',
  Page,
  Work,
};

export const folderKind: KindOnPages<FolderSettings> = {
  name: 'folder',
  word: 'Submission folder',
  says: 'Files of given types, from the group or from each student.',
  icon: FolderInput,
  settings: FolderSettings,
  usualPoints: '40',
  modes: ({ by }) => (by === 'group' ? ['own', 'read-along'] : ['own', 'common']),
  markFor: ({ by }) => by,
  SettingsForm: lazy(async () => ({ default: (await import('./SettingsForms.js')).FolderForm })),
  isHandedIn: true,
  sayProgress: sayHandedIn,
  owed: 'To hand in',
  Page,
  Work,
};
