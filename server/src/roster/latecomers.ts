import type { EntityManager } from 'typeorm';
import type { GroupId, CourseId } from '@jigsaw/core/ids';
import type { EntryChange, Roster, RosterChange } from '@jigsaw/core/roster';
import { seatsForLatecomers } from '../placing/index.js';

/** Adds the seats of those who join to the change that brings them, so that undoing it frees them.
 * @returns the change, and how many seats were given. */
export async function seatLatecomers(
  manager: EntityManager,
  courseId: CourseId,
  roster: Roster,
  change: RosterChange,
): Promise<{ readonly change: RosterChange; readonly seated: number }> {
  const latecomers = change.flatMap((each) =>
    joins(each, roster)
      ? [
          {
            enrolmentId: each.enrolmentId,
            attributes: attributesOf(each, roster),
            groups: seatsOf(each, roster),
          },
        ]
      : [],
  );
  const classmates = new Map(
    [...roster].flatMap(([id, entry]) =>
      entry.isHere && entry.role === 'student' ? [[id, entry.attributes] as const] : [],
    ),
  );
  const seats = await seatsForLatecomers(manager, courseId, latecomers, classmates);
  const next = change.map((each) => seated(each, roster, seats.get(each.enrolmentId) ?? []));
  return { change: next, seated: [...seats.values()].flat().length };
}

function seated(each: EntryChange, roster: Roster, seats: readonly GroupId[]): EntryChange {
  if (seats.length === 0) return each;
  const groups = [...seatsOf(each, roster), ...seats];
  if (each.kind !== 'set') return { ...each, entry: { ...each.entry, groups } };
  const before = roster.get(each.enrolmentId)?.groups ?? [];
  return { ...each, from: { ...each.from, groups: before }, to: { ...each.to, groups } };
}

const seatsOf = (each: EntryChange, roster: Roster): readonly GroupId[] =>
  each.kind === 'set' ? (each.to.groups ?? roster.get(each.enrolmentId)?.groups ?? []) : each.entry.groups;

const attributesOf = (each: EntryChange, roster: Roster): Readonly<Record<string, string>> =>
  each.kind === 'set' ? (roster.get(each.enrolmentId)?.attributes ?? {}) : each.entry.attributes;

/** A student who was not here before. */
function joins(each: EntryChange, roster: Roster): boolean {
  if (each.kind === 'add') return each.entry.role === 'student';
  if (each.kind === 'remove' || each.to.isHere !== true) return false;
  return (each.to.role ?? roster.get(each.enrolmentId)?.role) === 'student';
}
