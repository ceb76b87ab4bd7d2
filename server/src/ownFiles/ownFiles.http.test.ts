import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { OwnFiles } from '@jigsaw/contract/ownFiles';
import type { ActivityView } from '@jigsaw/contract/release';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember, anAssignment, attachedTo, copyOf, putOwn } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import { marker, tellAll } from '../test/marker.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

const unknown = '01a22817-0000-7000-8000-000000000000';
let server: TestServer;
let given: CourseForTests;
let live: ActivityView;
let fileId: string;
let crocks: string;
let carboys: string;
let count = 0;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi
});
afterAll(() => server.stop());
beforeEach(async () => {
  count += 1;
  const title = `Log ${count}`;
  ({ live, fileId } = await attachedTo(given, 'sheet.csv', 'day,pH', { isPerGroup: true, title }));
  crocks = await copyOf(student('noor'), given.course.id, title);
  carboys = await copyOf(student('amina'), given.course.id, title);
});

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const own = async (by: Browser, copyId: string) =>
  ((await by.get(`/api/copies/${copyId}`).expect(200)).body as CopyHead).ownFiles;
const numbers = ({ files }: OwnFiles) => files.map((file) => file.versions.map(({ number, by }) => `${number} ${by?.name ?? ''}`.trim())); // prettier-ignore
const read = async (by: Browser, copyId: string, number: number) =>
  (await by.get(`/api/copies/${copyId}/own-files/${fileId}/versions/${number}`).expect(200)).text;
const restore = (by: Browser, number: number, newest: number) =>
  by.post(`/api/copies/${crocks}/own-files/${fileId}/restore`).send({ number, newest });
const detail = ({ body }: { body: unknown }) => (body as { detail: string }).detail;

describe('a file of which each group has its own', () => {
  it('begins in every copy as it was attached, is not among what all read, and is changed by its members', async () => {
    const { files } = (await student('noor').get(`/api/copies/${crocks}`).expect(200)).body as CopyHead;
    expect(files).toEqual([]);
    expect(await own(student('noor'), crocks)).toMatchObject({ mayPut: true, files: [{ originalId: fileId, name: 'sheet.csv', versions: [{ number: 0, by: null, sizeBytes: 6 }] }] }); // prettier-ignore
    const answer = (await putOwn(student('noor'), crocks, fileId, 0, 'day,pH\n1,5.9').expect(200)).body as OwnFiles; // prettier-ignore
    expect(answer).toEqual(await own(student('noor'), crocks));
    await putOwn(student('jorge'), crocks, fileId, 1, 'day,pH\n1,5.9\n2,5.1', 'sheet day 2.csv').expect(200);
    const now = await own(student('jorge'), crocks);
    expect(numbers(now)).toEqual([['2 Jorge', '1 Noor', '0']]);
    expect(now.files[0]?.versions[0]).toMatchObject({ name: 'sheet day 2.csv', by: { isYou: true } });
    expect(await Promise.all([2, 1, 0].map((number) => read(student('noor'), crocks, number)))).toEqual(['day,pH\n1,5.9\n2,5.1', 'day,pH\n1,5.9', 'day,pH']); // prettier-ignore
    expect(numbers(await own(student('amina'), carboys))).toEqual([['0']]);
    await student('amina').get(`/api/copies/${carboys}/own-files/${fileId}/versions/1`).expect(404);
  });

  it('is there for no one else, and other groups hear nothing of it', async () => {
    const [theirs, others] = [await follow(student('jorge'), given.course.id), await follow(student('amina'), given.course.id)]; // prettier-ignore
    await putOwn(student('noor'), crocks, fileId, 0, 'mine').expect(200);
    await tellAll(server, given.course.id);
    expect(await theirs.until(marker)).toContain('own-file.changed');
    expect(await others.until(marker)).toEqual([marker]);
    for (const page of [theirs, others]) page.stop();
    const never = await student('amina').get(`/api/copies/${unknown}/own-files/${fileId}/versions/1`);
    for (const name of ['amina', 'nino']) {
      const refused = await student(name).get(`/api/copies/${crocks}/own-files/${fileId}/versions/1`);
      expect([refused.status, refused.body]).toEqual([404, never.body]);
      await putOwn(student(name), crocks, fileId, 1, 'theirs').expect(404);
    }
    // A file of another activity is not this copy's, whoever asks.
    const { fileId: other } = await attachedTo(given, 'other.csv', 'x', { isPerGroup: true, title: `Other ${count}` }); // prettier-ignore
    await putOwn(student('noor'), crocks, other, 0, 'mine').expect(404);
    await student('noor').get(`/api/copies/${crocks}/attached/${unknown}`).expect(404);
  });

  it('is not overwritten by someone who has not seen the newest version, and nothing of theirs stays', async () => {
    await putOwn(student('noor'), crocks, fileId, 0, 'first').expect(200);
    const bytes = () => server.rows(`SELECT "id" FROM "blob"`);
    const before = await bytes();
    const refused = await putOwn(student('jorge'), crocks, fileId, 0, `second ${count}`).expect(409);
    expect(detail(refused)).toBe('There is a newer version of this file. Look at it first, then add yours.');
    expect(await bytes()).toEqual(before);
    expect(detail(await restore(student('jorge'), 0, 0).expect(409))).toContain('newer version');
    expect(numbers(await own(student('jorge'), crocks))).toEqual([['1 Noor', '0']]);
    const both = await Promise.all(['noor', 'jorge'].map((name) => putOwn(student(name), crocks, fileId, 1, name))); // prettier-ignore
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
  });

  it('becomes again what it was, as a newer version; those between stay', async () => {
    await putOwn(student('noor'), crocks, fileId, 0, 'one').expect(200);
    await putOwn(student('noor'), crocks, fileId, 1, 'two').expect(200);
    const answer = (await restore(student('jorge'), 1, 2).expect(200)).body as OwnFiles;
    expect(numbers(answer)).toEqual([['3 Jorge', '2 Noor', '1 Noor', '0']]);
    expect(answer.files[0]?.versions[0]?.restored).toBe(1);
    expect(await read(student('noor'), crocks, 3)).toBe('one');
    await restore(student('jorge'), 0, 3).expect(200);
    expect(await read(student('noor'), crocks, 4)).toBe('day,pH');
    await restore(student('jorge'), 9, 4).expect(404);
    await restore(student('jorge'), -1, 4).expect(422);
  });

  it('is read only once the activity is closed; staff look on, and observers cannot change it', async () => {
    await putOwn(given.instructor, crocks, fileId, 0, 'with a note').expect(200);
    expect(numbers(await own(student('noor'), crocks))).toEqual([['1 Dr. Ilse Marrow', '0']]);
    const guest = await aMember(server, given, `guest${count}`, 'observer');
    const seen = (await guest.get(`/api/copies/${crocks}`)).body as Partial<CopyHead>;
    if (seen.ownFiles) expect(seen.ownFiles.mayPut).toBe(false);
    expect([403, 404]).toContain((await putOwn(guest, crocks, fileId, 1, 'x')).status);
    server.clock.set('2026-10-20T10:00:00Z');
    const { version } = (await given.instructor.get(`/api/activities/${live.id}`)).body as ActivityView;
    const closes = { opens: null, due: '2026-10-20T11:00:00.000Z', closes: '2026-10-20T12:00:00.000Z' };
    const edited = (await given.instructor.put(`/api/activities/${live.id}`).send({ ...anAssignment({ title: live.title }), files: live.files, schedule: closes, version }).expect(200)).body as ActivityView; // prettier-ignore
    await given.instructor.post(`/api/activities/${live.id}/publish`).send({ version: edited.version }).expect(200); // prettier-ignore
    server.clock.set('2026-10-20T13:00:00Z');
    expect((await own(student('noor'), crocks)).mayPut).toBe(false);
    await putOwn(student('noor'), crocks, fileId, 1, 'late').expect(409);
    expect(await read(student('noor'), crocks, 1)).toBe('with a note');
  });

  it('stays with a group that changed it when it is no longer attached, and goes with a copy of the activity as it was', async () => {
    await putOwn(student('noor'), crocks, fileId, 0, 'ours').expect(200);
    const copied = (await given.instructor.post(`/api/activities/${live.id}/copy`).send({}).expect(200)).body as ActivityView; // prettier-ignore
    expect(copied.files).toMatchObject([{ id: fileId, isPerGroup: true }]);
    const { version } = (await given.instructor.get(`/api/activities/${live.id}`)).body as ActivityView;
    const edited = (await given.instructor.put(`/api/activities/${live.id}`).send({ ...anAssignment({ title: live.title }), files: [], version }).expect(200)).body as ActivityView; // prettier-ignore
    await given.instructor.post(`/api/activities/${live.id}/publish`).send({ version: edited.version }).expect(200); // prettier-ignore
    expect(numbers(await own(student('jorge'), crocks))).toEqual([['1 Noor', '0']]);
    expect(await read(student('jorge'), crocks, 0)).toBe('day,pH');
    expect((await own(student('amina'), carboys)).files).toEqual([]);
    await student('amina').get(`/api/copies/${carboys}/own-files/${fileId}/versions/0`).expect(404);
  });

  it('needs its name, and the version that was seen', async () => {
    const path = `/api/copies/${crocks}/own-files/${fileId}/versions`;
    const send = (query: object) => student('noor').post(path).query(query).set('Content-Type', 'application/octet-stream').send(Buffer.from('x')); // prettier-ignore
    expect(detail(await send({ name: 'a.csv' }).expect(422))).toBe('Say which version is the newest that was seen.'); // prettier-ignore
    expect(detail(await send({ name: '\u202e/', newest: 0 }).expect(422))).toContain('A file needs a name');
    for (const number of ['x', '-1', '1e9', '1.5'])
      await student('noor').get(`${path}/${number}`).expect(404);
  });
});
