export { headingMoved, outlineOf, placed, seenIn } from './outline.js';
export type { Heading, Outline, Place } from './outline.js';
