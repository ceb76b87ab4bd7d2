import { describe, expect, it } from '@jest/globals';
import type { AudienceId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import { someGroups, theClass, wholeSet } from '@jigsaw/core/release';
import type { ReleaseTarget } from './releaseTarget.js';
import {
  firstTarget,
  leaveOut,
  toggleAudience,
  toggleClass,
  toggleGroup,
  toggleSet,
  toggleStaff,
  withMode,
  withPerson,
} from './releaseTarget.js';

const benches = 'benches' as GroupSetId;
const panels = 'panels' as GroupSetId;
const [crock, carboy] = ['crock', 'carboy'] as GroupId[] as [GroupId, GroupId];
const all = [crock, carboy];
const noor = 'noor' as EnrolmentId;
const set: ReleaseTarget = { to: wholeSet(benches), mode: 'own', outsiders: 'hidden' };
const toggle = (target: ReleaseTarget, group: GroupId) => toggleGroup(target, benches, group, all);

describe('reached someone means to release to', () => {
  it('is the only set there is; of several none until one is chosen', () => {
    expect(firstTarget(null, [benches]).to).toEqual(wholeSet(benches));
    expect(firstTarget(null, [benches, panels]).to.include).toEqual([]);
    expect(firstTarget(null, [benches, panels], panels).to).toEqual(wholeSet(panels));
  });

  it('puts sets in beside one another, and takes them out again', () => {
    const both = toggleSet(set, panels);
    expect(both.to.include).toEqual([...wholeSet(benches).include, ...wholeSet(panels).include]);
    expect(toggleSet(both, benches).to).toEqual(wholeSet(panels));
    expect(toggleSet(toggle(both, crock), benches).to).toEqual(wholeSet(panels));
  });

  it('leaves groups out one by one, in place; all of them in is the whole set again', () => {
    const both = toggleSet(set, panels);
    const one = toggle(both, crock);
    expect(one.to.include).toEqual([...someGroups(benches, [carboy]).include, ...wholeSet(panels).include]);
    expect(toggle(one, crock)).toEqual(both);
    const none = toggle(one, carboy);
    expect(none.to).toEqual(wholeSet(panels));
    expect(toggle(toggle(set, crock), carboy)).toEqual(toggle(set, crock)); // someone stays in
  });

  it('goes to the class in one copy, and no further with a copy for each', () => {
    const forAll = toggleClass(set);
    expect(forAll).toEqual({ to: theClass, mode: 'common', outsiders: 'hidden' });
    expect(withMode(forAll, 'own').to.include).toEqual([]);
    expect(toggleSet(forAll, panels).to).toEqual(wholeSet(panels));
    expect(toggleClass(forAll).to.include).toEqual([]);
  });

  it('takes in saved audiences beside sets, also with a copy for each', () => {
    const dairy = 'dairy' as AudienceId;
    const both = toggleAudience(set, dairy);
    expect(both.to.include).toEqual([...wholeSet(benches).include, { kind: 'audience', audienceId: dairy }]);
    expect(withMode(both, 'read-along').to).toEqual(both.to);
    expect(toggleAudience(both, dairy)).toEqual(set);
    expect(toggleAudience(toggleClass(set), dairy).to.include).toEqual([
      { kind: 'audience', audienceId: dairy },
    ]);
  });

  it('goes to staff alone in one copy, until something else is chosen', () => {
    const staff = toggleStaff(leaveOut(set, noor, true));
    expect(staff).toEqual({
      to: { include: [{ kind: 'staff' }], exclude: [] },
      mode: 'common',
      outsiders: 'hidden',
    });
    expect(toggleStaff(staff).to.include).toEqual([]);
    expect(toggleSet(staff, panels).to).toEqual(wholeSet(panels));
    expect(withMode(staff, 'own').to.include).toEqual([]);
  });

  it('names people, or leaves them out, and never both', () => {
    const named = withPerson({ ...set, mode: 'common' }, noor, true);
    expect(named.to.include.at(-1)).toEqual({ kind: 'person', enrolmentId: noor });
    const out = leaveOut(named, noor, true);
    expect(out.to).toEqual({ ...wholeSet(benches), exclude: [noor] });
    expect(withPerson(out, noor, true).to).toEqual({ ...named.to, exclude: [] });
    expect(leaveOut(out, noor, false).to).toEqual(wholeSet(benches));
    expect(withMode(named, 'read-along').to).toEqual(wholeSet(benches));
  });
});
