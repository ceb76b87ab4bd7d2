import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { ActivityView, AttachedFile } from '@jigsaw/contract/release';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import {
  aCourse,
  aMember,
  anAssignment,
  attach,
  attachedTo,
  copyOf,
  released,
  toRead,
} from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;

beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());
let count = 0;
beforeEach(async () => {
  count += 1;
  const school = `a${count}.example`;
  given = await aCourse(server, { students: 5, groups: 2, email: `ilse@${school}`, school }); // Crock: noor, jorge; Carboy: amina, kofi
});

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const head = async (by: Browser, copyId: string) =>
  (await by.get(`/api/copies/${copyId}`).expect(200)).body as CopyHead;
const edit = async (activity: ActivityView, files: readonly AttachedFile[]) =>
  given.instructor
    .put(`/api/activities/${activity.id}`)
    .send({ ...anAssignment(), files, version: activity.version });
const aDraft = async () =>
  (await given.instructor.post(`/api/courses/${given.course.id}/activities`).send(anAssignment()).expect(200))
    .body as ActivityView;

describe('a file that is attached', () => {
  it('is read by everyone who has a copy, with its name, and by no one else', async () => {
    const { fileId } = await attachedTo(given, 'Brief – 한서연.txt', 'Salt first.');
    const copyId = await copyOf(student('noor'), given.course.id);
    expect((await head(student('noor'), copyId)).files).toMatchObject([{ name: 'Brief – 한서연.txt', sizeBytes: 11 }]); // prettier-ignore
    const read = await student('noor').get(`/api/copies/${copyId}/attached/${fileId}`).expect(200);
    expect(read.text).toBe('Salt first.');
    expect(read.headers['content-disposition']).toContain('attachment');
    expect(read.headers['content-security-policy']).toContain('sandbox');
    const never = await student('amina').get(`/api/copies/${copyId}/attached/01a22817-0000-7000-8000-000000000000`).expect(404); // prettier-ignore
    const foreign = await student('amina').get(`/api/copies/${copyId}/attached/${fileId}`).expect(404);
    expect(foreign.body).toEqual(never.body);
    await student('nino').get(`/api/copies/${copyId}/attached/${fileId}`).expect(404);
  });

  it('that is in work reaches its groups only once it is published', async () => {
    const { live, fileId } = await attachedTo(given, 'old.txt', 'old');
    const copyId = await copyOf(student('noor'), given.course.id);
    const file = (await attach(given.instructor, live.id, 'new.txt', Buffer.from('new')).expect(200)).body as AttachedFile; // prettier-ignore
    const edited = (await edit(live, [file])).body as ActivityView;
    expect(edited.inWork?.files.map((each) => each.name)).toEqual(['new.txt']);
    await student('noor').get(`/api/copies/${copyId}/attached/${file.id}`).expect(404);
    await given.instructor.get(`/api/activities/${live.id}/files/${file.id}`).expect(200);
    await student('noor').get(`/api/activities/${live.id}/files/${file.id}`).expect(404);
    await given.instructor
      .post(`/api/activities/${live.id}/publish`)
      .send({ version: edited.version })
      .expect(200);
    await student('noor').get(`/api/copies/${copyId}/attached/${file.id}`).expect(200);
    await student('noor').get(`/api/copies/${copyId}/attached/${fileId}`).expect(404);
  });

  it('is called as it was uploaded, whatever a page says of it, and attached once', async () => {
    const draft = await aDraft();
    const file = (await attach(given.instructor, draft.id, 'a.txt', Buffer.from('a')).expect(200)).body as AttachedFile; // prettier-ignore
    const lie = { ...file, name: 'virus.exe', mediaType: 'text/html', sizeBytes: 1 };
    const { files } = (await edit(draft, [lie, file])).body as ActivityView;
    expect(files).toEqual([file]);
  });

  it('of another activity is refused with a sentence, and so is one that never was', async () => {
    const [one, other] = [await aDraft(), await aDraft()];
    const file = (await attach(given.instructor, other.id, 'a.txt', Buffer.from('a')).expect(200)).body as AttachedFile; // prettier-ignore
    for (const foreign of [file, { ...file, id: '01a22817-0000-7000-8000-000000000000' as typeof file.id }]) {
      const refused = await edit(one, [foreign]);
      expect(refused.status).toBe(422);
      expect((refused.body as { detail: string }).detail).toBe('One of the files is not here. Remove it, and add it again.'); // prettier-ignore
    }
    const created = await given.instructor
      .post(`/api/courses/${given.course.id}/activities`)
      .send({ ...anAssignment(), files: [file] })
      .expect(422);
    expect((created.body as { detail: string }).detail).toBe(
      'Create the activity first, then add its files.',
    );
  });

  it('goes with a copy of the activity, and stays there when it is removed here', async () => {
    const { live, fileId } = await attachedTo(given, 'a.txt', 'a');
    const copy = (await given.instructor.post(`/api/activities/${live.id}/copy`).send({}).expect(200)).body as ActivityView; // prettier-ignore
    expect(copy.files.map((each) => each.id)).toEqual([fileId]);
    await edit(live, []);
    expect(((await edit(copy, copy.files)).body as ActivityView).files).toHaveLength(1);
    await given.instructor.get(`/api/activities/${copy.id}/files/${fileId}`).expect(200);
  });

  it('is never run as a page of ours, whatever it holds and says of itself', async () => {
    const script = '<script>fetch("/api/session")</script>';
    for (const [name, type, content] of [
      [
        'logo.svg',
        'image/svg+xml',
        `<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)">${script}</svg>`,
      ],
      ['page.html', 'text/html', `<!doctype html>${script}`],
      ['page.xhtml', 'application/xhtml+xml', `<html xmlns="http://www.w3.org/1999/xhtml">${script}</html>`],
    ] as const) {
      const draft = await aDraft();
      const file = (await attach(given.instructor, draft.id, name, Buffer.from(content), type).expect(200)).body as AttachedFile; // prettier-ignore
      const { headers, body } = await given.instructor
        .get(`/api/activities/${draft.id}/files/${file.id}`)
        .buffer(true)
        .parse((answer, done) => {
          // prettier-ignore
          const chunks: Buffer[] = [];
          answer.on('data', (chunk: Buffer) => chunks.push(chunk));
          answer.on('end', () => done(null, Buffer.concat(chunks).toString()));
        });
      expect(body).toBe(content);
      expect(headers['content-disposition']).toBe(`attachment; filename="${name}"; filename*=UTF-8''${name}`);
      expect(headers['content-security-policy']).toBe("default-src 'none'; sandbox");
      expect(headers['x-content-type-options']).toBe('nosniff');
    }
  });

  it('is called what it is: no name leads elsewhere or reads backwards', async () => {
    const draft = await aDraft();
    for (const [sent, kept] of [
      ['../../etc/passwd', '....etcpasswd'],
      ['C:\\temp\\brine.txt', 'C:tempbrine.txt'],
      ['invoice\u202efdp.exe', 'invoicefdp.exe'],
      ['\u2067brine\u2069\u061c\u200f.txt', 'brine.txt'],
      ['a\r\nSet-Cookie: x=1.txt', 'aSet-Cookie: x=1.txt'],
      ['“a"; filename="b.exe', '“a"; filename="b.exe'],
    ] as const) {
      const file = (await attach(given.instructor, draft.id, sent, Buffer.from('a')).expect(200)).body as AttachedFile; // prettier-ignore
      expect(file.name).toBe(kept);
      const { headers } = await given.instructor
        .get(`/api/activities/${draft.id}/files/${file.id}`)
        .expect(200);
      expect(headers['set-cookie']).toBeUndefined();
      expect(headers['content-disposition']).toMatch(
        /^attachment; filename="[^"]+"; filename\*=UTF-8''[\w.%~!-]+$/,
      );
      expect(decodeURIComponent(headers['content-disposition']?.split("''")[1] ?? '')).toBe(kept);
    }
  });

  it('has a text beside it of a length that people can read: 10 MB are refused, and nothing changes', async () => {
    const draft = await aDraft();
    const text = 'brine '.repeat(1_700_000);
    const brief = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] };
    const refused = await given.instructor
      .put(`/api/activities/${draft.id}`)
      .send({ ...anAssignment(), brief, version: draft.version })
      .expect(413);
    expect((refused.body as { detail: string }).detail).toMatch(/too long|shorter/i);
    const kept = (await given.instructor.get(`/api/activities/${draft.id}`).expect(200)).body as ActivityView;
    expect(kept.version).toBe(draft.version);
  });

  it('is uploaded by those who write activities only', async () => {
    const draft = await aDraft();
    const assistant = await aMember(server, given, 'tomas', 'assistant');
    for (const who of [student('noor'), student('nino'), assistant]) {
      const refused = await attach(who, draft.id, 'a.txt', Buffer.from('a'));
      expect([403, 404]).toContain(refused.status);
    }
    expect(await server.rows(`SELECT 1 FROM "activity_file" WHERE "activityId" = '${draft.id}'`)).toEqual([]);
    const unnamed = await attach(given.instructor, draft.id, '\u202e/', Buffer.from('a')).expect(422);
    expect((unnamed.body as { detail: string }).detail).toContain('A file needs a name');
  });
});

describe('a resource', () => {
  it('links to pages only', async () => {
    const draft = (settings: object) =>
      given.instructor.post(`/api/courses/${given.course.id}/activities`).send({
        ...anAssignment(toRead('resource')),
        settings,
      });
    await draft({ link: 'https://quillmere.example/salt', linkName: 'Salt tables' }).expect(200);
    for (const link of ['javascript:alert(1)', 'data:text/html,x', 'salt tables', 'file:///etc/passwd']) {
      const refused = await draft({ link }).expect(422);
      expect((refused.body as { detail: string }).detail).toBe('Enter a whole address that begins with https:// or http://.'); // prettier-ignore
    }
  });

  it('is new until it is read', async () => {
    await released(given, toRead('resource', { title: 'Salt tables' }));
    const copyId = await copyOf(student('noor'), given.course.id, 'Salt tables');
    expect((await head(student('noor'), copyId)).unread).toBe(1);
    await student('noor').post(`/api/copies/${copyId}/seen`).send({ what: 'all' }).expect(200);
    expect((await head(student('noor'), copyId)).unread).toBe(0);
  });
});
