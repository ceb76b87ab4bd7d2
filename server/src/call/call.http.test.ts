import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { CallView, StillIn } from '@jigsaw/contract/call';
import { sure } from '@jigsaw/core/lists';
import { newId } from '../platform/ids.js';
import { aCourse, copyOf, released, toRead } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let copyId: string;
let count = 0;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi
});
afterAll(() => server.stop());
beforeEach(async () => {
  count += 1;
  server.clock.set('2026-11-10T10:00:00Z');
  await released(given, toRead('call', { title: `Call ${count}` }));
  copyId = await copyOf(student('noor'), given.course.id, `Call ${count}`);
});

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const at = () => `/api/copies/${copyId}/call`;
const call = async (by: Browser) => (await by.get(at()).expect(200)).body as CallView;
const inNow = async (by: Browser) => (await call(by)).inNow.map(({ member }) => member.name.split(' ')[0]);
const stepIn = async (by: Browser, id: string = newId()) => {
  await by.post(`${at()}/visits`).send({ id }).expect(200);
  return id;
};
const stay = async (by: Browser, id: string) =>
  (await by.put(`${at()}/visits/${id}`).send({}).expect(200)).body as StillIn;

describe('a standing call', () => {
  it('shows who is in to all who share it, until they leave', async () => {
    const id = await stepIn(student('noor'));
    server.clock.pass({ minutes: 1 });
    await stepIn(given.instructor);
    expect(await inNow(student('jorge'))).toHaveLength(2);
    expect((await call(student('jorge'))).inNow[0]).toMatchObject({ since: '2026-11-10T10:00:00.000Z', member: { isYou: false } }); // prettier-ignore
    await student('noor').delete(`${at()}/visits/${id}`).expect(200);
    const [left] = (await call(student('jorge'))).inNow;
    expect(left?.member.isStaff).toBe(true);
  });

  it('counts a press that is sent twice as one visit, and one person in two windows as one', async () => {
    const id = await stepIn(student('noor'));
    await stepIn(student('noor'), id);
    await stepIn(student('noor'));
    const view = await call(student('jorge'));
    expect({ visits: view.visits.length, inNow: view.inNow.length }).toEqual({ visits: 2, inNow: 1 });
  });

  it('lets go of those who are not heard of, and takes them in only anew', async () => {
    const id = await stepIn(student('noor'));
    server.clock.pass({ minutes: 1 });
    expect(await stay(student('noor'), id)).toEqual({ isIn: true });
    server.clock.pass({ minutes: 1 });
    expect(await inNow(student('jorge'))).toHaveLength(1);
    server.clock.pass({ minutes: 2 });
    expect(await inNow(student('jorge'))).toEqual([]);
    expect(await stay(student('noor'), id)).toEqual({ isIn: false });
    expect(await inNow(student('jorge'))).toEqual([]);
  });

  it('of someone who slept through the rest of it ended when they were last heard of', async () => {
    const id = await stepIn(student('noor'));
    server.clock.pass({ minutes: 1 });
    await stay(student('noor'), id);
    server.clock.pass({ minutes: 60 * 5 });
    await student('noor').delete(`${at()}/visits/${id}`).expect(200);
    expect((await call(student('jorge'))).visits).toMatchObject([
      { seen: '2026-11-10T10:01:00.000Z', left: '2026-11-10T10:01:00.000Z' },
    ]);
  });

  it('is another group’s alone: they are told nothing, and a visit of someone else cannot be ended', async () => {
    const id = await stepIn(student('noor'));
    await student('amina').get(at()).expect(404);
    await student('amina').delete(`${at()}/visits/${id}`).expect(404);
    expect(await stay(student('jorge'), id)).toEqual({ isIn: false });
    await student('jorge').delete(`${at()}/visits/${id}`).expect(200);
    expect(await inNow(student('jorge'))).toHaveLength(1);
  });

  it('tells those who share it who came on the days before, and staff only who is in', async () => {
    const id = await stepIn(student('noor'));
    server.clock.pass({ minutes: 1 });
    await student('noor').delete(`${at()}/visits/${id}`).expect(200);
    server.clock.pass({ minutes: 60 * 24 });
    expect((await call(student('jorge'))).visits).toMatchObject([
      { from: '2026-11-10T10:00:00.000Z', left: '2026-11-10T10:01:00.000Z' },
    ]);
    expect((await call(given.instructor)).visits).toEqual([]);
    server.clock.pass({ minutes: 60 * 24 * 8 });
    expect((await call(student('jorge'))).visits).toEqual([]);
  });

  it('follows membership at once: someone who is moved is in no longer, nor can they stay', async () => {
    const id = await stepIn(student('jorge'));
    const [crock, carboy] = given.board.groups;
    const jorge = sure(given.students.get('jorge')).enrolmentId;
    const move = (from: string, to: string) =>
      given.instructor
        .post(`/api/sets/${given.set.id}/place`)
        .send({ moves: [{ student: jorge, from, to }] })
        .expect(200);
    await move(sure(crock).id, sure(carboy).id);
    expect(await inNow(student('noor'))).toEqual([]);
    await student('jorge').put(`${at()}/visits/${id}`).send({}).expect(404);
    await student('jorge').post(`${at()}/visits`).send({ id: newId() }).expect(404);
    await move(sure(carboy).id, sure(crock).id);
  });

  it('has a door that leads where its members say; two who say so at once are told', async () => {
    const door = (by: Browser, address: string, version: number) =>
      by.put(`${at()}/door`).send({ address, version });
    await door(student('noor'), 'https://meet.quillmere.example/crock', 0).expect(200);
    const stale = await door(student('jorge'), 'https://meet.quillmere.example/other', 0).expect(409);
    expect((stale.body as { current: CallView }).current.door).toEqual({ address: 'https://meet.quillmere.example/crock', version: 1 }); // prettier-ignore
    for (const address of ['javascript:alert(1)', 'crock', 'ftp://a.example'])
      await door(student('noor'), address, 1).expect(422);
    await door(student('noor'), '', 1).expect(200);
    expect((await call(student('jorge'))).door).toEqual({ address: '', version: 2 });
  });

  it('that is closed can be looked into and left, not stepped into', async () => {
    const id = await stepIn(student('noor'));
    await server.rows(
      `UPDATE "activity" SET "closes" = '2026-11-10T09:00:00Z' WHERE "title" = 'Call ${count}'`,
    );
    expect(await call(student('noor'))).toMatchObject({ mayStepIn: false, maySetDoor: false });
    await student('jorge').post(`${at()}/visits`).send({ id: newId() }).expect(409);
    await student('noor').delete(`${at()}/visits/${id}`).expect(200);
    expect(await inNow(student('jorge'))).toEqual([]);
  });
});
