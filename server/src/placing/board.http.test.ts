import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { BoardView, MovesOf } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { readGroupFile } from '@jigsaw/core/placing';
import { readTable } from '@jigsaw/core/roster';
import { aCourse, aMember } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let count = 0;
beforeAll(async () => {
  server = await startTestServer();
});
// A course of its own for each, so that no test builds on what another left.
beforeEach(async () => {
  count += 1;
  given = await aCourse(server, { email: `ilse${count}@quillmere.example`, students: 5, groups: 2 });
});
afterAll(() => server.stop());

const board = async () =>
  (await given.instructor.get(`/api/sets/${given.set.id}/board`).expect(200)).body as BoardView;
const place = (moves: unknown[]) => given.instructor.post(`/api/sets/${given.set.id}/place`).send({ moves });
const idOf = (name: string) => sure(given.students.get(name)).enrolmentId;
const groupOf = async (name: string) =>
  sure((await board()).students.find((student) => student.enrolmentId === idOf(name))).seats[0]?.groupId ??
  null;

describe('group sets', () => {
  it('makes groups of the size asked for, with pasted names first', async () => {
    const set = await given.instructor
      .post(`/api/courses/${given.course.id}/sets`)
      .send({
        name: 'Pairs',
        shape: { by: 'size', size: 2, how: 'spread' },
        capacity: 2,
        pattern: 'Pair {A}',
        names: ['Firsts'],
      })
      .expect(200);
    expect(set.body).toMatchObject({ groupCount: 3, unplaced: 5 });
    const { body } = (await given.instructor
      .get(`/api/sets/${(set.body as { id: string }).id}/board`)
      .expect(200)) as { body: BoardView };
    expect(body.groups.map((group) => group.name)).toEqual(['Firsts', 'Pair B', 'Pair C']);
  });

  it('says what is wrong with a shape', async () => {
    const refused = await given.instructor
      .post(`/api/courses/${given.course.id}/sets`)
      .send({ name: 'None', shape: { by: 'count', groups: 0 }, capacity: null, pattern: '', names: [] })
      .expect(422);
    expect(refused.body).toMatchObject({
      issues: [{ path: 'shape.groups', message: 'Make at least 1 group.' }],
    });
  });
});

describe('a set taken elsewhere', () => {
  it('is copied with everyone in the same group, or empty', async () => {
    const copy = async (withMembers: boolean) => {
      const { body } = await given.instructor
        .post(`/api/sets/${given.set.id}/copies`)
        .send({ name: 'Again', withMembers })
        .expect(200);
      return (await given.instructor.get(`/api/sets/${(body as { id: string }).id}/board`).expect(200))
        .body as BoardView;
    };
    const seats = ({ students, groups }: BoardView) =>
      students.map((each) => groups.find((group) => group.id === each.seats[0]?.groupId)?.name ?? null);
    expect(seats(await copy(true))).toEqual(seats(await board()));
    const empty = await copy(false);
    expect([empty.groups.map((group) => group.name), empty.set.unplaced]).toEqual([['Crock', 'Carboy'], 5]);
    expect((await board()).students).toEqual((await board()).students);
  });

  it('goes out as a file that gives the same places', async () => {
    await given.instructor
      .patch(`/api/groups/${sure(given.board.groups[0]).id}`)
      .send({ name: '=Crock', capacity: null, version: 1 })
      .expect(200);
    const { text } = await given.instructor.get(`/api/sets/${given.set.id}/groups.csv`).expect(200);
    expect(text).toContain("1,'=Crock,");
    const table = readTable(new Uint8Array(Buffer.from(text)));
    if (!table.ok) throw new Error(table.code);
    const now = await board();
    const seated = now.students.filter((student) => student.seats.length > 0);
    const file = readGroupFile(
      table.table,
      now.students.map((student) => ({ ...student, seats: [] })),
      now.groups,
    );
    expect(file).toMatchObject({ ok: true, problems: [] });
    if (file.ok)
      expect(Object.fromEntries(file.moves.map((move) => [move.student, move.to]))).toEqual(
        Object.fromEntries(seated.map((each) => [each.enrolmentId, sure(each.seats[0]).groupId])),
      );
    await given.instructor
      .patch(`/api/groups/${sure(given.board.groups[0]).id}`)
      .send({ name: 'Crock', capacity: null, version: 2 })
      .expect(200);
    for (const browser of [sure(given.students.get('noor')).browser]) {
      await browser.get(`/api/sets/${given.set.id}/groups.csv`).expect(404);
      await browser
        .post(`/api/sets/${given.set.id}/copies`)
        .send({ name: 'Mine', withMembers: true })
        .expect(404);
    }
  });
});

describe('where someone has been', () => {
  it('is told with who put them there, to staff alone', async () => {
    const other = await aCourse(server, { email: 'places@quillmere.example', students: 2, groups: 1 });
    const { enrolmentId, browser } = sure(other.students.get('noor'));
    const [crock] = other.board.groups;
    const put = (moves: unknown[]) =>
      other.instructor.post(`/api/sets/${other.set.id}/place`).send({ moves }).expect(200);
    await put([{ student: enrolmentId, from: sure(crock).id, to: null }]);
    await put([{ student: enrolmentId, from: null, to: sure(crock).id }]);
    const at = `/api/courses/${other.course.id}/roster/${enrolmentId}/places`;
    expect((await other.instructor.get(at).expect(200)).body).toMatchObject({
      places: [
        { set: 'Bench teams', name: 'Crock', until: null, placedBy: 'Dr. Ilse Marrow', endedBy: null },
        { name: 'Crock', until: expect.any(String), endedBy: 'Dr. Ilse Marrow' },
      ],
    });
    await browser.get(at).expect(404);
    await given.instructor.get(at).expect(404);
    expect(
      (await given.instructor.get(`/api/courses/${given.course.id}/roster/${enrolmentId}/places`).expect(200))
        .body,
    ).toEqual({ places: [] });
  });
});

describe('who moved whom', () => {
  const moves = async (more = '') =>
    (await given.instructor.get(`/api/sets/${given.set.id}/moves${more}`).expect(200)).body as MovesOf;
  const put = async (move: object, why = '') => {
    server.clock.pass({ minutes: 1 });
    await given.instructor
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [move].flat(), ...(why && { why }) })
      .expect(200);
  };
  const toCrock = async () => sure((await board()).groups[0]).id;

  it('is told act by act, the latest first, and with the Board', async () => {
    const [, carboy] = (await board()).groups.map((group) => group.id);
    const [noor, jorge] = [idOf('noor'), idOf('jorge')];
    const from = { noor: await groupOf('noor'), jorge: await groupOf('jorge') };
    await put([
      { student: noor, from: from.noor, to: null },
      { student: jorge, from: from.jorge, to: null },
    ]);
    await put({ student: noor, from: null, to: sure(carboy) }, 'Timetable clash');
    const [last, before, ...earlier] = (await moves()).acts;
    expect(last).toMatchObject({
      by: 'Dr. Ilse Marrow',
      isYours: true,
      count: 1,
      why: 'Timetable clash',
      moves: [{ enrolmentId: noor, from: [], to: [{ number: 2 }] }],
    });
    expect(before).toMatchObject({ count: 2, moves: [{ to: [] }, { to: [] }] });
    expect((await board()).latest).toEqual(last);
    expect((await moves(`?before=${sure(before).at}`)).acts).toEqual(earlier);
  });

  it('says of each reader what was theirs', async () => {
    const jo = await aMember(server, given, `jo${count}`, 'assistant');
    server.clock.pass({ minutes: 1 });
    await jo
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [{ student: idOf('noor'), from: await groupOf('noor'), to: null }] })
      .expect(200);
    const latest = async (reader: typeof jo) =>
      ((await reader.get(`/api/sets/${given.set.id}/board`).expect(200)).body as BoardView).latest;
    expect(await latest(given.instructor)).toMatchObject({ by: `Jo${count}`, isYours: false, removed: 1 });
    expect(await latest(jo)).toMatchObject({ by: `Jo${count}`, isYours: true });
  });

  it('is for staff of the course, and its moment is a moment', async () => {
    const noor = sure(given.students.get('noor')).browser;
    await noor.get(`/api/sets/${given.set.id}/moves`).expect(404);
    await given.instructor.get(`/api/sets/${given.set.id}/moves?before=yesterday`).expect(422);
  });

  it('comes in parts', async () => {
    const to = await toCrock();
    const student = idOf('noor');
    await put({ student, from: await groupOf('noor'), to: null });
    for (let turn = 0; turn < 26; turn += 1) {
      await put({ student, from: null, to });
      await put({ student, from: to, to: null });
    }
    const first = await moves();
    expect(first.acts).toHaveLength(50);
    const rest = await moves(`?before=${sure(first.before ?? undefined)}`);
    expect(rest.before).toBeNull();
    expect(rest.acts.length).toBeGreaterThan(2);
    const moments = [...first.acts, ...rest.acts].map((act) => act.at);
    expect(moments).toEqual(moments.toSorted().toReversed());
  });
});

describe('placing', () => {
  it('moves, swaps and pulls out, and counts who is unplaced', async () => {
    const [crock, carboy] = given.board.groups;
    const placed = await place([{ student: idOf('nino'), from: null, to: sure(carboy).id }]).expect(200);
    expect(placed.body).toMatchObject({ unplaced: 0, credited: [] });
    await place([
      { student: idOf('noor'), from: sure(crock).id, to: sure(carboy).id },
      { student: idOf('amina'), from: sure(carboy).id, to: sure(crock).id },
    ]).expect(200);
    expect([await groupOf('noor'), await groupOf('amina')]).toEqual([sure(carboy).id, sure(crock).id]);
    const pulledOut = await place([{ student: idOf('nino'), from: sure(carboy).id, to: null }]).expect(200);
    expect(pulledOut.body).toMatchObject({ unplaced: 1 });
  });

  it('moves no one when one of them was moved meanwhile, and shows the Board as it is', async () => {
    const [crock] = given.board.groups;
    const before = await board();
    const refused = await place([
      { student: idOf('nino'), from: null, to: sure(crock).id },
      { student: idOf('amina'), from: sure(crock).id, to: null }, // who sits in Carboy
    ]).expect(409);
    expect(refused.body).toMatchObject({
      type: '/problems/stale-write',
      current: { students: before.students },
    });
    expect(await board()).toEqual(before);
  });

  it('keeps the whole history of who was where', async () => {
    const [crock, carboy] = given.board.groups;
    await place([{ student: idOf('noor'), from: sure(crock).id, to: sure(carboy).id }]).expect(200);
    const rows = (await server.rows(
      `SELECT "until" FROM "membership" WHERE "enrolmentId" = '${idOf('noor')}' AND "setId" = '${given.set.id}' ORDER BY "from", "id"`,
    )) as { until: Date | null }[];
    expect(rows.map((row) => row.until === null)).toEqual([false, true]);
  });

  it('never has a student twice in an exclusive set, however many place at once', async () => {
    const [crock, carboy] = given.board.groups;
    const answers = await Promise.all(
      Array.from({ length: 12 }, (_, at) =>
        place([{ student: idOf('nino'), from: null, to: at % 2 ? sure(crock).id : sure(carboy).id }]),
      ),
    );
    expect(answers.filter((answer) => answer.status === 200)).toHaveLength(1);
    expect(answers.filter((answer) => answer.status === 409)).toHaveLength(11);
  });

  it('places no one into a group of another set, nor a stranger', async () => {
    const other = await aCourse(server, { email: 'other@quillmere.example', students: 2, groups: 1 });
    await place([
      { student: idOf('noor'), from: await groupOf('noor'), to: sure(other.board.groups[0]).id },
    ]).expect(404);
    await other.instructor
      .post(`/api/sets/${other.set.id}/place`)
      .send({ moves: [{ student: idOf('noor'), from: null, to: sure(other.board.groups[0]).id }] })
      .expect(409);
  });

  it('is closed to students and to other courses', async () => {
    const other = await server.instructor('third@quillmere.example');
    for (const browser of [sure(given.students.get('noor')).browser, other]) {
      await browser.get(`/api/sets/${given.set.id}/board`).expect(404);
      await browser
        .post(`/api/sets/${given.set.id}/place`)
        .send({ moves: [{ student: idOf('noor'), from: null, to: null }] })
        .expect(404);
    }
  });

  it('renames a group for everyone, and shows a stale rename what is there', async () => {
    const group = sure((await board()).groups[0]);
    await given.instructor
      .patch(`/api/groups/${group.id}`)
      .send({ name: 'Kvevri', capacity: 3, version: group.version })
      .expect(200);
    const refused = await given.instructor
      .patch(`/api/groups/${group.id}`)
      .send({ name: 'Tun', capacity: 3, version: group.version })
      .expect(409);
    expect(refused.body).toMatchObject({ current: { name: 'Kvevri', capacity: 3 } });
  });
});

describe('a set that was put away', () => {
  it('takes no one, until it is brought back', async () => {
    const archive = (isArchived: boolean) =>
      given.instructor.post(`/api/sets/${given.set.id}/archive`).send({ isArchived }).expect(200);
    const before = await board();
    const [crock] = given.board.groups;
    const nino = idOf('nino');
    const from = before.students.find((each) => each.enrolmentId === nino)?.seats[0]?.groupId ?? null;
    const to = from === null ? sure(crock).id : null;
    await archive(true);
    const refused = await place([{ student: nino, from, to }]).expect(409);
    expect(refused.body).toMatchObject({
      detail: 'This set is archived. Restore it before you place students.',
    });
    await archive(false);
    await place([{ student: nino, from, to }]).expect(200);
  });
});
