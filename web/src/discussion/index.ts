import { lazy } from 'react';

export { discussionKind } from './kinds.js';
/** Fetched with the page that has one. */
export const Talk = lazy(() => import('./Talk.js'));
