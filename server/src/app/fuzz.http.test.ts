import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { aCourse } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Operation } from '../test/operations.js';
import { takingOperations } from '../test/operations.js';
import { someThings } from '../test/someThings.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let operations: readonly Operation[];

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
  operations = takingOperations(server, given, await someThings(given));
});
afterAll(() => server.stop());

/** Ours end like sentences, and are not what a library says. */
const isSentence = (detail: string) =>
  /[.!]$/.test(detail) && !/^(Invalid|Unrecognized|Too (big|small))|undefined/.test(detail);

const badTexts = ['\0', 'a\0b', '\ud800', 'x\udfff', '\u0007', '\u202eabc', '\u200b', '', ' ', 'a'.repeat(210_000), '-1', '<b>', "'); DROP TABLE"]; // prettier-ignore
const badNumbers = [2 ** 31, 2 ** 53, -1, -(2 ** 31) - 1, 1.5, 1e308];
const badOfAnyType = [null, {}, [], true, { a: { a: { a: 1 } } }];

/** The body once for each value in it, with that value gone bad in each way. */
function* spoiled(body: unknown): Generator {
  if (Array.isArray(body)) {
    yield [...body, ...body]; // everything twice
    yield [];
    for (const [at, each] of body.entries())
      for (const bad of spoiled(each)) yield body.map((one: unknown, place) => (place === at ? bad : one));
  } else if (typeof body === 'object' && body !== null) {
    for (const [key, value] of Object.entries(body)) {
      for (const bad of spoiled(value)) yield { ...body, [key]: bad };
      for (const odd of ['\0', '\ud800', '__proto__']) yield { ...body, [`${key}${odd}`]: value };
    }
  } else {
    if (typeof body === 'string') yield* badTexts;
    if (typeof body === 'number') yield* badNumbers;
    yield* badOfAnyType;
  }
}

const deep = (depth: number) => `${'[1,'.repeat(depth)}1${']'.repeat(depth)}`;

/** Without a link, a demo, a preview before it, a set in which members name their group, or with what is released already. */
const neverTaken = [
  'nameGroup 404',
  'signInAsDemoPerson 404',
  'lookAtLink 410',
  'openLink 410',
  'releaseActivity 409',
  'applyImport 409',
];

describe('every operation that takes something', () => {
  it('is among those that are tried here', async () => {
    const { body } = (await server.browser().get('/api/openapi.json').expect(200)) as {
      body: { paths: Record<string, Record<string, { operationId: string; requestBody?: unknown }>> };
    };
    const taking = Object.values(body.paths)
      .flatMap((path) => Object.values(path))
      .filter((operation) => operation.requestBody !== undefined);
    expect(new Set(operations.map((each) => each.id))).toEqual(
      new Set(taking.map((operation) => operation.operationId)),
    );
  });

  it('is taken as it is, so that what is spoiled gets as far as anything does', async () => {
    const refused: string[] = [];
    for (const { id, method, path, by, body } of operations) {
      const { status } = await by[method](path).send(await body());
      if (status >= 400) refused.push(`${id} ${status}`);
    }
    expect(refused).toEqual(neverTaken);
  });

  it('answers whatever is in its place with a sentence of our own, and never breaks', async () => {
    const broken: string[] = [];
    let tried = 0;
    let refused = 0;
    for (const { id, method, path, by, body } of operations) {
      const sound = await body();
      for (const bad of spoiled(sound)) {
        const fresh = JSON.stringify({ ...(await body()), ...changedPart(sound, bad) });
        const answer = await by[method](path).set('Content-Type', 'application/json').send(fresh);
        tried += 1;
        if (answer.status >= 400) refused += 1;
        const isOurs = answer.status < 400 || isSentence((answer.body as { detail?: string }).detail ?? '');
        const isProblem = answer.status < 400 || String(answer.headers['content-type']).startsWith('application/problem+json'); // prettier-ignore
        if (answer.status >= 500 || !isOurs || !isProblem)
          broken.push(`${id} ${answer.status} ${fresh.slice(0, 300)} → ${answer.text.slice(0, 200)}`);
      }
    }
    expect([broken.length, ...broken.slice(0, 20)]).toEqual([0]);
    expect(tried).toBeGreaterThan(3000);
    expect(refused).toBeGreaterThan(tried / 4);
    expect(refused).toBeLessThan(tried);
  }, 600_000);

  it('refuses bodies that are too large, too deep, or no JSON, with and without a session', async () => {
    const bodies: [string, string | undefined, number[]][] = [
      ['application/json', deep(20_000), [401, 413, 422]],
      ['application/json', deep(70), [401, 422]],
      ['application/json', `{"a":"${'a'.repeat(17_000_000)}"}`, [401, 413]],
      ['application/json', '{"a":', [401, 422]],
      ['application/json; charset=utf-7', '{}', [401, 422]],
      ['application/json; charset=nonsense', '{}', [401, 422]],
      ['text/html', '<b>', [401, 404, 422]],
      ['application/x-www-form-urlencoded', 'a=b', [401, 404, 422]],
    ];
    for (const by of [given.instructor, server.browser()])
      for (const { method, path } of operations
        .filter((each) => each.by === given.instructor || each.id === 'signIn')
        .slice(0, 12))
        for (const [type, body, allowed] of bodies) {
          const answer = await by[method](path).set('Content-Type', type).send(body);
          expect([path, type, body?.slice(0, 20), answer.status]).toEqual([
            path,
            type,
            body?.slice(0, 20),
            allowed.includes(answer.status) ? answer.status : allowed,
          ]);
          expect(answer.headers['content-type']).toContain('application/problem+json');
        }
  }, 120_000);

  it('takes nothing in from someone who is not signed in: it is refused before it is read', async () => {
    for (const { method, path, by } of operations) {
      if (by !== given.instructor) continue;
      await server
        .browser()
        [method](path)
        .set('Content-Type', 'application/json')
        .send('{"no JSON')
        .expect(401);
    }
  });

  it('answers addresses that are none, and headers that are nonsense, like any other that is not there', async () => {
    const paths = [
      '/api/copies/%ff',
      '/api/copies/%E0%A4%A',
      '/api/courses/a%00b/roster',
      `/api/courses/${'a'.repeat(9000)}`,
      `/api/courses/${given.course.id}/changes%00`,
      `/api/copies/${randomUUID()}/files?name=%00&type=a%00`,
      '/api/..%2f..%2fetc%2fpasswd',
      '/api/__proto__/constructor',
    ];
    for (const by of [given.instructor, server.browser()])
      for (const path of paths) {
        const answer = await by
          .get(path)
          .set('X-Jigsaw-Page', '\u00ff'.repeat(50))
          .set('Cookie', 'jigsaw=%ff; a=b\u00fe');
        expect([path, answer.status >= 400 && answer.status < 500]).toEqual([path, true]);
        expect(answer.headers['content-type']).toContain('application/problem+json');
      }
  });

  it('does not take compressed bodies, which unpack to anything', () =>
    given.instructor
      .post('/api/courses')
      .set('Content-Type', 'application/json')
      .set('Content-Encoding', 'gzip')
      .send(Buffer.from('{}').toString('base64'))
      .expect(422));
});

/** Of a spoiled body what differs from the sound one, so that what is fresh (versions, new ids) stays fresh. */
function changedPart(sound: object, bad: unknown): object {
  const before = sound as Record<string, unknown>;
  return Object.fromEntries(Object.entries(bad as object).filter(([key, value]) => before[key] !== value));
}
