/** Everyone signs up at once: 300 students, first with no page open, then with a page open each. Every answer is held against what is kept, and the
 * server's CPU with open pages against that without. Run by hand: node bench/rush.mjs */
import http from 'node:http';
import { createRequire } from 'node:module';
import { cpuOf, sessions, withInstallation } from './installation.mjs';

const pg = createRequire(new URL('../server/package.json', import.meta.url))('pg');
const students = 300;
const groups = 60;
const places = 5;
const agent = new http.Agent({ maxSockets: students + 50 });

await withInstallation(async ({ ask, base, databaseUrl, serverPid }) => {
  const database = new pg.Client({ connectionString: databaseUrl });
  database.on('error', () => undefined); // it goes when the installation does
  await database.connect();
  const course = await ask('courses', { code: 'RUSH', title: 'Rush', term: '', timeZone: 'UTC' });
  const lines = Array.from({ length: students }, (_, at) => `Runner ${at} <runner${at}@quillmere.example>`);
  const source = { kind: 'paste', text: lines.join('\n') };
  const preview = await ask(`courses/${course.id}/roster/preview`, {
    source,
    role: 'student',
    meanings: null,
  });
  await ask(`courses/${course.id}/roster/import`, {
    source,
    role: 'student',
    meanings: ['email', 'name'],
    leaveOutLines: [],
    fingerprint: preview.fingerprint,
  });
  const cookies = await sessions(database, base, 'runner%');

  const request = (method, path, cookie, body) =>
    new Promise((resolve, reject) => {
      const data = body && JSON.stringify(body);
      const sent = http.request(`${base}/api/${path}`, {
        method,
        agent,
        headers: {
          Cookie: cookie,
          ...(data && { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(data) }),
        },
      });
      sent.on('error', reject);
      sent.on('response', (answer) => {
        let text = '';
        answer.on('data', (piece) => (text += piece));
        answer.on('end', () => resolve({ status: answer.statusCode, body: text && JSON.parse(text) }));
      });
      sent.end(data);
    });

  const follow = (cookie, heard) =>
    new Promise((resolve, reject) => {
      const stream = http.get(`${base}/api/courses/${course.id}/changes?page=p`, {
        headers: { Cookie: cookie },
        agent: false,
      });
      stream.on('error', () => undefined);
      stream.on('response', (answer) => {
        if (answer.statusCode !== 200) return reject(new Error(`a stream was refused: ${answer.statusCode}`));
        answer.on('error', () => undefined);
        answer.on('data', (piece) => (heard.events += String(piece).split('event: change').length - 1));
        resolve(stream);
      });
    });

  const rush = async (name, withPages) => {
    const set = await ask(`courses/${course.id}/sets`, {
      name,
      shape: { by: 'count', groups },
      capacity: places,
      pattern: 'Panel {n}',
      names: [],
      signUp: { opens: null, closes: null, showsNames: true },
    });
    const board = await ask(`sets/${set.id}/board`);
    const heard = { events: 0 };
    const streams = withPages ? await Promise.all(cookies.map((cookie) => follow(cookie, heard))) : [];
    const began = cpuOf(serverPid);
    const at = performance.now();
    const wanted = cookies.map(
      (_, place) => board.groups[place % (groups + 12) < groups ? place % groups : 0].id,
    );
    const answers = await Promise.all(
      cookies.map((cookie, place) =>
        request('POST', `sets/${set.id}/sign-up`, cookie, { groupId: wanted[place] }),
      ),
    );
    const took = performance.now() - at;
    await new Promise((resolve) => setTimeout(resolve, 2500)); // what is told to pages is part of the cost
    const cpu = cpuOf(serverPid) - began;
    for (const stream of streams) stream.destroy();
    const { rows } = await database.query(
      `SELECT count(*)::int AS "seats" FROM "membership" WHERE "setId" = $1 AND "until" IS NULL`,
      [set.id],
    );
    const won = answers.filter(({ status }) => status === 200);
    const isTrue =
      won.every(({ body }) => wanted.includes(body.yours)) &&
      won.length === rows[0].seats &&
      answers.every(({ status }) => status === 200 || status === 409);
    console.log(`${name}: ${won.length} got a place, ${answers.filter(({ status }) => status === 409).length} were told what is left, ${answers.filter(({ status }) => status >= 500).length} errors; ${isTrue ? 'all answers are true' : 'SOME ANSWERS ARE NOT TRUE'}; ${heard.events} events; ${Math.round(took)} ms, CPU ${cpu.toFixed(2)} s`); // prettier-ignore
    return cpu;
  };

  await rush('warm', false);
  const without = await rush('no pages', false);
  const withPages = await rush('300 pages', true);
  console.log(`CPU with open pages: ${(withPages / without).toFixed(2)} times that without (2 are allowed)`);
  agent.destroy();
  await database.end();
});
