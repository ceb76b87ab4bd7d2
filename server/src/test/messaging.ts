import { randomUUID } from 'node:crypto';
import { expect } from '@jest/globals';
import type { MessageList, Recipients, Sent, ThreadView } from '@jigsaw/contract/messages';
import type { MessageCount } from '@jigsaw/contract/track';
import type { GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { Browser } from './testServer.js';
import type { twoTeams } from './twoTeams.js';

/** Writing and reading in the course of the test that runs; a minute passes with each message. */
export function messaging(teams: ReturnType<typeof twoTeams>) {
  const idOf = (name: string) => sure(teams.given.students.get(name)).enrolmentId;
  const at = (path = '') => `/api/courses/${teams.given.course.id}/messages${path}`;
  const people = (...names: string[]): Recipients => ({ kind: 'people', enrolmentIds: names.map(idOf) });
  const groups = (...groupIds: GroupId[]): Recipients => ({ kind: 'groups', groupIds });
  const aMessage = (to: Recipients, count: number, more: object = {}) => ({ id: randomUUID(), to, subject: 'Jars', text: 'Bring two.', count, ...more }); // prettier-ignore
  const post = (by: Browser, body: object) => by.post(at()).send(body);
  const send = async (by: Browser, to: Recipients, count = 1, more: object = {}) => {
    const sent = (await post(by, aMessage(to, count, more)).expect(200)).body as Sent;
    teams.server.clock.pass({ minutes: 1 });
    return sent;
  };
  const list = async (by: Browser, query = '') => (await by.get(at(query)).expect(200)).body as MessageList;
  const unread = async (by: Browser) =>
    ((await by.get(at('/count')).expect(200)).body as MessageCount).unread;
  const thread = async (by: Browser, id: string | null) => (await by.get(`/api/threads/${id}`).expect(200)).body as ThreadView; // prettier-ignore
  const reply = async (by: Browser, id: string | null, text: string) => {
    const body = { id: randomUUID(), text };
    const { body: replied } = await by.post(`/api/threads/${id}/messages`).send(body).expect(200);
    expect(replied).toMatchObject({ ...body, by: { isYou: true }, isNew: false, mayRemove: true });
    teams.server.clock.pass({ minutes: 1 });
    return thread(by, id);
  };
  const seen = (by: Browser, id: string | null, upTo: number) => by.post(`/api/threads/${id}/seen`).send({ upTo }).expect(200); // prettier-ignore
  return { at, idOf, people, groups, aMessage, post, send, list, unread, thread, reply, seen };
}
