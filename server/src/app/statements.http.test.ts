import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { sure } from '@jigsaw/core/lists';
import type { CourseForTests } from '../test/aCourse.js';
import { aCourse, copyOf, released } from '../test/aCourse.js';
import { statementsDuring } from '../test/statements.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let copyId: string;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
  await released(given);
  const noor = sure(given.students.get('noor')).browser;
  copyId = await copyOf(noor, given.course.id);
  const text = {
    type: 'doc',
    content: [{ type: 'paragraph', content: [{ type: 'text', text: 'It fell to 4.4' }] }],
  };
  await noor.put(`/api/copies/${copyId}/part`).send({ text, version: 0 }).expect(200);
  await noor.post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
});
afterAll(() => server.stop());

/** The acts that people do all day cost a few statements, whatever else the product learns to show beside them. */
describe('the number of statements', () => {
  const during = async (act: () => Promise<unknown>) => (await statementsDuring(server, act)).length;

  it('for a mark that is saved and released is at most twelve each', async () => {
    const noor = sure(given.students.get('noor')).enrolmentId;
    const adjustments = [{ enrolmentId: noor, adjustment: { kind: 'adjusted', by: '1', reason: 'led' } }];
    const sheet = {
      typedMark: '30',
      overrideReason: '',
      picks: {},
      feedback: 'Good.',
      adjustments,
      version: 0,
    };
    const path = `/api/copies/${copyId}/marks/group`;
    const saving = await during(() => given.instructor.put(path).send(sheet).expect(200));
    const releasing = await during(() =>
      given.instructor.post(`${path}/release`).send({ version: 1 }).expect(200),
    );
    expect(saving).toBeLessThanOrEqual(12);
    expect(releasing).toBeLessThanOrEqual(12);
  });

  it('for a move on the Board is at most fifteen', async () => {
    const [crock, carboy] = given.board.groups;
    const move = {
      student: sure(given.students.get('noor')).enrolmentId,
      from: sure(crock).id,
      to: sure(carboy).id,
    };
    const moving = await during(() =>
      given.instructor
        .post(`/api/sets/${given.set.id}/place`)
        .send({ moves: [move] })
        .expect(200),
    );
    expect(moving).toBeLessThanOrEqual(15);
  });
});
