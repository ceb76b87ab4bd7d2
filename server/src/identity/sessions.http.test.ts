import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { OpenSessions } from '@jigsaw/contract/identity';
import { sure } from '@jigsaw/core/lists';
import type { Browser, TestServer } from '../test/testServer.js';
import { password, startTestServer } from '../test/testServer.js';
import { cameFrom, clientOf } from './cameFrom.js';

let server: TestServer;
let here: Browser;
const email = 'ilse.marrow@quillmere.example';

beforeAll(async () => {
  server = await startTestServer();
  here = await server.instructor(email);
});
afterAll(() => server.stop());

const signedInAs = async (agent: string) => {
  const browser = server.browser();
  await browser.post('/api/session').set('User-Agent', agent).send({ email, password }).expect(200);
  return browser;
};
const listed = async () => ((await here.get('/api/session/open').expect(200)).body as OpenSessions).sessions;
const firefox = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0';

describe('the places in which an account is signed in', () => {
  it('are seen by their owner, and one of them is ended without the others', async () => {
    const there = await signedInAs(firefox);
    const all = await listed();
    expect(all.map((each) => [each.cameFrom, each.isThis]).sort()).toEqual([
      ['Another program', true],
      ['Firefox on Linux', false],
    ]);
    const other = sure(all.find((each) => !each.isThis));
    await here.delete(`/api/session/open/${other.id}`).expect(200);
    await there.get('/api/session').expect(401);
    await here.get('/api/session').expect(200);
    await here.delete(`/api/session/open/${other.id}`).expect(404);
  });

  it('are ended all but this one', async () => {
    const [one, two] = [await signedInAs(firefox), await signedInAs('curl/8')];
    await here.delete('/api/session/open').expect(200);
    for (const browser of [one, two]) await browser.get('/api/session').expect(401);
    expect(await listed()).toHaveLength(1);
  });

  it('are no one else’s to see or to end', async () => {
    const other = await server.instructor('other@quillmere.example');
    const [own] = await listed();
    await other.delete(`/api/session/open/${sure(own).id}`).expect(404);
    await other.delete('/api/session/open').expect(200);
    await here.get('/api/session').expect(200);
    expect(JSON.stringify(await listed())).not.toContain('tokenHash');
  });
});

describe('where a request came from', () => {
  it.each([
    [
      'Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 Chrome/140.0 Safari/537.36 Edg/140.0',
      'Edge on Windows',
    ],
    [
      'Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36 Chrome/140.0 Mobile Safari/537.36',
      'Chrome on Android',
    ],
    ['Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) Version/18.0 Safari/604.1', 'Safari on iPhone'],
    ['Mozilla/5.0 (Macintosh; Intel Mac OS X 15_0) Version/18.0 Safari/605.1', 'Safari on Mac'],
    ['<script>alert(1)</script>', 'Another program'],
    [undefined, 'Another program'],
  ])('%s is %s', (agent, said) => expect(cameFrom({ headers: { 'user-agent': agent } })).toBe(said));
});

describe('cookies and origins', () => {
  it('of two copies on one host have other names, and behind TLS the browser holds them to this host', async () => {
    const { configFrom } = await import('../platform/config.js');
    const nameAt = (publicUrl: string) => configFrom({ DATABASE_URL: 'x' }, { publicUrl }).cookieName;
    expect(nameAt('http://localhost:3000')).not.toBe(nameAt('http://localhost:3001'));
    expect(nameAt('http://localhost:3000')).toBe(nameAt('http://localhost:3000'));
    expect(nameAt('https://jigsaw.example')).toMatch(/^__Host-jigsaw_/);
  });

  it('are compared with the address that people use, whatever name a proxy puts into Host', async () => {
    const signIn = (origin: string) =>
      server
        .browser()
        .post('/api/session')
        .set('Host', 'inner:3000')
        .set('Origin', origin)
        .send({ email, password });
    await signIn('http://jigsaw.test').expect(200);
    await signIn('http://inner:3000').expect(200);
    await signIn('http://jigsaw.test.evil.example').expect(403);
    await signIn('https://jigsaw.test').expect(403);
    await signIn('null').expect(403);
  });
});

describe('tries with a password', () => {
  const attempt = (browser: Browser, address: string, tried = 'no') =>
    browser.post('/api/session').send({ email: address, password: tried });
  const fails = async (browser: Browser, address: string, times: number) => {
    for (let at = 0; at < times; at += 1) await attempt(browser, address).expect(401);
  };

  it('are counted before they are checked: of forty at one moment eight are looked at', async () => {
    await server.instructor('many@quillmere.example');
    const answers = await Promise.all(
      Array.from({ length: 40 }, () => attempt(server.browser(), 'many@quillmere.example')),
    );
    expect(answers.filter(({ status }) => status === 401)).toHaveLength(8);
    expect(answers.filter(({ status }) => status === 429)).toHaveLength(32);
    server.clock.pass({ minutes: 16 });
  });

  it('of a stranger do not lock out the owner in a browser that they used before, nor does their own leave others in', async () => {
    const own = await server.instructor('owner@quillmere.example');
    await own.delete('/api/session').expect(200);
    const stranger = server.browser();
    await fails(stranger, 'owner@quillmere.example', 8);
    await attempt(stranger, 'owner@quillmere.example', password).expect(429);
    await attempt(own, 'owner@quillmere.example', password).expect(200);
    await own.delete('/api/session').expect(200);
    await fails(own, 'owner@quillmere.example', 8);
    await attempt(own, 'owner@quillmere.example', password).expect(429);
    // It is a browser of that account alone.
    await server.instructor('victim@quillmere.example');
    await fails(stranger, 'victim@quillmere.example', 8);
    await attempt(own, 'victim@quillmere.example', password).expect(429);
    server.clock.pass({ minutes: 16 });
  });

  it('are counted by where they come from, too, and right ones are not', async () => {
    for (let at = 0; at < 100; at += 1)
      await attempt(server.browser(), `a${at}@elsewhere.example`).expect(401);
    await attempt(server.browser(), 'b@elsewhere.example').expect(429);
    server.clock.pass({ minutes: 16 });
    for (let at = 0; at < 3; at += 1) await attempt(server.browser(), email, password).expect(200);
    await fails(server.browser(), 'c@elsewhere.example', 7);
  });
});

describe('where a request comes from', () => {
  it.each([
    ['10.1.2.3', '10.1.2.3'],
    ['::ffff:10.1.2.3', '10.1.2.3'],
    ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2::/64'],
    ['2001:db8::6', '2001:db8:0:0::/64'],
    ['::1', '0:0:0:0::/64'],
    ['', ''],
  ])('%s is %s', (ip, client) => expect(clientOf({ ip })).toBe(client));

  it('is what a proxy says only where one is trusted', async () => {
    const tries = async (of: TestServer) => {
      await of
        .browser()
        .post('/api/session')
        .set('X-Forwarded-For', '203.0.113.9')
        .send({ email, password: 'no' });
      return of.rows(`SELECT DISTINCT "client" FROM "sign_in_try" WHERE "client" = '203.0.113.9'`);
    };
    expect(await tries(server)).toEqual([]);
    const behind = await startTestServer({ trustedProxies: 1 });
    expect(await tries(behind)).toHaveLength(1);
    await behind.stop();
  });
});
