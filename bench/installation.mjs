/** An installation that is thrown away, with a course of made-up people and a browser of its instructor. */
import { spawn } from 'node:child_process';
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import http from 'node:http';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { freePort, startPostgres } from '../ops/postgres.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const { chromium } = createRequire(path.join(root, 'e2e/package.json'))('@playwright/test');
const credentials = { email: 'bench@quillmere.example', password: 'brine and bubbles' };
const given = ['Zofia', 'Noor', '서연', 'Łukasz', 'Amina', 'Jorge', 'Πηνελόπη', 'Ayşe', 'Søren', 'Kofi'];
const family = [
  'Wiśniewska',
  'Haddad',
  '한',
  'Przybyłko',
  'Diallo',
  'Peñaloza',
  'Καραθάνου',
  'Karadağ',
  'Bjerregaard',
  'Asare',
];

/** Starts the built server, hands `use` a signed-in browser context and a way to ask its API, and takes all of it down again.
 */
export async function withInstallation(use) {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-bench-'));
  const postgres = await startPostgres({ folder, isThrowAway: true });
  const port = await freePort();
  const base = `http://127.0.0.1:${port}`;
  const server = spawn(process.execPath, [path.join(root, 'server/dist/main.js')], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      LOG_LEVEL: 'error',
      PORT: String(port),
      PUBLIC_URL: base,
      DATABASE_URL: postgres.url,
      JIGSAW_WEB: path.join(root, 'web/dist'),
      JIGSAW_INSTRUCTOR_NAME: 'Bench',
      JIGSAW_INSTRUCTOR_EMAIL: credentials.email,
      JIGSAW_INSTRUCTOR_PASSWORD: credentials.password,
    },
  });
  let browser;
  try {
    for (let tries = 0; !(await isUp(base)); tries += 1) {
      if (tries > 300) throw new Error('the server did not start');
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    browser = await chromium.launch({
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
    });
    const context = await browser.newContext({ baseURL: base, viewport: { width: 1280, height: 800 } });
    const ask = async (at, data, method = data === undefined ? 'GET' : 'POST') => {
      const answer = await context.request.fetch(`/api/${at}`, {
        method,
        ...(data !== undefined && { data }),
      });
      if (!answer.ok()) throw new Error(`${at}: ${await answer.text()}`);
      return answer.json();
    };
    await ask('session', credentials);
    await use({ context, ask, base, databaseUrl: postgres.url, serverPid: server.pid });
  } finally {
    await browser?.close();
    server.kill();
    await postgres.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

const isUp = (base) =>
  fetch(`${base}/api/health`).then(
    (answer) => answer.ok,
    () => false,
  );

/** A course with so many made-up students. */
export async function aClassOf(ask, people) {
  const course = await ask('courses', { code: `B${people}`, title: 'Bench', term: '', timeZone: 'UTC' });
  const text = Array.from(
    { length: people },
    (_, at) => `${given[at % 10]} ${family[Math.floor(at / 10) % 10]} ${at} <p${at}@quillmere.example>`,
  ).join('\n');
  const source = { kind: 'paste', text };
  const { fingerprint } = await ask(`courses/${course.id}/roster/preview`, { source, meanings: null });
  await ask(`courses/${course.id}/roster/import`, {
    source,
    meanings: ['email', 'name'],
    leaveOutLines: [],
    fingerprint,
  });
  return course;
}

/** A class that works: everyone in a group of four, and activities of these kinds released to each group.
 * Student `p0@…` is in the first group, `p1@…` in the second, and so on round. */
export async function aWorkingClassOf(ask, people, kinds) {
  const course = await aClassOf(ask, people);
  const count = people / 4;
  const shape = { by: 'count', groups: count };
  const set = await ask(`courses/${course.id}/sets`, { name: 'Teams', shape, capacity: 4, pattern: 'Team {n}', names: [] }); // prettier-ignore
  const { students, groups } = await ask(`sets/${set.id}/board`);
  const numberOf = ({ name }) => Number(name.split(' ').at(-1));
  const moves = students.map((each) => ({
    student: each.enrolmentId,
    from: null,
    to: groups[numberOf(each) % count].id,
  }));
  await ask(`sets/${set.id}/place`, { moves });
  const activities = [];
  for (const [at, kind] of kinds.entries()) {
    const brief = {
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Write what you saw.' }] }],
    };
    const { id, version } = await ask(`courses/${course.id}/activities`, {
      kind,
      title: `${kind} ${at}`,
      brief,
      points: kind === 'assignment' ? '40' : null,
      rubric: null,
      schedule: { opens: null, due: null, closes: null },
      latePolicy: { graceMinutes: 15, stepPercent: 10, periodMinutes: 1440, capPercent: 50 },
      settings: {},
    });
    activities.push(
      await ask(`activities/${id}/release`, {
        to: { include: [{ kind: 'set', setId: set.id }], exclude: [] },
        mode: 'own',
        outsiders: 'hidden',
        goesLiveAt: null,
        version,
      }),
    );
  }
  return { course, set, groups, activities };
}

/** Everyone of these addresses signed in, without the hashing of passwords, which is slow by design and not what is measured.
 * @returns a Cookie header each. */
export async function sessions(database, base, addresses) {
  const name = `jigsaw_${createHash('sha256').update(base).digest('hex').slice(0, 8)}`;
  const { rows } = await database.query(
    `UPDATE "person" SET "provenAt" = now() WHERE "email" LIKE $1 RETURNING "id"`,
    [addresses],
  );
  const cookies = [];
  for (const { id } of rows) {
    const token = randomBytes(32).toString('base64url');
    await database.query(
      `INSERT INTO "session" ("tokenHash", "id", "cameFrom", "personId", "createdAt", "seenAt", "expiresAt") VALUES ($1, $2, '', $3, now(), now(), now() + interval '1 day')`,
      [createHash('sha256').update(token).digest('base64url'), randomUUID(), id],
    );
    cookies.push(`${name}=${token}`);
  }
  return cookies;
}

/** Asks on kept connections, as a browser does; a body is an object, or what was written before. @returns its status, what came and how long it took, ms. */
export function asker(base) {
  const agent = new http.Agent({ keepAlive: true, maxSockets: 200 });
  return (method, at, cookie, body, headers = {}) =>
    new Promise((resolve, reject) => {
      const data = body === undefined || Buffer.isBuffer(body) ? body : JSON.stringify(body);
      const began = performance.now();
      const sent = http.request(`${base}/api/${at}`, {
        method,
        agent,
        headers: {
          Cookie: cookie,
          ...(data && { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(data) }),
          ...headers,
        },
      });
      sent.on('error', reject);
      sent.on('response', (answer) => {
        let text = '';
        let bytes = 0;
        answer.on('data', (piece) => {
          text += piece;
          bytes += piece.length;
        });
        answer.on('end', () =>
          resolve({ status: answer.statusCode, text, bytes, tookMs: performance.now() - began }),
        );
      });
      sent.end(data);
    });
}

/** Seconds of CPU that a process has used: its own and the kernel's for it. */
export function cpuOf(pid) {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
  return (Number(fields[11]) + Number(fields[12])) / 100;
}

/** From each key until the frame with what it leaves in view is painted, in milliseconds, in ascending order. */
export async function keyTimes(page, words) {
  /* eslint-disable no-undef -- in the page */
  await page.evaluate(() => {
    window.took = [];
    document.addEventListener(
      'input',
      () => {
        const began = performance.now();
        requestAnimationFrame(() => {
          const drawn = new MessageChannel(); // its message comes once the frame is painted
          drawn.port1.onmessage = () => window.took.push(performance.now() - began);
          drawn.port2.postMessage(null);
        });
      },
      true,
    );
  });
  for (const word of words) {
    await page.keyboard.type(word, { delay: 120 });
    await page.keyboard.press('Control+a');
  }
  await page.waitForTimeout(300);
  const took = await page.evaluate(() => window.took);
  /* eslint-enable no-undef */
  return took.sort((a, b) => a - b);
}

/** "half within 33 % of the limit of 50 ms, 95 of 100 within 95 %" */
export function sayShares(took, limitMs) {
  const share = (part) => `${Math.round((took[Math.floor(took.length * part)] / limitMs) * 100)} %`;
  return `half within ${share(0.5)} of the limit of ${limitMs} ms, 95 of 100 within ${share(0.95)}`;
}
