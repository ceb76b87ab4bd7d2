import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { aCourse, importPaste } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import { manyBrowsers } from '../test/manyBrowsers.js';
import { marker, tellAll } from '../test/marker.js';
import { statementsDuring } from '../test/statements.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
});
afterAll(() => server.stop());

describe('300 students at one moment, 60 of them with the page open', () => {
  it('never get one place too many, no one twice, and every one who loses is told what is left', async () => {
    const lines = Array.from({ length: 300 }, (_, at) => `Runner ${at} <runner${at}@quillmere.example>`);
    await importPaste(given.instructor, given.course.id, lines.join('\n'));
    const set = (
      await given.instructor
        .post(`/api/courses/${given.course.id}/sets`)
        .send({
          name: 'Tasting panels',
          shape: { by: 'count', groups: 50 },
          capacity: 5,
          pattern: 'Panel {n}',
          names: [],
          signUp: { opens: null, closes: null, showsNames: true },
        })
        .expect(200)
    ).body as GroupSetView;
    const { groups } = (await given.instructor.get(`/api/sets/${set.id}/board`).expect(200))
      .body as BoardView;
    const browsers = await manyBrowsers(server, 'runner%');
    expect(browsers).toHaveLength(300);
    const open = await Promise.all(browsers.slice(0, 60).map((browser) => follow(browser, given.course.id)));
    let answers: Awaited<ReturnType<Browser['post']>>[] = [];
    const statements = await statementsDuring(server, async () => {
      answers = await Promise.all(
        browsers.map((browser, at) =>
          browser
            .post(`/api/sets/${set.id}/sign-up`)
            .send({ groupId: sure(groups[at % 60 < 50 ? at % 50 : 0]).id }),
        ),
      );
      await tellAll(server, given.course.id);
      for (const each of open) expect(await each.until(marker)).toContain('places.changed');
    });
    for (const each of open) each.stop();
    // Who the listeners are is read at most once for each place that was taken, and not again for each page that is open.
    const aboutListeners = statements.filter((sql) => sql.includes('"isProven"') && sql.includes('= ANY'));
    expect(aboutListeners.length).toBeGreaterThan(0);
    expect(aboutListeners.length).toBeLessThanOrEqual(answers.length);
    const won = answers.filter((answer) => answer.status === 200);
    const lost = answers.filter((answer) => answer.status !== 200);
    expect(new Set(lost.map((answer) => answer.status))).toEqual(new Set([409]));
    for (const answer of lost)
      expect(answer.body.detail).toMatch(
        /^Panel \d+ is full now\. (\d+ places? (is|are) left in other groups|No group has a place left)/,
      );
    const seats = (await server.rows(
      `SELECT "groupId", "enrolmentId" FROM "membership" WHERE "setId" = '${set.id}' AND "until" IS NULL`,
    )) as { groupId: string; enrolmentId: string }[];
    expect(seats).toHaveLength(won.length);
    expect(new Set(seats.map((seat) => seat.enrolmentId)).size).toBe(seats.length);
    for (const group of groups)
      expect(seats.filter((seat) => seat.groupId === group.id).length).toBeLessThanOrEqual(5);
    expect(lost.length).toBeGreaterThan(0);
  });
});
