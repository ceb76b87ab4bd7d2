import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import type { CourseForTests } from '../test/aCourse.js';
import { aCourse, aText, copyOf, released, toRead } from '../test/aCourse.js';
import { trafficDuring } from '../test/statements.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

/** What the pages of one course are made of. */
interface Size {
  readonly students: number;
  readonly groups: number;
  readonly activities: number;
}
interface Measured {
  readonly given: CourseForTests;
  readonly release: string;
  /** A questionnaire that each group has answered. */
  readonly asked: string;
}

const base: Size = { students: 3, groups: 1, activities: 1 };
/** Three times as many students in groups, and three times as much to do. */
const larger = { people: { ...base, students: 7, groups: 3 }, activities: { ...base, activities: 3 } };
const times = 3;

let server: TestServer;
const courses = new Map<Size, Measured>();
beforeAll(async () => {
  server = await startTestServer();
  for (const size of [base, larger.people, larger.activities]) courses.set(size, await aWorkedCourse(size));
});
afterAll(() => server.stop());

/** Every group has handed in everything, and one mark is out in each activity. */
async function aWorkedCourse(size: Size): Promise<Measured> {
  const given = await aCourse(server, { ...size, email: `grows${courses.size}@quillmere.example`, school: `s${courses.size}.example` }); // prettier-ignore
  const firsts = [...given.students.values()].filter((_each, at) => at % 2 === 0).slice(0, size.groups);
  let release = '';
  for (let at = 0; at < size.activities; at += 1) {
    const title = `Report ${at}`;
    const activity = await released(given, { title });
    release = sure(activity.release).id;
    for (const { browser } of firsts) {
      const copyId = await copyOf(browser, given.course.id, title);
      await browser
        .put(`/api/copies/${copyId}/part`)
        .send({ text: aText('It fell.'), version: 0 })
        .expect(200);
      await browser.post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
      const sheet = {
        typedMark: '30',
        overrideReason: '',
        picks: {},
        feedback: '',
        adjustments: [],
        version: 0,
      };
      const path = `/api/copies/${copyId}/marks/group`;
      await given.instructor.put(path).send(sheet).expect(200);
      await given.instructor.post(`${path}/release`).send({ version: 1 }).expect(200);
    }
  }
  return {
    given,
    release,
    asked: await anAnsweredQuestionnaire(
      given,
      firsts.map(({ browser }) => browser),
    ),
  };
}

async function anAnsweredQuestionnaire(given: CourseForTests, students: readonly Browser[]): Promise<string> {
  const question = randomUUID();
  const settings = { questions: [{ id: question, kind: 'scale', text: 'How sour?' }] };
  const { id } = await released(given, toRead('questionnaire', { title: 'Poll', settings }));
  for (const browser of students) {
    const copyId = await copyOf(browser, given.course.id, 'Poll');
    const body = { answers: { [question]: 3 }, version: 0, isAnonymous: false };
    await browser.put(`/api/copies/${copyId}/answers`).send(body).expect(200);
  }
  return id;
}

type Page = readonly [name: string, of: (measured: Measured) => { who: Browser; at: string; sends?: object }];
const ofStaff =
  (at: string): Page[1] =>
  ({ given }) => ({ who: given.instructor, at: `courses/${given.course.id}/${at}` });
const ofStudent =
  (at: string): Page[1] =>
  ({ given }) => ({ who: sure(given.students.get('noor')).browser, at: `courses/${given.course.id}/${at}` });
const pages: readonly Page[] = [
  ['the figures of staff', ofStaff('figures')],
  ['the rooms of staff', ofStaff('room-lines')],
  ['the desk list', ofStaff('desk')],
  ['the queue', ({ given, release }) => ({ who: given.instructor, at: `releases/${release}/desk` })],
  ['the gradebook', ofStaff('gradebook')],
  ['the release list', ofStaff('activities')],
  ['what collides', ofStaff('collisions')],
  ['the sightlines', ofStaff('sightlines')],
  [
    'what a withdrawal would change',
    (measured) => ({
      ...ofStaff('foreseen')(measured),
      sends: { act: 'withdraw', activityId: measured.asked },
    }),
  ],
  ['what is to be checked', ofStaff('checks')],
  ['how much is to be checked', ofStaff('checks/count')],
  ['the outline for staff', ofStaff('outline')],
  ['the outline for a student', ofStudent('outline')],
  [
    'the answers of all',
    ({ given, asked }) => ({ who: given.instructor, at: `activities/${asked}/answers` }),
  ],
  ['the Board', ({ given }) => ({ who: given.instructor, at: `sets/${given.set.id}/board` })],
  ['the roster', ofStaff('roster')],
  ['a student’s rooms', ofStudent('rooms')],
  ['a student’s figures', ofStudent('figures')],
  ['a student’s marks', ofStudent('my-marks')],
  ['the messages of staff', ofStaff('messages')],
  ['how many messages are new', ofStaff('messages/count')],
  ['who staff may write to', ofStaff('messages/recipients')],
];

/** Asked for the second time: what is kept is kept. And after something happened in the course: what has to be found anew is found. */
async function traffic(measured: Measured, [, of]: Page, isAfterAChange: boolean) {
  const { given } = measured;
  const { who, at, sends } = of(measured);
  const ask = () => (sends ? who.post(`/api/${at}`).send(sends) : who.get(`/api/${at}`)).expect(200);
  await ask();
  if (isAfterAChange) {
    const student = sure([...given.students.values()].at(-1)).enrolmentId;
    const { id: to } = sure(given.board.groups[0]);
    const place = (move: object) =>
      given.instructor.post(`/api/sets/${given.set.id}/place`).send({ moves: [move] }).expect(200); // prettier-ignore
    await place({ student, from: null, to });
    await place({ student, from: to, to: null });
  }
  return trafficDuring(server, ask);
}

describe('what the database is asked', () => {
  describe.each([
    ['again', false],
    ['after a change', true],
  ])('%s', (_when, isAfterAChange) => {
    it.each(pages.map((page) => [page[0], page] as const))(
      'for %s is as many statements in a course of any size, and no more rows than there are things',
      async (_name, page) => {
        const small = await traffic(sure(courses.get(base)), page, isAfterAChange);
        for (const size of Object.values(larger)) {
          const large = await traffic(sure(courses.get(size)), page, isAfterAChange);
          expect(small.rows).toBeGreaterThan(0);
          expect(large.statements).toEqual(small.statements);
          expect(large.rows).toBeLessThanOrEqual(small.rows * times);
        }
      },
    );
  });
});
