import { describe, expect, it } from '@jest/globals';
import type { GroupId, GroupSetId } from '@jigsaw/core/ids';
import { aRelease, id } from '../test/data.js';
import { firstTarget, isSameTarget, toClass, toggleGroup, toSet, withMode } from './releaseTarget.js';
import type { ReleaseTarget } from './releaseTarget.js';

const setId = id<'group-set'>('benches');
const [crock, carboy] = [id<'group'>('crock'), id<'group'>('carboy')];
const all: readonly GroupId[] = [crock, carboy];
const set: ReleaseTarget = { to: { kind: 'set', setId }, mode: 'own', outsiders: 'hidden' };

describe('whom a release is meant for', () => {
  it('chooses the only set by itself, never one of several', () => {
    expect(firstTarget(null, [setId]).to).toEqual({ kind: 'set', setId });
    expect(firstTarget(null, [setId, id<'group-set'>('labs') as GroupSetId]).to).toBeNull();
    expect(firstTarget(null, [id<'group-set'>('labs') as GroupSetId, setId], setId).to).toEqual({
      kind: 'set',
      setId,
    });
    expect(firstTarget(aRelease({ mode: 'read-along' }), []).mode).toBe('read-along');
  });
  it('leaves groups out and takes them in again, and is the whole set once all are in', () => {
    const one = toggleGroup(set, crock, all);
    expect(one.to).toEqual({ kind: 'groups', setId, groupIds: [carboy] });
    expect(toggleGroup(one, crock, all)).toEqual(set);
  });
  it('never leaves everybody out', () =>
    expect(toggleGroup(toggleGroup(set, crock, all), carboy, all).to).toEqual({
      kind: 'groups',
      setId,
      groupIds: [carboy],
    }));
  it('gives the class one copy, and lets the class go where each group has its own', () => {
    expect(toClass(set)).toEqual({ to: { kind: 'class' }, mode: 'common', outsiders: 'hidden' });
    expect(withMode(toClass(set), 'own').to).toBeNull();
    expect(withMode(set, 'read-along').to).toEqual(set.to);
    expect(isSameTarget(toSet(toClass(set), setId), { ...set, mode: 'common' })).toBe(true);
  });
});
