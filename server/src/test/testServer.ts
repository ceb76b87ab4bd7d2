import { randomBytes } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import pg from 'pg';
import request from 'supertest';
import { DataSource } from 'typeorm';
import type { App } from '../app/createApp.js';
import { createApp } from '../app/createApp.js';
import { migrate } from '../app/database.js';
import { PeopleService } from '../identity/index.js';
import { MailCarrier, MailedLinks } from '../mail/index.js';
import { Clock } from '../platform/clock.js';
import type { Config } from '../platform/config.js';
import { configFrom } from '../platform/config.js';

/** A clock that stands still until a test moves it. */
export class SetClock extends Clock {
  constructor(private at: Date) {
    super();
  }

  override now(): Date {
    return new Date(this.at);
  }

  set(at: string | Date): void {
    this.at = new Date(at);
  }

  pass({ days = 0, hours = 0, minutes = 0 }: { days?: number; hours?: number; minutes?: number }): void {
    this.at = new Date(this.at.getTime() + ((days * 24 + hours) * 60 + minutes) * 60_000);
  }
}

/** A browser of one person: keeps its cookie. */
export type Browser = ReturnType<typeof request.agent>;

export interface TestServer {
  readonly app: App;
  readonly clock: SetClock;
  readonly databaseUrl: string;
  browser(): Browser;
  instructor(email?: string): Promise<Browser>;
  /** The personal links that were mailed to an address, the oldest first. */
  mailedLinks(address: string): Promise<string[]>;
  /** What the database holds, anyone who may see it. */
  rows(sql: string): Promise<unknown[]>;
  stop(): Promise<void>;
}

export const password = 'brine and salt';

/** A new database, named apart, on the run's PostgreSQL. */
export async function newDatabase(): Promise<{ url: string; drop(): Promise<void> }> {
  const serverUrl = process.env['JIGSAW_TEST_DATABASE_SERVER'];
  if (!serverUrl) throw new Error('the test PostgreSQL is not running');
  const name = `test_${randomBytes(6).toString('hex')}`;
  const run = async (sql: string) => {
    const client = new pg.Client({ connectionString: serverUrl });
    await client.connect();
    await client.query(sql);
    await client.end();
  };
  await run(`CREATE DATABASE ${name}`);
  const url = new URL(serverUrl);
  url.pathname = `/${name}`;
  return { url: url.toString(), drop: () => run(`DROP DATABASE ${name} WITH (FORCE)`) };
}

export async function startTestServer(more: Partial<Config> = {}): Promise<TestServer> {
  const database = await newDatabase();
  await migrate(database.url);
  const mailFolder = mkdtempSync(path.join(os.tmpdir(), 'jigsaw-mail-'));
  const clock = new SetClock(new Date('2026-11-10T10:00:00Z'));
  const config = configFrom(
    { LOG_LEVEL: process.env['TEST_LOG'] ?? 'silent', PORT: '0' },
    { databaseUrl: database.url, publicUrl: 'http://jigsaw.test', notFoundStepMs: 0, mailFolder, ...more },
  );
  const app = await createApp(config, clock);
  await app.listen(0, '127.0.0.1');
  const http = app.getHttpServer();
  return {
    app,
    clock,
    databaseUrl: database.url,
    browser: () => request.agent(http),
    async instructor(email = 'ilse.marrow@quillmere.example') {
      await app
        .get(PeopleService)
        .createInstructor({ email, name: 'Dr. Ilse Marrow', familyName: 'Marrow', reading: null }, password);
      const browser = request.agent(http);
      await browser.post('/api/session').send({ email, password }).expect(200);
      return browser;
    },
    async mailedLinks(address) {
      await app.get(MailedLinks).settled();
      await app.get(MailCarrier).carry();
      const files = readdirSync(mailFolder).filter((name) => name.includes(` ${address} `));
      // Long lines are parted by an = at their end (RFC 2045, quoted-printable).
      const texts = files
        .toSorted()
        .map((name) => readFileSync(path.join(mailFolder, name), 'utf8').replaceAll('=\n', ''));
      return texts.flatMap((text) => /\S+\/welcome#\S+/.exec(text) ?? []);
    },
    rows: (sql) => app.get(DataSource).query<unknown[]>(sql),
    async stop() {
      await app.close();
      rmSync(mailFolder, { recursive: true });
      await database.drop();
    },
  };
}
