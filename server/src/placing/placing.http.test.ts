import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { DataSource } from 'typeorm';
import type { GroupSetView } from '@jigsaw/contract/sets';
import type { BoardView, PlacesOf } from '@jigsaw/contract/placing';
import type { RoomList } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourse, addFile, copyOf, released, gradebookOf } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { setActs } from '../test/setActs.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let made = 0;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());
beforeEach(async () => {
  given = await aCourse(server, { email: `placed${(made += 1)}@quillmere.example`, students: 5, groups: 2 });
});

const { idOf, board, place, seatsOf, change } = setActs(() => given);

describe('leaders among the students', () => {
  it('are one a group, go with a move, and come back with its undoing', async () => {
    const [crock, carboy] = (await board()).groups.map((group) => group.id);
    const [noor, jorge] = [idOf('noor'), idOf('jorge')];
    const name = (student: string) => ({ student, from: crock, to: crock, leads: { from: false, to: true } });
    await place([name(noor)]).expect(409); // this set has none
    expect((await change({ hasLeaders: true })).status).toBe(200);
    await place([name(noor)]).expect(200);
    await place([name(jorge)]).expect(409);
    expect([await seatsOf('noor'), await seatsOf('jorge')]).toEqual([['Crock!'], ['Crock']]);
    await place([
      { student: noor, from: crock, to: crock, leads: { from: true, to: false } },
      name(jorge),
    ]).expect(200);
    expect([await seatsOf('noor'), await seatsOf('jorge')]).toEqual([['Crock'], ['Crock!']]);

    await place([{ student: jorge, from: crock, to: carboy, leads: { from: true, to: false } }]).expect(200);
    expect(await seatsOf('jorge')).toEqual(['Carboy']);
    await place([{ student: jorge, from: carboy, to: crock, leads: { from: false, to: true } }]).expect(200);
    expect(await seatsOf('jorge')).toEqual(['Crock!']);
    const { body } = (await sure(given.students.get('noor'))
      .browser.get(`/api/courses/${given.course.id}/rooms`)
      .expect(200)) as { body: RoomList };
    expect(sure(body.rooms[0]).members.map((member) => member.isLeader)).toEqual([true, false]);
    expect((await change({ hasLeaders: false })).status).toBe(200);
    expect(await seatsOf('jorge')).toEqual(['Crock']);
  });
});

describe('why someone was moved', () => {
  it('stands in their history, where they left and where they came', async () => {
    const [crock, carboy] = (await board()).groups.map((group) => group.id);
    await place([{ student: idOf('noor'), from: crock, to: carboy }], given.set.id, 'Timetable clash').expect(
      200,
    );
    const { body } = (await given.instructor
      .get(`/api/courses/${given.course.id}/roster/${idOf('noor')}/places`)
      .expect(200)) as { body: PlacesOf };
    expect(body.places.map(({ name, why, endedWhy }) => [name, why, endedWhy])).toEqual([
      ['Carboy', 'Timetable clash', null],
      ['Crock', null, 'Timetable clash'],
    ]);
  });
});

describe('credit for handed-in work', () => {
  it('stays with those who handed in; who comes shares the last hand-in where that is wished, and undoing takes it back', async () => {
    const activity = await released(given);
    const noor = sure(given.students.get('noor'));
    const amina = sure(given.students.get('amina'));
    const copyId = await copyOf(amina.browser, given.course.id);
    await addFile(amina.browser, copyId, 'notes.txt', Buffer.from('pH'));
    await amina.browser.post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
    const [crock, carboy] = (await board()).groups.map((group) => group.id);
    const creditedIn = async () => {
      const { students, activities } = await gradebookOf(given);
      const column = activities.findIndex((each) => each.activityId === activity.id);
      return students.flatMap((student) =>
        sure(student.cells[column]).some(({ state }) => state === 'to-mark') ? [student.name] : [],
      );
    };
    const move = (from: string, to: string, credit: string) =>
      given.instructor
        .post(`/api/sets/${given.set.id}/place`)
        .send({ moves: [{ student: noor.enrolmentId, from, to }], credit })
        .expect(200);
    server.clock.set('2026-11-10T11:00:00Z');
    await move(sure(crock), sure(carboy), 'stays');
    expect(await creditedIn()).toEqual(['Amina', 'Kofi']);
    await move(sure(carboy), sure(crock), 'taken-back');
    await amina.browser.post(`/api/copies/${copyId}/hand-in`).send({ attempt: 2 }).expect(200);
    server.clock.pass({ minutes: 5 });
    await move(sure(crock), sure(carboy), 'joins'); // the last hand-in, not the first
    expect(await creditedIn()).toEqual(['Amina', 'Kofi', 'Noor']);
    await move(sure(carboy), sure(crock), 'taken-back');
    expect(await creditedIn()).toEqual(['Amina', 'Kofi']);
    // Anyone who was there at the time keeps their credit, however they leave.
    await given.instructor
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [{ student: amina.enrolmentId, from: carboy, to: null }], credit: 'taken-back' })
      .expect(200);
    expect(await creditedIn()).toEqual(['Amina', 'Kofi']);
  });
});

describe('a set that is formed at hand-in', () => {
  it('begins without groups and offers no places', async () => {
    const draft = { name: 'Pairs', shape: { by: 'hand-in' }, capacity: 3, pattern: '', names: [] };
    const set = (await given.instructor.post(`/api/courses/${given.course.id}/sets`).send(draft).expect(200))
      .body as GroupSetView;
    expect(set).toMatchObject({ isFormedAtHandIn: true, groupCount: 0, capacity: 3 });
    const signUp = { opens: null, closes: null, showsNames: true };
    await given.instructor
      .post(`/api/courses/${given.course.id}/sets`)
      .send({ ...draft, signUp })
      .expect(422);
  });
});

describe('whatever happens at once', () => {
  it('no one sits twice in an exclusive set, no group is over its places, and no history overlaps', async () => {
    const names = [...given.students.keys()];
    const signUp = { opens: null, closes: null, showsNames: true };
    expect((await change({ signUp, capacity: 2 })).status).toBe(200);
    const { groups } = await board();
    await place(
      (await board()).students.flatMap(({ enrolmentId, seats }) =>
        seats.map((seat) => ({ student: enrolmentId, from: seat.groupId, to: null })),
      ),
    ).expect(200);
    type Act =
      | { by: 'student'; who: string; to: number | null }
      | { by: 'staff'; act: 'out' | 'swap'; who: string; other: string };
    const anAct: fc.Arbitrary<Act> = fc.oneof(
      fc.record({
        by: fc.constant('student' as const),
        who: fc.constantFrom(...names),
        to: fc.option(fc.nat(1)),
      }),
      fc.record({
        by: fc.constant('staff' as const),
        act: fc.constantFrom('out' as const, 'swap' as const),
        who: fc.constantFrom(...names),
        other: fc.constantFrom(...names),
      }),
    );
    const seatOf = (view: BoardView, name: string) =>
      sure(view.students.find((student) => student.enrolmentId === idOf(name))).seats[0]?.groupId ?? null;
    // Each of the staff acts on what they saw before: some of it is old by its turn, and then refused as a whole.
    const run = async (act: Act, seen: BoardView): Promise<number> => {
      if (act.by === 'student') {
        const to = act.to === null ? null : sure(groups[act.to]).id;
        return (
          await sure(given.students.get(act.who))
            .browser.post(`/api/sets/${given.set.id}/sign-up`)
            .send({ groupId: to })
        ).status;
      }
      const [from, to] = [seatOf(seen, act.who), act.act === 'out' ? null : seatOf(seen, act.other)];
      const back =
        act.act === 'swap' && act.who !== act.other ? [{ student: idOf(act.other), from: to, to: from }] : [];
      return (await place([{ student: idOf(act.who), from, to: act.who === act.other ? from : to }, ...back]))
        .status;
    };
    const query = (sql: string) => server.app.get(DataSource).query<unknown[]>(sql, [given.set.id]);
    await fc.assert(
      fc.asyncProperty(fc.array(anAct, { minLength: 4, maxLength: 12 }), async (acts) => {
        const seen = await board();
        const answers = await Promise.all(acts.map((act) => run(act, seen)));
        expect(answers.filter((status) => status !== 200 && status !== 409)).toEqual([]);
        expect(
          await query(
            `SELECT 1 FROM "membership" WHERE "setId" = $1 AND "until" IS NULL GROUP BY "enrolmentId" HAVING count(*) > 1`,
          ),
        ).toEqual([]);
        expect(
          await query(
            `SELECT 1 FROM "membership" WHERE "setId" = $1 AND "until" IS NULL GROUP BY "groupId" HAVING count(*) > 2`,
          ),
        ).toEqual([]);
        const overlapping = `SELECT 1 FROM "membership" a JOIN "membership" b ON b."enrolmentId" = a."enrolmentId" AND b."setId" = a."setId" AND b."id" > a."id"
           WHERE a."setId" = $1 AND tstzrange(a."from", a."until") && tstzrange(b."from", b."until")`;
        expect(await query(overlapping)).toEqual([]);
      }),
      { numRuns: 25 },
    );
  });
});

describe('latecomers into groups that are equally small', () => {
  it('sit where they make a group less uneven by the rules of the set', async () => {
    const at = `/api/courses/${given.course.id}/roster/changes`;
    const labs = { noor: 'none', jorge: 'none', amina: 'plenty', kofi: 'plenty' };
    const edits = Object.entries(labs).map(([name, Lab]) => ({
      enrolmentId: idOf(name),
      from: { attributes: { Lab: null } },
      to: { attributes: { Lab } },
    }));
    await given.instructor.post(at).send({ act: 'edit', edits }).expect(200);
    expect((await change({ latecomers: 'smallest', capacity: null })).status).toBe(200);
    const rules = [{ kind: 'spread', attribute: 'Lab', as: 'category' }];
    await given.instructor
      .put(`/api/sets/${given.set.id}/rules`)
      .send({ rules, version: (await board()).set.version })
      .expect(200);
    const seatOf = async (name: string, Lab: string) => {
      const entry = {
        email: `${name}@late.example`,
        name,
        familyName: null,
        reading: null,
        number: null,
        role: 'student',
        attributes: { Lab },
      };
      await given.instructor.post(at).send({ act: 'add', entry }).expect(200);
      const { groups, students } = await board();
      return sure(
        groups.find(
          (group) =>
            group.id === sure(sure(students.find((student) => student.name === name)).seats[0]).groupId,
        ),
      ).name;
    };
    expect(await seatOf('Zoe', 'none')).toBe('Carboy'); // Crock, the first, has two of her kind
    expect(await seatOf('Yan', 'plenty')).toBe('Crock'); // the smaller one now
    expect(await seatOf('Xu', 'plenty')).toBe('Crock');
  });
});
