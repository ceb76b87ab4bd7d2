import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { z } from 'zod';
import type { DeskView, MarkView } from '@jigsaw/contract/marks';
import type { ActivityView } from '@jigsaw/contract/release';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourse, anAssignment, aSheet, itemOf, released, gradebookOf } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { Kinds, onTime } from './kinds.js';
import type { ActivityKind } from './kinds.js';
import { wholeSet } from '@jigsaw/core/release';

/** The smallest kind there can be: every member is asked to ring a bell, and a bell that was rung is an event of its own table-less kind. */
const rung: { copyId: string; id: string; by: string; at: string }[] = [];
const quoted = (text: string) => `'${text}'`;
const bell: ActivityKind<{ loud: boolean }> = {
  name: 'bell',
  settings: z.strictObject({ loud: z.boolean().default(false) }),
  modes: () => ['own'],
  markFor: () => 'group',
  isHandedIn: false,
  isWork: true,
  isMarked: true,
  itemsSql: (copies) =>
    rung.length === 0
      ? `SELECT NULL::uuid AS "copyId", NULL::uuid AS "subjectId", 1 AS "version", NULL::uuid AS "authorId", NULL::uuid AS "ownerId", now() AS "at", '' AS "excerpt" FROM unnest(${copies}) WHERE false`
      : `SELECT * FROM (VALUES ${rung
          .map(
            ({ copyId, id, by, at }) =>
              `(${quoted(copyId)}::uuid, ${quoted(id)}::uuid, 1, ${quoted(by)}::uuid, NULL::uuid, ${quoted(at)}::timestamptz, 'Ding')`,
          )
          .join(
            ', ',
          )}) AS item("copyId", "subjectId", "version", "authorId", "ownerId", "at", "excerpt") WHERE "copyId" = ANY(${copies})`,
  begin: ({ copies, settings }) => {
    opened.push(...copies.map(() => settings.loud));
    return Promise.resolve();
  },
  progress: ({ accesses }) =>
    Promise.resolve(
      new Map(
        accesses.map(({ copy, decision }) => {
          const isRung = rung.some((each) => each.copyId === copy.id);
          const state = isRung ? ('done' as const) : ('not-started' as const);
          return [
            copy.id,
            {
              state,
              isYours: false,
              owes: decision.part === 'member' && !isRung,
              at: null,
              late: null,
              done: null,
              asked: null,
            },
          ];
        }),
      ),
    ),
  works: ({ accesses, membersOf }) =>
    Promise.resolve(
      accesses.map(({ copy }) => {
        const ring = rung.find((each) => each.copyId === copy.id);
        const latest = ring ? { at: new Date(ring.at), by: 'Noor' } : null;
        return {
          copyId: copy.id,
          unit: 'group' as const,
          latest,
          isComplete: latest !== null,
          late: onTime,
          credited: membersOf(copy.id),
          suggestion: null,
        };
      }),
    ),
  evidence: ({ accesses, membersOf }) =>
    Promise.resolve(
      new Map(
        accesses.map(({ copy }) => [
          copy.id,
          new Map(membersOf(copy.id).map((id) => [id, [{ label: 'rings', value: '1' }]])),
        ]),
      ),
    ),
};
const opened: boolean[] = [];

let server: TestServer;
let given: CourseForTests;
let activity: ActivityView;
const student = (name: string): Browser => sure(given.students.get(name)).browser;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 });
  server.app.get(Kinds, { strict: false }).register(bell);
  activity = await released(given, { kind: 'bell', title: 'Ring once', settings: { loud: true } });
});
afterAll(() => server.stop());

describe('a kind of activity that registers itself', () => {
  it('is composed with its own settings, which its own schema checks', async () => {
    expect(activity).toMatchObject({ kind: 'bell', settings: { loud: true } });
    const refused = await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send(anAssignment({ kind: 'bell', settings: { loud: 'very' } }))
      .expect(422);
    expect(refused.body).toMatchObject({ issues: [{ path: 'settings.loud' }] });
    const plain = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/activities`)
        .send(anAssignment({ kind: 'bell' }))
        .expect(200)
    ).body as ActivityView;
    expect(plain.settings).toEqual({ loud: false });
  });

  it('begins each copy, is released only in its own ways, and is hidden by the one decision function', async () => {
    expect(opened).toEqual([true, true]);
    const draft = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/activities`)
        .send(anAssignment({ kind: 'bell' }))
        .expect(200)
    ).body as ActivityView;
    await given.instructor
      .post(`/api/activities/${draft.id}/release`)
      .send({
        to: wholeSet(given.set.id),
        mode: 'read-along',
        outsiders: 'hidden',
        goesLiveAt: null,
        version: 1,
      })
      .expect(422);
    const { copyId } = await itemOf(student('noor'), given.course.id, 'Ring once');
    expect(((await student('noor').get(`/api/copies/${copyId}`).expect(200)).body as CopyHead).kind).toBe(
      'bell',
    );
    await student('amina').get(`/api/copies/${copyId}`).expect(404);
    await student('noor').get(`/api/copies/${copyId}/work`).expect(404); // nothing of another kind answers for it
  });

  it('stands in rooms, counts as owed and as new, and is marked like any other', async () => {
    const figures = async (browser: Browser) =>
      (await browser.get(`/api/courses/${given.course.id}/figures`).expect(200)).body as Record<
        string,
        number
      >;
    const { copyId, progress } = await itemOf(student('jorge'), given.course.id, 'Ring once');
    expect(progress).toMatchObject({ state: 'not-started', owes: true });
    expect(await figures(student('jorge'))).toMatchObject({ due: 1, unread: 0 });

    const id = '01920000-0000-7000-8000-00000000be11';
    rung.push({
      copyId,
      id,
      by: sure(given.students.get('noor')).enrolmentId,
      at: server.clock.now().toISOString(),
    });
    expect(await itemOf(student('jorge'), given.course.id, 'Ring once')).toMatchObject({
      unread: 1,
      latest: { by: 'Noor', excerpt: 'Ding' },
      progress: { owes: false },
    });
    expect(await figures(student('jorge'))).toMatchObject({ due: 0, unread: 1 });
    expect(await figures(given.instructor)).toMatchObject({ unread: 1, toMark: 1 });
    await student('jorge')
      .post(`/api/copies/${copyId}/seen`)
      .send({ what: 'items', items: [{ id, version: 1 }] })
      .expect(200, { unread: 0 });

    const desk = (await given.instructor.get(`/api/releases/${sure(activity.release).id}/desk`).expect(200))
      .body as DeskView;
    expect(desk).toMatchObject({
      kind: 'bell',
      rows: [
        { needsYou: true, work: { by: 'Noor' } },
        { needsYou: false, work: null },
      ],
    });
    await given.instructor
      .put(`/api/copies/${copyId}/marks/group`)
      .send({ ...aSheet, typedMark: '7' })
      .expect(200);
    await given.instructor.post(`/api/copies/${copyId}/marks/group/release`).send({ version: 1 }).expect(200);
    const mark = (await given.instructor.get(`/api/copies/${copyId}/marks/group`).expect(200))
      .body as MarkView;
    expect(mark.members[0]).toMatchObject({ mark: '7', evidence: [{ label: 'rings', value: '1' }] });
    const book = await gradebookOf(given);
    expect(sure(book.students.find((each) => each.name === 'Jorge')).cells[0]).toMatchObject([
      { state: 'released', mark: '7' },
    ]);
  });

  it('cannot be registered twice under one name', () =>
    expect(() => server.app.get(Kinds, { strict: false }).register(bell)).toThrow(/registered once/));
});
