import { randomUUID } from 'node:crypto';
import { describe, expect, it } from '@jest/globals';
import type { Lately, RoomLine, RoomLines, RoomNeed } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aMember, aText, copyOf, crockIsLedBy, released } from '../test/aCourse.js';
import type { Browser } from '../test/testServer.js';
import { password } from '../test/testServer.js';
import { twoTeams } from '../test/twoTeams.js';

const teams = twoTeams('n');
const { student, say } = teams;

const linesFor = async (by: Browser = teams.given.instructor) =>
  ((await by.get(`/api/courses/${teams.given.course.id}/room-lines`).expect(200)).body as RoomLines).lines;
const lineOf = async (name: string, by?: Browser): Promise<RoomLine> =>
  sure((await linesFor(by)).find(({ group }) => group.name === name));
const needsOf = async (name: string, by?: Browser) => (await lineOf(name, by)).needs;
const codes = async (name: string, by?: Browser) => (await needsOf(name, by)).map(({ code }) => code);
const never = { opens: null, due: null, closes: null };

describe('what a room needs a person for', () => {
  it('is a question of a student, until someone else writes in its thread', async () => {
    await released(teams.given, {
      kind: 'discussion',
      title: 'Talk',
      settings: {},
      points: null,
      schedule: never,
    });
    const talk = await copyOf(student('noor'), teams.given.course.id, 'Talk');
    await say(teams.given.instructor, talk, 'How is it going?'); // of the staff
    expect(await codes('Crock')).toEqual([]);
    const first = await say(
      student('noor'),
      talk,
      'It is cloudy. Do we start the count again? It was day 9.',
    );
    await say(student('noor'), talk, 'I think so.', first); // her own words are no answer
    const second = await say(student('jorge'), talk, '第九天再加盐吗？');
    expect(await needsOf('Crock')).toEqual([{ code: 'question', copyId: talk, kind: 'discussion', title: 'Talk', postId: first, by: 'Noor', excerpt: 'Do we start the count again?', since: '2026-11-10T10:01:00.000Z', newest: '2026-11-10T10:03:00.000Z', count: 2 }]); // prettier-ignore
    expect(await codes('Carboy')).toEqual([]);
    await say(student('jorge'), talk, 'From day one.', first);
    expect(await needsOf('Crock')).toMatchObject([{ postId: second, count: 1 }]);
    const answer = await say(teams.given.instructor, talk, 'Yes', second);
    expect(await codes('Crock')).toEqual([]);
    await teams.given.instructor.delete(`/api/copies/${talk}/posts/${answer}`).expect(200);
    expect(await codes('Crock')).toEqual(['question']);
  });

  it('is no link that has a question mark in it', async () => {
    await released(teams.given, {
      kind: 'discussion',
      title: 'Talk',
      settings: {},
      points: null,
      schedule: never,
    });
    const talk = await copyOf(student('noor'), teams.given.course.id, 'Talk');
    await say(student('noor'), talk, 'See https://salt.example/?page=2 for the table');
    expect(await codes('Crock')).toEqual([]);
    await say(student('noor'), talk, 'It says https://salt.example/?page=3 there. “Is that salt?”');
    expect(await needsOf('Crock')).toMatchObject([{ count: 1, excerpt: '“Is that salt?' }]);
  });

  it('is what is due soon with nothing in it, then what is missing, then what waits for its mark', async () => {
    await released(teams.given, { title: 'Report', schedule: { ...never, due: '2026-11-12T17:00:00.000Z' } });
    expect(await codes('Crock')).toEqual([]); // in more than two days
    teams.server.clock.set('2026-11-10T17:00:00.001Z');
    expect(await needsOf('Crock')).toMatchObject([{ code: 'nothing-yet', title: 'Report', due: '2026-11-12T17:00:00.000Z' }]); // prettier-ignore
    const copyId = await copyOf(student('noor'), teams.given.course.id, 'Report');
    await student('noor')
      .put(`/api/copies/${copyId}/part`)
      .send({ text: aText('pH'), version: 0 })
      .expect(200);
    expect(await codes('Crock')).toEqual([]);
    expect(await codes('Carboy')).toEqual(['nothing-yet']);
    teams.server.clock.set('2026-11-12T17:00:00.001Z');
    expect(await codes('Carboy')).toEqual(['missing']);
    teams.server.clock.pass({ days: 2 });
    await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
    expect(await needsOf('Crock')).toMatchObject([{ code: 'to-mark', title: 'Report', isLate: true, since: '2026-11-14T17:00:00.001Z' }]); // prettier-ignore
    const observer = await aMember(teams.server, teams.given, `olga${teams.count}`, 'observer');
    const assistant = await aMember(teams.server, teams.given, `tomas${teams.count}`, 'assistant');
    expect(await codes('Crock', observer)).toEqual([]); // it is not theirs to mark
    expect(await codes('Crock', assistant)).toEqual(['to-mark']);
  });

  it('is a member who did nothing for two weeks where there is something to do, counted from when they could', async () => {
    await released(teams.given, { kind: 'discussion', title: 'Talk', settings: {}, points: null, schedule: { ...never, due: '2026-12-20T17:00:00.000Z' } }); // prettier-ignore
    const talk = await copyOf(student('noor'), teams.given.course.id, 'Talk');
    teams.server.clock.set('2026-11-15T10:00:00Z');
    await say(student('noor'), talk, 'Green apple');
    teams.server.clock.set('2026-11-24T09:59:59Z');
    expect(await codes('Crock')).toEqual([]);
    teams.server.clock.set('2026-11-24T10:00:01Z');
    expect(await needsOf('Crock')).toMatchObject([{ code: 'silent', name: 'Jorge', since: '2026-11-10T10:00:00.000Z' }]); // prettier-ignore
    teams.server.clock.set('2026-11-29T10:01:00Z');
    expect((await needsOf('Crock')).map((need) => need.code === 'silent' && need.name)).toEqual(['Jorge', 'Noor']); // prettier-ignore
    await student('jorge')
      .post('/api/session')
      .send({ email: `jorge@n${teams.count}.example`, password })
      .expect(200); // two weeks end a session
    await student('jorge').post(`/api/copies/${talk}/posts`).send({ id: randomUUID(), parentId: null, text: aText('Salt') }).expect(200); // prettier-ignore
    expect((await needsOf('Crock')).map((need: RoomNeed) => need.code === 'silent' && need.name)).toEqual(['Noor']); // prettier-ignore
  });

  it('orders the rooms: the most pressing first, and of nothing open there is no score', async () => {
    await released(teams.given, {
      kind: 'discussion',
      title: 'Talk',
      settings: {},
      points: null,
      schedule: never,
    });
    await released(teams.given, { title: 'Report', schedule: { ...never, due: '2026-11-11T17:00:00.000Z' } });
    const talk = await copyOf(student('amina'), teams.given.course.id, 'Talk');
    const before = await linesFor();
    expect(before.map(({ score }) => score)).toEqual([sure(before[0]).score, sure(before[0]).score]);
    await say(student('amina'), talk, 'Is it salt?');
    const [crock, carboy] = (await linesFor()).map(({ score }) => score) as [number, number];
    expect(carboy).toBeGreaterThan(crock);
    expect(await codes('Carboy')).toEqual(['question', 'nothing-yet']);
  });
});

it('tells how much was written day by day, by the days of the course', async () => {
  await released(teams.given, {
    kind: 'discussion',
    title: 'Talk',
    settings: {},
    points: null,
    schedule: never,
  });
  const talk = await copyOf(student('noor'), teams.given.course.id, 'Talk');
  teams.server.clock.set('2026-11-11T23:50:00Z'); // Lisbon has this hour in winter
  await say(student('noor'), talk, 'One');
  teams.server.clock.set('2026-11-12T00:10:00Z');
  await say(student('noor'), talk, 'Two');
  await say(teams.given.instructor, talk, 'Three');
  expect((await lineOf('Crock')).days).toEqual([...Array<number>(12).fill(0), 1, 2]);
  teams.server.clock.set('2026-11-25T00:10:00Z');
  expect((await lineOf('Crock')).days).toEqual([2, ...Array<number>(13).fill(0)]);
  teams.server.clock.set('2026-11-26T00:10:00Z');
  expect((await lineOf('Crock')).days).toEqual(Array<number>(14).fill(0));
});

it('tells what each member wrote lately, in their group’s copies', async () => {
  await released(teams.given, {
    kind: 'discussion',
    title: 'Talk',
    settings: {},
    points: null,
    schedule: never,
  });
  const crock = (await lineOf('Crock')).group.id;
  const latelyIn = async () => ((await teams.given.instructor.get(`/api/groups/${crock}/lately`).expect(200)).body as Lately); // prettier-ignore
  const lately = async () => (await latelyIn()).members;
  await say(student('noor'), await copyOf(student('noor'), teams.given.course.id, 'Talk'), 'One');
  await say(
    student('amina'),
    await copyOf(student('amina'), teams.given.course.id, 'Talk'),
    'Of another group',
  );
  teams.server.clock.pass({ days: 1 });
  const talk = await copyOf(student('noor'), teams.given.course.id, 'Talk');
  await say(student('noor'), talk, 'Two');
  await say(student('noor'), talk, 'Three');
  expect(await lately()).toMatchObject([
    { name: 'Jorge', days: Array<number>(14).fill(0), last: null },
    { name: 'Noor', days: [...Array<number>(12).fill(0), 1, 2], last: { title: 'Talk', copyId: talk, at: '2026-11-11T10:03:00.000Z' } },
  ]); // prettier-ignore
  expect(await latelyIn()).toMatchObject({ previous: null, next: { name: 'Carboy' } });
  const assistant = await aMember(teams.server, teams.given, `tomas${teams.count}`, 'assistant');
  await crockIsLedBy(teams.given, `Tomas${teams.count}`);
  expect((await assistant.get(`/api/groups/${crock}/lately`).expect(200)).body).toMatchObject({ previous: null, next: null }); // prettier-ignore
  await assistant.get(`/api/groups/${(await lineOf('Carboy')).group.id}/lately`).expect(404);
  await student('noor').get(`/api/groups/${crock}/lately`).expect(404);
});
