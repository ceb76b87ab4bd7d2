/** Where a page sits in, or practises, stands in its address, before everything else: each tab, and each frame in a page, by itself, over reloads, and for no longer. */
const before = /^\/(sit-in|practise)\/[^/]+/;

/** What stands before every address of this page; empty: it is the reader's own. */
export const sitInBase = (): string => before.exec(window.location.pathname)?.[0] ?? '';

/** Whether this page shows a course as one of its students sees it, to look at. */
export const sitsIn = (): boolean => sitInBase().startsWith('/sit-in/');

/** Whether the practice student acts in this page. */
export const practises = (): boolean => sitInBase().startsWith('/practise/');

// eslint-disable-next-line no-restricted-syntax -- the one place that knows
const everyones = '/api/';

/** The address of what the server sends by itself: a file, a stream.
 * @param path below /api/ */
export const apiAddress = (path: string): string => `${sitInBase()}${everyones}${path}`;

/** The same for the reader themselves, however this page is shown. */
export const ownApiAddress = (path: string): string => `${everyones}${path}`;

/** Where a page of the course is as one student sees it.
 * @param path as everyone's, with its slash before it. */
export const sitInAddress = (enrolmentId: string, path: string): string => `/sit-in/${enrolmentId}${path}`;

/** Where a page of the course is for the practice student, as a member of that group. */
export const practiceAddress = (groupId: string, path: string): string => `/practise/${groupId}${path}`;
