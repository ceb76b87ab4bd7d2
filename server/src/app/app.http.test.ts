import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { DataSource } from 'typeorm';
import { sure } from '@jigsaw/core/lists';
import { migrations } from '../migrations/index.js';
import { aCourse } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { newDatabase, startTestServer } from '../test/testServer.js';
import { DatabaseRefused, migrate, refuseOldDatabase } from './database.js';
import { configFrom, SettingRefused } from '../platform/config.js';
import { dataSourceOptions } from './dataSource.js';
import { problems } from '../platform/problems.js';
import { SetsService } from '../sets/sets.service.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

describe('the API document', () => {
  it('names every route once, with an area and what this level shows and gives', async () => {
    const { body } = (await server.browser().get('/api/openapi.json').expect(200)) as {
      body: {
        paths: Record<
          string,
          Record<string, { operationId?: string; tags?: string[]; requestBody?: unknown }>
        >;
      };
    };
    const operations = Object.values(body.paths).flatMap((path) => Object.values(path));
    expect(operations.length).toBeGreaterThan(30);
    expect(
      operations.every((operation) => operation.operationId !== undefined && operation.tags?.length === 1),
    ).toBe(true);
    expect(new Set(operations.map((operation) => operation.operationId)).size).toBe(operations.length);
    expect(sure(sure(body.paths['/api/sets/{setId}/place'])['post']).requestBody).toMatchObject({
      content: { 'application/json': { schema: { properties: { moves: { type: 'array' } } } } },
    });
  });
});

describe('answers', () => {
  it('stay on no machine, and are not sent again to whoever has them', async () => {
    const given = await aCourse(server, { email: 'etag@quillmere.example' });
    const board = () => given.instructor.get(`/api/sets/${given.set.id}/board`);
    const first = await board().expect(200);
    expect(first.headers['cache-control']).toBe('private, no-store');
    const mark = sure(first.headers['etag']);
    const again = () => board().set('If-None-Match', mark).set('Cache-Control', 'max-age=0');
    expect((await again().expect(304)).text).toBe('');
    const student = sure(given.students.get('noor')).enrolmentId;
    await given.instructor
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [{ student, from: sure(given.board.groups[0]).id, to: null }] })
      .expect(200);
    await again().expect(200);
  });
});

describe('refusals', () => {
  it('have a code of their own, a fitting status and a sentence', () => {
    const all = [
      ...Object.values({
        ...problems,
        tooManyTries: () => problems.tooManyTries(60),
        staleWrite: () => problems.staleWrite(null),
      }).map((make) => make()),
    ];
    expect(new Set(all.map((problem) => problem.type)).size).toBe(all.length);
    for (const problem of all) {
      expect(problem.status).toBeGreaterThanOrEqual(400);
      expect(problem.detail).toMatch(/^[A-Z].*[.!]$/);
    }
  });

  it('after something was kept never say that nothing was changed', async () => {
    const given = await aCourse(server, { email: 'kept@quillmere.example' });
    const service = server.app.get(SetsService, { strict: false });
    const reading = jest.spyOn(service, 'list').mockRejectedValueOnce(new Error('away'));
    const { body } = await given.instructor
      .put(`/api/courses/${given.course.id}/sets/order`)
      .send({ setIds: [given.set.id] })
      .expect(500);
    reading.mockRestore();
    expect(body).toMatchObject({
      type: '/problems/saved-unread',
      detail: expect.stringContaining('is saved'),
    });
  });

  it('are problem documents for unknown addresses and unreadable bodies too', async () => {
    const unknown = await server.browser().get('/api/nowhere').expect(404);
    expect(unknown.headers['content-type']).toContain('application/problem+json');
    await server
      .browser()
      .post('/api/session')
      .set('Content-Type', 'application/json')
      .send('{"email":')
      .expect(422);
  });
});

describe('what is sent', () => {
  it('is compressed for whoever takes it so: answers, and built files as they were made', async () => {
    const folder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-web-'));
    writeFileSync(path.join(folder, 'index.html'), '<html></html>');
    mkdirSync(path.join(folder, 'assets'));
    const script = path.join(folder, 'assets/app.js');
    writeFileSync(script, 'as it is');
    writeFileSync(`${script}.br`, brotliCompressSync('made before'));
    const pages = await startTestServer({ webFolder: folder });
    const browser = pages.browser();
    const built = await browser.get('/assets/app.js').set('Accept-Encoding', 'gzip, br').expect(200);
    expect([built.text, built.headers['content-encoding']]).toEqual(['made before', 'br']);
    expect(built.headers['cache-control']).toContain('immutable');
    const plain = await browser.get('/assets/app.js').set('Accept-Encoding', 'identity').expect(200);
    expect([plain.text, plain.headers['content-encoding']]).toEqual(['as it is', undefined]);
    const answer = await browser.get('/api/openapi.json').set('Accept-Encoding', 'gzip').expect(200);
    expect(answer.headers['content-encoding']).toBe('gzip');
    await pages.stop();
    rmSync(folder, { recursive: true });
  });
});

describe('settings', () => {
  it('says in one sentence what is wrong with a setting', () => {
    expect(() => configFrom({ DATABASE_URL: 'postgres://x', PORT: 'many' })).toThrow(
      new SettingRefused('PORT is "many"; it must be a whole number from 0 to 65535.'),
    );
    expect(() => configFrom({})).toThrow(SettingRefused);
  });

  it('says in one sentence that the database is too old', () => {
    expect(() => refuseOldDatabase(130_012)).toThrow(
      new DatabaseRefused('The database is PostgreSQL 13; Jigsaw Room needs 14 or newer.'),
    );
    expect(() => refuseOldDatabase(140_000)).not.toThrow();
  });

  it('says in one sentence that the database cannot be reached', async () =>
    expect(migrate('postgres://no one@127.0.0.1:1/none')).rejects.toThrow(DatabaseRefused));
});

describe('the schema', () => {
  it('is exactly what the entities describe', async () => {
    const builder = server.app.get(DataSource).driver.createSchemaBuilder();
    expect((await builder.log()).upQueries.map((query) => query.query)).toEqual([]);
  });

  it('can be taken back to nothing and built again', async () => {
    const database = await newDatabase();
    await migrate(database.url);
    const dataSource = await new DataSource(dataSourceOptions(database.url)).initialize();
    for (const _ of migrations) await dataSource.undoLastMigration();
    expect(
      await dataSource.query(`SELECT "tablename" FROM "pg_tables" WHERE "schemaname" = 'public'`),
    ).toEqual([{ tablename: 'migrations' }]);
    await dataSource.runMigrations();
    await dataSource.destroy();
    await database.drop();
  });
});
