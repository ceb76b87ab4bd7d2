import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { RoomItem, RoomLine, RoomLines, RoomView } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { theClass } from '@jigsaw/core/release';
import { newId } from '../platform/ids.js';
import { aCourse, aMember, aText, copyOf, crockIsLedBy, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let assistant: Browser;
let observer: Browser;
const student = (name: string) => sure(given.students.get(name)).browser;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 });
  assistant = await aMember(server, given, 'tomas', 'assistant');
  observer = await aMember(server, given, 'olga', 'observer');
  await crockIsLedBy(given, 'Tomas');
  const schedule = (due: string) => ({ opens: null, due, closes: null });
  await released(given, { title: 'Report', schedule: schedule('2026-11-12T17:00:00.000Z') });
  await released(given, { kind: 'discussion', title: 'Talk', settings: {} });
  await released(given, { kind: 'discussion', title: 'All', settings: {} }, { to: theClass, mode: 'common' });
});
afterAll(() => server.stop());

const lines = async (browser: Browser = given.instructor): Promise<RoomLines> =>
  (await browser.get(`/api/courses/${given.course.id}/room-lines`).expect(200)).body as RoomLines;
const room = async (groupId: string, browser: Browser = given.instructor): Promise<RoomView> =>
  (await browser.get(`/api/groups/${groupId}/room`).expect(200)).body as RoomView;
const say = async (name: string, title: string) =>
  student(name)
    .post(`/api/copies/${await copyOf(student(name), given.course.id, title)}/posts`)
    .send({ id: newId(), parentId: null, text: aText('It smells of apples') })
    .expect(200);

/** A line as it follows from what stands in the room, item by item. */
function fromRoom({ items }: RoomView): Partial<RoomLine> & { missing: string[] } {
  const isMissing = ({ kind, due, progress }: RoomItem) =>
    kind === 'assignment' && due !== null && new Date(due) < server.clock.now() && progress.at === null;
  const byTime = items
    .flatMap(({ latest, title, copyId }) => (latest ? [{ at: latest.at, by: latest.by, title, copyId }] : []))
    .sort((a, b) => b.at.localeCompare(a.at));
  return {
    items: items.length,
    unread: items.reduce((sum, item) => sum + item.unread, 0),
    missing: items.filter(isMissing).map((item) => item.title),
    latest: byTime[0] ?? null,
  };
}
const missingIn = ({ needs }: RoomLine) =>
  needs.flatMap((need) => (need.code === 'missing' ? [need.title] : []));
const expectTrue = async (browser: Browser = given.instructor) => {
  for (const line of (await lines(browser)).lines)
    expect({ ...line, missing: missingIn(line) }).toMatchObject(fromRoom(await room(line.group.id, browser)));
};

describe('all rooms at a glance', () => {
  it('say what each room says, whatever happens and for whoever looks', async () => {
    const everyLook = async () => {
      for (const browser of [given.instructor, observer, assistant]) await expectTrue(browser);
    };
    await everyLook();
    await say('noor', 'Talk');
    await say('amina', 'Talk');
    await everyLook();
    const [crock, carboy] = (await lines()).lines;
    expect(sure(crock)).toMatchObject({ unread: 1, latest: { by: 'Noor', title: 'Talk' }, needs: [] });
    expect(sure(carboy)).toMatchObject({ unread: 1, latest: { by: 'Amina', title: 'Talk' } });

    // Seen by one of them, it is still new to the others.
    await given.instructor
      .post(`/api/copies/${sure(sure(crock).firstUnread)}/seen`)
      .send({ what: 'all' })
      .expect(200);
    expect((await lines()).lines.map((line) => line.unread)).toEqual([0, 1]);
    expect((await lines(observer)).lines.map((line) => line.unread)).toEqual([1, 1]);
    await everyLook();

    server.clock.pass({ days: 5 }); // the report is over
    expect((await lines()).lines.map(missingIn)).toEqual([['Report'], ['Report']]);
    await everyLook();
  });

  it('are those that an assistant looks after, and no one else’s', async () => {
    const own = (await lines(assistant)).lines;
    expect(own.map((line) => line.group.name)).toEqual(['Crock']);
    const [, carboy] = (await lines()).lines;
    await assistant.get(`/api/groups/${sure(carboy).group.id}/room`).expect(404);
    await student('amina')
      .get(`/api/groups/${sure(carboy).group.id}/room`)
      .expect(404);
    await student('amina').get(`/api/courses/${given.course.id}/room-lines`).expect(404);
  });

  it('name everyone who is in them, and what the class has in one copy', async () => {
    const { lines: all, common } = await lines();
    expect(all.flatMap((line) => line.members)).toHaveLength(4); // the fifth has no group
    expect(common.map((item) => item.title)).toEqual(['All']);
    await say('noor', 'All');
    expect((await lines()).common).toMatchObject([{ unread: 1, latest: { by: 'Noor' } }]);
  });
});
