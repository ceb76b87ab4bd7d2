/** Where a page sits in stands in its address, before everything else: each tab, and each frame in a page, by itself, over reloads, and for no longer. */
const before = /^\/sit-in\/[^/]+/;

/** What stands before every address of this page; empty: no one sits in here. */
export const sitInBase = (): string => before.exec(window.location.pathname)?.[0] ?? '';

/** Whether this page shows a course as one of its students sees it. */
export const sitsIn = (): boolean => sitInBase() !== '';

/** The address of what the server sends by itself: a file, a stream.
 * @param path below /api/ */
// eslint-disable-next-line no-restricted-syntax -- the one place that knows
export const apiAddress = (path: string): string => `${sitInBase()}/api/${path}`;

/** Where a page of the course is as one student sees it.
 * @param path as everyone's, with its slash before it. */
export const sitInAddress = (enrolmentId: string, path: string): string => `/sit-in/${enrolmentId}${path}`;
