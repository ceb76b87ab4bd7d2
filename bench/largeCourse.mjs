/** What the pages of a large course cost the server: 640 students, 160 teams, 30 activities with a term of work (`./jigsaw demo --large`). Per request the
 * server's CPU and the time as ratios to an empty answer with a session, and what goes over the line, compressed. Run by hand: node bench/largeCourse.mjs */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { freePort, startPostgres } from '../ops/postgres.mjs';
import { asker, cpuOf } from './installation.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const times = 12;
const warmUp = 4;

const folder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-bench-'));
const postgres = await startPostgres({ folder, isThrowAway: true });
const port = await freePort();
const base = `http://127.0.0.1:${port}`;
const server = spawn(process.execPath, [path.join(root, 'demo/dist/main.js'), '--large'], {
  stdio: ['ignore', 'ignore', 'inherit'],
  env: { ...process.env, NODE_ENV: 'production', LOG_LEVEL: 'error', PORT: String(port), PUBLIC_URL: base, DATABASE_URL: postgres.url }, // prettier-ignore
});
try {
  while (!(await fetch(`${base}/api/health`).catch(() => null))?.ok)
    await new Promise((resolve) => setTimeout(resolve, 300));
  await measure();
} finally {
  server.kill();
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
  const pages = [
    ['empty, with a session', staff, 'session'],
    ['figures of staff', staff, inCourse('figures')],
    ['figures of an assistant', leader, inCourse('figures')],
    ['rooms of staff', staff, inCourse('room-lines')],
    ['desk list', staff, inCourse('desk')],
    ['queue', staff, `releases/${release}/desk`],
    ['gradebook', staff, inCourse('gradebook')],
    ['release list', staff, inCourse('activities')],
    ['Board', staff, `sets/${set}/board`],
    ['roster', staff, inCourse('roster')],
    ['a mark', staff, `copies/${copy}/marks/group`],
    ['rooms of a student', student, inCourse('rooms')],
    ['figures of a student', student, inCourse('figures')],
    ['marks of a student', student, inCourse('my-marks')],
    ['a copy', student, `copies/${copy}`],
    ['work', student, `copies/${copy}/work`],
    ['a discussion of 500 posts', student, `copies/${talk}/discussion`],
  ];
  let empty = null;
  for (const [name, cookie, at] of pages) {
    for (let turn = 0; turn < warmUp; turn += 1) await request('GET', at, cookie);
    const before = cpuOf(server.pid);
    const took = [];
    let bytes = 0;
    for (let turn = 0; turn < times; turn += 1) {
      const answer = await request('GET', at, cookie, undefined, { 'Accept-Encoding': 'gzip' });
      if (answer.status !== 200) throw new Error(`${at}: ${answer.status}`);
      took.push(answer.tookMs);
      bytes = answer.bytes;
    }
    const cpuMs = ((cpuOf(server.pid) - before) * 1000) / times;
    const middle = took.toSorted((a, b) => a - b)[Math.floor(times / 2)];
    empty ??= middle;
    console.log(`${name.padEnd(26)} ${(middle / empty).toFixed(1).padStart(6)} × empty  CPU ${cpuMs.toFixed(0).padStart(4)} ms  ${(bytes / 1024).toFixed(0).padStart(4)} kB`); // prettier-ignore
  }
}

async function cameIn(email) {
  const answer = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ email, password: 'brine and bubbles' }),
  });
  return answer.headers.getSetCookie().map((each) => each.split(';')[0]).join('; '); // prettier-ignore
}
