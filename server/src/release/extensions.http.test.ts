import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { WorkView } from '@jigsaw/contract/handin';
import type { ActivityView } from '@jigsaw/contract/release';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourse, addFile, copyOf, itemOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let activity: ActivityView;
let copyId: string;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi; nino is unplaced
  activity = await released(given);
  copyId = await copyOf(student('noor'), given.course.id);
  await addFile(student('noor'), copyId, 'notes.txt', Buffer.from('pH 4.4'));
  await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
});
afterAll(() => server.stop());
beforeEach(() => server.clock.set('2026-11-10T10:00:00Z'));

const student = (name: string): Browser => sure(given.students.get(name)).browser;

describe('longer for one group', () => {
  const extend = (id: string, due: string, reason = 'Their crock cracked') =>
    given.instructor
      .put(`/api/activities/${id}/extensions/${sure(given.board.groups[0]).id}`)
      .send({ due, reason });

  it('is granted once by two who grant it at one moment', async () => {
    const { id } = await released(given, { title: 'At once' });
    for (let round = 0; round < 5; round += 1) {
      const answers = await Promise.all(
        ['14', '15', '16', '17'].map((day) => extend(id, `2026-11-${day}T17:00:00.000Z`)),
      );
      expect(answers.map((answer) => answer.status)).toEqual([200, 200, 200, 200]);
      await given.instructor
        .delete(`/api/activities/${id}/extensions/${sure(given.board.groups[0]).id}`)
        .expect(200);
    }
  });

  it('may say when it closes for that group, and not before its work is due', async () => {
    const { id } = await released(given, {
      title: 'Closing',
      schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes: '2026-11-13T17:00:00.000Z' },
    });
    const path = `/api/activities/${id}/extensions/${sure(given.board.groups[0]).id}`;
    const grant = { due: '2026-11-14T17:00:00.000Z', reason: 'Their crock cracked' };
    const closes = '2026-11-18T17:00:00.000Z';
    const refused = await given.instructor.put(path).send({ ...grant, closes: '2026-11-13T17:00:00.000Z' });
    expect(refused.body.issues).toEqual([
      { path: 'closes', message: 'Choose a closing time after the due time.' },
    ]);
    await given.instructor
      .put(path)
      .send({ ...grant, closes })
      .expect(200);
    const { copyId } = await itemOf(student('noor'), given.course.id, 'Closing');
    const head = async () =>
      (await student('noor').get(`/api/copies/${copyId}`).expect(200)).body as CopyHead;
    expect((await head()).schedule.closes).toBe(closes);
    server.clock.set('2026-11-18T16:59:59Z');
    expect((await head()).access).toBe('open');
    server.clock.set(closes);
    expect((await head()).access).toBe('read-only');
  });

  it('moves its date, its lateness and its closing, and no one else’s', async () => {
    const late = await released(given, {
      title: 'Longer',
      schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes: '2026-11-13T17:00:00.000Z' },
    });
    const body = (await extend(late.id, '2026-11-14T17:00:00.000Z').expect(200)).body as ActivityView;
    expect(body.extensions).toMatchObject([
      { name: 'Crock', due: '2026-11-14T17:00:00.000Z', reason: 'Their crock cracked' },
    ]);
    const [crocks, carboys] = [
      await itemOf(student('noor'), given.course.id, 'Longer'),
      await itemOf(student('amina'), given.course.id, 'Longer'),
    ];
    expect([crocks.due, carboys.due]).toEqual(['2026-11-14T17:00:00.000Z', '2026-11-12T17:00:00.000Z']);
    const head = (await student('noor').get(`/api/copies/${crocks.copyId}`).expect(200)).body as CopyHead;
    expect(head.extension).toEqual({
      due: '2026-11-14T17:00:00.000Z',
      reason: 'Their crock cracked',
      isOwn: false,
    });
    expect(JSON.stringify((await student('amina').get(`/api/copies/${carboys.copyId}`)).body)).not.toContain(
      'cracked',
    );

    server.clock.set('2026-11-14T12:00:00Z');
    await addFile(student('noor'), crocks.copyId, 'late.txt', Buffer.from('pH'));
    const { body: work } = (await student('noor')
      .post(`/api/copies/${crocks.copyId}/hand-in`)
      .send({ attempt: 1 })
      .expect(200)) as { body: WorkView };
    expect(sure(work.handIns[0]).late).toEqual({ minutes: 0, deduction: '0' });
    expect(((await student('amina').get(`/api/copies/${carboys.copyId}`)).body as CopyHead).access).toBe(
      'read-only',
    );

    await given.instructor
      .delete(`/api/activities/${late.id}/extensions/${sure(given.board.groups[0]).id}`)
      .expect(200);
    const again = (await student('noor').get(`/api/copies/${crocks.copyId}/work`).expect(200))
      .body as WorkView;
    expect(sure(again.handIns[0]).late).toEqual({ minutes: 2580, deduction: '8' });
  });

  it('asks for a reason, and only for groups of the course', async () => {
    await extend(activity.id, '2026-11-14T17:00:00.000Z', ' ').expect(422);
    await given.instructor
      .put(`/api/activities/${activity.id}/extensions/01920000-0000-7000-8000-00000000abcd`)
      .send({ due: '2026-11-14T17:00:00.000Z', reason: 'why' })
      .expect(404);
    await student('noor')
      .put(`/api/activities/${activity.id}/extensions/${sure(given.board.groups[0]).id}`)
      .send({ due: '2026-11-20T17:00:00.000Z', reason: 'we would like to' })
      .expect(404);
  });
});
