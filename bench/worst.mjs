/** A student's page while 20 of the worst requests that the product takes run all the time: how much longer 95 of 100 pages take than on an idle
 * server. A class of 640, or as many as are named. Run by hand: node bench/worst.mjs [students] */
import { randomUUID } from 'node:crypto';
import { createRequire } from 'node:module';
import { asker, aWorkingClassOf, sessions, withInstallation } from './installation.mjs';

const pg = createRequire(new URL('../server/package.json', import.meta.url))('pg');
const people = Number(process.argv[2] ?? 640);
const pages = 60;
const warmUp = 10;

await withInstallation(async ({ ask, base, databaseUrl }) => {
  const database = new pg.Client({ connectionString: databaseUrl });
  database.on('error', () => undefined);
  await database.connect();
  const kinds = ['assignment', 'assignment', 'assignment', 'discussion', 'wiki'];
  const { course, set } = await aWorkingClassOf(ask, people, kinds);
  const [reader] = await sessions(database, base, 'p1@%');
  const writers = await sessions(database, base, 'p_@%');
  const [instructor] = await sessions(database, base, 'bench@%');
  const request = asker(base);
  const roomsOf = async (cookie) =>
    JSON.parse((await request('GET', `courses/${course.id}/rooms`, cookie)).text).rooms.flatMap(
      (room) => room.items,
    );
  const own = (items, kind) => items.find((item) => item.title.startsWith(kind)).copyId;

  // What a student's browser asks for when it opens the course and one piece of work.
  const work = own(await roomsOf(reader), 'assignment');
  const page = async () => {
    const asked = ['session', `courses`, `courses/${course.id}/figures`, `courses/${course.id}/rooms`, `courses/${course.id}/sign-ups`, `copies/${work}`, `copies/${work}/work`]; // prettier-ignore
    const began = performance.now();
    const answers = await Promise.all(asked.map((at) => request('GET', at, reader)));
    if (answers.some(({ status }) => status !== 200)) throw new Error('a page was refused');
    return performance.now() - began;
  };
  const p95 = async (count) => {
    const took = [];
    for (let at = 0; at < count; at += 1) took.push(await page());
    return took.toSorted((a, b) => a - b)[Math.floor(count * 0.95)];
  };

  const words = (count) => ({
    type: 'doc',
    content: [{ type: 'paragraph', content: [{ type: 'text', text: 'pH 3.4 at noon, '.repeat(count / 4) }] }],
  });
  const commas = Buffer.from(`Email,Name\n${','.repeat(9_000_000)}`).toString('base64');
  const rows = Buffer.from(
    `Email,Name\n${Array.from({ length: 19_000 }, (_, at) => `new${at}@quillmere.example,New ${at}`).join('\n')}`,
  ).toString('base64');
  // Written once: this process measures pages, too.
  const file = (contentBase64) => Buffer.from(JSON.stringify({ source: { kind: 'file', fileName: 'class.csv', contentBase64, delimiter: null }, role: 'student', meanings: null })); // prettier-ignore
  const writing = await Promise.all(
    writers.map(async (cookie) => {
      const items = await roomsOf(cookie);
      return { cookie, talk: own(items, 'discussion'), work: own(items, 'assignment') };
    }),
  );
  const long = words(40_000);
  const worst = [
    ...writing.slice(0, 5).map(({ cookie, talk }) => () => request('POST', `copies/${talk}/posts`, cookie, { id: randomUUID(), parentId: null, text: long })), // prettier-ignore
    ...writing.slice(5, 8).map(({ cookie, work: copy }) => () => request('PUT', `copies/${copy}/part`, cookie, { text: long, version: 0 })), // prettier-ignore
    ...[file(commas), file(commas), file(rows), file(rows)].map((content) => () => request('POST', `courses/${course.id}/roster/preview`, instructor, content)), // prettier-ignore
    ...['gradebook', 'rooms', 'roster', 'figures', 'roster.zip'].map((at) => () => request('GET', `courses/${course.id}/${at}`, instructor)), // prettier-ignore
    () => request('GET', `sets/${set.id}/board`, instructor),
    ...Array.from({ length: 2 }, () => () => request('POST', 'session', '', { email: 'p3@quillmere.example', password: 'guess' })), // prettier-ignore
  ];
  await p95(warmUp);
  const idle = await p95(pages);
  let isOver = false;
  const counts = worst.map(() => 0);
  const statuses = new Map();
  const running = worst.map(async (one, at) => {
    while (!isOver) {
      const { status } = await one();
      counts[at] += 1;
      statuses.set(status, (statuses.get(status) ?? 0) + 1);
    }
  });
  const busy = await p95(pages);
  isOver = true;
  await Promise.all(running);
  console.log(
    `${worst.length} of the worst requests: ${JSON.stringify([...statuses])}; by kind ${counts.join(' ')}`,
  );
  console.log(`95 of 100 pages of a student: ${(busy / idle).toFixed(1)} times as long as on an idle server (5 are allowed); idle ${idle.toFixed(0)} ms`); // prettier-ignore
  await database.end();
});
process.exit(0);
