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
  /** Note something about groups and people, for staff alone, and read what is noted. */
  | 'keep-notes'
  /** See the course as one of its students sees it; only for those who see the work of all groups anyway. */
  | 'sit-in'
  /** See who did what in the course. */
  | 'read-audit';

const acts = {
  instructor: [
    'read-course',
    'manage-roster',
    'manage-groups',
    'place',
    'release',
    'mark',
    'write-to-people',
    'keep-notes',
    'sit-in',
    'read-audit',
  ],
  assistant: ['read-course', 'place', 'mark', 'write-to-people', 'keep-notes'],
  observer: ['read-course'],
  student: [],
} satisfies Record<Role, readonly Act[]>;

export const may = (role: Role, act: Act): boolean => (acts[role] as readonly Act[]).includes(act);
