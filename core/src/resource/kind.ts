import type { KindFacts } from '../release/index.js';

/** Something to use: a page of text, files, a link; for the class, or with each group's own words in it. */
export const resourceFacts: KindFacts = {
  name: 'resource',
  modes: () => ['own', 'common'],
  markFor: () => 'student',
  isHandedIn: false,
  isWork: false,
  isMarked: false,
};
