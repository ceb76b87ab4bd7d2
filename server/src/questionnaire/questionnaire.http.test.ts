import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { DataSource } from 'typeorm';
import type { AllAnswers, Answers, QuestionnaireView } from '@jigsaw/contract/questionnaire';
import type { ActivityView, ReleaseRequest } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { theClass } from '@jigsaw/core/release';
import {
  aCourse,
  anAssignment,
  aMember,
  copyOf,
  crockIsLedBy,
  itemOf,
  released,
  toRead,
} from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let tomas: Browser;
let title: string;
let count = 0;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi
  tomas = await aMember(server, given, 'tomas', 'assistant');
});
afterAll(() => server.stop());
beforeEach(() => {
  count += 1;
  title = `Brine poll ${count}`;
  server.clock.set('2026-11-10T10:00:00Z');
});

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const [sour, brine, weak, strong, why] = Array.from({ length: 5 }, () => randomUUID()) as [string, string, string, string, string]; // prettier-ignore
const questions = [
  { id: brine, kind: 'choice', text: 'Which brine?', isRequired: true, options: [{ id: weak, text: 'Weak' }, { id: strong, text: 'Strong' }] }, // prettier-ignore
  { id: sour, kind: 'scale', text: 'How sour?', steps: 5 },
  { id: why, kind: 'long', text: 'Why?' },
];
const aPoll = (settings: object = {}, how: Partial<ReleaseRequest> = {}, more: object = {}) =>
  released(given, { ...toRead('questionnaire', { title, settings: { questions, ...settings } }), ...more }, how); // prettier-ignore
const forAll = { to: theClass, mode: 'common' } as const;
const read = async (who: Browser, copyId: string) =>
  (await who.get(`/api/copies/${copyId}/answers`).expect(200)).body as QuestionnaireView;
const give = (who: Browser, copyId: string, answers: Answers, version = 0, isAnonymous = false) =>
  who.put(`/api/copies/${copyId}/answers`).send({ answers, version, isAnonymous });
const giveUnnamed = (who: Browser, copyId: string, answers: Answers, version = 0) =>
  give(who, copyId, answers, version, true);
const everyone = async (who: Browser, activityId: string) =>
  (await who.get(`/api/activities/${activityId}/answers`).expect(200)).body as AllAnswers;
/** Until a statement of someone else waits for what is held here. */
async function untilSomeoneWaits(): Promise<void> {
  for (;;) {
    const waiting = await server.rows(`SELECT 1 FROM pg_stat_activity WHERE "wait_event_type" = 'Lock' AND "datname" = current_database()`); // prettier-ignore
    if (waiting.length > 0) return;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}
const detail = ({ body }: { body: unknown }) => (body as { detail: string }).detail;
const change = async ({ id, version }: ActivityView, settings: object) =>
  given.instructor.put(`/api/activities/${id}`).send({
    ...anAssignment({ ...toRead('questionnaire'), title, settings: { questions, ...settings } }),
    version,
  }); // prettier-ignore

describe('a questionnaire by name', () => {
  it('takes no answers that were meant to be anonymous, and an anonymous one none that were meant with a name', async () => {
    for (const isAnonymous of [true, false]) {
      title = `${title}, ${isAnonymous ? 'no names' : 'names'}`;
      await aPoll({ isAnonymous });
      const copyId = await copyOf(student('noor'), given.course.id, title);
      const refused = await give(student('noor'), copyId, { [brine]: [weak] }, 0, !isAnonymous).expect(409);
      expect(detail(refused)).toContain(isAnonymous ? 'It is anonymous now.' : 'It is by name now.');
      expect(await read(student('noor'), copyId)).toMatchObject({ hasAnswered: false, mine: null });
      expect(await server.rows(`SELECT 1 FROM "answer_sheet" WHERE "copyId" = '${copyId}'`)).toEqual([]);
    }
  });

  it('is answered as it is asked when the answers come, not as it was when they were let in', async () => {
    const { id } = await aPoll();
    const copyId = await copyOf(student('noor'), given.course.id, title);
    const changing = server.app.get(DataSource).createQueryRunner();
    await changing.startTransaction();
    // As someone who publishes other questions holds it.
    await changing.query(`SELECT 1 FROM "activity" WHERE "id" = $1 FOR UPDATE`, [id]);
    const answer = give(student('noor'), copyId, { [brine]: [weak] }).then((sent) => sent);
    await untilSomeoneWaits();
    const settings = { isAnonymous: false, questions: questions.slice(1) };
    await changing.query(`UPDATE "activity" SET "settings" = $2 WHERE "id" = $1`, [id, settings]);
    await changing.commitTransaction();
    await changing.release();
    expect(detail(await answer)).toBe('Answer at least one question.');
    expect((await read(student('noor'), copyId)).hasAnswered).toBe(false);
  });

  it('is owed until it is answered, and can be changed while it is open', async () => {
    await aPoll({}, {}, { schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes: '2026-11-13T17:00:00.000Z' } }); // prettier-ignore
    const before = await itemOf(student('noor'), given.course.id, title);
    expect(before.progress).toMatchObject({ owes: true, state: 'not-started', done: null });
    const first = (await give(student('noor'), before.copyId, { [brine]: [weak], [why]: ' ' }).expect(200)).body as QuestionnaireView; // prettier-ignore
    expect(first).toMatchObject({ hasAnswered: true, results: null, mine: { answers: { [brine]: [weak] }, version: 1 } }); // prettier-ignore
    expect((await itemOf(student('noor'), given.course.id, title)).progress).toMatchObject({ owes: false, state: 'done', done: null, asked: null }); // prettier-ignore
    expect((await itemOf(student('jorge'), given.course.id, title)).progress.owes).toBe(true);
    await give(student('noor'), before.copyId, { [brine]: [strong] }, 1).expect(200);
    expect((await read(student('noor'), before.copyId)).mine).toMatchObject({ answers: { [brine]: [strong] }, version: 2 }); // prettier-ignore
    server.clock.set('2026-11-14T10:00:00Z');
    expect(detail(await give(student('noor'), before.copyId, { [brine]: [weak] }, 2).expect(409))).toContain('can be read, but no longer changed'); // prettier-ignore
    expect((await read(student('noor'), before.copyId)).mine?.answers).toEqual({ [brine]: [strong] });
  });

  it('shows what was sent from another page, and loses neither', async () => {
    await aPoll();
    const copyId = await copyOf(student('noor'), given.course.id, title);
    const both = await Promise.all([
      give(student('noor'), copyId, { [brine]: [weak] }),
      give(student('noor'), copyId, { [brine]: [strong] }),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    const refused = sure(both.find(({ status }) => status === 409)).body as { current: QuestionnaireView };
    expect(refused.current.mine).toMatchObject({ version: 1 });
  });

  it('tells staff who answered what, group by group, and a member nothing of the others', async () => {
    const { id } = await aPoll();
    const copyId = await copyOf(student('noor'), given.course.id, title);
    const others = await copyOf(student('amina'), given.course.id, title);
    await give(student('noor'), copyId, { [brine]: [weak], [sour]: 4 }).expect(200);
    await give(student('amina'), others, { [brine]: [strong], [why]: 'It =keeps' }).expect(200);
    const { results, mine, mayAnswer } = await read(given.instructor, copyId);
    expect({ mine, mayAnswer }).toEqual({ mine: null, mayAnswer: false });
    expect(results).toMatchObject({ members: 2, answered: 1, isHeldBack: false, group: { name: 'Crock' } });
    expect(results?.waiting?.map(({ name }) => name)).toEqual([expect.stringContaining('Jorge')]);
    expect(results?.sheets).toHaveLength(1);
    expect((await read(student('jorge'), copyId)).results).toBeNull();
    expect(JSON.stringify(await read(student('jorge'), copyId))).not.toContain(weak);
    const all = await everyone(given.instructor, id);
    expect(all.copies.map((copy) => [copy.group?.name, copy.answered])).toEqual([['Crock', 1], ['Carboy', 1]]); // prettier-ignore
    const csv = await given.instructor.get(`/api/activities/${id}/answers.csv`).expect(200);
    const [header, ...lines] = csv.text.replace('\uFEFF', '').trim().split('\r\n');
    expect(header).toBe('Group,Name,Which brine?,How sour?,Why?');
    expect(lines).toHaveLength(2);
    expect(lines[0]).toMatch(/^Crock,.*Noor.*,Weak,4,$/);
    for (const path of ['answers', 'answers.csv'])
      await student('noor').get(`/api/activities/${id}/${path}`).expect(404);
    await student('noor').get(`/api/copies/${others}/answers`).expect(404);
    await give(given.instructor, copyId, { [brine]: [weak] }).expect(403);
  });

  it('shows an assistant who sees only what they lead no more than that', async () => {
    const { id } = await aPoll();
    const copyId = await copyOf(student('amina'), given.course.id, title);
    await give(student('amina'), copyId, { [brine]: [strong] }).expect(200);
    await crockIsLedBy(given, 'Tomas');
    const groups = (await everyone(tomas, id)).copies.map((copy) => copy.group?.name);
    expect(groups).toEqual(['Crock']);
    await tomas.get(`/api/copies/${copyId}/answers`).expect(404);
    expect((await tomas.get(`/api/activities/${id}/answers.csv`).expect(200)).text).not.toContain('Strong');
  });

  it('takes whole answers only, and names the question that is not', async () => {
    await aPoll();
    const copyId = await copyOf(student('noor'), given.course.id, title);
    expect(detail(await give(student('noor'), copyId, { [sour]: 3 }).expect(422))).toBe('Question 1: Answer this question.'); // prettier-ignore
    expect(detail(await give(student('noor'), copyId, { [brine]: [weak], [sour]: 9 }).expect(422))).toBe('Question 2: Choose a step.'); // prettier-ignore
    const long = await give(student('noor'), copyId, { [brine]: [weak], [why]: 'sour '.repeat(40_000) });
    expect([long.status, detail(long)]).toEqual([422, 'Question 3: Shorten this to 20,000 characters.']);
    await give(student('noor'), copyId, { [brine]: [weak], [why]: 'sour '.repeat(4_000) }).expect(200);
    await give(student('jorge'), copyId, { [brine]: [weak], [why]: 'a\u0000b' }).expect(200);
    expect((await read(student('jorge'), copyId)).mine?.answers[why]).toBe('ab');
  });

  it('has no points', async () => {
    const draft = anAssignment({ ...toRead('questionnaire'), title, points: '10' });
    const refused = await given.instructor.post(`/api/courses/${given.course.id}/activities`).send(draft).expect(422); // prettier-ignore
    expect(detail(refused)).toBe('A questionnaire has no points. Remove them, or choose another kind.');
  });

  it('is not released before every question is whole', async () => {
    const draft = anAssignment({ ...toRead('questionnaire'), title, settings: { questions: [{ id: sour, kind: 'scale', text: '' }] } }); // prettier-ignore
    const { id, version } = (await given.instructor.post(`/api/courses/${given.course.id}/activities`).send(draft).expect(200)).body as ActivityView; // prettier-ignore
    const request = { to: theClass, mode: 'common', outsiders: 'hidden', goesLiveAt: null, version };
    const refused = await given.instructor.post(`/api/activities/${id}/release`).send(request).expect(422);
    expect(detail(refused)).toBe('Write question 1.');
  });

  it('keeps what was answered true: once there is an answer, what it answers stays', async () => {
    const live = await aPoll();
    const fewer = await change(live, { questions: questions.slice(1) });
    expect(fewer.status).toBe(200); // no one has answered yet
    const copyId = await copyOf(student('noor'), given.course.id, title);
    await give(student('noor'), copyId, { [brine]: [weak] }).expect(200);
    const now = (fewer.body as ActivityView).version;
    // What was put in work before is refused where it would reach people.
    const published = await given.instructor.post(`/api/activities/${live.id}/publish`).send({ version: now }).expect(409); // prettier-ignore
    expect(detail(published)).toContain('People have answered already, so question 1 stays.');
    const anonymous = await change({ ...live, version: now }, { isAnonymous: true });
    expect([anonymous.status, detail(anonymous)]).toEqual([409, expect.stringContaining('so it stays with names.')]); // prettier-ignore
    const more = await change({ ...live, version: now }, { questions: [...questions, { id: randomUUID(), kind: 'short', text: 'And?' }] }); // prettier-ignore
    expect(more.status).toBe(200);
  });
});

describe('an anonymous questionnaire', () => {
  const answered = async (copyId: string, names: readonly string[]) => {
    for (const name of names) await giveUnnamed(student(name), copyId, { [brine]: [name === 'noor' ? weak : strong], [why]: `${name} says` }).expect(200); // prettier-ignore
  };

  it('tells no one whose answers are whose: not the pages, not the file, not the rows', async () => {
    const { id } = await aPoll({ isAnonymous: true }, forAll);
    const copyId = await copyOf(student('noor'), given.course.id, title);
    await answered(copyId, ['noor', 'jorge', 'amina']);
    const results = sure((await read(given.instructor, copyId)).results);
    expect(results).toMatchObject({ answered: 3, waiting: null, isHeldBack: false });
    expect(results.sheets.map(({ by }) => by)).toEqual([null, null, null]);
    const csv = (await given.instructor.get(`/api/activities/${id}/answers.csv`).expect(200)).text;
    expect(csv.replace('\uFEFF', '').split('\r\n')[0]).toBe('Group,Which brine?,How sour?,Why?');
    const sheets = await server.rows(`SELECT "enrolmentId", "at" FROM "answer_sheet" WHERE "copyId" = '${copyId}'`); // prettier-ignore
    expect(sheets).toEqual(Array.from({ length: 3 }, () => ({ enrolmentId: null, at: null })));
    const events = await server.rows(`SELECT "actorId", "facts" FROM "event" WHERE "type" = 'answers.given' AND "subjectId" = '${copyId}'`); // prettier-ignore
    expect(events).toEqual(Array.from({ length: 3 }, () => ({ actorId: null, facts: {} })));
  });

  it('holds back what so few answered that they could be told apart, and says how many did', async () => {
    const { id } = await aPoll({ isAnonymous: true }, forAll);
    const copyId = await copyOf(student('noor'), given.course.id, title);
    await answered(copyId, ['noor', 'jorge']);
    const { results } = await read(given.instructor, copyId);
    expect(results).toMatchObject({ answered: 2, isHeldBack: true, sheets: [], waiting: null });
    expect(JSON.stringify(await everyone(given.instructor, id))).not.toContain('noor says');
    const csv = (await given.instructor.get(`/api/activities/${id}/answers.csv`).expect(200)).text;
    expect(csv.trim().split('\r\n')).toHaveLength(1);
  });

  it('does not care which version a page believes to change', async () => {
    await aPoll({ isAnonymous: true }, forAll);
    const copyId = await copyOf(student('noor'), given.course.id, title);
    await giveUnnamed(student('noor'), copyId, { [brine]: [weak] }, 2 ** 31 - 1).expect(200);
  });

  it('is sent once, by each, however often it is pressed, and is shown to its sender no more', async () => {
    await aPoll({ isAnonymous: true }, forAll);
    const copyId = await copyOf(student('noor'), given.course.id, title);
    const both = await Promise.all([
      giveUnnamed(student('noor'), copyId, { [brine]: [weak] }),
      giveUnnamed(student('noor'), copyId, { [brine]: [strong] }),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect(await server.rows(`SELECT 1 FROM "answer_sheet" WHERE "copyId" = '${copyId}'`)).toHaveLength(1);
    expect(await read(student('noor'), copyId)).toMatchObject({ hasAnswered: true, mine: null });
    expect((await itemOf(student('noor'), given.course.id, title)).progress.owes).toBe(false);
  });
});
