/** What it costs to compose, release and put in order for 160 groups, and to take and read the answers of 640 students: each act as a ratio to an empty
 * answer with a session and to a statement that only reads the rows which a release writes, and the server's CPU for it. Run by hand after a build:
 * node bench/release.mjs [students] */
import { randomUUID } from 'node:crypto';
import { createRequire } from 'node:module';
import { aWorkingClassOf, asker, cpuOf, sessions, withInstallation } from './installation.mjs';

const pg = createRequire(new URL('../server/package.json', import.meta.url))('pg');
const people = Number(process.argv[2] ?? 640);
const times = 15;
const others = 30; // activities that are there already
const latePolicy = { graceMinutes: 0, stepPercent: 0, periodMinutes: 1440, capPercent: 0 };
const schedule = { opens: null, due: null, closes: null };
const paragraph = { type: 'paragraph', content: [{ type: 'text', text: 'Write what you saw. '.repeat(60) }] };
const brief = { type: 'doc', content: Array.from({ length: 12 }, () => paragraph) };
const drafted = (kind, more = {}) => ({ kind, title: 'Bench', brief, points: null, rubric: null, schedule, latePolicy, settings: {}, ...more }); // prettier-ignore

await withInstallation(async ({ ask, base, context, databaseUrl, serverPid }) => {
  const kinds = Array.from({ length: others }, (_, at) => ['assignment', 'discussion', 'wiki'][at % 3]);
  const { course, set, groups, activities } = await aWorkingClassOf(ask, people, kinds);
  const [{ name, value }] = await context.cookies();
  const staff = `${name}=${value}`;
  const request = asker(base);
  const inCourse = (at) => `courses/${course.id}/${at}`;
  const to = { include: [{ kind: 'set', setId: set.id }], exclude: [] };
  const how = { to, mode: 'own', outsiders: 'hidden', goesLiveAt: null };

  const database = new pg.Client({ connectionString: databaseUrl });
  await database.connect();
  const as = async (cookie, method, at, body) => {
    const answer = await request(method, at, cookie, body);
    if (answer.status !== 200) throw new Error(`${method} ${at}: ${answer.status} ${answer.text}`);
    return { ...answer, json: answer.text.startsWith('{') ? JSON.parse(answer.text) : null };
  };
  let empty = null;
  /** @param act does it once; what it needs before is made by `before`, uncounted. */
  async function measure(what, act, before = async () => undefined) {
    const [took, cpu] = [[], []];
    for (let turn = 0; turn < times + 3; turn += 1) {
      const given = await before();
      const was = cpuOf(serverPid);
      const { tookMs } = await act(given, turn);
      if (turn < 3) continue; // the first ones warm it up
      took.push(tookMs);
      cpu.push((cpuOf(serverPid) - was) * 1000);
    }
    const ms = took.sort((a, b) => a - b)[Math.floor(times / 2)];
    empty ??= ms;
    console.log(`${what.padEnd(34)} ${(ms / empty).toFixed(1).padStart(6)} × empty  CPU ${(cpu.reduce((sum, each) => sum + each, 0) / times).toFixed(0).padStart(4)} ms`); // prettier-ignore
  }

  const draft = async (kind = 'assignment', more = {}) =>
    (await as(staff, 'POST', inCourse('activities'), drafted(kind, more))).json;
  const attached = async (id, name, content) => {
    const bytes = Buffer.from(content);
    const sent = await request('POST', `activities/${id}/files?name=${name}&type=text/plain`, staff, bytes, { 'Content-Type': 'application/octet-stream' }); // prettier-ignore
    return JSON.parse(sent.text);
  };
  const release = (activity) => as(staff, 'POST', `activities/${activity.id}/release`, { ...how, version: activity.version }); // prettier-ignore

  await measure('empty, with a session', () => as(staff, 'GET', 'session'));
  await measure('begin a draft', () => as(staff, 'POST', inCourse('activities'), drafted('assignment')));
  await measure('save a draft as it is typed', ({ id, version }) => as(staff, 'PUT', `activities/${id}`, { ...drafted('assignment', { title: 'Renamed' }), version }), draft); // prettier-ignore
  await measure(`who would get it: ${groups.length} groups`, ({ id }) => as(staff, 'POST', `activities/${id}/reach`, { to, mode: 'own', outsiders: 'hidden' }), draft); // prettier-ignore
  for (const kind of ['assignment', 'discussion', 'wiki'])
    await measure(`release a ${kind} to them`, release, () => draft(kind));
  await measure('more time for one group', (_given, turn) => as(staff, 'PUT', `activities/${activities[0].id}/extensions/${groups[turn].id}`, { due: '2199-01-01T10:00:00.000Z', reason: 'Ill' })); // prettier-ignore
  const withFiles = async () => {
    const begun = await draft();
    const files = [];
    for (const name of ['Brief.txt', 'Figures.csv', 'Safety.txt'])
      files.push(await attached(begun.id, name, randomUUID().repeat(2000)));
    return (
      await as(staff, 'PUT', `activities/${begun.id}`, {
        ...drafted('assignment'),
        files,
        version: begun.version,
      })
    ).json;
  };
  await measure('compose with 3 files', async () => {
    const began = performance.now();
    await withFiles();
    return { tookMs: performance.now() - began };
  });
  await measure('release it to them', release, withFiles);
  await measure('read its copies by hand', async () => {
    const began = performance.now();
    const { rows } =
      await database.query(`SELECT c.*, r.*, a.* FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" JOIN "activity" a ON a."id" = r."activityId"
      WHERE a."id" = (SELECT "activityId" FROM "release" ORDER BY "stateAt" DESC LIMIT 1)`);
    if (rows.length !== groups.length) throw new Error(`${rows.length} copies`);
    return { tookMs: performance.now() - began };
  });
  await measure('withdraw', ({ id }) => as(staff, 'POST', `activities/${id}/withdraw`, {}), async () => (await release(await draft())).json); // prettier-ignore
  const { json: outline } = await as(staff, 'POST', inCourse('headings'), { title: 'Week 1' });
  const headingId = outline.headings[0].id;
  await measure('put an activity under a heading', (_given, turn) => as(staff, 'POST', `activities/${activities[turn].id}/place`, { headingId, before: null })); // prettier-ignore
  await measure('move a heading with 18 under it', () => as(staff, 'POST', `headings/${headingId}/move`, { before: null })); // prettier-ignore
  await measure('the outline for staff', () => as(staff, 'GET', inCourse('outline')));

  const [scale, short] = [randomUUID(), randomUUID()];
  const questions = [
    { id: scale, kind: 'scale', text: 'How sour is it?', isRequired: true },
    { id: short, kind: 'short', text: 'What would you change?', isRequired: false },
  ];
  const poll = (await release(await draft('questionnaire', { settings: { questions } }))).json;
  const cookies = await sessions(database, base, 'p%@quillmere.example');
  await database.end();
  await measure('the outline for a student', () => as(cookies[0], 'GET', inCourse('outline')));
  const copyOf = async (cookie) => (await as(cookie, 'GET', `activities/${poll.id}/copies`)).json.copies[0].copyId; // prettier-ignore
  await measure('where a link leads a student', () => as(cookies[0], 'GET', `activities/${poll.id}/copies`));
  const copies = [];
  for (const cookie of cookies) copies.push(await copyOf(cookie));
  const answers = {
    answers: { [scale]: 3, [short]: 'Weigh the salt twice.' },
    version: 0,
    isAnonymous: false,
  };
  const [began, was] = [performance.now(), cpuOf(serverPid)];
  await Promise.all(
    Array.from({ length: 8 }, async (_, worker) => {
      for (let at = worker; at < cookies.length; at += 8) await as(cookies[at], 'PUT', `copies/${copies[at]}/answers`, answers); // prettier-ignore
    }),
  );
  const each = (performance.now() - began) / cookies.length;
  console.log(`${cookies.length} answer, eight at a time: each takes ${(each / empty).toFixed(1)} times an empty answer, CPU ${(((cpuOf(serverPid) - was) * 1000) / cookies.length).toFixed(0)} ms`); // prettier-ignore
  await measure('the answers of all for staff', () => as(staff, 'GET', `activities/${poll.id}/answers`));
  await measure('the same as CSV', () => as(staff, 'GET', `activities/${poll.id}/answers.csv`));
});
