import type { Role } from './viewer.js';

/** What a role may do in its course, apart from reading copies, which `decide` alone answers. */
export type Act =
  | 'read-course'
  | 'manage-roster'
  | 'manage-groups'
  | 'place'
  | 'release'
  | 'mark'
  | 'write-to-people'
  /** See the course as one of its students sees it; only for those who see the work of all groups anyway. */
  | 'sit-in';

const acts = {
  instructor: [
    'read-course',
    'manage-roster',
    'manage-groups',
    'place',
    'release',
    'mark',
    'write-to-people',
    'sit-in',
  ],
  assistant: ['read-course', 'place', 'mark', 'write-to-people'],
  observer: ['read-course'],
  student: [],
} satisfies Record<Role, readonly Act[]>;

export const may = (role: Role, act: Act): boolean => (acts[role] as readonly Act[]).includes(act);
