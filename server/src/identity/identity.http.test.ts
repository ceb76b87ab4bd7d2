import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { SignInLinks } from '@jigsaw/contract/identity';
import { sure } from '@jigsaw/core/lists';
import { aCourse, importPaste } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { password, startTestServer } from '../test/testServer.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer({ demoPeople: [{ email: 'noor@quillmere.example', note: 'in Crock' }] });
});
afterAll(() => server.stop());

describe('signing in', () => {
  it('lets in with the right password, whatever the case of the address, and out again', async () => {
    await server.instructor('in@quillmere.example');
    const browser = server.browser();
    const answer = await browser
      .post('/api/session')
      .send({ email: 'IN@Quillmere.example', password })
      .expect(200);
    expect(sure(answer.headers['set-cookie'])[0]).toMatch(/HttpOnly.*SameSite=Lax/);
    await browser.get('/api/session').expect(200);
    await browser.delete('/api/session').expect(200);
    await browser.get('/api/session').expect(401);
  });

  it('says the same to a wrong password and to an unknown address', async () => {
    await server.instructor('same@quillmere.example');
    const wrong = await server
      .browser()
      .post('/api/session')
      .send({ email: 'same@quillmere.example', password: 'no' })
      .expect(401);
    const unknown = await server
      .browser()
      .post('/api/session')
      .send({ email: 'nobody@quillmere.example', password: 'no' })
      .expect(401);
    expect(wrong.body).toEqual(unknown.body);
    expect(wrong.headers['content-type']).toContain('application/problem+json');
  });

  it('asks to wait after too many tries, even with the right password, and for unknown addresses alike', async () => {
    await server.instructor('tries@quillmere.example');
    for (const email of ['tries@quillmere.example', 'unknown@quillmere.example']) {
      for (let at = 0; at < 8; at += 1)
        await server.browser().post('/api/session').send({ email, password: 'no' }).expect(401);
      const refused = await server.browser().post('/api/session').send({ email, password }).expect(429);
      expect(Number(refused.headers['retry-after'])).toBeGreaterThan(0);
    }
    server.clock.pass({ minutes: 16 });
    await server
      .browser()
      .post('/api/session')
      .send({ email: 'tries@quillmere.example', password })
      .expect(200);
  });

  it('ends a session that was not used for two weeks', async () => {
    const browser = await server.instructor('weeks@quillmere.example');
    server.clock.pass({ days: 13 });
    await browser.get('/api/session').expect(200);
    server.clock.pass({ days: 13 });
    await browser.get('/api/session').expect(200);
    server.clock.pass({ days: 15 });
    const ended = await browser.get('/api/session').expect(401);
    expect(ended.body).toMatchObject({ type: '/problems/signed-out' });
  });

  it('carries out no write that another site sent', async () => {
    const browser = await server.instructor('csrf@quillmere.example');
    await browser.post('/api/courses').set('Origin', 'https://elsewhere.example').send({}).expect(403);
    await browser.post('/api/courses').set('Sec-Fetch-Site', 'cross-site').send({}).expect(403);
  });
});

describe('first passwords', () => {
  it('opens a link once, and never for somebody who has a password', async () => {
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

  it('keeps links of two courses good side by side, and lets in by one of them', async () => {
    const linkFrom = async (teacher: string) => {
      const { instructor, course } = await aCourse(server, { email: teacher, students: 2 });
      await importPaste(instructor, course.id, 'shared@quillmere.example');
      const { body } = (await instructor
        .post(`/api/courses/${course.id}/roster/sign-in-links`)
        .expect(200)) as { body: SignInLinks };
      return sure(body.links.find((link) => link.email === 'shared@quillmere.example')).url.split('#')[1];
    };
    const [first, second] = [
      await linkFrom('one@quillmere.example'),
      await linkFrom('two@quillmere.example'),
    ];
    const choose = (token: string | undefined) =>
      server.browser().post('/api/session/password').send({ token, password });
    const answers = await Promise.all([choose(first), choose(second)]);
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 410]);
    await choose(first).expect(410);
    await choose(second).expect(410);
  });

  it('offers the made-up people in demo mode, and only those', async () => {
    const { body } = (await server.browser().get('/api/session/front-door').expect(200)) as {
      body: { demoPeople: { personId: string; name: string }[] };
    };
    expect(body.demoPeople).toMatchObject([
      { name: 'Noor', role: 'student', note: 'in Crock', groupNumber: 1 },
    ]);
    const browser = server.browser();
    await browser
      .post('/api/session/demo')
      .send({ personId: sure(body.demoPeople[0]).personId })
      .expect(200);
    const { body: session } = (await browser.get('/api/session').expect(200)) as {
      body: { person: { id: string } };
    };
    expect(session.person.id).toBe(sure(body.demoPeople[0]).personId);
    await server
      .browser()
      .post('/api/session/demo')
      .send({ personId: '01920000-0000-7000-8000-000000000000' })
      .expect(404);
  });
});
