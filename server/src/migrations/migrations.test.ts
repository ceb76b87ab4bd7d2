import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { DataSource } from 'typeorm';
import { dataSourceOptions } from '../app/dataSource.js';
import { newDatabase } from '../test/testServer.js';
import { migrations } from './index.js';

const id = (last: string) => `01920000-0000-7000-8000-${last.padStart(12, '0')}`;
let database: Awaited<ReturnType<typeof newDatabase>>;
let dataSource: DataSource;

beforeAll(async () => {
  database = await newDatabase();
});
afterAll(async () => {
  await dataSource.destroy();
  await database.drop();
});

describe('migrations on rows that are there', () => {
  it('keep a mark, its attempt and its release when an activity gets a kind', async () => {
    dataSource = await new DataSource({
      ...dataSourceOptions(database.url),
      migrations: [migrations[0]],
    }).initialize();
    await dataSource.runMigrations();
    for (const [table, row] of oldRows) {
      const columns = Object.keys(row);
      await dataSource.query(
        `INSERT INTO "${table}" (${columns.map((column) => `"${column}"`).join(', ')}) VALUES (${columns.map((_, at) => `$${at + 1}`).join(', ')})`,
        Object.values(row),
      );
    }
    await dataSource.destroy();

    dataSource = await new DataSource(dataSourceOptions(database.url)).initialize();
    await dataSource.runMigrations();
    expect(await dataSource.query(`SELECT "kind", "settings", "rubric", "points" FROM "activity"`)).toEqual([
      { kind: 'assignment', settings: {}, rubric: null, points: '40.00' },
    ]);
    expect(
      await dataSource.query(
        `SELECT "enrolmentId", "typedMark", "picks", "workAt", "version" FROM "mark" ORDER BY "version" DESC`,
      ),
    ).toEqual([
      {
        enrolmentId: null,
        typedMark: '31.50',
        picks: {},
        workAt: new Date('2026-11-02T10:00:00Z'),
        version: 2,
      },
      { enrolmentId: null, typedMark: null, picks: {}, workAt: null, version: 1 },
    ]);

    for (let at = 1; at < migrations.length; at += 1) await dataSource.undoLastMigration();
    expect(
      await dataSource.query(`SELECT "groupMark", "attempt", "version" FROM "mark" ORDER BY "version" DESC`),
    ).toEqual([
      { groupMark: '31.50', attempt: 2, version: 2 },
      { groupMark: null, attempt: 0, version: 1 },
    ]);
    await dataSource.runMigrations();
  });

  it('make files that were attached before for all to read, in their order, also those in work', async () => {
    const files = ['b', 'a'].map((name) => ({ id: id('d'), name, mediaType: 'text/plain', sizeBytes: 1 }));
    const all = async () => (await dataSource.query<object[]>(`SELECT "files", "inWork" FROM "activity"`))[0];
    const at = migrations.findIndex(({ name }) => name.startsWith('OwnFiles'));
    for (let undone = migrations.length; undone > at; undone -= 1) await dataSource.undoLastMigration();
    const before = { files, inWork: { title: 'Report', files } };
    await dataSource.query(`UPDATE "activity" SET "files" = $1, "inWork" = $2`, [JSON.stringify(files), JSON.stringify(before.inWork)]); // prettier-ignore
    await dataSource.runMigrations();
    const forAll = files.map((file) => ({ ...file, isPerGroup: false }));
    expect(await all()).toEqual({ files: forAll, inWork: { title: 'Report', files: forAll } });
    for (let undone = migrations.length; undone > at; undone -= 1) await dataSource.undoLastMigration();
    expect(await all()).toEqual(before);
    await dataSource.runMigrations();
  });
});

const now = '2026-11-01T10:00:00Z';
/** A course of before: one assignment, two copies, two attempts, a mark for one copy and a begun one for the other. */
const oldRows: readonly (readonly [string, Record<string, unknown>])[] = [
  [
    'person',
    {
      id: id('1'),
      email: 'a@b.example',
      addressKey: 'a@b.example',
      name: 'A',
      mayCreateCourses: true,
      createdAt: now,
    },
  ],
  ['course', { id: id('2'), code: 'F', title: 'F', term: '', timeZone: 'UTC', createdAt: now }],
  ['enrolment', { id: id('3'), courseId: id('2'), personId: id('1'), role: 'student', joinedAt: now }],
  [
    'group_set',
    { id: id('4'), courseId: id('2'), name: 'Benches', position: 1, pattern: '', createdAt: now },
  ],
  ['course_group', { id: id('5'), setId: id('4'), number: 1, name: 'Crock' }],
  ['course_group', { id: id('6'), setId: id('4'), number: 2, name: 'Carboy' }],
  [
    'activity',
    {
      id: id('7'),
      courseId: id('2'),
      kind: 'assignment',
      title: 'Report',
      brief: { type: 'doc' },
      points: '40',
      latePolicy: {},
      createdAt: now,
      updatedAt: now,
    },
  ],
  [
    'release',
    {
      id: id('8'),
      activityId: id('7'),
      courseId: id('2'),
      setId: id('4'),
      mode: 'own',
      audience: { include: [], exclude: [] },
      outsiders: 'hidden',
      state: 'live',
      stateAt: now,
    },
  ],
  ['copy', { id: id('9'), releaseId: id('8'), groupId: id('5') }],
  ['copy', { id: id('a'), releaseId: id('8'), groupId: id('6') }],
  [
    'hand_in',
    {
      id: id('b'),
      copyId: id('9'),
      attempt: 1,
      handedInBy: id('3'),
      handedInAt: now,
      parts: '[]',
      fileIds: '{}',
    },
  ],
  [
    'hand_in',
    {
      id: id('c'),
      copyId: id('9'),
      attempt: 2,
      handedInBy: id('3'),
      handedInAt: '2026-11-02T10:00:00Z',
      parts: '[]',
      fileIds: '{}',
    },
  ],
  [
    'mark',
    {
      copyId: id('9'),
      groupMark: '31.5',
      feedback: 'Good.',
      version: 2,
      attempt: 2,
      releasedVersion: 2,
      updatedAt: now,
    },
  ],
  [
    'mark',
    {
      copyId: id('a'),
      groupMark: null,
      feedback: '',
      version: 1,
      attempt: 0,
      releasedVersion: null,
      updatedAt: now,
    },
  ],
];
