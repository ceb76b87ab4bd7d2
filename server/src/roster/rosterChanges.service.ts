import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { RosterAct, RosterChanged, RosterChangeList, RosterChangeView } from '@jigsaw/contract/roster';
import { sameAddress } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId, GroupId, RosterChangeId, GroupSetId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { EntryChange, EntryFields, Roster, RosterChange } from '@jigsaw/core/roster';
import { applyChange, asRole, changeOf, dropped, inverseOf, joinChange, sayFault } from '@jigsaw/core/roster';
import { namesTogether } from '@jigsaw/core/text';
import { AttributeNames, chosenKinds, lockCourse, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { accountNames, PeopleService } from '../identity/index.js';
import { Memberships } from '../placing/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { Work } from '../platform/unitOfWork.js';
import { Joining } from './joining.js';
import { seatLatecomers } from './latecomers.js';
import type { Renamed } from './renamed.js';
import { renamedIn } from './renamed.js';
import type { RosterChangeKind } from './roster.rows.js';
import { RosterChangeRow } from './roster.rows.js';
import { groupsTouched, peopleTouched, readEntries, writeChange } from './rosterStore.js';

const changesShown = 30;
const namesShown = 3;

type Reading = Pick<Work, 'manager' | 'now'>;
interface Done extends Reading {
  /** null: nothing changed. */
  readonly changeId: RosterChangeId | null;
}

/** With which someone may join. */
const joiningKinds: ReadonlySet<RosterChangeKind> = new Set(['import', 'sync', 'add', 'restore']);

/** The one way in which a roster changes: a value that is checked, written, recorded and can be undone. */
@Injectable()
export class RosterChanges {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly people: PeopleService,
    private readonly joining: Joining,
    private readonly memberships: Memberships,
    private readonly attributes: AttributeNames,
  ) {}

  async act(person: SignedIn, courseId: CourseId, request: RosterAct): Promise<RosterChanged> {
    const { enrolmentId: you } = await this.viewers.staff(person, courseId, 'manage-roster');
    if (request.act === 'join') return this.join(person, courseId, request, you);
    if (request.act === 'rename-attribute') return this.rename(person, courseId, request);
    return this.run(person, courseId, request.act, (roster) => changeFor(request, roster, you));
  }

  /** Inside a transaction that holds the course, so that of two acts at once the second sees what the first did. */
  async run(
    person: SignedIn,
    courseId: CourseId,
    kind: RosterChangeKind,
    build: (roster: Roster, work: Reading) => RosterChange | Promise<RosterChange>,
    /** Within the same transaction, also when nothing changed. */
    afterwards?: (work: Done) => Promise<void>,
  ): Promise<RosterChanged> {
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await lockCourse(manager, courseId);
      const before = await readEntries(manager, courseId);
      const built = await build(before, { manager, now });
      const { change, seated } = joiningKinds.has(kind)
        ? await seatLatecomers(manager, courseId, before, built)
        : { change: built, seated: 0 };
      if (change.length === 0) {
        await afterwards?.({ manager, now, changeId: null });
        return { changeId: null, people: 0, seated: 0 };
      }
      const changed = applyChange(before, change);
      if (!changed.ok) throw refusal(changed, before, change);
      await writeChange(
        { manager, courseId, actorId: person.id, now, people: this.people, memberships: this.memberships },
        change,
        before,
        changed.roster,
      );
      const id = newId<'roster-change'>();
      await manager.query(
        `INSERT INTO "roster_change" ("id", "courseId", "actorId", "at", "kind", "change") VALUES ($1, $2, $3, $4, $5, $6)`,
        [id, courseId, person.id, now, kind, JSON.stringify(change)],
      );
      await afterwards?.({ manager, now, changeId: id });
      await record({
        type: kind === 'import' || kind === 'sync' ? 'roster.imported' : 'roster.changed',
        courseId,
        actorId: person.id,
        subjectId: courseId,
        facts: { changeId: id, people: change.length },
        groupIds: groupsTouched(change),
        enrolmentIds: peopleTouched(change),
      });
      return { changeId: id, people: change.length, seated };
    });
  }

  private async rename(person: SignedIn, courseId: CourseId, { from, to }: Renamed): Promise<RosterChanged> {
    return this.run(
      person,
      courseId,
      'rename-attribute',
      async (roster, { manager }) => {
        const isTaken =
          [...roster.values()].some((entry) => Object.hasOwn(entry.attributes, to)) ||
          Object.hasOwn(await chosenKinds(manager, courseId), to);
        if (isTaken)
          throw problems.invalidInput(`${to} is the name of another attribute here. Choose one of its own.`);
        return [...roster].flatMap(([enrolmentId, entry]) => {
          const value = Object.hasOwn(entry.attributes, from) ? sure(entry.attributes[from]) : null;
          return value === null
            ? []
            : (changeOf(enrolmentId, entry, { attributes: { [from]: null, [to]: value } }) ?? []);
        });
      },
      ({ manager }) => this.attributes.rename(manager, courseId, { from, to }),
    );
  }

  /** Two entries of one person become one, with all that hangs on either. */
  private async join(
    person: SignedIn,
    courseId: CourseId,
    { keep, other }: Extract<RosterAct, { act: 'join' }>,
    you: EnrolmentId,
  ): Promise<RosterChanged> {
    if (other === you) throw problems.invalidInput('Keep your own entry.');
    if (other === keep) throw problems.invalidInput('These are one entry already. Choose two.');
    return this.run(
      person,
      courseId,
      'join',
      async (roster, { manager }) => {
        const groups = [...known(roster, keep).groups, ...known(roster, other).groups];
        // Where one may be in several groups, each stands for itself.
        const sets = await manager.query<{ id: GroupId; setId: GroupSetId }[]>(
          `SELECT "groupId" AS "id", CASE WHEN "isExclusive" THEN "setId" ELSE "groupId" END AS "setId"
             FROM "set_group" WHERE "groupId" = ANY($1)`,
          [groups],
        );
        const setOf = new Map(sets.map((group) => [group.id, group.setId]));
        return joinChange(roster, keep, other, (groupId) => sure(setOf.get(groupId)));
      },
      async ({ manager, changeId }) => {
        const traces = await this.joining.join(manager, keep, other);
        await manager.query(`UPDATE "roster_change" SET "traces" = $2 WHERE "id" = $1`, [
          changeId,
          JSON.stringify(traces),
        ]);
      },
    );
  }

  async undo(person: SignedIn, courseId: CourseId, changeId: RosterChangeId): Promise<RosterChanged> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    return this.run(person, courseId, 'undo', async (_roster, { manager, now }) => {
      const row = await manager.findOneBy(RosterChangeRow, { id: changeId, courseId });
      if (!row) throw problems.notFound();
      if (row.undoneAt) return []; // pressed twice
      if (partsEntries(row))
        throw problems.conflict('These two were separated by hand. Join them again from the roster.');
      const renamed = row.kind === 'rename-attribute' ? renamedIn(row.change) : null;
      if (renamed) await this.attributes.rename(manager, courseId, { from: renamed.to, to: renamed.from });
      if (row.traces) await this.joining.part(manager, row.traces);
      await manager.update(RosterChangeRow, changeId, { undoneAt: now });
      return inverseOf(row.change);
    });
  }

  async list(person: SignedIn, courseId: CourseId): Promise<RosterChangeList> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    const { manager } = this.dataSource;
    const rows = await manager.find(RosterChangeRow, {
      where: { courseId },
      order: { at: 'DESC', id: 'DESC' },
      take: changesShown,
    });
    const nameOf = await accountNames(
      manager,
      rows.map((row) => row.actorId),
    );
    const now = await readEntries(manager, courseId);
    return { changes: rows.map((row) => viewOf(row, nameOf.get(row.actorId) ?? '', now)) };
  }
}

function changeFor(
  request: Exclude<RosterAct, { act: 'join' | 'rename-attribute' }>,
  roster: Roster,
  you: EnrolmentId,
): RosterChange {
  switch (request.act) {
    case 'add':
      return [addOrBringBack(request.entry, roster)];
    case 'edit':
      return request.edits.map((edit) => {
        const { role } = edit.to;
        const entry = known(roster, edit.enrolmentId);
        const isLosingPlaces = role !== undefined && role !== 'student' && entry.groups.length > 0;
        return {
          kind: 'set',
          enrolmentId: edit.enrolmentId,
          from: { ...clean(edit.from), ...(isLosingPlaces && { groups: entry.groups }) },
          to: { ...clean(edit.to), ...(role && isLosingPlaces ? asRole(role) : {}) },
        };
      });
    case 'drop':
      if (request.enrolmentIds.includes(you))
        throw problems.invalidInput('You cannot remove yourself from the course. Ask another instructor.');
      return setAll(request.enrolmentIds, roster, dropped);
    case 'restore':
      return setAll(request.enrolmentIds, roster, { isHere: true });
  }
}

const setAll = (enrolmentIds: readonly EnrolmentId[], roster: Roster, to: EntryFields): RosterChange =>
  [...new Set(enrolmentIds)].flatMap(
    (enrolmentId) => changeOf(enrolmentId, known(roster, enrolmentId), to) ?? [],
  );

function known(roster: Roster, enrolmentId: EnrolmentId) {
  const entry = roster.get(enrolmentId);
  if (!entry || entry.joinedTo !== null) throw problems.notFound();
  return entry;
}

function addOrBringBack(entry: Extract<RosterAct, { act: 'add' }>['entry'], roster: Roster): EntryChange {
  const found = [...roster].find(([, each]) => sameAddress(each.email) === sameAddress(entry.email));
  if (!found)
    return {
      kind: 'add',
      enrolmentId: newId<'enrolment'>(),
      entry: { ...entry, isHere: true, groups: [], joinedTo: null },
    };
  const [enrolmentId, there] = found;
  if (there.isHere)
    throw problems.invalidInput(`${there.name} is in this course already, with this address.`);
  const { email: _same, ...fields } = entry;
  return sure(changeOf(enrolmentId, there, { ...fields, isHere: true }));
}

/** What the contract left out is not there at all, so that a change holds only what it touches. */
const clean = (fields: EntryFieldsIn): EntryFields =>
  Object.fromEntries(Object.entries<unknown>(fields).filter(([, value]) => value !== undefined));
type EntryFieldsIn = Extract<RosterAct, { act: 'edit' }>['edits'][number]['to'];

function refusal(
  changed: Extract<ReturnType<typeof applyChange>, { ok: false }>,
  roster: Roster,
  change: RosterChange,
) {
  if (changed.fault) return problems.invalidInput(sayFault(changed.fault));
  const names = changed.conflicts
    .map((id) => roster.get(id)?.name ?? nameIn(change, id))
    .filter((name) => name !== null);
  return problems.conflict(
    `${namesTogether(names, namesShown)} ${names.length === 1 ? 'was' : 'were'} changed meanwhile, so nothing was done. Look at the roster as it is now.`,
  );
}

const nameIn = (change: RosterChange, id: EnrolmentId): string | null => {
  const each = change.find((one) => one.enrolmentId === id);
  return each && each.kind !== 'set' ? each.entry.name : null;
};

/** Undoing a join moves traces back to where they were; undoing that is joining anew, which asks for a press of its own. */
const partsEntries = ({ kind, change }: RosterChangeRow): boolean =>
  kind === 'undo' && change.some((each) => each.kind === 'set' && each.to.joinedTo === null);

function viewOf(row: RosterChangeRow, by: string, now: Roster): RosterChangeView {
  const counts = { added: 0, removed: 0, dropped: 0, back: 0, edited: 0 };
  for (const each of row.change) {
    if (each.kind === 'add') counts.added += 1;
    else if (each.kind === 'remove') counts.removed += 1;
    else if (each.to.isHere === false) counts.dropped += 1;
    else if (each.to.isHere === true) counts.back += 1;
    else counts.edited += 1;
  }
  const names = row.change
    .slice(0, namesShown)
    .flatMap((each) => (each.kind === 'set' ? (now.get(each.enrolmentId)?.name ?? []) : each.entry.name));
  return {
    id: row.id,
    kind: row.kind,
    at: row.at.toISOString(),
    by,
    counts,
    names,
    isUndone: row.undoneAt !== null,
    canUndo: row.undoneAt === null && !partsEntries(row),
  };
}
