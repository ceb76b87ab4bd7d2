import { createHash, randomBytes } from 'node:crypto';
import type { ClientRequest } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { DataSource } from 'typeorm';
import type { WorkView } from '@jigsaw/contract/handin';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourse, addFile, aText, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
beforeAll(async () => {
  server = await startTestServer({ largestFileBytes: 3 * 1024 * 1024 });
  given = await aCourse(server, { students: 5, groups: 2 });
});
afterAll(() => server.stop());

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const bytesOf = async (browser: Browser, path: string): Promise<Buffer> => {
  const answer = await browser
    .get(path)
    .buffer(true)
    .parse((response, done) => {
      const pieces: Buffer[] = [];
      response.on('data', (piece: Buffer) => pieces.push(piece));
      response.on('end', () => done(null, Buffer.concat(pieces)));
    })
    .expect(200);
  return answer.body as Buffer;
};
let count = 0;
/** A copy of a new assignment for Crock (noor and jorge), due on 12 November, 17:00 UTC. */
async function aCopy(): Promise<string> {
  count += 1;
  server.clock.set('2026-11-10T10:00:00Z');
  await released(given, { title: `Report ${count}` });
  return copyOf(student('noor'), given.course.id, `Report ${count}`);
}

describe('working on a hand-in', () => {
  it('lets each member write their own part and see the others’', async () => {
    const copyId = await aCopy();
    await student('noor')
      .put(`/api/copies/${copyId}/part`)
      .send({ text: aText('Noor wrote this.'), version: 0 })
      .expect(200);
    const { body } = (await student('jorge')
      .put(`/api/copies/${copyId}/part`)
      .send({ text: aText('Jorge too.'), version: 0 })
      .expect(200)) as { body: WorkView };
    expect(body.parts.map((part) => [part.author.name, part.author.isYou, part.words])).toEqual([
      ['Noor', false, 3],
      ['Jorge', true, 2],
    ]);
  });

  it('has no file any more that was taken out, but for who may put it back and in hand-ins that it was part of', async () => {
    const copyId = await aCopy();
    const added = async (name: string) =>
      sure(
        (await addFile(student('noor'), copyId, name, Buffer.from(name))).files.find(
          (file) => file.name === name,
        ),
      ).id;
    const path = (fileId: string) => `/api/copies/${copyId}/files/${fileId}`;
    const handedIn = await added('in.txt');
    await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
    const loose = await added('loose.txt');
    for (const fileId of [handedIn, loose]) await student('noor').delete(path(fileId)).expect(200);
    for (const browser of [student('jorge'), given.instructor]) {
      await browser.get(path(loose)).expect(404);
      await browser.get(path(handedIn)).expect(200);
    }
    await student('noor').get(path(loose)).expect(200);
    await student('noor')
      .post(`${path(loose)}/restore`)
      .expect(200);
    await student('jorge').get(path(loose)).expect(200);
  });

  it('shows both texts when one person wrote in two windows', async () => {
    const copyId = await aCopy();
    await student('noor')
      .put(`/api/copies/${copyId}/part`)
      .send({ text: aText('First window.'), version: 0 })
      .expect(200);
    const refused = await student('noor')
      .put(`/api/copies/${copyId}/part`)
      .send({ text: aText('Second window.'), version: 0 })
      .expect(409);
    expect(JSON.stringify(refused.body)).toContain('First window.');
  });

  it('keeps one of two first saves of one part, and shows it to the other', async () => {
    const copyId = await aCopy();
    const first = (text: string) =>
      student('noor')
        .put(`/api/copies/${copyId}/part`)
        .send({ text: aText(text), version: 0 });
    for (let round = 0; round < 3; round += 1) {
      const other = await aCopy();
      const answers = await Promise.all(
        ['One.', 'Two.'].map((text) =>
          student('noor')
            .put(`/api/copies/${other}/part`)
            .send({ text: aText(text), version: 0 }),
        ),
      );
      expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409]);
    }
    await first('Alone.').expect(200);
  });

  it('keeps a teammate’s file out of reach of deleting', async () => {
    const copyId = await aCopy();
    const copy = await addFile(student('noor'), copyId, 'crock.txt', Buffer.from('pH'));
    await student('jorge')
      .delete(`/api/copies/${copyId}/files/${sure(copy.files[0]).id}`)
      .expect(403);
    const out = (await student('noor')
      .delete(`/api/copies/${copyId}/files/${sure(copy.files[0]).id}`)
      .expect(200)) as { body: WorkView };
    expect(out.body.files).toEqual([]);
    await student('noor')
      .delete(`/api/copies/${copyId}/files/${sure(copy.files[0]).id}`)
      .expect(200); // a second press changes nothing
    const back = (await student('noor')
      .post(`/api/copies/${copyId}/files/${sure(copy.files[0]).id}/restore`)
      .expect(200)) as { body: WorkView };
    expect(back.body.files.map((file) => file.name)).toEqual(['crock.txt']);
    await student('noor')
      .post(`/api/copies/${copyId}/files/${sure(copy.files[0]).id}/restore`)
      .expect(200);
  });

  it('gives a file back byte for byte, as an attachment that no browser opens as a page', async () => {
    const copyId = await aCopy();
    const bytes = randomBytes(2_500_000); // more than two chunks
    const copy = await addFile(student('noor'), copyId, 'Größe "1" <b>.html', bytes);
    const path = `/api/copies/${copyId}/files/${sure(copy.files[0]).id}`;
    expect(
      createHash('sha256')
        .update(await bytesOf(student('jorge'), path))
        .digest('hex'),
    ).toBe(createHash('sha256').update(bytes).digest('hex'));
    const { headers } = await student('jorge').get(path).expect(200);
    expect(headers['content-disposition']).toMatch(
      /^attachment; filename="[ -~]+"; filename\*=UTF-8''Gr%C3%B6%C3%9Fe/,
    );
    expect(headers).toMatchObject({
      'x-content-type-options': 'nosniff',
      'content-security-policy': expect.stringContaining('sandbox'),
    });
  });

  it('keeps the same bytes once, under both names', async () => {
    const copyId = await aCopy();
    const bytes = randomBytes(1000);
    await addFile(student('noor'), copyId, 'one.bin', bytes);
    await addFile(student('jorge'), copyId, 'two.bin', bytes);
    const blobs = await server.app
      .get(DataSource)
      .query<unknown[]>(`SELECT 1 FROM "blob" WHERE "sha256" = $1`, [
        createHash('sha256').update(bytes).digest('hex'),
      ]);
    expect(blobs).toHaveLength(1);
  });

  it('says how large a file may be, and keeps nothing of one that is larger', async () => {
    const copyId = await aCopy();
    const refused = await student('noor')
      .post(`/api/copies/${copyId}/files`)
      .query({ name: 'big.bin' })
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.alloc(3 * 1024 * 1024 + 1));
    expect(refused.status).toBe(413);
    expect(refused.body).toMatchObject({ detail: expect.stringContaining('3 MB') });
    const [left] = await server.app
      .get(DataSource)
      .query<{ count: number }[]>(`SELECT count(*)::int AS "count" FROM "blob" WHERE "sha256" IS NULL`);
    expect(sure(left).count).toBe(0);
  });

  it('refuses what is announced too large before it comes, and what is longer than anybody announced', async () => {
    const copyId = await aCopy();
    const send = (headers: Record<string, string>, body: Buffer | null) =>
      new Promise<number>((resolve, reject) => {
        const post = student('noor')
          .post(`/api/copies/${copyId}/files`)
          .query({ name: 'big.bin' })
          .set({ ...headers, 'Content-Type': 'application/octet-stream' });
        // The request is the browser's, with its address and cookie; what is sent when is the test's to say.
        const request = (post as unknown as { request(): ClientRequest }).request();
        request.on('response', (response) => {
          resolve(response.statusCode ?? 0);
          request.destroy();
        });
        request.on('error', reject);
        if (body) request.end(body);
        else request.flushHeaders(); // not one byte of what was announced
      });
    expect(await send({ 'Content-Length': String(3 * 1024 * 1024 + 1) }, null)).toBe(413);
    expect(await send({ 'Transfer-Encoding': 'chunked' }, Buffer.alloc(3 * 1024 * 1024 + 1))).toBe(413);
  });
});

describe('handing in', () => {
  it('has nothing to hand in before someone worked', async () => {
    const copyId = await aCopy();
    const refused = await student('noor')
      .post(`/api/copies/${copyId}/hand-in`)
      .send({ attempt: 1 })
      .expect(422);
    expect(refused.body).toMatchObject({ detail: expect.stringContaining('Write something') });
  });

  it('hands in for all members, and a teammate adds to it and hands in again', async () => {
    const copyId = await aCopy();
    await addFile(student('noor'), copyId, 'crock.txt', Buffer.from('pH'));
    const first = (await student('noor')
      .post(`/api/copies/${copyId}/hand-in`)
      .send({ attempt: 1 })
      .expect(200)) as { body: WorkView };
    expect(first.body.handIns[0]).toMatchObject({
      attempt: 1,
      credited: [{ name: 'Jorge' }, { name: 'Noor' }],
      late: { minutes: 0, deduction: '0' },
    });
    server.clock.pass({ minutes: 1 });
    await addFile(student('jorge'), copyId, 'carboy.txt', Buffer.from('pH2'));
    const second = (await student('jorge')
      .post(`/api/copies/${copyId}/hand-in`)
      .send({ attempt: 2 })
      .expect(200)) as { body: WorkView };
    expect(second.body.handIns.map((handIn) => handIn.files.map((file) => file.name))).toEqual([
      ['crock.txt', 'carboy.txt'],
      ['crock.txt'],
    ]);
    expect(second.body.state).toBe('done');
  });

  it('hands in once when two members press at the same moment', async () => {
    const copyId = await aCopy();
    await addFile(student('noor'), copyId, 'crock.txt', Buffer.from('pH'));
    const answers = await Promise.all(
      ['noor', 'jorge', 'noor', 'jorge'].map((name) =>
        student(name).post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }),
      ),
    );
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409, 409, 409]);
  });

  it('tells lateness to the minute', async () => {
    const copyId = await aCopy();
    await addFile(student('noor'), copyId, 'crock.txt', Buffer.from('pH'));
    server.clock.set('2026-11-13T21:05:00Z');
    const { body } = (await student('noor')
      .post(`/api/copies/${copyId}/hand-in`)
      .send({ attempt: 1 })
      .expect(200)) as { body: WorkView };
    expect(sure(body.handIns[0]).late).toEqual({ minutes: 1685, deduction: '8' });
  });

  it('takes what was sent in time as in time, however long it waits for its turn', async () => {
    const copyId = await aCopy();
    await addFile(student('noor'), copyId, 'crock.txt', Buffer.from(`pH ${count}`));
    const database = await new DataSource({ type: 'postgres', url: server.databaseUrl }).initialize();
    const turn = database.createQueryRunner();
    await turn.startTransaction();
    await turn.query('SELECT 1 FROM "copy" WHERE "id" = $1 FOR UPDATE', [copyId]);
    server.clock.set('2026-11-12T17:15:59Z'); // the last second of the grace
    const handedIn = student('noor')
      .post(`/api/copies/${copyId}/hand-in`)
      .send({ attempt: 1 })
      .then((answer) => answer);
    for (let waiting = 0; waiting === 0;)
      [{ waiting }] = await database.query<[{ waiting: number }]>(
        `SELECT count(*)::int AS "waiting" FROM pg_stat_activity WHERE "wait_event_type" = 'Lock' AND "datname" = current_database()`,
      );
    server.clock.set('2026-11-12T18:00:00Z');
    await turn.commitTransaction();
    const { status, body } = await handedIn;
    expect(status).toBe(200);
    expect((body as WorkView).handIns[0]).toMatchObject({
      handedInAt: '2026-11-12T17:15:59.000Z',
      late: { minutes: 0 },
    });
    await turn.release();
    await database.destroy();
  });

  it('may be read but no longer changed once closed', async () => {
    await released(given, {
      title: 'Closing',
      schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes: '2026-11-14T17:00:00.000Z' },
    });
    server.clock.set('2026-11-10T10:00:00Z');
    const copyId = await copyOf(student('noor'), given.course.id, 'Closing');
    await addFile(student('noor'), copyId, 'crock.txt', Buffer.from('pH'));
    server.clock.set('2026-11-14T17:00:00Z');
    expect(((await student('noor').get(`/api/copies/${copyId}`).expect(200)).body as CopyHead).access).toBe(
      'read-only',
    );
    await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(409);
    await student('noor')
      .put(`/api/copies/${copyId}/part`)
      .send({ text: aText('late'), version: 0 })
      .expect(409);
  });

  it('lets staff read the work and leaves it to the group to change it', async () => {
    const copyId = await aCopy();
    await given.instructor.get(`/api/copies/${copyId}`).expect(200);
    await given.instructor
      .put(`/api/copies/${copyId}/part`)
      .send({ text: aText('staff'), version: 0 })
      .expect(403);
  });
});
