export { CheckLines } from './CheckLines.js';
export type { FixOf } from './CheckLines.js';
export { useListChecksQuery } from './checksApi.js';
export { ChecksLink } from './ChecksLink.js';
export type { CheckNames } from './sayCheck.js';
export { isAbout, useToCheck } from './useToCheck.js';
export type { ToCheck } from './useToCheck.js';
