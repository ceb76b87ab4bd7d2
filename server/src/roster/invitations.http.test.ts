import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Invited, Outbox } from '@jigsaw/contract/mail';
import type { RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aCourse, importPaste } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { password, startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 3 });
  await importPaste(
    given.instructor,
    given.course.id,
    'Cho Min <cho@quillmere.example>\nDia Roy <dia@quillmere.example>',
  );
});
afterAll(() => server.stop());

const at = (path: string) => `/api/courses/${given.course.id}${path}`;
const invite = (enrolmentIds: string[] | null) =>
  given.instructor.post(at('/roster/invitations')).send({ enrolmentIds });
const outbox = async () => (await given.instructor.get(at('/outbox')).expect(200)).body as Outbox;
const entry = async (address: string) =>
  sure(
    ((await given.instructor.get(at('/roster')).expect(200)).body as RosterView).entries.find(
      (each) => each.email === address,
    ),
  );

describe('an invitation', () => {
  it('goes to those alone who have not come in, and says until when', async () => {
    expect((await invite(null).expect(200)).body as Invited).toEqual({ invited: 2, hadComeIn: 4 });
    const { mails, total } = await outbox();
    expect(total).toBe(2);
    expect(mails.map((mail) => mail.toAddress)).toEqual(['dia@quillmere.example', 'cho@quillmere.example']);
    expect(mails[1]).toMatchObject({
      subject: 'Your place in Applied Fermentation',
      paragraphs: ['Hello Cho Min,', expect.any(String), expect.stringContaining('works once, until')],
    });
    expect(await entry('cho@quillmere.example')).toMatchObject({
      hasComeIn: false,
      invitedAt: expect.any(String),
    });
    expect(await entry('noor@quillmere.example')).toMatchObject({ hasComeIn: true, invitedAt: null });
  });

  it('lets its reader in once; a second one is good beside the first, and both are closed by whichever is used', async () => {
    await invite([(await entry('cho@quillmere.example')).enrolmentId]).expect(200);
    const [first, second] = (await server.mailedLinks('cho@quillmere.example')).map(
      (url) => url.split('#')[1],
    );
    const choose = (token: string | undefined) =>
      server.browser().post('/api/session/password').send({ token, password });
    await choose(first).expect(200);
    await choose(first).expect(410);
    await choose(second).expect(410);
    expect((await invite([(await entry('cho@quillmere.example')).enrolmentId]).expect(200)).body).toEqual({
      invited: 0,
      hadComeIn: 1,
    });
  });

  it('is written and read by the instructor alone', async () => {
    const outsider = await server.instructor('other@quillmere.example');
    for (const browser of [sure(given.students.get('noor')).browser, outsider]) {
      await browser.get(at('/outbox')).expect(404);
      await browser.post(at('/roster/invitations')).send({ enrolmentIds: null }).expect(404);
    }
    const own = (
      await outsider
        .post('/api/courses')
        .send({ code: 'O', title: 'Other', term: '', timeZone: 'UTC' })
        .expect(200)
    ).body as { id: string };
    const { enrolmentId } = await entry('dia@quillmere.example');
    await outsider
      .post(`/api/courses/${own.id}/roster/invitations`)
      .send({ enrolmentIds: [enrolmentId] })
      .expect(404);
    expect(((await outsider.get(`/api/courses/${own.id}/outbox`).expect(200)).body as Outbox).total).toBe(0);
  });
});
