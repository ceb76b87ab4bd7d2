import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import { aCourse, addFile, copyOf, itemOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge
});
afterAll(() => server.stop());

const student = (name: string): Browser => sure(given.students.get(name)).browser;

describe('hand-ins of single students', () => {
  it('are no one else’s: no teammate learns of their files, hand-ins, news or marks', async () => {
    await released(given, { kind: 'folder', title: 'Tasting notes', settings: { by: 'student' } });
    const copy = await copyOf(student('noor'), given.course.id, 'Tasting notes');
    const work = await addFile(student('noor'), copy, 'noors-secret.txt', Buffer.from('brine'));
    await student('noor').post(`/api/copies/${copy}/hand-in`).send({ attempt: 1 }).expect(200);
    const file = sure(work.files[0]).id;

    expect((await student('jorge').get(`/api/copies/${copy}/work`).expect(200)).body).toMatchObject({
      files: [],
      handIns: [],
      state: 'not-started',
    });
    await student('jorge').get(`/api/copies/${copy}/files/${file}`).expect(404);
    await student('jorge').delete(`/api/copies/${copy}/files/${file}`).expect(404);
    expect(await itemOf(student('jorge'), given.course.id, 'Tasting notes')).toMatchObject({
      unread: 0,
      latest: null,
      progress: { state: 'not-started' },
    });
    expect(await itemOf(student('noor'), given.course.id, 'Tasting notes')).toMatchObject({
      latest: { byYou: true },
      progress: { state: 'done' },
    });
    const { unread } = (await student('jorge').post(`/api/copies/${copy}/seen`).send({ what: 'all' }))
      .body as { unread: number };
    expect(unread).toBe(0);
    expect(
      ((await given.instructor.get(`/api/copies/${copy}/work`)).body as { files: unknown[] }).files,
    ).toHaveLength(1);
  });
});
