import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import { aCourse } from '../test/aCourse.js';
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
      .send({ email: 'no one@quillmere.example', password: 'no' })
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

describe('the front door', () => {
  it('offers the made-up people in demo mode, and only those', async () => {
    await aCourse(server, { email: 'door@quillmere.example' });
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
