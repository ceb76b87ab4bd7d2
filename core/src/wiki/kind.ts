import type { KindFacts } from '../release/index.js';

export const wikiFacts: KindFacts<{ readonly markFor: 'group' | 'student' }> = {
  name: 'wiki',
  modes: () => ['own', 'read-along', 'common'],
  markFor: ({ markFor }) => markFor,
  isHandedIn: false,
  isWork: true,
  isMarked: true,
};
