import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import { addFile, aCourse, aMember, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import type { Following } from '../test/following.js';
import { marker, tellAll } from '../test/marker.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { password, startTestServer } from '../test/testServer.js';
import { SessionService } from '../identity/index.js';
import { Streams } from './streams.js';

let server: TestServer;
let given: CourseForTests;
let tomas: Browser;
let open: Following[] = [];

/** Noor and Jorge are in Crock, Amina and Kofi in Carboy, Nino in none. Tomas leads Crock and sees that group's work only. */
let count = 0;
beforeAll(async () => {
  server = await startTestServer();
});
beforeEach(async () => {
  count += 1;
  given = await aCourse(server, { email: `ilse${count}@quillmere.example`, students: 5, groups: 2 });
  tomas = await aMember(server, given, 'tomas', 'assistant');
  await released(given);
  const { staff } = (await given.instructor.get(`/api/sets/${given.set.id}/board`).expect(200)).body;
  const enrolmentIds = (staff as { name: string; enrolmentId: string }[])
    .filter((each) => each.name === 'Tomas')
    .map((each) => each.enrolmentId);
  await given.instructor
    .put(`/api/sets/${given.set.id}/leads`)
    .send({ leads: [{ groupId: crock(), enrolmentIds }] })
    .expect(200);
  await given.instructor
    .put(`/api/courses/${given.course.id}/assistants`)
    .send({ assistantsSee: 'theirs' })
    .expect(200);
});
afterEach(() => {
  for (const each of open) each.stop();
  open = [];
});
afterAll(() => server.stop());

const crock = () => sure(given.board.groups[0]).id;
const browserOf = (name: string) => sure(given.students.get(name)).browser;
const listen = async (browser: Browser) => {
  const following = await follow(browser, given.course.id);
  open.push(following);
  return following;
};
const addsAFile = async (name: string) =>
  addFile(browserOf(name), await copyOf(browserOf(name), given.course.id), `${name}.txt`, Buffer.from(name));
const place = (name: string, from: string | null, to: string | null) =>
  given.instructor
    .post(`/api/sets/${given.set.id}/place`)
    .send({ moves: [{ student: sure(given.students.get(name)).enrolmentId, from, to }] })
    .expect(200);
const forAll = () => tellAll(server, given.course.id);

describe('live changes', () => {
  it('of a group’s work reach its members, the instructor and who looks after it, and no one else', async () => {
    const [ofInstructor, ofTomas, ofJorge, ofAmina] = [
      await listen(given.instructor),
      await listen(tomas),
      await listen(browserOf('jorge')),
      await listen(browserOf('amina')),
    ];
    await addsAFile('noor');
    await addsAFile('kofi');
    await forAll();
    // The same twice in one moment may be told once.
    expect(new Set(await ofInstructor.until(marker))).toEqual(new Set(['file.added', marker]));
    expect(await ofTomas.until(marker)).toEqual(['file.added', marker]); // Crock's, not Carboy's
    expect(await ofJorge.until(marker)).toEqual(['file.added', marker]);
    expect(await ofAmina.until(marker)).toEqual(['file.added', marker]); // her own group's
  });

  it('of who sits where reach all staff, the groups concerned and whoever was taken out of one', async () => {
    const [ofTomas, ofNoor, ofNino] = [
      await listen(tomas),
      await listen(browserOf('noor')),
      await listen(browserOf('nino')),
    ];
    await place('amina', sure(given.board.groups[1]).id, null);
    await forAll();
    expect(await ofTomas.until(marker)).toEqual(['students.placed', marker]);
    expect(await ofNoor.until(marker)).toEqual([marker]);
    expect(await ofNino.until(marker)).toEqual([marker]);
    const ofAmina = await listen(browserOf('amina'));
    await place('amina', null, sure(given.board.groups[1]).id);
    await ofAmina.until('students.placed');
    await place('amina', sure(given.board.groups[1]).id, null); // she is in none of the groups concerned any more
    await ofAmina.until('students.placed');
  });

  it('of what staff keep about someone do not reach that person', async () => {
    const [ofInstructor, ofNino] = [await listen(given.instructor), await listen(browserOf('nino'))];
    const nino = sure(given.students.get('nino')).enrolmentId;
    const edit = {
      enrolmentId: nino,
      from: { attributes: { 'Kept back': null } },
      to: { attributes: { 'Kept back': 'yes' } },
    };
    await given.instructor
      .post(`/api/courses/${given.course.id}/roster/changes`)
      .send({ act: 'edit', edits: [edit] })
      .expect(200);
    await forAll();
    expect(await ofInstructor.until(marker)).toEqual(['roster.changed', marker]);
    expect(await ofNino.until(marker)).toEqual([marker]);
  });

  it('end for whoever has left', async () => {
    const ofKofi = await listen(browserOf('kofi'));
    await given.instructor
      .post(`/api/courses/${given.course.id}/roster/changes`)
      .send({ act: 'drop', enrolmentIds: [sure(given.students.get('kofi')).enrolmentId] })
      .expect(200);
    await ofKofi.over;
    await browserOf('kofi').get(`/api/courses/${given.course.id}/changes`).expect(404);
  });

  it('end for whoever stands under another address by now: their entry is another account’s', async () => {
    const ofKofi = await listen(browserOf('kofi'));
    const edit = {
      enrolmentId: sure(given.students.get('kofi')).enrolmentId,
      from: { email: 'kofi@quillmere.example' },
      to: { email: 'other.kofi@quillmere.example' },
    };
    await given.instructor
      .post(`/api/courses/${given.course.id}/roster/changes`)
      .send({ act: 'edit', edits: [edit] })
      .expect(200);
    await ofKofi.over;
  });

  it('end with the session, wherever it is ended, and leave other sessions of the account alone', async () => {
    const here = await listen(browserOf('noor'));
    const elsewhere = server.browser();
    await elsewhere.post('/api/session').send({ email: 'noor@quillmere.example', password }).expect(200);
    const there = await listen(elsewhere);
    await elsewhere.delete('/api/session').expect(200);
    await there.over;
    await forAll();
    expect(await here.until(marker)).toEqual([marker]);
    server.clock.pass({ days: 15 });
    await server.app.get(Streams, { strict: false }).beatOnce();
    await here.over;
  });

  it('stay open when they were opened while it was asked whose sessions are', async () => {
    await listen(browserOf('noor')); // someone to ask about
    const sessions = server.app.get(SessionService, { strict: false });
    const answer = sessions.stillOpen.bind(sessions);
    const asked = jest.spyOn(sessions, 'stillOpen');
    let later: Following | null = null;
    asked.mockImplementationOnce(async (ids) => {
      const open = await answer(ids);
      later = await listen(browserOf('jorge'));
      return open;
    });
    await server.app.get(Streams, { strict: false }).beatOnce();
    asked.mockRestore();
    await forAll();
    expect(await (later as unknown as Following).until(marker)).toEqual([marker]);
  });

  it('end when the line to the database was lost: no one knows what was missed', async () => {
    const ofNoor = await listen(browserOf('noor'));
    await server.rows(
      `SELECT pg_terminate_backend("pid") FROM pg_stat_activity WHERE "query" LIKE 'LISTEN%' AND "datname" = current_database()`,
    );
    await ofNoor.over;
  });
});
