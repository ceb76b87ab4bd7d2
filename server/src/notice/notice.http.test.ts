import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { DiscussionView } from '@jigsaw/contract/discussion';
import type { ActivityView } from '@jigsaw/contract/release';
import type { CopyHead, RoomItem } from '@jigsaw/contract/rooms';
import { theClass } from '@jigsaw/core/release';
import { newId } from '../platform/ids.js';
import { aCourse, anAssignment, aText, copyOf, itemOf, released, toRead } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { sure } from '@jigsaw/core/lists';

let server: TestServer;
let given: CourseForTests;
let title: string;
let count = 0;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi
});
afterAll(() => server.stop());
beforeEach(() => {
  count += 1;
  title = `Lab is closed ${count}`;
  server.clock.set('2026-11-10T10:00:00Z');
});

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const aNotice = (settings: object = {}, how = {}) =>
  released(given, toRead('notice', { title, settings: settings as ActivityView['settings'] }), how);
const item = (name: string): Promise<RoomItem> => itemOf(student(name), given.course.id, title);
const read = (name: string, copyId: string) =>
  student(name).post(`/api/copies/${copyId}/seen`).send({ what: 'all' }).expect(200);
const reply = (who: Browser, copyId: string, text = 'Where do we go?') =>
  who.post(`/api/copies/${copyId}/posts`).send({ id: newId(), parentId: null, text: aText(text) });
const talk = async (who: Browser, copyId: string) =>
  (await who.get(`/api/copies/${copyId}/discussion`).expect(200)).body as DiscussionView;

describe('a notice', () => {
  it('is new to each of its readers until they read it, and not to the one who wrote it', async () => {
    await aNotice();
    const { copyId, unread, latest, progress } = await item('noor');
    expect({ unread, owes: progress.owes, latest }).toMatchObject({ unread: 1, owes: false, latest: { excerpt: '', byYou: false } }); // prettier-ignore
    await read('noor', copyId);
    expect((await item('noor')).unread).toBe(0);
    expect((await item('jorge')).unread).toBe(1);
    const head = (await given.instructor.get(`/api/copies/${copyId}`).expect(200)).body as CopyHead;
    expect(head.unread).toBe(0);
  });

  it('is new again once what it says has changed and is published, not while that is in work', async () => {
    const { id, version } = await aNotice();
    const { copyId } = await item('noor');
    await read('noor', copyId);
    const draft = anAssignment({ ...toRead('notice'), title, brief: aText('Closed on Tuesday, too.') }); // prettier-ignore
    const edited = (await given.instructor.put(`/api/activities/${id}`).send({ ...draft, version }).expect(200)).body as ActivityView; // prettier-ignore
    expect((await item('noor')).unread).toBe(0);
    await given.instructor
      .post(`/api/activities/${id}/publish`)
      .send({ version: edited.version })
      .expect(200);
    expect((await item('noor')).unread).toBe(1);
  });

  it('is new again when it is released again with other words, and not when a move changes nothing of it', async () => {
    const { id, version } = await aNotice();
    const { copyId } = await item('noor');
    await read('noor', copyId);
    const many = { activities: [{ id, version }], act: { kind: 'move', days: 7 } };
    await given.instructor.post(`/api/courses/${given.course.id}/activities/many`).send(many).expect(200);
    expect((await item('noor')).unread).toBe(0);
    const draft = anAssignment({ ...toRead('notice'), title, brief: aText('Closed for good.') });
    const edited = (await given.instructor.put(`/api/activities/${id}`).send({ ...draft, version: version + 1 }).expect(200)).body as ActivityView; // prettier-ignore
    await given.instructor.post(`/api/activities/${id}/withdraw`).expect(200);
    const { to, mode, outsiders } = sure(edited.release);
    const again = { to, mode, outsiders, goesLiveAt: null, version: edited.version };
    await given.instructor.post(`/api/activities/${id}/release`).send(again).expect(200);
    expect((await item('noor')).unread).toBe(1);
  });

  it('keeps the replies to one group’s copy among them', async () => {
    await aNotice();
    const copyId = await copyOf(student('noor'), given.course.id, title);
    await reply(student('noor'), copyId).expect(200);
    expect((await talk(student('jorge'), copyId)).threads).toHaveLength(1);
    await student('amina').get(`/api/copies/${copyId}/discussion`).expect(404);
    const others = await copyOf(student('amina'), given.course.id, title);
    expect((await talk(student('amina'), others)).threads).toEqual([]);
    expect((await item('jorge')).unread).toBe(2);
    expect((await item('amina')).unread).toBe(1);
  });

  it('takes no replies where they are off, of staff neither; what was replied before stays', async () => {
    const { id, version } = await aNotice({ hasReplies: true }, { to: theClass, mode: 'common' });
    const copyId = await copyOf(student('noor'), given.course.id, title);
    await reply(student('noor'), copyId).expect(200);
    const draft = anAssignment({ ...toRead('notice'), title, settings: { hasReplies: false } }); // prettier-ignore
    const edited = (await given.instructor.put(`/api/activities/${id}`).send({ ...draft, version }).expect(200)).body as ActivityView; // prettier-ignore
    await given.instructor
      .post(`/api/activities/${id}/publish`)
      .send({ version: edited.version })
      .expect(200);
    for (const who of [student('kofi'), given.instructor]) {
      const refused = await reply(who, copyId).expect(403);
      expect((refused.body as { detail: string }).detail).toContain('Replies are off here.');
    }
    const { threads, mayOpenThread, mayReply } = await talk(student('kofi'), copyId);
    expect({ threads: threads.length, mayOpenThread, mayReply }).toEqual({ threads: 1, mayOpenThread: false, mayReply: false }); // prettier-ignore
  });

  it('has no points and no due date', async () => {
    for (const part of [
      { points: '10' },
      { schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes: null } },
    ]) {
      const draft = anAssignment({ ...toRead('notice'), title, ...part }); // prettier-ignore
      const refused = await given.instructor.post(`/api/courses/${given.course.id}/activities`).send(draft).expect(422); // prettier-ignore
      expect((refused.body as { detail: string }).detail).toContain('no points and no due date');
    }
  });

  it('that is scheduled is as old as the moment at which it came out', async () => {
    await aNotice({}, { goesLiveAt: '2026-11-11T08:00:00.000Z' });
    server.clock.set('2026-11-12T08:00:00Z');
    expect((await item('noor')).latest?.at).toBe('2026-11-11T08:00:00.000Z');
  });
});

describe('a group that no one was ever in', () => {
  const edit = (change: { groups: object[]; removed: string[] }) =>
    given.instructor.put(`/api/sets/${given.set.id}/groups`).send(change);
  const emptyGroup = async () => {
    const added = { id: null, name: `Cask ${count}`, capacity: 2, isLocked: false, version: 0 };
    const { groups } = (await edit({ groups: [added], removed: [] }).expect(200)).body as { groups: { id: string; name: string }[] }; // prettier-ignore
    return sure(groups.find((group) => group.name === `Cask ${count}`)).id;
  };

  it.each(['notice', 'wiki'] as const)('goes with its copy of a %s as it was released', async (kind) => {
    await released(given, toRead(kind, { title }));
    await edit({ groups: [], removed: [await emptyGroup()] }).expect(200);
  });

  it('stays, with a sentence, where staff wrote into its copy', async () => {
    const { release } = await aNotice();
    const groupId = await emptyGroup();
    const rows = (await server.rows(`SELECT "id" FROM "copy" WHERE "releaseId" = '${sure(release).id}' AND "groupId" = '${groupId}'`)) as { id: string }[]; // prettier-ignore
    await reply(given.instructor, sure(rows[0]).id).expect(200);
    const refused = await edit({ groups: [], removed: [groupId] }).expect(409);
    expect((refused.body as { detail: string }).detail).toContain('has members, work, notes or files');
  });
});
