import type { EntityManager } from 'typeorm';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { AudienceView } from '@jigsaw/contract/audiences';
import type { Foreseen } from '@jigsaw/contract/foreseen';
import { sure } from '@jigsaw/core/lists';
import { someGroups, theClass, wholeSet } from '@jigsaw/core/release';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { aCourse, aMember, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import { marker, tellAll } from '../test/marker.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let path = '';
let report = '';

beforeAll(async () => {
  server = await startTestServer();
  server.clock.set('2026-10-20T10:00:00Z');
  given = await aCourse(server); // Crock: noor, jorge; Carboy: amina, kofi; nino in none
  path = `/api/courses/${given.course.id}/foreseen`;
  report = (await released(given, { title: 'Report' })).id;
  const saved = { name: 'Crock’s', include: [{ kind: 'group', setId: given.set.id, groupId: groupId('Crock') }], exclude: [] }; // prettier-ignore
  const audience = (await given.instructor.post(`/api/courses/${given.course.id}/audiences`).send(saved).expect(200)).body as AudienceView; // prettier-ignore
  await released(given, { title: 'Memo', kind: 'discussion', settings: {} }, { to: { include: [{ kind: 'audience', audienceId: audience.id }], exclude: [] }, mode: 'common' }); // prettier-ignore
});
afterAll(() => server.stop());

const of = (name: string) => sure(given.students.get(name)).enrolmentId;
const groupId = (name: string) => sure(given.board.groups.find((group) => group.name === name)).id;
const ask = (planned: object, by: Browser = given.instructor) => by.post(path).send(planned);
const foresee = async (planned: object) => (await ask(planned).expect(200)).body as Foreseen;
const place = (name: string, from: string | null, to: string | null) => ({ act: 'place', setId: given.set.id, moves: [{ student: of(name), from: from && groupId(from), to: to && groupId(to) }] }); // prettier-ignore
const hidden = (to: object) => ({ to, outsiders: 'hidden' });

/** What changes for whom, short. */
const told = ({ changes, groups }: Foreseen) =>
  changes.map(({ title, students, before, after }) => {
    const has = ({ access, own }: typeof before) => `${access} ${own.map((copy) => groups.find((group) => group.groupId === copy.groupId)?.name ?? 'all').join()}`; // prettier-ignore
    return `${title}: ${students.named.map(({ name }) => name).join()} ${has(before)} > ${has(after)}`;
  });

const everything = async () => {
  const tables = (await server.rows(`SELECT "tablename" AS "name" FROM "pg_tables" WHERE "schemaname" = 'public' AND "tablename" <> 'session'`)) as { name: string }[]; // prettier-ignore
  const held = tables.map(async ({ name }) => [name, await server.rows(`SELECT md5(string_agg(t::text, ' ' ORDER BY t::text)) AS "sum" FROM "${name}" t`)]); // prettier-ignore
  return Object.fromEntries(await Promise.all(held)) as object;
};

describe('what an act would change', () => {
  it('of a move is told of the one who moves, also where a saved audience follows them', async () => {
    expect(told(await foresee(place('noor', 'Crock', 'Carboy')))).toEqual([
      'Report: Noor open Crock > open Carboy',
      'Memo: Noor open all > hidden ',
    ]);
    expect(told(await foresee(place('nino', null, 'Crock')))).toEqual([
      'Report: Nino hidden  > open Crock',
      'Memo: Nino hidden  > open all',
    ]);
  });

  it('of a withdrawal, and of other readers', async () => {
    expect(told(await foresee({ act: 'withdraw', activityId: report }))).toEqual([
      'Report: Amina,Kofi open Carboy > hidden ',
      'Report: Jorge,Noor open Crock > hidden ',
    ]);
    const was = hidden(wholeSet(given.set.id));
    const toCrock = { ...hidden(someGroups(given.set.id, [groupId('Crock')])), outsiders: 'listed' };
    expect(told(await foresee({ act: 'reach', activityId: report, ...toCrock, was }))).toEqual([
      'Report: Amina,Kofi open Carboy > listed ',
      'Report: Nino hidden  > listed ',
    ]);
  });

  it('is kept nowhere and heard by no one', async () => {
    const page = await follow(given.instructor, given.course.id);
    await given.instructor.get(path.replace('foreseen', 'sightlines')).expect(200);
    const before = await everything();
    await Promise.all([
      foresee(place('noor', 'Crock', 'Carboy')),
      foresee({ act: 'withdraw', activityId: report }),
      foresee(place('nino', null, 'Crock')),
      foresee({ act: 'reach', activityId: report, ...hidden(someGroups(given.set.id, [groupId('Crock')])), was: hidden(wholeSet(given.set.id)) }), // prettier-ignore
    ]);
    expect(await everything()).toEqual(before);
    await tellAll(server, given.course.id);
    expect(await page.until(marker)).toEqual([marker]);
    page.stop();
  });

  it('is refused as the act would be', async () => {
    await ask(place('noor', 'Carboy', null)).expect(409); // not where she is
    const was = hidden(theClass);
    const { body } = await ask({ act: 'reach', activityId: report, ...hidden(wholeSet(given.set.id)), was: hidden(someGroups(given.set.id, [groupId('Crock')])) }); // prettier-ignore
    expect((body as Foreseen).changes).toEqual([]); // it is so already
    await ask({ act: 'reach', activityId: report, ...hidden(someGroups(given.set.id, [groupId('Crock')])), was }).expect(409); // prettier-ignore
    await ask({ act: 'place', setId: given.set.id, moves: [] }).expect(422);
  });

  it('leaves nothing of an act that is refused halfway', async () => {
    const unitOfWork = server.app.get(UnitOfWork);
    const act = (manager: EntityManager) => manager.query(`DELETE FROM "event"`).then(() => Promise.reject(new Error('halfway'))); // prettier-ignore
    const before = await everything();
    await expect(unitOfWork.foresee(act, () => Promise.resolve(null))).rejects.toThrow('halfway');
    expect(await everything()).toEqual(before);
  });

  it('is told although the course changes meanwhile', async () => {
    const freezing = async () => {
      for (let time = 0; time < 12; time += 1)
        await given.instructor
          .post(`/api/sets/${given.set.id}/freeze`)
          .send({ isFrozen: time % 2 === 0 })
          .expect(200);
    };
    const looking = async () => {
      const asked = Array.from({ length: 12 }, () => ask(place('noor', 'Crock', 'Carboy')));
      expect((await Promise.all(asked)).map(({ status }) => status)).toEqual(asked.map(() => 200));
    };
    await Promise.all([freezing(), looking()]);
  });

  it('is for those who release alone, and for what is in their course', async () => {
    const planned = { act: 'withdraw', activityId: report };
    for (const role of ['assistant', 'observer'] as const) {
      const member = await aMember(server, given, `a${role}`, role);
      await ask(planned, member).expect(403);
      await ask(place('noor', 'Crock', 'Carboy'), member).expect(403); // assistants may place, and see less than it tells
    }
    await ask(planned, sure(given.students.get('noor')).browser).expect(404);
    const named = { code: 'FER 221', title: 'Another', term: 'Autumn', timeZone: 'Europe/Lisbon' };
    const { body } = await given.instructor.post('/api/courses').send(named).expect(200);
    const there = `/api/courses/${(body as { id: string }).id}/foreseen`;
    await given.instructor.post(there).send(planned).expect(404);
    await given.instructor
      .post(there)
      .send(place('noor', 'Crock', null))
      .expect(404);
  });
});
