/** What the pages of a large course cost the server: 640 students, 160 teams, 30 activities with a term of work (`./jigsaw demo --large`), or as many teams and
 * activities as are given. Per request the server's CPU, and the time as ratios to an empty answer with a session and to the same rows by hand-written SQL;
 * what goes over the line, compressed; and how long the event loop is held while all of it is asked for at once.
 * Run by hand: node bench/largeCourse.mjs [teams activities] */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { freePort, startPostgres } from '../ops/postgres.mjs';
import { asker, cpuOf } from './installation.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const [, , teams = '160', activities = '30'] = process.argv;
const times = 24;
const warmUp = 40;
const [metricsPort, yardstickPort] = [await freePort(), await freePort()];

const folder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-bench-'));
const postgres = await startPostgres({ folder, isThrowAway: true });
const port = await freePort();
const base = `http://127.0.0.1:${port}`;
const env = { ...process.env, NODE_ENV: 'production', LOG_LEVEL: 'error', PORT: String(port), PUBLIC_URL: base, DATABASE_URL: postgres.url, JIGSAW_LARGE_TEAMS: teams, JIGSAW_LARGE_ACTIVITIES: activities }; // prettier-ignore
const stdio = ['ignore', 'ignore', 'inherit'];
const start = (program, ...args) =>
  spawn(process.execPath, [path.join(root, program), ...args], { stdio, env });
const isUp = async () => {
  while (!(await fetch(`${base}/api/health`).catch(() => null))?.ok)
    await new Promise((resolve) => setTimeout(resolve, 300));
};
// It is loaded by one process and measured in another, which has done nothing else.
const loading = start('demo/dist/main.js', '--large');
await isUp();
loading.kill();
await once(loading, 'exit');
env.METRICS_PORT = String(metricsPort);
const server = start('server/dist/main.js');
const yardstick = start('bench/yardstick.mjs', postgres.url, String(yardstickPort));
try {
  await isUp();
  await measure();
} finally {
  server.kill();
  yardstick.kill();
  await postgres.stop();
  rmSync(folder, { recursive: true, force: true });
}
process.exit(0);

async function measure() {
  const staff = await cameIn('ilse.marrow@quillmere.example');
  const leader = await cameIn('assistant1@quillmere.example');
  const student = await cameIn('brewer1@quillmere.example');
  const request = asker(base);
  const read = async (cookie, at) => JSON.parse((await request('GET', at, cookie)).text);
  const course = (await read(staff, 'courses')).courses[0].id;
  const inCourse = (at) => `courses/${course}/${at}`;
  const set = (await read(staff, inCourse('sets'))).sets[0].id;
  const { activities } = await read(staff, inCourse('activities'));
  const release = activities.find(({ title }) => title === 'Process log 15').release.id;
  const items = (await read(student, inCourse('rooms'))).rooms.flatMap((room) => room.items);
  const copy = items.find(({ title }) => title === 'Process log 15').copyId;
  const talk = items.find(({ title }) => title === 'Week in the brewhouse 1').copyId;
  const enrolment = (await read(student, 'courses')).courses[0].enrolmentId;
  const pages = [
    ['empty, with a session', staff, 'session'],
    ['figures of staff', staff, inCourse('figures')],
    ['figures of an assistant', leader, inCourse('figures')],
    ['rooms of staff', staff, inCourse('room-lines'), 'rooms', course],
    ['desk list', staff, inCourse('desk'), 'desk list', course],
    ['queue', staff, `releases/${release}/desk`, 'queue', release],
    ['gradebook', staff, inCourse('gradebook'), 'gradebook', course],
    ['release list', staff, inCourse('activities'), 'release list', course],
    ['Board', staff, `sets/${set}/board`, 'board', set],
    ['roster', staff, inCourse('roster'), 'roster', course],
    ['a mark', staff, `copies/${copy}/marks/group`],
    ['rooms of a student', student, inCourse('rooms'), 'rooms of a student', enrolment],
    ['figures of a student', student, inCourse('figures')],
    ['marks of a student', student, inCourse('my-marks'), 'marks of a student', enrolment],
    ['a copy', student, `copies/${copy}`],
    ['work', student, `copies/${copy}/work`],
    ['a discussion of 500 posts', student, `copies/${talk}/discussion`],
  ];
  const compressed = { 'Accept-Encoding': 'gzip' };
  let empty = null;
  for (const [name, cookie, at, byHand, id] of pages) {
    const own = await cost(server.pid, () => request('GET', at, cookie, undefined, compressed));
    const hand = byHand && (await cost(yardstick.pid, () => byHandAsked(byHand, id)));
    empty ??= own.ms;
    const ratio = hand ? `${(own.ms / hand.ms).toFixed(1).padStart(5)} × SQL (CPU ${hand.cpuMs.toFixed(0).padStart(3)} ms)` : ' '.repeat(25); // prettier-ignore
    console.log(`${name.padEnd(26)} ${(own.ms / empty).toFixed(1).padStart(6)} × empty ${ratio}  CPU ${own.cpuMs.toFixed(0).padStart(4)} ms  ${(own.bytes / 1024).toFixed(0).padStart(4)} kB`); // prettier-ignore
  }
  console.log(`an empty answer: ${empty.toFixed(1)} ms`);
  await loopDelay(); // forgets what was before
  const mixed = Array.from({ length: 204 }, (_, at) => pages[at % pages.length]);
  await Promise.all(
    Array.from({ length: 4 }, async (_each, worker) => {
      for (const [, cookie, at] of mixed.filter((_page, turn) => turn % 4 === worker))
        await request('GET', at, cookie, undefined, compressed);
    }),
  );
  console.log(`event loop, ${mixed.length} mixed requests, four at a time: ${await loopDelay()}`);
}

/** Middle time, CPU a request and bytes of the requirement for again and again. */
async function cost(pid, ask) {
  for (let turn = 0; turn < warmUp; turn += 1) await ask();
  const before = cpuOf(pid);
  const answers = [];
  for (let turn = 0; turn < times; turn += 1) {
    const answer = await ask();
    if (answer.status !== 200) throw new Error(`${answer.status}: ${answer.text}`);
    answers.push(answer);
  }
  const took = answers.map(({ tookMs }) => tookMs).sort((a, b) => a - b);
  const cpuMs = ((cpuOf(pid) - before) * 1000) / times;
  return { ms: took[Math.floor(times / 2)], cpuMs, bytes: answers[0].bytes };
}

async function byHandAsked(page, id) {
  const began = performance.now();
  const answer = await fetch(`http://127.0.0.1:${yardstickPort}/${encodeURIComponent(page)}?id=${id}`);
  const text = await answer.text();
  return { status: answer.status, text, bytes: 0, tookMs: performance.now() - began };
}

/** Since it was asked for last: how long the loop was held, as the server's own metrics say. */
async function loopDelay() {
  const text = await (await fetch(`http://127.0.0.1:${metricsPort}/metrics`)).text();
  const of = (name) => (Number(new RegExp(`^nodejs_eventloop_lag_${name}_seconds (.+)$`, 'm').exec(text)?.[1]) * 1000).toFixed(0); // prettier-ignore
  return `p50 ${of('p50')} ms, p99 ${of('p99')} ms, longest ${of('max')} ms`;
}

async function cameIn(email) {
  const answer = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ email, password: 'brine and bubbles' }),
  });
  return answer.headers.getSetCookie().map((each) => each.split(';')[0]).join('; '); // prettier-ignore
}
