import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { resizeGroups, sizesByCount } from './index.js';

const open = (members: number) => ({ isLocked: false, members });
const locked = (members: number) => ({ isLocked: true, members });

describe('groups of another size', () => {
  it('are added where there are too few, empty locked ones first', () => {
    const groups = [...Array<number>(12).keys()].map(() => open(4));
    expect(resizeGroups(groups, 48, 3)).toEqual({
      dealt: 48,
      groups: 16,
      added: 4,
      unlocked: [],
      locked: [],
      beyond: 0,
    });
    expect(resizeGroups([...groups, locked(0), locked(0)], 48, 3)).toMatchObject({
      added: 2,
      unlocked: [12, 13],
    });
  });

  it('are locked where there are too many, the last first, and only while no one is in them', () => {
    expect(resizeGroups([open(0), open(0), open(0), open(0)], 10, 5)).toMatchObject({
      groups: 2,
      locked: [3, 2],
    });
    expect(resizeGroups([open(0), open(3), open(4), open(3)], 10, 5)).toEqual({
      dealt: 10,
      groups: 3,
      added: 0,
      unlocked: [],
      locked: [0],
      beyond: 1,
    });
  });

  it('leave out who is held in a locked group', () => {
    expect(resizeGroups([locked(4), open(0), open(0)], 12, 4)).toMatchObject({
      dealt: 8,
      groups: 2,
      added: 0,
      locked: [],
    });
  });

  it('hold no more than the size, where no group beyond them has members', () => {
    const group = fc.record({ isLocked: fc.boolean(), members: fc.nat(6) });
    fc.assert(
      fc.property(
        fc.array(group, { maxLength: 20 }),
        fc.nat(200),
        fc.integer({ min: 1, max: 12 }),
        (groups, more, size) => {
          const students = groups.reduce((sum, each) => sum + each.members, 0) + more;
          const plan = resizeGroups(groups, students, size);
          const held = groups.reduce((sum, each) => sum + (each.isLocked ? each.members : 0), 0);
          const dealt = sizesByCount(students - held, plan.groups);
          expect(dealt.ok && Math.max(0, ...dealt.sizes)).toBeLessThanOrEqual(size);
          expect(plan.groups).toBe(Math.max(1, Math.ceil((students - held) / size)) + plan.beyond);
        },
      ),
    );
  });
});
