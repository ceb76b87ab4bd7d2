import { afterAll, beforeAll, expect, it } from '@jest/globals';
import type { DeskView, MarkView, MyMarks } from '@jigsaw/contract/marks';
import type { ActivityDraft, ActivityView } from '@jigsaw/contract/release';
import { draftOf } from '@jigsaw/contract/release';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { randomFrom } from '@jigsaw/core/random';
import { aCourse, addFile, aMember, aSecondSet, aSheet, released, gradebookOf } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { wholeSet } from '@jigsaw/core/release';
import type { Audience } from '@jigsaw/core/release';

const seed = 4127;
const steps = 200;
const names = ['noor', 'jorge', 'amina', 'kofi', 'nino'];

let server: TestServer;
let given: CourseForTests;
let assistant: Browser;
let activityId: string;
let copyIds: string[];
let to: Audience;
const random = randomFrom(seed);
const one = <Item>(of: readonly Item[]): Item => of[Math.floor(random() * of.length)] as Item;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
  assistant = await aMember(server, given, 'tomas', 'assistant');
  server.clock.set('2026-11-10T10:00:00Z');
  const { set: panels } = await aSecondSet(given); // Noor is in a bench team and in a panel: two copies, two marks
  to = { include: [...wholeSet(given.set.id).include, ...wholeSet(panels.id).include], exclude: [] };
  const activity = await released(given, { title: 'Report' }, { to });
  activityId = activity.id;
  const desk = await read<DeskView>(`/api/releases/${sure(activity.release).id}/desk`);
  copyIds = desk.rows.map((row) => row.copyId);
});
afterAll(() => server.stop());

const student = (name: string) => sure(given.students.get(name)).browser;
const read = async <Answer>(path: string, by: Browser = given.instructor) =>
  (await by.get(path).expect(200)).body as Answer;
const activityNow = () => read<ActivityView>(`/api/activities/${activityId}`);
const sheetOf = (copyId: string) => read<MarkView>(`/api/copies/${copyId}/marks/group`);

type Answer = Awaited<ReturnType<Browser['post']>> | null;

/** One thing that someone does; what is refused was refused for a reason, and changes nothing. */
const acts: readonly (() => Promise<Answer>)[] = [
  edit(() => ({ points: one(['10', '40', '50', '12.5']) })),
  edit(() => ({
    schedule: { opens: null, due: `2026-11-${one(['08', '12', '16'])}T17:00:00.000Z`, closes: null },
  })),
  edit(() => ({
    latePolicy: {
      graceMinutes: one([0, 15]),
      stepPercent: one([0, 10]),
      periodMinutes: 1440,
      capPercent: 50,
    },
  })),
  edit(() => ({ rubric: one([null, aRubric]) })),
  async () => press('publish', (await activityNow()).version),
  async () => press('publish', (await activityNow()).version),
  async () => given.instructor.post(`/api/activities/${activityId}/withdraw`),
  async () =>
    given.instructor.post(`/api/activities/${activityId}/release`).send({
      to,
      mode: 'own',
      outsiders: 'hidden',
      goesLiveAt: null,
      version: (await activityNow()).version,
    }),
  async () =>
    given.instructor
      .put(`/api/activities/${activityId}/extensions/${one(given.board.groups).id}`)
      .send({ due: '2026-11-15T17:00:00.000Z', reason: 'Their crock cracked' }),
  async () =>
    given.instructor.delete(`/api/activities/${activityId}/extensions/${one(given.board.groups).id}`),
  move,
  handIn,
  handIn,
  save,
  save,
  save,
  async () => onSheet('release'),
  async () => onSheet('release'),
  async () => onSheet('recall'),
  () => {
    server.clock.set(new Date(server.clock.now().getTime() + 7 * 3_600_000).toISOString());
    return Promise.resolve(null);
  },
];

const aRubric = {
  criteria: [
    {
      id: 'method',
      name: 'Method',
      description: '',
      weight: '1',
      levels: ['0', '1', '3'].map((points) => ({ id: points, name: points, description: '', points })),
    },
  ],
};

function edit(more: () => Partial<ActivityDraft>) {
  return async () => {
    const now = await activityNow();
    return given.instructor
      .put(`/api/activities/${activityId}`)
      .send({ ...draftOf(now.inWork ?? now), ...more(), version: now.version });
  };
}

const press = (what: string, version: number) =>
  given.instructor.post(`/api/activities/${activityId}/${what}`).send({ version });

async function move() {
  const board = await read<BoardView>(`/api/sets/${given.set.id}/board`);
  const id = sure(given.students.get(one(names))).enrolmentId;
  const from = sure(board.students.find((each) => each.enrolmentId === id)).seats[0]?.groupId ?? null;
  const to = one([...board.groups.map((group) => group.id), null]);
  return given.instructor
    .post(`/api/sets/${given.set.id}/place`)
    .send({ moves: [{ student: id, from, to }], credit: one(['stays', 'joins']) });
}

async function handIn() {
  const browser = student(one(names));
  const copyId = one(copyIds);
  const { status } = await browser.get(`/api/copies/${copyId}/work`);
  if (status !== 200) return null;
  await addFile(browser, copyId, 'work.txt', Buffer.from(String(random()))).catch(() => null);
  const { body } = await browser.get(`/api/copies/${copyId}/work`);
  const attempt = ((body as { handIns?: unknown[] }).handIns ?? []).length + 1;
  return browser.post(`/api/copies/${copyId}/hand-in`).send({ attempt });
}

async function save() {
  const copyId = one(copyIds);
  const sheet = await sheetOf(copyId);
  const reason = 'Ran the control';
  const adjustments = sheet.members.flatMap(({ member: { enrolmentId } }) =>
    one([
      [],
      [],
      [{ enrolmentId, adjustment: { kind: 'adjusted', by: one(['1', '-2.5']), reason } }],
      [{ enrolmentId, adjustment: { kind: 'separate', mark: one(['7', '0', null]), reason } }],
      [{ enrolmentId, adjustment: { kind: 'excused', reason } }],
    ] as object[][]),
  );
  return one([given.instructor, assistant])
    .put(`/api/copies/${copyId}/marks/group`)
    .send({
      ...aSheet,
      typedMark: one([null, '5', '9.5', '30']),
      overrideReason: one(['', 'The rubric misses it']),
      picks: one([{}, { method: { points: one(['1', '3']), comment: '' } }]),
      feedback: one(['', 'Good reading.']),
      adjustments,
      version: sheet.version,
    });
}

async function onSheet(what: 'release' | 'recall') {
  const copyId = one(copyIds);
  const { version } = await sheetOf(copyId);
  return one([given.instructor, assistant])
    .post(`/api/copies/${copyId}/marks/group/${what}`)
    .send({ version });
}

/** The most marks that one student had at once. */
let most = 0;

/** Each student's own page, the gradebook, its CSV and the desk tell one story. */
async function expectOneStory(): Promise<void> {
  const book = await gradebookOf(given);
  const csv = (await given.instructor.get(`/api/courses/${given.course.id}/gradebook.csv`)).text.split(
    '\r\n',
  );
  const sheets = new Map(await Promise.all(copyIds.map(async (id) => [id, await sheetOf(id)] as const)));
  const column = book.activities.findIndex((each) => each.activityId === activityId);
  const isWithdrawn =
    book.activities[column]?.isWithdrawn ?? (await activityNow()).release?.state.state === 'withdrawn';
  for (const name of names) {
    const { enrolmentId, browser } = sure(given.students.get(name));
    const { marks } = await read<MyMarks>(`/api/courses/${given.course.id}/my-marks`, browser);
    const row = sure(book.students.find((each) => each.enrolmentId === enrolmentId));
    const cells = (row.cells[column] ?? []).filter(
      ({ state }) => state === 'released' || state === 'excused',
    );
    const out = isWithdrawn ? [] : cells;
    most = Math.max(most, out.length);
    const told = (each: { copyId: string; mark: string | null; points: string }) =>
      `${each.copyId} ${each.mark ?? 'excused'} of ${each.points}`;
    expect({ name, marks: out.map(told).sort() }).toEqual({ name, marks: marks.map(told).sort() });
    const now = sure(book.activities[column] ?? { points: '' }).points;
    const written = out.map(({ mark, points, group }) => {
      const figure = mark === null ? 'excused' : points === now ? mark : `${mark} of ${points}`;
      return out.length > 1 ? `${figure} (${group})` : figure;
    });
    const line = sure(csv.find((each) => each.includes(row.name)));
    const ending = column < 0 || isWithdrawn ? '' : `,${written.join('; ')}`;
    expect(line.endsWith(`${row.name.toLowerCase()}@quillmere.example${ending}`)).toBe(true);
    for (const cell of out) {
      const sheet = sure(sheets.get(cell.copyId));
      const changes = sheet.changes.some((each) => each.member.enrolmentId === enrolmentId);
      expect({ name, changes: cell.isChanged }).toEqual({ name, changes });
      const own = sheet.members.find((each) => each.member.enrolmentId === enrolmentId);
      if (!changes) expect([own?.mark, sheet.points]).toEqual([cell.mark, cell.points]);
    }
  }
  for (const sheet of sheets.values())
    if (sheet.state === 'released' || sheet.state === 'changed')
      expect(sheet.state).toBe(sheet.changes.length === 0 ? 'released' : 'changed');
  const [first] = sheets.values();
  const desk = await read<DeskView>(`/api/releases/${sure(first).copy.releaseId}/desk`);
  expect(desk.rows.map((row) => row.mark.state).sort()).toEqual(
    [...sheets.values()].map((each) => each.state).sort(),
  );
}

it(`keeps every page to one story through ${steps} acts of three people, some of them at one moment`, async () => {
  const outcomes = new Map<number, number>();
  // It begins with everyone marked, Noor twice; where it goes from there hangs on the seed, and on who is first of two at one moment.
  for (const copyId of copyIds) {
    const sheet = `/api/copies/${copyId}/marks/group`;
    await given.instructor
      .put(sheet)
      .send({ ...aSheet, typedMark: '9', version: 0 })
      .expect(200);
    await given.instructor.post(`${sheet}/release`).send({ version: 1 }).expect(200);
  }
  await expectOneStory();
  for (let step = 0; step < steps; step += 1) {
    const doing = [one(acts)(), ...(random() < 0.3 ? [one(acts)()] : [])];
    for (const answer of await Promise.all(doing)) {
      if (answer === null) continue;
      const { status, body } = answer;
      outcomes.set(status, (outcomes.get(status) ?? 0) + 1);
      if (status >= 500) throw new Error(`step ${step}: ${JSON.stringify(body)}`);
    }
    await expectOneStory().catch((cause: unknown) => {
      throw new Error(`after step ${step} of seed ${seed}`, { cause });
    });
  }
  // It did something: there was a time with two marks for one student, and most acts were not refused.
  expect(most).toBe(2);
  expect(outcomes.get(200)).toBeGreaterThan(steps / 2);
}, 240_000);
