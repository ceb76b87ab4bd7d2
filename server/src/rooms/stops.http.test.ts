import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from '@jest/globals';
import type { AnswerStop, RoomLine, RoomLines } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { subjectOf, upToOf } from '@jigsaw/core/rooms';
import { newId } from '../platform/ids.js';
import { aMember, aText, copyOf, crockIsLedBy, released } from '../test/aCourse.js';
import type { Browser } from '../test/testServer.js';
import { twoTeams } from '../test/twoTeams.js';

const teams = twoTeams('s');
const { student } = teams;
const say = (name: string, words: string) => teams.say(student(name), talk, words);
let talk: string;
beforeEach(async () => {
  const never = { opens: null, due: null, closes: null };
  await released(teams.given, {
    kind: 'discussion',
    title: 'Talk',
    settings: {},
    points: null,
    schedule: never,
  });
  talk = await copyOf(student('noor'), teams.given.course.id, 'Talk');
  await say('noor', 'Is it salt?');
});

const lineOf = async (name: string, by: Browser = teams.given.instructor): Promise<RoomLine> => {
  const { body } = await by.get(`/api/courses/${teams.given.course.id}/room-lines`).expect(200);
  return sure((body as RoomLines).lines.find(({ group }) => group.name === name));
};
/** The most pressing thing in a room, as an answer names it. */
const stopIn = ({ group, needs, answered }: RoomLine): Omit<AnswerStop, 'said'> => {
  const need = sure(needs[0] ?? answered[0]?.need);
  return { groupId: group.id, code: need.code, subjectId: subjectOf(need), upTo: upToOf(need) };
};
const answer = (body: AnswerStop, by: Browser = teams.given.instructor) =>
  by.put(`/api/courses/${teams.given.course.id}/stops`).send(body);
const open = async (by?: Browser) => (await lineOf('Crock', by)).needs.map(({ code }) => code);

describe('what one says to a stop', () => {
  it('takes it off one’s own list and no one else’s, until it is open again', async () => {
    const assistant = await aMember(teams.server, teams.given, `tomas${teams.count}`, 'assistant');
    const stop = stopIn(await lineOf('Crock'));
    await answer({ ...stop, said: 'done' }).expect(200);
    await answer({ ...stop, said: 'not-needed' }).expect(200); // thought better of
    const line = await lineOf('Crock');
    expect(line).toMatchObject({ needs: [], score: 0, answered: [{ said: 'not-needed', at: '2026-11-10T10:01:00.000Z', need: { code: 'question' } }] }); // prettier-ignore
    expect(await open(assistant)).toEqual(['question']);
    await answer({ ...stop, said: null }).expect(200);
    expect(await lineOf('Crock')).toMatchObject({ needs: [{ code: 'question' }], answered: [] });
  });

  it('is taken back also where the room did not need it just then', async () => {
    const { needs } = await lineOf('Crock');
    const parentId = needs[0]?.code === 'question' ? needs[0].postId : null;
    const stop = stopIn(await lineOf('Crock'));
    await answer({ ...stop, said: 'done' }).expect(200);
    const id = randomUUID();
    await student('jorge').post(`/api/copies/${talk}/posts`).send({ id, parentId, text: aText('It is') }).expect(200); // prettier-ignore
    await answer({ ...stop, said: null }).expect(200);
    await student('jorge').delete(`/api/copies/${talk}/posts/${id}`).expect(200);
    expect(await open()).toEqual(['question']);
  });

  it('covers what was shown, and nothing that came since, even between the look and the answer', async () => {
    const stop = stopIn(await lineOf('Crock'));
    await say('jorge', 'Or is it time?');
    await answer({ ...stop, said: 'done' }).expect(200);
    expect(await open()).toEqual(['question']);
    await answer({ ...stopIn(await lineOf('Crock')), said: 'done' }).expect(200);
    expect(await open()).toEqual([]);
    await say('jorge', 'And what is time?');
    expect(await open()).toEqual(['question']);
  });

  it('covers nothing that is yet to come, whatever moment is sent', async () => {
    await answer({ ...stopIn(await lineOf('Crock')), upTo: '2030-01-01T00:00:00.000Z', said: 'done' }).expect(200); // prettier-ignore
    await say('jorge', 'Or is it time?');
    expect(await open()).toEqual(['question']);
  });

  it('puts it off for three hours', async () => {
    await answer({ ...stopIn(await lineOf('Crock')), said: 'later' }).expect(200);
    teams.server.clock.pass({ hours: 2, minutes: 59 });
    expect(await open()).toEqual([]);
    teams.server.clock.pass({ minutes: 1 });
    expect(await open()).toEqual(['question']);
  });

  it('is nothing to remember where the room does not need it any more', async () => {
    const stop = stopIn(await lineOf('Crock'));
    const { needs } = await lineOf('Crock');
    const parentId = needs[0]?.code === 'question' ? needs[0].postId : null;
    const id = randomUUID();
    await student('jorge').post(`/api/copies/${talk}/posts`).send({ id, parentId, text: aText('It is') }).expect(200); // prettier-ignore
    await answer({ ...stop, said: 'done' }).expect(200);
    await student('jorge').delete(`/api/copies/${talk}/posts/${id}`).expect(200);
    expect(await open()).toEqual(['question']);
  });
});

it('is for staff, and of the rooms that they may look into', async () => {
  const assistant = await aMember(teams.server, teams.given, `tomas${teams.count}`, 'assistant');
  await crockIsLedBy(teams.given, `Tomas${teams.count}`);
  const crock = await lineOf('Crock', assistant);
  expect(crock.isLed).toBe(true);
  await answer({ ...stopIn(crock), said: 'later' }, assistant).expect(200);
  const { group } = await lineOf('Carboy');
  await answer({ ...stopIn(crock), groupId: group.id, said: 'later' }, assistant).expect(404);
  await answer({ ...stopIn(crock), groupId: newId<'group'>(), said: 'later' }, assistant).expect(404);
  await answer({ ...stopIn(crock), said: 'later' }, student('noor')).expect(404);
});

it('tells which kinds of activities are in a room', async () => {
  await released(teams.given, { title: 'Report' });
  expect((await lineOf('Crock')).kinds.toSorted()).toEqual(['assignment', 'discussion']);
});
