import type { Viewer } from '../course/index.js';
import type { GroupId } from '../ids/index.js';
import { reachesGroup } from '../release/index.js';
import { viewersAt } from '../sightlines/index.js';
import type { Class, Released } from './audiences.js';
import { checkAudiences } from './audiences.js';
import type { ReleasedCopies } from './dates.js';
import { checkDates } from './dates.js';
import type { Check, CheckFacts } from './facts.js';
import { checkWritten } from './written.js';

/** All that looks wrong in a course as it is now: what is with people or will be, and what is written in drafts. What is closed or withdrawn is past. */
export function checksOf({ sight, written, now }: CheckFacts): readonly Check[] {
  const viewers = [...viewersAt(sight, now).values()].filter(({ hasLeft }) => !hasLeft);
  const course = classOf(sight.groups, viewers);
  const setOf = new Map(course.groups.map((group) => [group.groupId, { kind: 'group' as const, ...group }]));
  const released: ReleasedCopies[] = [];
  const checks: Check[] = [];
  for (const { activityId, release, copies } of sight.activities) {
    const own = written.get(activityId);
    const isOver = release?.state.state === 'withdrawn' || release?.state.state === 'closed';
    if (!own || isOver || (release && release.schedule.closes !== null && release.schedule.closes <= now && release.state.state === 'live')) continue; // prettier-ignore
    const isOut = release !== null && release.state.state !== 'draft';
    checks.push(...checkWritten(activityId, own, isOut ? release : null, setOf));
    if (!isOut) continue;
    const each = { activityId, release, copies, isWork: own.isWork };
    released.push(each);
    if (own.isWork) checks.push(...checkDone(each, own.whyNotDone, course));
  }
  return [
    ...checkAudiences(released, course),
    ...checkDates(released, course.students, now),
    ...checks,
    ...checkStaff(viewers),
  ];
}

function classOf(groups: Class['groups'], viewers: readonly Viewer[]): Class {
  const students = viewers.filter(({ role }) => role === 'student');
  const sizes = new Map<GroupId, number>();
  for (const student of students)
    for (const { groupId } of student.groups) sizes.set(groupId, (sizes.get(groupId) ?? 0) + 1);
  return { students, groups, sizes };
}

/** Work that no one in a group can do as it is asked. */
function* checkDone(
  { activityId, release }: Released,
  whyNotDone: (members: number) => string | null,
  { groups, sizes, students }: Class,
): Iterable<Check> {
  if (release.mode !== 'own') {
    const why = whyNotDone(students.length);
    if (why !== null) yield { code: 'cannot-be-done', activityId, why, groupIds: [] };
    return;
  }
  const byWhy = new Map<string, GroupId[]>();
  for (const group of groups) {
    const members = sizes.get(group.groupId) ?? 0;
    const why = members > 0 && reachesGroup(release.audience, group) ? whyNotDone(members) : null;
    if (why !== null) byWhy.set(why, [...(byWhy.get(why) ?? []), group.groupId]);
  }
  for (const [why, groupIds] of byWhy) yield { code: 'cannot-be-done', activityId, why, groupIds };
}

function* checkStaff(viewers: readonly Viewer[]): Iterable<Check> {
  for (const { role, seesOnlyLed, leads, enrolmentId } of viewers)
    if (role === 'assistant' && seesOnlyLed && leads.length === 0) yield { code: 'leads-none', enrolmentId };
}
