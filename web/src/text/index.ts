import { lazy } from 'react';

export type { NamedGroup } from './linesFor.js';
export { RichText } from './RichText.js';
/** The editor is the heaviest thing in the product; it comes only to pages that write. */
export const RichTextEditor = lazy(() => import('./RichTextEditor.js'));
