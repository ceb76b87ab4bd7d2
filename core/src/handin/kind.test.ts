import { describe, expect, it } from '@jest/globals';
import { assignmentFacts, folderFacts } from './index.js';

const folder = { by: 'group', mostFiles: 3, types: ['pdf'], largestMb: 5, attempts: 'one' } as const;

describe('what is handed in', () => {
  it('by a group can be read along and is marked for the group', () => {
    expect(assignmentFacts.modes({ attempts: 'all' })).toEqual(['own', 'read-along']);
    expect(folderFacts.modes(folder)).toEqual(['own', 'read-along']);
    expect([assignmentFacts.markFor({ attempts: 'all' }), folderFacts.markFor(folder)]).toEqual([
      'group',
      'group',
    ]);
  });

  it('by single students is read by no one else, may be in one copy for all, and is marked for each', () => {
    const each = { ...folder, by: 'student' } as const;
    expect(folderFacts.modes(each)).toEqual(['own', 'common']);
    expect(folderFacts.markFor(each)).toBe('student');
  });

  it('takes text where it is an assignment, and files as the settings say where it is a folder', () => {
    expect(assignmentFacts.rulesOf({ attempts: 'all' })).toMatchObject({ takesText: true, attempts: 'all' });
    expect(folderFacts.rulesOf(folder)).toEqual({ ...folder, takesText: false });
  });
});
