import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { CourseList, CourseView } from '@jigsaw/contract/course';
import type { LinkView, SessionView, SignInLinks } from '@jigsaw/contract/identity';
import type { Outbox } from '@jigsaw/contract/mail';
import type { RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aCourse, importPaste } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { password, startTestServer } from '../test/testServer.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

let count = 0;
interface Teaching {
  readonly teacher: Browser;
  readonly course: CourseView;
}
/** A course of someone's own, with these people on its roster as their teacher wrote them. */
async function aCourseWith(people: string, role: 'student' | 'instructor' = 'student'): Promise<Teaching> {
  count += 1;
  const teacher = await server.instructor(`teacher.${count}@quillmere.example`);
  const draft = { code: `C ${count}`, title: `Course ${count}`, term: '', timeZone: 'UTC' };
  const course = (await teacher.post('/api/courses').send(draft).expect(200)).body as CourseView;
  await importPaste(teacher, course.id, people, role);
  return { teacher, course };
}
const tokenOf = (url: string) => sure(url.split('#')[1]);
const handed = async ({ teacher, course }: Teaching, address: string) => {
  const { links } = (await teacher.post(`/api/courses/${course.id}/roster/sign-in-links`).expect(200))
    .body as SignInLinks;
  const link = links.find((each) => each.email === address);
  return link ? tokenOf(link.url) : null;
};
const open = (browser: Browser, token: string | null | undefined, secret = password) =>
  browser.post('/api/session/password').send({ token, password: secret });
const look = async (token: string | null) =>
  (await server.browser().post('/api/session/link').send({ token }).expect(200)).body as LinkView;
const coursesOf = async (browser: Browser) =>
  ((await browser.get('/api/courses').expect(200)).body as CourseList).courses.map((course) => course.title);
const signedIn = async (email: string, secret = password) => {
  const browser = server.browser();
  await browser.post('/api/session').send({ email, password: secret }).expect(200);
  return browser;
};
const lastMailed = async (address: string) => tokenOf(sure((await server.mailedLinks(address)).at(-1)));

describe('a link that is handed out', () => {
  it('opens once, and is made for no one who has come in', async () => {
    const { instructor, course, students } = await aCourse(server, {
      email: 'links@quillmere.example',
      students: 3,
    });
    const again = await instructor
      .post(`/api/courses/${course.id}/roster/${sure(students.get('noor')).enrolmentId}/sign-in-link`)
      .expect(200);
    expect(again.body).toMatchObject({ links: [] });
    await importPaste(instructor, course.id, 'late@quillmere.example');
    const { body } = (await instructor
      .post(`/api/courses/${course.id}/roster/sign-in-links`)
      .expect(200)) as { body: SignInLinks };
    expect(body.links.map((link) => link.email)).toEqual(['late@quillmere.example']);
    const token = sure(body.links[0]).url.split('#')[1];
    await server.browser().post('/api/session/password').send({ token, password: 'short' }).expect(422);
    await server.browser().post('/api/session/password').send({ token, password }).expect(200);
    await server
      .browser()
      .post('/api/session/password')
      .send({ token, password: 'another password' })
      .expect(410);
    await server
      .browser()
      .post('/api/session')
      .send({ email: 'late@quillmere.example', password })
      .expect(200);
    const refused = await server
      .browser()
      .post('/api/session/password')
      .send({ token: 'x'.repeat(43), password })
      .expect(410);
    expect(refused.body).toMatchObject({ detail: expect.stringContaining('Ask your instructor') });
  });

  it('closes a link after 14 days, and lets in one of two who open it at one moment', async () => {
    const { instructor, course } = await aCourse(server, { email: 'expiry@quillmere.example', students: 2 });
    const linkFor = async (email: string) => {
      await importPaste(instructor, course.id, email);
      const { body } = (await instructor
        .post(`/api/courses/${course.id}/roster/sign-in-links`)
        .expect(200)) as { body: SignInLinks };
      return sure(body.links.find((link) => link.email === email)).url.split('#')[1];
    };
    const choose = (token: string | undefined) =>
      server.browser().post('/api/session/password').send({ token, password });
    const early = await linkFor('early@quillmere.example');
    const answers = await Promise.all([choose(early), choose(early)]);
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 410]);

    const late = await linkFor('tardy@quillmere.example');
    const before = server.clock.now();
    server.clock.pass({ days: 14 });
    await choose(late).expect(410);
    server.clock.set(before);
    server.clock.pass({ days: 13 });
    await choose(late).expect(200);
    server.clock.set(before);
  });

  it('lets in to the course that made it, and to no other, whoever opened it', async () => {
    const address = 'colleague@quillmere.example';
    const theirs = await aCourseWith(address, 'instructor');
    const mine = await aCourseWith(address, 'instructor');
    const thief = server.browser();
    await open(thief, await handed(mine, address)).expect(200);
    expect(await coursesOf(thief)).toEqual([mine.course.title]);
    for (const path of ['roster', 'sets', 'outbox'])
      await thief.get(`/api/courses/${theirs.course.id}/${path}`).expect(404);
    expect(((await thief.get('/api/session').expect(200)).body as SessionView).isProven).toBe(false);
    expect(await coursesOf(await signedIn(address))).toEqual([mine.course.title]);

    // The owner learns of it, and takes the account from the person who has the password.
    const owner = server.browser();
    const token = await lastMailed(address);
    expect(await look(token)).toEqual({ email: address, asksFor: 'new-password' });
    await open(owner, token, 'a password of my own').expect(200);
    await thief.get('/api/session').expect(401);
    await server.browser().post('/api/session').send({ email: address, password }).expect(401);
    expect((await coursesOf(owner)).toSorted()).toEqual([mine.course.title, theirs.course.title].toSorted());
    await owner.get(`/api/courses/${theirs.course.id}/roster`).expect(200);
  });

  it('asks whoever has a password for it, and opens its course with no other', async () => {
    const address = 'both@quillmere.example';
    const [first, second] = [await aCourseWith(address), await aCourseWith(address)];
    const ofSecond = await handed(second, address);
    expect(await look(ofSecond)).toEqual({ email: address, asksFor: 'new-password' });
    await open(server.browser(), await handed(first, address)).expect(200);
    expect(await look(ofSecond)).toEqual({ email: address, asksFor: 'password' });
    await open(server.browser(), ofSecond, 'someone else guesses').expect(401);
    expect(await coursesOf(await signedIn(address))).toEqual([first.course.title]);
    const browser = server.browser();
    await open(browser, ofSecond).expect(200);
    expect(await coursesOf(browser)).toHaveLength(2);
    await open(browser, ofSecond).expect(410);
    expect(await handed(second, address)).toBeNull();
  });

  it('is guessed at no more often than a password at the front door', async () => {
    const address = 'guessed@quillmere.example';
    const [first, second] = [await aCourseWith(address), await aCourseWith(address)];
    const token = await handed(second, address);
    await open(server.browser(), await handed(first, address)).expect(200);
    for (let tries = 0; tries < 8; tries += 1)
      await open(server.browser(), token, `guess number ${tries}`).expect(401);
    await open(server.browser(), token).expect(429);
  });

  it('of two courses, opened at one moment with two passwords, lets one in', async () => {
    const address = 'moment@quillmere.example';
    const [first, second] = [await aCourseWith(address), await aCourseWith(address)];
    const tokens = [await handed(first, address), await handed(second, address)];
    const answers = await Promise.all(
      tokens.map((token, at) => open(server.browser(), token, `password number ${at}`)),
    );
    const [one, other] = answers.map((answer) => answer.status).toSorted();
    expect(one).toBe(200);
    expect([401, 409]).toContain(other); // wrong by then, or chosen in that very moment
  });

  it('is of no use for someone who stands under another address by now', async () => {
    const { teacher, course } = await aCourseWith('typo@quillmere.example');
    await aCourseWith('typo@quillmere.example'); // so that the account is someone's, and not put right in place
    const token = await handed({ teacher, course }, 'typo@quillmere.example');
    const roster = (await teacher.get(`/api/courses/${course.id}/roster`).expect(200)).body as RosterView;
    const { enrolmentId } = sure(roster.entries.find((entry) => entry.email === 'typo@quillmere.example'));
    const edit = {
      enrolmentId,
      from: { email: 'typo@quillmere.example' },
      to: { email: 'right@quillmere.example' },
    };
    await teacher
      .post(`/api/courses/${course.id}/roster/changes`)
      .send({ act: 'edit', edits: [edit] })
      .expect(200);
    await open(server.browser(), token).expect(410);
    await server
      .browser()
      .post('/api/session')
      .send({ email: 'typo@quillmere.example', password })
      .expect(401);
  });
});

describe('someone of two courses', () => {
  it('who came in to one is told to the other as someone who has not', async () => {
    const address = 'apart@quillmere.example';
    const [first, second] = [await aCourseWith(address), await aCourseWith(address)];
    await open(server.browser(), await handed(first, address)).expect(200);
    const entryIn = async ({ teacher, course }: Teaching) =>
      sure(
        ((await teacher.get(`/api/courses/${course.id}/roster`).expect(200)).body as RosterView).entries.find(
          (each) => each.email === address,
        ),
      );
    expect(await entryIn(first)).toMatchObject({ hasComeIn: true, lastSeenAt: expect.any(String) });
    expect(await entryIn(second)).toMatchObject({ hasComeIn: false, lastSeenAt: null });
  });
});

describe('a link by mail', () => {
  it('that went to a mistyped address is of no use once the address is put right', async () => {
    const { teacher, course } = await aCourseWith('mistyped@quillmere.example');
    await teacher
      .post(`/api/courses/${course.id}/roster/invitations`)
      .send({ enrolmentIds: null })
      .expect(200);
    const wrong = await lastMailed('mistyped@quillmere.example');
    const roster = (await teacher.get(`/api/courses/${course.id}/roster`).expect(200)).body as RosterView;
    const { enrolmentId } = sure(
      roster.entries.find((entry) => entry.email === 'mistyped@quillmere.example'),
    );
    const edit = {
      enrolmentId,
      from: { email: 'mistyped@quillmere.example' },
      to: { email: 'typed.well@quillmere.example' },
    };
    await teacher
      .post(`/api/courses/${course.id}/roster/changes`)
      .send({ act: 'edit', edits: [edit] })
      .expect(200);
    await open(server.browser(), wrong).expect(410);
    await teacher
      .post(`/api/courses/${course.id}/roster/invitations`)
      .send({ enrolmentIds: null })
      .expect(200);
    await open(server.browser(), await lastMailed('typed.well@quillmere.example')).expect(200);
  });

  it('shows all courses that know the address, also those that come later', async () => {
    const address = 'mailed@quillmere.example';
    const first = await aCourseWith(address);
    const second = await aCourseWith(address);
    await first.teacher
      .post(`/api/courses/${first.course.id}/roster/invitations`)
      .send({ enrolmentIds: null })
      .expect(200);
    const browser = server.browser();
    await open(browser, await lastMailed(address)).expect(200);
    expect(await coursesOf(browser)).toHaveLength(2);
    const { teacher, course } = await aCourseWith(address);
    expect(await coursesOf(browser)).toContain(course.title);
    expect(await handed({ teacher, course }, address)).toBeNull();
    expect(await handed(second, address)).toBeNull();
  });

  it('is in the mail alone: neither the outbox nor the database keeps it', async () => {
    const { teacher, course } = await aCourseWith('private@quillmere.example');
    await teacher
      .post(`/api/courses/${course.id}/roster/invitations`)
      .send({ enrolmentIds: null })
      .expect(200);
    const outbox = async () =>
      (await teacher.get(`/api/courses/${course.id}/outbox`).expect(200)).body as Outbox;
    expect(JSON.stringify(await outbox())).not.toContain('/welcome');
    const token = await lastMailed('private@quillmere.example');
    expect(JSON.stringify(await outbox())).not.toContain(token);
    const kept = await server.rows(`SELECT * FROM "mail"`);
    expect(JSON.stringify(kept)).not.toContain(token);
    await open(server.browser(), token).expect(200);
  });

  it('is sent to whoever asks, at most once in five minutes, and is told to no one else', async () => {
    const address = 'asks@quillmere.example';
    await aCourseWith(address);
    const ask = async (email: string) =>
      (await server.browser().post('/api/session/mailed-link').send({ email }).expect(200)).body as unknown;
    expect(await ask(address.toUpperCase())).toEqual(await ask('no one.here@quillmere.example'));
    await ask(address);
    expect(await server.mailedLinks(address)).toHaveLength(1);
    expect(await server.mailedLinks('no one.here@quillmere.example')).toEqual([]);
    server.clock.pass({ minutes: 6 });
    await ask(address);
    expect(await server.mailedLinks(address)).toHaveLength(2);
    await open(server.browser(), await lastMailed(address)).expect(200);
  });

  it('is not sent for the hundred-and-first address that one place asks for, known or not, until some time is over', async () => {
    const address = 'late@quillmere.example';
    await aCourseWith(address);
    server.clock.pass({ hours: 1 });
    const before = (await server.mailedLinks(address)).length;
    const ask = (email: string) => server.browser().post('/api/session/mailed-link').send({ email });
    await Promise.all(Array.from({ length: 100 }, (_, at) => ask(`x${at}@quillmere.example`).expect(200)));
    const [known, unknown] = [await ask(address), await ask('y@quillmere.example')];
    expect([known.status, known.body]).toEqual([429, unknown.body]);
    expect(known.body).toMatchObject({ detail: expect.stringContaining('Wait 15 min and ask again') });
    expect(await server.mailedLinks(address)).toHaveLength(before);
    // A password is no link: signing in from there goes on.
    await server.browser().post('/api/session').send({ email: address, password: 'wrong wrong' }).expect(401);
    server.clock.pass({ minutes: 16 });
    await ask(address).expect(200);
    expect(await server.mailedLinks(address)).toHaveLength(before + 1);
  });
});
