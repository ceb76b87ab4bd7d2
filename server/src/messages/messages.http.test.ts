import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from '@jest/globals';
import type { Outbox } from '@jigsaw/contract/mail';
import type { RecipientChoice, Recipients, SendingView, ThreadView } from '@jigsaw/contract/messages';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { aMember, crockIsLedBy } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import { marker, tellAll } from '../test/marker.js';
import { messaging } from '../test/messaging.js';
import { practising } from '../test/practising.js';
import type { Browser } from '../test/testServer.js';
import { twoTeams } from '../test/twoTeams.js';

const teams = twoTeams('m');
let ilse: Browser;
let noor: Browser;
let jorge: Browser;
let amina: Browser;
let crock: GroupId;
let carboy: GroupId;
beforeEach(() => {
  ilse = teams.given.instructor;
  [noor, jorge, amina] = ['noor', 'jorge', 'amina'].map(teams.student) as [Browser, Browser, Browser];
  [crock, carboy] = teams.given.board.groups.map(({ id }) => id) as [GroupId, GroupId];
});

const { at, idOf, people, groups, aMessage, post, send, list, unread, thread, reply, seen } =
  messaging(teams);
/** “Noor: Bring two.” of each. */
const told = ({ messages }: ThreadView) => messages.map(({ by, text }) => `${by.name}: ${text}`);
const lines = async (by: Browser) =>
  (await list(by)).threads.map((line) => `${line.with.kind === 'group' ? line.with.group.name : line.with.person.name}, ${line.subject}, ${line.unread}${line.awaitsReply ? ', awaits' : ''}`); // prettier-ignore
const detail = ({ body }: { body: unknown }) => (body as { detail: string }).detail;
const mails = async () =>
  ((await ilse.get(`/api/courses/${teams.given.course.id}/outbox`).expect(200)).body as Outbox).mails;

describe('a message', () => {
  it('to one person is a thread with them, as it was typed, in which both write, and which comes back as new to the other', async () => {
    const { threadId } = await send(ilse, people('noor'), 1, { subject: '  Two\nlines ', text: '  Salt\n\n<b>& water</b>  ' }); // prettier-ignore
    expect(await lines(noor)).toEqual(['Noor, Two lines, 1']);
    expect([await unread(noor), await unread(ilse)]).toEqual([1, 0]);
    await seen(noor, threadId, 1);
    expect(await unread(noor)).toBe(0);
    expect(told(await reply(noor, threadId, 'Which salt?'))).toEqual(['Dr. Ilse Marrow:   Salt\n\n<b>& water</b>  ', 'Noor: Which salt?']); // prettier-ignore
    expect(await lines(ilse)).toEqual(['Noor, Two lines, 1, awaits']);
    const { messages, members, sendingId } = await reply(ilse, threadId, 'Coarse.');
    expect(messages.map(({ number, isNew, mayRemove, by }) => [number, isNew, mayRemove, by.isYou, by.isStaff])).toEqual([
      [1, false, true, true, true],
      [2, false, true, false, false],
      [3, false, true, true, true],
    ]); // prettier-ignore
    expect([members, sendingId]).toEqual([[], null]);
    expect((await thread(noor, threadId)).messages.map(({ isNew, mayRemove }) => [isNew, mayRemove])).toEqual([[false, false], [false, true], [true, false]]); // prettier-ignore
    expect(await lines(ilse)).toEqual(['Noor, Two lines, 0']);
    for (const by of [jorge, amina]) await by.get(`/api/threads/${threadId}`).expect(404);
  });

  it('to many is a thread with each alone, in which names are their own; to staff it is one line until someone replies', async () => {
    const sent = await send(ilse, people('noor', 'amina', 'nino'), 3, { subject: 'For {group}', text: 'Dear {first name} of {group}' }); // prettier-ignore
    expect(sent).toMatchObject({ threadId: null, count: 3 });
    expect((await list(ilse)).threads).toEqual([]);
    expect((await list(ilse)).sendings).toMatchObject([{ id: sent.id, subject: 'For {group}', kind: 'people', count: 3, replied: 0, by: { isYou: true } }]); // prettier-ignore
    expect(await lines(amina)).toEqual(['Amina, For Carboy, 1']);
    const own = sure((await list(amina)).threads[0]);
    expect(own.last.excerpt).toBe('Dear Amina of Carboy');
    expect((await list(amina)).sendings).toEqual([]);
    expect((await thread(amina, own.id)).sendingId).toBeNull();
    await reply(amina, own.id, 'Yes');
    expect(await lines(ilse)).toEqual(['Amina, For Carboy, 1, awaits']);
    expect(await unread(ilse)).toBe(1);
    const { threads, text, replied } = (await ilse.get(`/api/sendings/${sent.id}`).expect(200)).body as SendingView; // prettier-ignore
    expect([text, replied]).toEqual(['Dear {first name} of {group}', 1]);
    expect(threads.map((each) => [each.with.kind === 'person' && each.with.person.name, each.hasReplied])).toEqual([['Amina', true], ['Nino', false], ['Noor', false]]); // prettier-ignore
    const nino = sure((await list(teams.student('nino'))).threads[0]);
    expect(nino).toMatchObject({ subject: 'For your group', last: { excerpt: 'Dear Nino of your group' } });
    for (const by of [noor, amina]) await by.get(`/api/sendings/${sent.id}`).expect(404);
    expect((await thread(ilse, own.id)).sendingId).toBe(sent.id);
  });

  it('to groups, or to a set, is one thread for the members of each, and staff', async () => {
    const { id } = await send(ilse, { kind: 'set', setId: teams.given.set.id }, 2, { text: '{first name}: {group}' }); // prettier-ignore
    expect((await list(ilse)).sendings).toMatchObject([{ id, kind: 'groups', count: 2 }]);
    const [line] = (await list(jorge)).threads;
    expect(told(await thread(noor, sure(line).id))).toEqual(['Dr. Ilse Marrow: Jorge and Noor: Crock']);
    await reply(jorge, sure(line).id, 'Here');
    const now = await thread(noor, sure(line).id);
    expect([told(now).length, now.members]).toEqual([2, ['Jorge', 'Noor']]);
    expect(await unread(amina)).toBe(1);
    await amina.get(`/api/threads/${sure(line).id}`).expect(404);
    expect(await lines(ilse)).toEqual(['Crock, Jars, 1, awaits']);
  });

  it('of a student goes to their group, or to staff', async () => {
    expect((await noor.get(at('/recipients')).expect(200)).body).toMatchObject({ everyone: null, hasStaff: true, sets: [{ groups: [{ name: 'Crock' }] }], audiences: [] }); // prettier-ignore
    const { threadId } = await send(noor, groups(crock));
    expect(await lines(jorge)).toEqual(['Crock, Jars, 1']);
    expect(await lines(amina)).toEqual([]);
    const staff = await send(noor, { kind: 'staff' }, 1, { subject: 'Ill', text: 'I am {name}' });
    expect(await lines(jorge)).toEqual(['Crock, Jars, 1']);
    expect(await lines(ilse)).toEqual(['Noor, Ill, 1, awaits', 'Crock, Jars, 1, awaits']);
    expect(told(await thread(ilse, staff.threadId))).toEqual(['Noor: I am {name}']);
    expect(told(await reply(ilse, threadId, 'Good'))).toEqual(['Noor: Bring two.', 'Dr. Ilse Marrow: Good']);
    for (const to of [people('jorge'), groups(carboy), groups(crock, carboy), { kind: 'class' }, { kind: 'set', setId: teams.given.set.id }] as Recipients[])
      await post(noor, aMessage(to, 1)).expect(404); // prettier-ignore
    await post(ilse, aMessage({ kind: 'staff' }, 1)).expect(404);
  });

  it('goes out once, however often it is sent, and a reply is written once', async () => {
    for (const [to, count] of [
      [people('noor'), 1],
      [people('amina', 'kofi'), 2],
    ] as const) {
      const body = aMessage(to, count);
      const answers = await Promise.all([post(ilse, body), post(ilse, body), post(ilse, body)]);
      expect(answers.map(({ status, body: sent }) => [status, sent])).toEqual(Array.from({ length: 3 }, () => [200, sure(answers[0]).body])); // prettier-ignore
      // The same id is no way into what another wrote.
      await post(noor, body).expect(409);
    }
    const threadId = sure((await list(noor)).threads[0]).id;
    const body = { id: randomUUID(), text: 'Once' };
    const sent = await Promise.all([1, 2, 3].map(() => noor.post(`/api/threads/${threadId}/messages`).send(body))); // prettier-ignore
    expect(sent.map(({ status }) => status)).toEqual([200, 200, 200]);
    expect((await thread(noor, threadId)).messages.map(({ number }) => number)).toEqual([1, 2]);
    expect((await mails()).map(({ toAddress, subject }) => `${toAddress.split('@')[0]} ${subject}`).sort()).toEqual(['amina Jars', 'ilse Re: Jars', 'kofi Jars', 'noor Jars']); // prettier-ignore
    await jorge.post(`/api/threads/${threadId}/messages`).send({ id: randomUUID(), text: 'x' }).expect(404);
    const other = await send(jorge, { kind: 'staff' });
    await jorge.post(`/api/threads/${other.threadId}/messages`).send(body).expect(409);
  });

  it('that was changed after it went out unseen is refused, and what went out stays as it was', async () => {
    const body = aMessage(people('noor'), 1);
    await post(ilse, body).expect(200);
    for (const changed of [{ text: 'Bring three.' }, { subject: 'Crocks' }, { to: people('noor', 'amina'), count: 2 }])
      expect(detail(await post(ilse, { ...body, ...changed }).expect(409))).toBe('This was sent already, before you changed it. Find it under Messages, and write a new one if you need to.'); // prettier-ignore
    expect(told(await thread(noor, body.id))).toEqual(['Dr. Ilse Marrow: Bring two.']);
    const answer = { id: randomUUID(), text: 'Yes' };
    const path = `/api/threads/${body.id}/messages`;
    await noor.post(path).send(answer).expect(200);
    expect(detail(await noor.post(path).send({ ...answer, text: 'No' }).expect(409))).toBe('An earlier text of this was sent already and stands above. Press again to send this one as well.'); // prettier-ignore
    expect(told(await thread(noor, body.id))).toEqual(['Dr. Ilse Marrow: Bring two.', 'Noor: Yes']);
  });

  it('numbers replies one after another where many are written at once', async () => {
    const { threadId } = await send(noor, groups(crock));
    const at = `/api/threads/${threadId}/messages`;
    await Promise.all([noor, jorge, ilse, noor, jorge, ilse].map((by, of) => by.post(at).send({ id: randomUUID(), text: `${of}` }).expect(200))); // prettier-ignore
    expect((await thread(noor, threadId)).messages.map(({ number }) => number)).toEqual([
      1, 2, 3, 4, 5, 6, 7,
    ]);
  });

  it('is refused where it would reach others than were shown, and nothing of it goes out', async () => {
    const audience = { name: 'Dairy', include: [{ kind: 'person', enrolmentId: idOf('noor') }], exclude: [] };
    const { id: audienceId } = (await ilse.post(`/api/courses/${teams.given.course.id}/audiences`).send(audience).expect(200)).body as { id: never }; // prettier-ignore
    const { audiences, everyone, sets } = (await ilse.get(at('/recipients')).expect(200)).body as RecipientChoice; // prettier-ignore
    expect([audiences, everyone, sets.map(({ groups: of }) => of.length)]).toMatchObject([[{ name: 'Dairy', people: 1 }], 5, [2]]); // prettier-ignore
    await ilse.post(`/api/courses/${teams.given.course.id}/roster/changes`).send({ act: 'drop', enrolmentIds: [idOf('noor')] }).expect(200); // prettier-ignore
    const toNone = await post(ilse, aMessage({ kind: 'audience', audienceId }, 1)).expect(409);
    expect(detail(toNone)).toBe('No one gets this now: they have left meanwhile. Choose who to write to again.'); // prettier-ignore
    expect(detail(await post(ilse, aMessage({ kind: 'class' }, 5)).expect(409))).toBe('This would reach 4 people now, not 5. Look at who gets it, then send it again.'); // prettier-ignore
    await post(ilse, aMessage(people('noor', 'jorge'), 2)).expect(404);
    await post(ilse, aMessage(people('jorge'), 2)).expect(409);
    expect(await mails()).toEqual([]);
    expect(await teams.server.rows(`SELECT 1 FROM "message_sending" WHERE "courseId" = '${teams.given.course.id}'`)).toEqual([]); // prettier-ignore
    expect(await send(ilse, { kind: 'class' }, 4)).toMatchObject({ count: 4 });
  });

  it('has a subject of one line and words, and not more of them than a person reads', async () => {
    const refused = async (more: object) =>
      ((await post(ilse, aMessage(people('noor'), 1, more)).expect(422)).body as { issues: { message: string }[] }).issues[0]?.message; // prettier-ignore
    expect(await refused({ subject: ' \r\n ' })).toBe('Give the message a subject.');
    expect(await refused({ text: ' \n ' })).toBe('Write a message.');
    expect(await refused({ text: 'x'.repeat(10_001) })).toBe('10,000 characters are the most. Shorten it, or put it in a file.'); // prettier-ignore
    expect(await refused({ to: { kind: 'people', enrolmentIds: Array.from({ length: 10_001 }, () => randomUUID()) } })).toBe('10,000 recipients are the most. Write to a set or to an audience.'); // prettier-ignore
    await post(ilse, aMessage(people('noor'), 1, { text: 'salt '.repeat(40_000) })).expect(422);
    await post(ilse, aMessage({ kind: 'people', enrolmentIds: Array.from({ length: 10_000 }, () => randomUUID() as EnrolmentId) }, 10_000)).expect(404); // prettier-ignore
  });

  it('goes by mail too: to members and who is written to, and from a student to those of the staff who are in it', async () => {
    const bea = await aMember(teams.server, teams.given, `bea${teams.count}`, 'assistant');
    const { threadId } = await send(ilse, people('noor'), 1, { subject: 'Jars\r\nBcc: all@quillmere.example', text: 'One.\n\n  Two.' }); // prettier-ignore
    await reply(noor, threadId, 'Yes');
    const group = await send(noor, groups(crock));
    await reply(bea, group.threadId, 'Hello');
    await reply(jorge, group.threadId, 'Hi');
    const all = (await mails()).map(({ toAddress, subject }) => `${toAddress.replace(/@.*/, '')}: ${subject}`).reverse(); // prettier-ignore
    expect([all.slice(0, 3), all.slice(3, 5).sort(), all.slice(5).sort()]).toEqual([
      ['noor: Jars Bcc: all@quillmere.example', 'ilse: Re: Jars Bcc: all@quillmere.example', 'jorge: Jars'],
      ['jorge: Re: Jars', 'noor: Re: Jars'],
      [`bea${teams.count}: Re: Jars`, 'noor: Re: Jars'],
    ]);
    const [first] = (await mails()).slice(-1);
    expect(first).toMatchObject({ paragraphs: ['One.', 'Two.'], link: { label: 'Read and reply', url: `http://jigsaw.test/c/${teams.given.course.id}/messages/${threadId}` } }); // prettier-ignore
  });
});

describe('removing a message', () => {
  it('is for its author or an instructor, and comes back for who removed it', async () => {
    const { threadId } = await send(noor, groups(crock));
    const { messages } = await reply(jorge, threadId, 'Oops');
    const path = `/api/messages/${sure(messages[1]).id}`;
    expect(detail(await noor.delete(path).expect(403))).toBe('Its author removes a message, or an instructor.'); // prettier-ignore
    await amina.delete(path).expect(404);
    for (const by of [ilse, ilse]) expect(told((await by.delete(path).expect(200)).body as ThreadView)).toEqual(['Noor: Bring two.']); // prettier-ignore
    await jorge.post(`${path}/restore`).expect(404);
    expect(told(await thread(jorge, threadId))).toEqual(['Noor: Bring two.']);
    expect(sure((await list(noor)).threads[0]).last.excerpt).toBe('Bring two.');
    expect(await unread(noor)).toBe(0);
    expect(told((await ilse.post(`${path}/restore`).expect(200)).body as ThreadView)).toEqual(['Noor: Bring two.', 'Jorge: Oops']); // prettier-ignore
    expect(await unread(noor)).toBe(1);
  });

  it('leaves nothing of a thread that has no other, until it is restored', async () => {
    const { id, threadId } = await send(ilse, people('noor'));
    await ilse.delete(`/api/messages/${id}`).expect(200);
    await noor.get(`/api/threads/${threadId}`).expect(404);
    expect([await lines(noor), await unread(noor)]).toEqual([[], 0]);
    await ilse.post(`/api/messages/${id}/restore`).expect(200);
    expect(await lines(noor)).toEqual(['Noor, Jars, 1']);
  });

  it('takes one that went to many out of all their threads, and nothing that was replied', async () => {
    const sent = await send(ilse, people('noor', 'amina'), 2);
    const own = sure((await list(amina)).threads[0]).id;
    await reply(amina, own, 'Yes');
    await noor.delete(`/api/sendings/${sent.id}`).expect(404);
    for (let time = 0; time < 2; time += 1) await ilse.delete(`/api/sendings/${sent.id}`).expect(200);
    expect(await lines(noor)).toEqual([]);
    expect(told(await thread(amina, own))).toEqual(['Amina: Yes']);
    expect((await list(ilse)).sendings).toEqual([]);
    await ilse.get(`/api/sendings/${sent.id}`).expect(404);
    await ilse.post(`/api/sendings/${sent.id}/restore`).expect(200);
    expect(await lines(noor)).toEqual(['Noor, Jars, 1']);
    expect(told(await thread(amina, own))).toEqual(['Dr. Ilse Marrow: Bring two.', 'Amina: Yes']);
  });
});

describe('who reads a thread', () => {
  it('is decided alike in the list, in the count and at its address, and hears of it; no one else does', async () => {
    const { server, given, count } = teams;
    const [tomas, bea] = [await aMember(server, given, `tomas${count}`, 'assistant'), await aMember(server, given, `bea${count}`, 'assistant')]; // prettier-ignore
    const olga = await aMember(server, given, `olga${count}`, 'observer');
    await crockIsLedBy(given, `Tomas${count}`);
    const roster = (await ilse.get(`/api/courses/${given.course.id}/roster`).expect(200)).body as { entries: { name: string; enrolmentId: EnrolmentId }[] }; // prettier-ignore
    const member = (name: string): Recipients => ({ kind: 'people', enrolmentIds: [sure(roster.entries.find((entry) => entry.name === name)).enrolmentId] }); // prettier-ignore
    await ilse.post(`/api/courses/${given.course.id}/practice`).send({ groupId: crock }).expect(200);
    const everyone = { ilse, tomas, bea, olga, noor, jorge, amina, practice: practising(ilse, crock) };
    const cases: readonly (readonly [Browser, Recipients, readonly string[]])[] = [
      [noor, { kind: 'staff' }, ['ilse', 'tomas', 'noor']],
      [amina, { kind: 'staff' }, ['ilse', 'amina']],
      [bea, people('amina'), ['ilse', 'bea', 'amina']],
      [tomas, member(`Olga${count}`), ['tomas', 'olga']],
      [noor, groups(crock), ['ilse', 'tomas', 'noor', 'jorge']],
      [ilse, groups(carboy), ['ilse', 'amina']],
      [tomas, groups(crock), ['ilse', 'tomas', 'noor', 'jorge']],
    ];
    for (const [by, to, readers] of cases) {
      const pages = await Promise.all(Object.values(everyone).slice(0, -1).map((each) => follow(each, given.course.id))); // prettier-ignore
      const { threadId } = await send(by, to);
      await tellAll(server, given.course.id);
      const heard = await Promise.all(pages.map((page) => page.until(marker)));
      for (const page of pages) page.stop();
      const names = Object.keys(everyone);
      expect(names.filter((_name, of) => heard[of]?.includes('message.sent'))).toEqual(readers);
      const opened: string[] = [];
      const listed: string[] = [];
      for (const [name, each] of Object.entries(everyone)) {
        if ((await each.get(`/api/threads/${threadId}`)).status === 200) opened.push(name);
        if ((await list(each)).threads.some(({ id }) => id === threadId)) listed.push(name);
      }
      expect([opened, listed]).toEqual([readers, readers]);
    }
    for (const each of Object.values(everyone)) {
      const { threads } = await list(each);
      expect(await unread(each)).toBe(threads.filter((line) => line.unread > 0).length);
    }
    // An assistant who sees the work of the groups they lead writes to those, and to people.
    await post(tomas, aMessage(groups(carboy), 1)).expect(404);
    expect((await tomas.get(at('/recipients')).expect(200)).body).toMatchObject({ sets: [{ groups: [{ name: 'Crock' }] }] }); // prettier-ignore
    for (const [by, status] of [
      [olga, 404],
      [everyone.practice, 403],
    ] as const)
      await post(by, aMessage(groups(crock), 1)).expect(status);
  });

  it('follows the group: who moves out reads nothing of it any more, who comes in all of it', async () => {
    const { threadId } = await send(jorge, groups(crock));
    const moves = [{ student: idOf('jorge'), from: crock, to: null }, { student: idOf('nino'), from: null, to: crock }]; // prettier-ignore
    await ilse.post(`/api/sets/${teams.given.set.id}/place`).send({ moves }).expect(200);
    await jorge.get(`/api/threads/${threadId}`).expect(404);
    expect([await lines(jorge), await unread(jorge)]).toEqual([[], 0]);
    expect(told(await thread(teams.student('nino'), threadId))).toEqual(['Jorge: Bring two.']);
  });

  it('is told page by page, the latest first', async () => {
    for (const subject of ['1', '2', '3']) await send(noor, groups(crock), 1, { subject });
    const { threads, hasMore } = await list(jorge, '?most=2');
    expect([threads.map(({ subject }) => subject), hasMore]).toEqual([['3', '2'], true]);
    expect((await list(jorge)).hasMore).toBe(false);
    await noor.get(at('?most=0')).expect(422);
  });
});
