/** A 100 MB file into the server and out again: how far the server's memory rises above idle.
 * Run it after a build: node bench/largeFile.mjs [megabytes] */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { freePort, startPostgres } from '../ops/postgres.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const megabytes = Number(process.argv[2] ?? 100);
const limitMb = 300;
const credentials = { email: 'bench@quillmere.example', password: 'brine and bubbles' };

let watch;
const folder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-bench-'));
const postgres = await startPostgres({ folder, isThrowAway: true });
const port = await freePort();
const server = spawn(process.execPath, [path.join(root, 'server/dist/main.js')], {
  stdio: ['ignore', 'ignore', 'inherit'],
  env: {
    ...process.env,
    LOG_LEVEL: 'error',
    PORT: String(port),
    DATABASE_URL: postgres.url,
    JIGSAW_INSTRUCTOR_NAME: 'Bench',
    JIGSAW_INSTRUCTOR_EMAIL: credentials.email,
    JIGSAW_INSTRUCTOR_PASSWORD: credentials.password,
  },
});
const base = `http://127.0.0.1:${port}/api`;

try {
  const { ask, cookie, copyId } = await aGroupCopy();
  const residentMb = () =>
    Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))[1]) / 1024;
  await new Promise((resolve) => setTimeout(resolve, 1000));
  const idle = residentMb();
  let peak = idle;
  watch = setInterval(() => (peak = Math.max(peak, residentMb())), 20);

  const sent = createHash('sha256');
  const body = new ReadableStream({
    start() {
      this.left = megabytes;
    },
    pull(controller) {
      if (this.left-- === 0) return controller.close();
      const chunk = Buffer.alloc(1024 * 1024, this.left % 251);
      sent.update(chunk);
      controller.enqueue(chunk);
    },
  });
  const upload = await fetch(`${base}/copies/${copyId}/files?name=large.bin`, {
    method: 'POST',
    body,
    duplex: 'half',
    headers: { Cookie: cookie, 'Content-Type': 'application/octet-stream' },
  });
  const copy = await upload.json();
  if (!upload.ok) throw new Error(copy.detail);
  const peakIn = peak;
  peak = residentMb();

  const received = createHash('sha256');
  const download = await fetch(`${base}/copies/${copyId}/files/${copy.files[0].id}`, {
    headers: { Cookie: cookie },
  });
  for await (const chunk of download.body) received.update(chunk);
  const isSame = sent.digest('hex') === received.digest('hex');
  await ask('GET', `copies/${copyId}`);

  const rise = (mb) => Math.round(mb - idle);
  console.log(`${megabytes} MB in and out, ${isSame ? 'the same bytes' : 'NOT THE SAME BYTES'}`);
  console.log(
    `server at rest ${Math.round(idle)} MB; at most ${rise(peakIn)} MB above that while receiving, ${rise(peak)} MB while sending; the limit is ${limitMb} MB`,
  );
  if (!isSame || Math.max(rise(peakIn), rise(peak)) >= limitMb) process.exitCode = 1;
} finally {
  clearInterval(watch);
  server.kill('SIGTERM');
  await new Promise((resolve) => server.once('exit', resolve));
  await postgres.stop();
  rmSync(folder, { recursive: true, force: true });
}

/** A course with one student in one group that has one assignment; the student is signed in. */
async function aGroupCopy() {
  await untilReady();
  const instructor = asker();
  await instructor.ask('POST', 'session', credentials);
  const course = await instructor.ask('POST', 'courses', {
    code: 'B',
    title: 'Bench',
    term: '',
    timeZone: 'UTC',
  });
  const source = { kind: 'paste', text: 'student@quillmere.example' };
  const preview = await instructor.ask('POST', `courses/${course.id}/roster/preview`, {
    source,
    meanings: null,
  });
  await instructor.ask('POST', `courses/${course.id}/roster/import`, {
    source,
    meanings: ['email', 'name'],
    leaveOutLines: [],
    fingerprint: preview.fingerprint,
  });
  const set = await instructor.ask('POST', `courses/${course.id}/sets`, {
    name: 'S',
    shape: { by: 'count', groups: 1 },
    capacity: null,
    pattern: '',
    names: [],
  });
  const board = await instructor.ask('GET', `sets/${set.id}/board`);
  await instructor.ask('POST', `sets/${set.id}/place`, {
    moves: [{ student: board.students[0].enrolmentId, from: null, to: board.groups[0].id }],
  });
  const draft = await instructor.ask('POST', `courses/${course.id}/activities`, {
    kind: 'assignment',
    settings: {},
    rubric: null,
    title: 'A',
    brief: { type: 'doc', content: [] },
    points: '10',
    schedule: { opens: null, due: null, closes: null },
    latePolicy: { graceMinutes: 0, stepPercent: 0, periodMinutes: 1440, capPercent: 0 },
  });
  await instructor.ask('POST', `activities/${draft.id}/release`, {
    to: { include: [{ kind: 'set', setId: set.id }], exclude: [] },
    mode: 'own',
    outsiders: 'hidden',
    goesLiveAt: null,
    version: 1,
  });
  const { links } = await instructor.ask('POST', `courses/${course.id}/roster/sign-in-links`);
  const student = asker();
  await student.ask('POST', 'session/password', {
    token: links[0].url.split('#')[1],
    password: 'salt and water',
  });
  const { rooms } = await student.ask('GET', `courses/${course.id}/rooms`);
  return { ask: student.ask, cookie: student.cookie(), copyId: rooms[0].items[0].copyId };
}

function asker() {
  let cookie = '';
  const ask = async (method, at, body) => {
    const answer = await fetch(`${base}/${at}`, {
      method,
      headers: { Cookie: cookie, 'Content-Type': 'application/json' },
      body: body && JSON.stringify(body),
    });
    cookie = answer.headers.getSetCookie()[0]?.split(';')[0] ?? cookie;
    const json = await answer.json();
    if (!answer.ok) throw new Error(`${method} ${at}: ${json.detail}`);
    return json;
  };
  return { ask, cookie: () => cookie };
}

async function untilReady() {
  for (let tries = 0; tries < 150; tries += 1) {
    const answer = await fetch(`${base}/health`).catch(() => null);
    if (answer?.ok) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error('the server did not become ready');
}
