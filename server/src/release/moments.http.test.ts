import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { ActivityView } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { theClass } from '@jigsaw/core/release';
import { aCourse, anAssignment, itemOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import type { Following } from '../test/following.js';
import { marker, tellAll } from '../test/marker.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { Moments } from './moments.js';

let server: TestServer;
let given: CourseForTests;
let open: Following[] = [];

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi; nino is unplaced
});
beforeEach(() => server.clock.set('2026-11-10T09:30:00Z'));
afterEach(() => {
  for (const each of open) each.stop();
  open = [];
});
afterAll(() => server.stop());

const ten = '2026-11-10T10:00:00.000Z';
const eleven = '2026-11-10T11:00:00.000Z';
const noon = '2026-11-10T12:00:00.000Z';
const one = '2026-11-10T13:00:00.000Z';
const undated = { opens: null, due: null, closes: null };
const named = (name: string) => sure(given.students.get(name));
const student = (name: string): Browser => named(name).browser;
const listen = async (...browsers: readonly Browser[]) => {
  open = await Promise.all(browsers.map((browser) => follow(browser, given.course.id)));
};
const tell = () => server.app.get(Moments, { strict: false }).tell();
const tellAt = async (at: string) => {
  server.clock.set(at);
  await tell();
};
const told = async ({ id }: Pick<ActivityView, 'id'>) =>
  (await server.rows(
    `SELECT e."type", e."facts"->>'at' AS "at", (e."facts"->>'copies')::int AS "copies", (e."facts"->>'students')::int AS "students"
       FROM "event" e JOIN "release" r ON r."id" = e."subjectId"
      WHERE r."activityId" = '${id}' AND e."type" IN ('activity.went-live', 'activity.opened', 'activity.closed') ORDER BY e."at", e."id"`,
  )) as { type: string; at: string; copies: number | null; students: number | null }[];
const what = async (activity: Pick<ActivityView, 'id'>) =>
  (await told(activity)).map(({ type, at }) => `${type} ${at}`);
const act = (id: string, does: string, more: object = {}) =>
  given.instructor.post(`/api/activities/${id}/${does}`).send(more).expect(200);
/** What each of the open pages was told by now. */
const heard = async () => {
  await tellAll(server, given.course.id);
  const told = await Promise.all(open.map((page) => page.until(marker)));
  return told.map((types) => types.filter((type) => type !== marker));
};

describe('a release', () => {
  it('goes live at its minute, opens and closes: told once each, to whoever sees it', async () => {
    const schedule = { opens: eleven, due: noon, closes: one };
    const poll = await released(given, { title: 'By itself', schedule }, { goesLiveAt: ten });
    await listen(student('noor'), student('nino'), given.instructor);
    await tell();
    expect(await what(poll)).toEqual([]);

    await tellAt(ten);
    expect(await what(poll)).toEqual([`activity.went-live ${ten}`]);
    expect(await heard()).toEqual([[], [], ['activity.went-live']]); // not open yet: nothing is there for Noor

    await tellAt(eleven);
    expect(await heard()).toEqual([['activity.opened'], [], ['activity.opened']]);
    expect((await itemOf(student('noor'), given.course.id, 'By itself')).access).toBe('open');

    await tellAt(one);
    await tell();
    expect(await heard()).toEqual([['activity.closed'], [], ['activity.closed']]);
    expect(await what(poll)).toEqual([`activity.went-live ${ten}`, `activity.opened ${eleven}`, `activity.closed ${one}`]); // prettier-ignore
  });

  it('is told of once, whoever is at it at the same time', async () => {
    const schedule = { ...undated, closes: one };
    const both = [await released(given, { title: 'Twice', schedule }, { goesLiveAt: ten }), await released(given, { title: 'Thrice', schedule }, { goesLiveAt: ten })]; // prettier-ignore
    server.clock.set(ten);
    await Promise.all(Array.from({ length: 6 }, tell));
    for (const each of both) expect(await what(each)).toEqual([`activity.went-live ${ten}`]);
  });

  it('is caught up with when nobody told for long, each moment as it was', async () => {
    const schedule = { opens: null, due: noon, closes: one };
    const late = await released(given, { title: 'Late', schedule }, { goesLiveAt: ten });
    await tellAt('2026-11-12T08:00:00Z');
    expect(await what(late)).toEqual([`activity.went-live ${ten}`, `activity.closed ${one}`]);
  });

  it('that was withdrawn has no moments, and none to catch up with when it is released again', async () => {
    const gone = await released(given, { title: 'Gone', schedule: { ...undated, closes: noon } }, { goesLiveAt: ten }); // prettier-ignore
    await act(gone.id, 'withdraw');
    await tellAt(eleven);
    expect(await what(gone)).toEqual([]);
    const { version } = (await given.instructor.get(`/api/activities/${gone.id}`).expect(200)).body as ActivityView; // prettier-ignore
    await given.instructor
      .post(`/api/courses/${given.course.id}/activities/many`)
      .send({ activities: [{ id: gone.id, version }], act: { kind: 'release-again' } })
      .expect(200);
    await tell();
    expect(await what(gone)).toEqual([]);
    await tellAt(noon);
    expect(await what(gone)).toEqual([`activity.closed ${noon}`]);
  });

  it('that closes later than was said closes again then', async () => {
    const first = { ...undated, closes: ten };
    const moved = await released(given, { title: 'Moved', schedule: first });
    await tellAt(ten);
    const path = `/api/activities/${moved.id}`;
    const { version } = (await given.instructor.get(path).expect(200)).body as ActivityView;
    const draft = { ...anAssignment({ title: 'Moved' }), schedule: { ...undated, closes: noon } };
    const edited = (await given.instructor.put(path).send({ ...draft, version }).expect(200)).body as ActivityView; // prettier-ignore
    await act(moved.id, 'publish', { version: edited.version });
    await tellAt(noon);
    expect(await what(moved)).toEqual([`activity.closed ${ten}`, `activity.closed ${noon}`]);
  });

  it('that was released while the moment was being told is told at the next', async () => {
    const just = await released(given, { title: 'Just' }, { goesLiveAt: ten });
    // As one that was begun a second before ten and kept a second after.
    await server.rows(`UPDATE "release" SET "toldUntil" = '2026-11-10T09:59:59Z' WHERE "activityId" = '${just.id}'`); // prettier-ignore
    await tellAt('2026-11-10T10:01:00Z');
    expect(await what(just)).toEqual([`activity.went-live ${ten}`]);
  });
});

describe('what closes at another time for some', () => {
  it('is told to that group, and to that student, at theirs', async () => {
    const lab = await released(given, { title: 'Lab', schedule: { opens: null, due: ten, closes: eleven } });
    const crock = sure(given.board.groups[0]).id;
    const grant = (path: string, due: string) =>
      given.instructor.put(`/api/activities/${lab.id}/${path}`).send({ due, reason: 'Ill' }).expect(200);
    await grant(`extensions/${crock}`, noon);
    await grant(`student-extensions/${named('noor').enrolmentId}`, one);
    await grant(`student-extensions/${named('jorge').enrolmentId}`, eleven); // no later than Crock
    await listen(student('noor'), student('jorge'), student('amina'));

    await tellAt(eleven);
    expect(await heard()).toEqual([['activity.closed'], ['activity.closed'], ['activity.closed']]);
    await tellAt(noon);
    expect(await heard()).toEqual([['activity.closed'], ['activity.closed'], []]);
    await tellAt(one);
    expect(await heard()).toEqual([['activity.closed'], [], []]);
    expect(await told(lab)).toEqual([
      { type: 'activity.closed', at: eleven, copies: null, students: null },
      { type: 'activity.closed', at: noon, copies: 1, students: 0 },
      { type: 'activity.closed', at: one, copies: 0, students: 1 },
    ]);
  });

  it('is told to a student with more time in a copy for all', async () => {
    const schedule = { opens: null, due: ten, closes: ten };
    const common = await released(given, { kind: 'discussion', title: 'Forum', settings: {}, schedule }, { to: theClass, mode: 'common' }); // prettier-ignore
    const path = `/api/activities/${common.id}/student-extensions/${named('nino').enrolmentId}`;
    await given.instructor.put(path).send({ due: noon, reason: 'Ill' }).expect(200);
    await listen(student('nino'), student('kofi'));
    await tellAt(eleven);
    await heard();
    await tellAt(noon);
    expect(await heard()).toEqual([['activity.closed'], []]);
    expect((await told(common)).at(-1)).toEqual({
      type: 'activity.closed',
      at: noon,
      copies: 0,
      students: 1,
    });
  });
});

describe('one that cannot be told of', () => {
  it('does not hold up the others, and comes when it can', async () => {
    const [bad, good] = [await released(given, { title: 'Bad' }, { goesLiveAt: ten }), await released(given, { title: 'Good' }, { goesLiveAt: ten })]; // prettier-ignore
    await server.rows(
      `CREATE FUNCTION refuse() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE 'no'; END $$`,
    );
    await server.rows(`CREATE TRIGGER refuse BEFORE UPDATE ON "release" FOR EACH ROW WHEN (OLD."activityId" = '${bad.id}') EXECUTE FUNCTION refuse()`); // prettier-ignore
    await tellAt(ten);
    expect([await what(bad), await what(good)]).toEqual([[], [`activity.went-live ${ten}`]]);
    await server.rows(`DROP TRIGGER refuse ON "release"`);
    await tell();
    expect(await what(bad)).toEqual([`activity.went-live ${ten}`]);
  });
});
