import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { GroupSetList } from '@jigsaw/contract/sets';
import type { ImportPreview, TableView } from '@jigsaw/contract/import';
import type { RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aCourse } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { workbookOf } from '../test/aWorkbook.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
});
afterAll(() => server.stop());

const at = (path: string) => `/api/courses/${given.course.id}/roster${path}`;
const workbook = workbookOf({
  Cover: [['Faculty of Food Science'], ['Course', 'FER 220']],
  Class: [
    ['Class list'],
    ['Matriculation number', 'Name', 'Email', 'Where'],
    [{ padded: 7 }, 'Noor Haddad', 'noor@quillmere.example', 'Carboy'],
    [{ padded: 8 }, 'Jorge Peñaloza', 'jorge(at)quillmere.example', 'Crock'],
    [{ padded: 9 }, 'Ines Vale', 'ines@quillmere.example', 'Crock'],
    ['Total', 3],
  ],
});
const source = (more: object = {}) => ({
  kind: 'file',
  fileName: 'class.xlsx',
  contentBase64: Buffer.from(workbook).toString('base64'),
  ...more,
});
const preview = async (more: object = {}) =>
  (
    await given.instructor
      .post(at('/preview'))
      .send({ source: source(more), meanings: null })
      .expect(200)
  ).body as ImportPreview;

describe('a workbook as a registry sends it', () => {
  it('is previewed with its sheet, its headings, what was skipped, and the cell at fault', async () => {
    const seen = await preview();
    expect(seen.place).toMatchObject({
      sheet: 1,
      sheets: [
        { name: 'Cover', rows: 2 },
        { name: 'Class', rows: 6 },
      ],
      headingLine: 2,
      skipped: [
        { line: 1, because: 'above-headings' },
        { line: 6, because: 'total' },
      ],
    });
    expect(seen.columns.map(({ meaning, set }) => [meaning, set])).toEqual([
      ['number', null],
      ['name', null],
      ['email', null],
      ['group', { name: given.set.name, isNew: false }],
    ]);
    expect(seen.rows.find((row) => row.kind === 'problem')).toMatchObject({ line: 4, faultyCell: 2 });
    expect(seen.newGroups).toEqual([]);
  });

  it('is read as a table for those who place, and for no one else', async () => {
    const table = (await given.instructor.post(at('/table')).send(source()).expect(200)).body as TableView;
    expect(table.headings).toEqual(['Matriculation number', 'Name', 'Email', 'Where']);
    expect(table.rows[0]).toEqual({
      line: 3,
      cells: ['00000007', 'Noor Haddad', 'noor@quillmere.example', 'Carboy'],
    });
    expect(table.place).toMatchObject({ sheet: 1, headingLine: 2 });
    const broken = await given.instructor
      .post(at('/table'))
      .send(source({ contentBase64: Buffer.from('PK\u0003\u0004 not a workbook').toString('base64') }))
      .expect(422);
    expect((broken.body as { detail: string }).detail).toMatch(/\.$/);
    await sure(given.students.get('noor')).browser.post(at('/table')).send(source()).expect(404);
  });

  it('fills the set whose groups it names, and makes none of its own', async () => {
    const seen = await preview();
    await given.instructor
      .post(at('/import'))
      .send({
        source: source(),
        meanings: seen.columns.map((column) => column.meaning),
        leaveOutLines: [4],
        fingerprint: seen.fingerprint,
      })
      .expect(200);
    const { body } = (await given.instructor.get(at('')).expect(200)) as { body: RosterView };
    const placeOf = (email: string) => {
      const entry = body.entries.find((each) => each.email === email);
      return [entry?.number, entry?.groups.map((group) => group.name)];
    };
    expect(placeOf('noor@quillmere.example')).toEqual(['00000007', ['Carboy']]);
    expect(placeOf('ines@quillmere.example')).toEqual(['00000009', ['Crock']]);
    const sets = (await given.instructor.get(`/api/courses/${given.course.id}/sets`)).body as GroupSetList;
    expect(sets.sets.map((set) => set.name)).toEqual([given.set.name]);
  });

  it('is read as someone chose: another sheet, other headings, or none', async () => {
    const cover = await preview({ sheet: 0, headingLine: 0 });
    expect(cover.place).toMatchObject({ sheet: 0, headingLine: null });
    expect(cover.columnProblem).not.toBeNull();
    expect((await preview({ sheet: 1, headingLine: 1 })).columns[0]?.heading).toBe('Class list');
    for (const wrong of [{ sheet: -1 }, { headingLine: 1.5 }, { sheet: 'Class' }])
      await given.instructor
        .post(at('/preview'))
        .send({ source: source(wrong), meanings: null })
        .expect(422);
    // A sheet that is not there is none that was chosen.
    expect((await preview({ sheet: 900 })).place?.sheet).toBe(1);
  });
});
