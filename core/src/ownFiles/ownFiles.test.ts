import { describe, expect, it } from '@jest/globals';
import type { FileId } from '../ids/index.js';
import { mayAct } from '../release/index.js';
import { originalsOf, ownFileRules } from './index.js';

const [log, map, old] = ['log' as FileId, 'map' as FileId, 'old' as FileId];

describe('files that each copy has as its own', () => {
  it('are those attached so, and those that were changed in it, each once', () => {
    const attached = [
      { id: log, isPerGroup: true },
      { id: map, isPerGroup: false },
    ];
    expect(originalsOf(attached, [])).toEqual([log]);
    expect(originalsOf(attached, [old, log])).toEqual([log, old]);
    // What all read now stays a group's own where it was changed before.
    expect(originalsOf(attached, [map])).toEqual([log, map]);
  });

  it('are changed by members and staff while the copy is open, never by readers', () => {
    const may = (access: 'open' | 'read-only', part: 'member' | 'staff' | 'reader') =>
      mayAct(ownFileRules, 'put', { access, part });
    expect([may('open', 'member'), may('open', 'staff')]).toEqual([true, true]);
    expect([may('read-only', 'member'), may('open', 'reader')]).toEqual([false, false]);
  });
});
