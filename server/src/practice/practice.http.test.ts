import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { BoardView } from '@jigsaw/contract/placing';
import type { SessionView } from '@jigsaw/contract/identity';
import type { PracticeView } from '@jigsaw/contract/practice';
import type { CopyHead, RoomList } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember, released, toRead } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import { marker, tellAll } from '../test/marker.js';
import type { Operation } from '../test/operations.js';
import { otherOperations, takingOperations } from '../test/operations.js';
import { setActs } from '../test/setActs.js';
import type { Things } from '../test/someThings.js';
import { someThings } from '../test/someThings.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let things: Things;
let operations: Operation[];
let path = '';
let crock = '';

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
  things = await someThings(given);
  operations = [...takingOperations(server, given, things), ...otherOperations(given, things)];
  path = `/api/courses/${given.course.id}/practice`;
  crock = sure(given.board.groups[0]).id;
});
afterAll(() => server.stop());

const { change } = setActs(() => given);
const student = (name: string) => sure(given.students.get(name)).browser;
const as = (address: string, groupId = crock) => `/practise/${groupId}${address}`;
const start = async (groupId = crock) => (await given.instructor.post(path).send({ groupId }).expect(200)).body as PracticeView; // prettier-ignore
const rooms = async (groupId = crock) => (await given.instructor.get(as(`/api/courses/${given.course.id}/rooms`, groupId)).expect(200)).body as RoomList; // prettier-ignore
const headOf = async (by: Browser, copyId: string) => (await by.get(`/api/copies/${copyId}`)).body as CopyHead; // prettier-ignore

/** What these people read of everything that can be read. */
async function readBy(people: readonly Browser[]) {
  // A zip says when it was made, and that something was practised is told to those who practise.
  const asked = operations.filter(
    ({ method, id }) => method === 'get' && !['exportRosterBundle', 'readPractice'].includes(id),
  );
  const answers: string[] = [];
  for (const by of people)
    for (const { id, path: at } of asked) {
      const { status, text } = await by.get(at);
      answers.push(`${id} ${status} ${text}`);
    }
  return answers;
}

/** What students do in copies. */
const ofStudents = () => operations.filter(({ by, method, path: at }) => by === student('noor') && method !== 'get' && at.startsWith('/api/copies/')); // prettier-ignore
/** @returns the status. */
async function practise({ method, path: at, body }: Operation): Promise<number> {
  const [, copyId = '', rest = ''] = /^\/api\/copies\/([^/]+)(\/.*)$/.exec(at) ?? [];
  const there = as(`/api/copies/${await practised(copyId)}${rest}`);
  return (await given.instructor[method](there).send(await body())).status;
}

/** The copy in which it is practised instead of a real one. */
async function practised(copyId: string): Promise<string> {
  const { activityId } = await headOf(student('noor'), copyId);
  const { body } = await given.instructor.get(as(`/api/activities/${activityId}/copies`)).expect(200);
  return sure((body as { copies: { copyId: string }[] }).copies[0]).copyId;
}

describe('the practice student', () => {
  it('acts in a group, and no one else meets it or what it does', async () => {
    const everyone = [given.instructor, student('noor'), student('jorge'), student('amina')];
    await readBy(everyone); // what is read for the first time is seen from then on
    const before = await readBy(everyone);
    expect((await start()).hasTraces).toBe(false);
    const done: string[] = [];
    for (const operation of ofStudents()) if ((await practise(operation)) === 200) done.push(operation.id);
    expect(done).toEqual(
      expect.arrayContaining([
        'markSeen',
        'savePart',
        'handIn',
        'addPost',
        'addPage',
        'giveAnswers',
        'stepIn',
      ]),
    );
    const { body } = await given.instructor.get(path).expect(200);
    expect((body as PracticeView).hasTraces).toBe(true);
    expect(await readBy(everyone)).toEqual(before);
  });

  it('meets no one’s copy but its own, and acts nowhere but there', async () => {
    await start();
    const went: string[] = [];
    for (const { id, method, path: at, body } of operations) {
      const isInCopy = /^\/api\/copies\//.test(at);
      if (method === 'get' && !isInCopy) continue;
      const { status } = await given.instructor[method](as(at)).send(await body());
      if (status !== (isInCopy ? 404 : 403)) went.push(`${id} ${status}`);
    }
    expect(went).toEqual([]);
    const { common, locked } = await rooms();
    const own = [...sure((await rooms()).rooms[0]).items, ...common].map(({ copyId }) => copyId);
    expect([own.length > 5, locked]).toEqual([true, []]);
    // Another group’s are others, and a copy of practice is no one’s else.
    await start(sure(given.board.groups[1]).id);
    for (const by of [given.instructor, student('noor')])
      for (const copyId of own) await by.get(`/api/copies/${copyId}`).expect(404);
  });

  it('is no one in the course: named where a student is named, it is like someone who never was', async () => {
    const { body } = await given.instructor.get(as('/api/session')).expect(200);
    const enrolmentId = (body as SessionView).sitsIn?.enrolmentId ?? '';
    const told: string[] = [];
    let asked = 0;
    const noor = sure(given.students.get('noor')).enrolmentId;
    for (const { id, method, path: at, body: bodyOf, by } of operations) {
      if (by !== given.instructor) continue;
      const instead = async (other: string) => {
        const answer = await by[method](at.replaceAll(noor, other)).set('Content-Type', 'application/json').send(JSON.stringify(await bodyOf()).replaceAll(noor, other)); // prettier-ignore
        return `${answer.status} ${answer.text}`.replaceAll(other, 'ID');
      };
      if (!`${at} ${JSON.stringify(await bodyOf())}`.includes(noor)) continue;
      asked += 1;
      const [practice, never] = [await instead(enrolmentId), await instead(randomUUID())];
      if (practice !== never) told.push(`${id}: ${practice} | ${never}`);
    }
    expect(told).toEqual([]);
    expect(asked).toBeGreaterThan(10);
    await given.instructor.get(`/sit-in/${enrolmentId}/api/courses/${given.course.id}/rooms`).expect(404);
  });

  it('is heard by no one', async () => {
    await start();
    const page = await follow(student('noor'), given.course.id);
    const ofStaff = await follow(given.instructor, given.course.id);
    const copyId = await practised(things.talk);
    await given.instructor.post(as(`/api/copies/${copyId}/posts`)).send({ ...things.post, id: randomUUID() }).expect(200); // prettier-ignore
    await tellAll(server, given.course.id);
    expect(await page.until(marker)).toEqual([marker]);
    expect(await ofStaff.until(marker)).toEqual([marker]);
    page.stop();
    ofStaff.stop();
  });

  it('is cleared in one act, and comes back as long as no one has practised since', async () => {
    await start();
    const copyId = await practised(things.talk);
    const status = async () => (await given.instructor.get(as(`/api/copies/${copyId}`))).status;
    const send = async (act: string, body: object = {}) => given.instructor.post(`${path}/${act}`).send(body);
    const { round } = (await given.instructor.get(path)).body as PracticeView;
    expect((await send('clear')).body).toEqual({ round: round + 1, hasTraces: false });
    expect((await send('clear')).body).toEqual({ round: round + 1, hasTraces: false }); // there is nothing to clear
    expect(await status()).toBe(404);
    expect((await send('restore', { round })).body).toEqual({ round, hasTraces: true });
    expect((await send('restore', { round })).status).toBe(200); // pressed twice
    expect(await status()).toBe(200);
    await send('clear');
    await start(); // made ready, and nothing done yet
    expect((await send('restore', { round })).status).toBe(200);
    await send('clear');
    await start();
    await given.instructor.post(as(`/api/copies/${await practised(things.talk)}/posts`)).send({ ...things.post, id: randomUUID() }).expect(200); // prettier-ignore
    expect((await send('restore', { round })).status).toBe(409);
    expect((await send('restore', { round: 0 })).status).toBe(422);
    expect(await status()).toBe(404);
  });

  it('knows of anything that was practised, be it one act only, and of nothing that was only seen', async () => {
    const traced: string[] = [];
    for (const operation of ofStudents()) {
      await given.instructor.post(`${path}/clear`).expect(200);
      await start();
      if ((await practise(operation)) === 200 && (await start()).hasTraces) traced.push(operation.id);
    }
    // Handing in follows something written.
    expect(traced.sort()).toEqual(['addPage', 'addPost', 'giveAnswers', 'savePart', 'setDoor', 'stepIn']);
  });

  it('has a copy of what was released since once it is made ready again', async () => {
    const titles = async () => (await rooms()).common.map(({ title }) => title);
    await start();
    // That others may know of it does not open theirs.
    await released(given, toRead('notice', { title: 'Later' }), { mode: 'common', outsiders: 'listed' });
    expect(await titles()).not.toContain('Later');
    await start();
    expect(await titles()).toContain('Later');
  });

  it('keeps a group that no one was ever in only where something was done in it', async () => {
    const groupsNow = async () => ((await given.instructor.get(`/api/sets/${given.set.id}/board`).expect(200)).body as BoardView).groups; // prettier-ignore
    const changeGroups = (body: object) =>
      given.instructor.put(`/api/sets/${given.set.id}/groups`).send(body);
    const spare = (name: string) => ({ id: null, name, capacity: null, isLocked: false, version: 1 });
    await changeGroups({ groups: [spare('Tun'), spare('Vat')], removed: [] }).expect(200);
    expect((await change({ membersName: true })).status).toBe(200);
    const [tun = '', vat = ''] = (await groupsNow()).slice(-2).map(({ id }) => String(id));
    for (const groupId of [tun, vat]) await start(groupId);
    const talk = sure(sure((await rooms(vat)).rooms[0]).items.find(({ kind }) => kind === 'discussion'));
    await given.instructor.post(as(`/api/copies/${talk.copyId}/posts`, vat)).send({ ...things.post, id: randomUUID() }).expect(200); // prettier-ignore
    expect((await changeGroups({ groups: [], removed: [vat] })).body).toMatchObject({ status: 409 });
    await changeGroups({ groups: [], removed: [tun] }).expect(200);
    await given.instructor.get(as(`/api/courses/${given.course.id}/rooms`, tun)).expect(404);
    expect((await rooms(vat)).rooms[0]).toMatchObject({ group: { name: 'Vat' }, namingVersion: null });
  });

  it('is for those who may sit in, in groups of their course, once it is made ready', async () => {
    const tomas = await aMember(server, given, 'tomas', 'assistant');
    const olga = await aMember(server, given, 'olga', 'observer');
    const rui = await server.instructor('rui@quillmere.example');
    const { body } = await rui.post('/api/courses').send({ code: 'X 1', title: 'Elsewhere', term: 'Autumn', timeZone: 'Europe/Lisbon' }).expect(200); // prettier-ignore
    const there = `/api/courses/${(body as { id: string }).id}/practice`;
    const room = as(`/api/courses/${given.course.id}/rooms`);
    for (const [by, expected] of [[tomas, 403], [olga, 403], [student('noor'), 404], [rui, 404], [server.browser(), 401]] as const) {
      expect((await by.post(path).send({ groupId: crock })).status).toBe(expected);
      expect((await by.get(path)).status).toBe(expected);
      for (const act of ['clear', 'restore']) expect((await by.post(`${path}/${act}`).send({ round: 1 })).status).toBe(expected);
      expect((await by.get(room)).status).toBe(expected);
    } // prettier-ignore
    await rui.post(there).send({ groupId: crock }).expect(404);
    await given.instructor.get(as(`/api/courses/${given.course.id}/rooms`, randomUUID())).expect(404);
    await given.instructor.get(as(there.replace('practice', 'rooms'))).expect(404);
    await given.instructor.get(as('/api/calendar-addresses')).expect(404);
  });
});
