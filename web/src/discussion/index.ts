import { lazy } from 'react';

export { discussionKind } from './kinds.js';
export type { TalkWords } from './Talk.js';
/** Fetched with the page that has one. */
export const Talk = lazy(() => import('./Talk.js'));
