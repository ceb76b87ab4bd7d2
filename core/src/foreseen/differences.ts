import isEqual from 'fast-deep-equal';
import type { Viewer } from '../course/index.js';
import type { ActivityId, EnrolmentId, GroupId } from '../ids/index.js';
import { atLeast, datesFor, decide } from '../release/index.js';
import type { Access, Instant } from '../release/index.js';
import type { SightActivity, SightFacts } from '../sightlines/index.js';
import { copiesThatMatter, foundIn, releaseAt, viewersAt } from '../sightlines/index.js';

/** What one student has of an activity. */
export interface Held {
  /** The most that they may do in any of its copies. */
  readonly access: Access;
  /** The copies that are theirs, by whose group, with when their work is due; null: the one for all. */
  readonly own: readonly { readonly groupId: GroupId | null; readonly due: Instant | null }[];
  /** Copies of others that they may read. */
  readonly reads: number;
}

/** One student has something else of one activity than before. */
export interface Difference {
  readonly activityId: ActivityId;
  readonly enrolmentId: EnrolmentId;
  readonly before: Held;
  readonly after: Held;
}

const nothing: Held = { access: 'hidden', own: [], reads: 0 };

/** Who has something else of what, in the order of the activities and people as they are afterwards. Someone who came to the course or left it had, or has, nothing of it. */
export function differencesOf(before: SightFacts, after: SightFacts, at: Instant): readonly Difference[] {
  const [was, is] = [heldIn(before, at), heldIn(after, at)];
  return [...new Set([...is.keys(), ...was.keys()])].flatMap((activityId) => {
    const [then, now] = [was.get(activityId), is.get(activityId)];
    return [...new Set([...(now?.keys() ?? []), ...(then?.keys() ?? [])])].flatMap((enrolmentId) => {
      const each = { before: then?.get(enrolmentId) ?? nothing, after: now?.get(enrolmentId) ?? nothing };
      return isEqual(each.before, each.after) ? [] : [{ activityId, enrolmentId, ...each }];
    });
  });
}

/** One order, wherever people sat down first. */
const byGroup = (a: { readonly groupId: GroupId | null }, b: { readonly groupId: GroupId | null }) =>
  (a.groupId ?? '').localeCompare(b.groupId ?? '');

type HeldBy = ReadonlyMap<EnrolmentId, Held>;

function heldIn(facts: SightFacts, at: Instant): ReadonlyMap<ActivityId, HeldBy> {
  const students = [...viewersAt(facts, at).values()].filter(
    ({ role, hasLeft }) => role === 'student' && !hasLeft,
  );
  return new Map(facts.activities.map((activity) => [activity.activityId, heldOf(activity, students, at)]));
}

function heldOf({ release: kept, copies }: SightActivity, students: readonly Viewer[], at: Instant): HeldBy {
  if (kept === null) return new Map();
  const release = releaseAt(kept, at);
  const found = foundIn(copies);
  return new Map(
    students.map((viewer): [EnrolmentId, Held] => {
      let access: Access = 'hidden';
      let reads = 0;
      const own: Held['own'][number][] = [];
      // Where no one reads along, the copies of others are nothing to anybody but the first, which tells what outsiders learn.
      const looked = release.mode === 'read-along' ? copies : copiesThatMatter(viewer, found);
      for (const copy of looked) {
        const decision = decide(viewer, release, copy, at);
        if (!atLeast(access, decision.access)) access = decision.access;
        if (!atLeast(decision.access, 'read-only')) continue;
        if (decision.part === 'reader') reads += 1;
        else
          own.push({
            groupId: copy.groupId,
            due: datesFor(release.schedule, copy.extension, release.ownTime.get(viewer.enrolmentId) ?? null)
              .due,
          });
      }
      return [viewer.enrolmentId, { access, own: own.sort(byGroup), reads }];
    }),
  );
}
