import type { KindFacts } from '../release/index.js';
import type { Attempts, HandInRules } from './fileRules.js';

/** The most that any hand-in takes, whatever its settings. */
export const mostOfHandIns = { files: 50, fileMb: 250 } as const;

/** One group hands in one work, so a copy for all is for works of single students only, and those no one reads along. */
const kindOf = <Settings>(
  name: string,
  rulesOf: (settings: Settings) => HandInRules,
): KindFacts<Settings> & { readonly rulesOf: (settings: Settings) => HandInRules } => ({
  name,
  rulesOf,
  modes: (settings) => (rulesOf(settings).by === 'group' ? ['own', 'read-along'] : ['own', 'common']),
  markFor: (settings) => rulesOf(settings).by,
  isHandedIn: true,
  isWork: true,
  isMarked: true,
});

/** Members write their parts and add files; the group hands in once for all. */
export const assignmentFacts = kindOf('assignment', ({ attempts }: { readonly attempts: Attempts }) => ({
  by: 'group',
  takesText: true,
  mostFiles: mostOfHandIns.files,
  types: [],
  largestMb: mostOfHandIns.fileMb,
  attempts,
}));

/** Files only, as the settings say, from the group or from each student. */
export const folderFacts = kindOf('folder', (settings: Omit<HandInRules, 'takesText'>) => ({
  ...settings,
  takesText: false,
}));
