import { describe, expect, it } from '@jest/globals';
import type { EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import type { Audience } from './index.js';
import { hearersOfAudience, hearersOfCopy } from './index.js';

const [crock, benches, noor] = ['crock', 'benches', 'noor'] as [GroupId, GroupSetId, EnrolmentId] & string[];
const toSet: Audience = { include: [{ kind: 'set', setId: benches }], exclude: [] };
const nobody = { groupIds: [], setIds: [], enrolmentIds: [], isForAll: false };

describe('who hears that something changed', () => {
  it('is the group whose private copy it is', () =>
    expect(hearersOfCopy({ mode: 'own', audience: toSet }, crock)).toEqual({ ...nobody, groupIds: [crock] }));

  it.each(['read-along', 'common'] as const)('is everybody whom it reaches, where it is %s', (mode) =>
    expect(hearersOfCopy({ mode, audience: toSet }, crock)).toEqual({ ...nobody, setIds: [benches] }),
  );

  it('is nobody but the owner and staff, where each student has their own', () =>
    expect(hearersOfCopy({ mode: 'own', audience: toSet }, crock, noor)).toEqual({
      ...nobody,
      enrolmentIds: [noor],
      isForStaff: true,
    }));

  it('follows all that an audience takes in', () =>
    expect(
      hearersOfAudience({
        include: [
          { kind: 'group', setId: benches, groupId: crock },
          { kind: 'class' },
          { kind: 'person', enrolmentId: noor },
        ],
        exclude: [],
      }),
    ).toEqual({ ...nobody, groupIds: [crock], enrolmentIds: [noor], isForAll: true }));
});
