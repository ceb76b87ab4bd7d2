import type { ImportPreview } from '@jigsaw/contract/import';

export const aPerson = (name: string) => ({
  email: `${name.toLowerCase()}@b.example`,
  name,
  familyName: null,
  reading: null,
  number: null,
  role: null,
  places: [],
  attributes: {},
});

/** What a file or a paste with Ada in it would change. */
export const aPreview = (more: Partial<ImportPreview> = {}): ImportPreview => ({
  columns: [
    { heading: 'Address', meaning: 'email', sureness: 'sure', set: null, samples: ['ada@b.example'] },
    { heading: 'Name', meaning: 'name', sureness: 'guess', set: null, samples: ['Ada'] },
  ],
  encoding: 'UTF-8',
  delimiter: ',',
  hasHeader: false,
  place: null,
  columnProblem: null,
  rows: [{ kind: 'new', line: 1, person: aPerson('Ada') }],
  missing: [],
  newGroups: [],
  warning: null,
  counts: { new: 1, changed: 0, unchanged: 0, problem: 0 },
  fingerprint: 'f1',
  ...more,
});
