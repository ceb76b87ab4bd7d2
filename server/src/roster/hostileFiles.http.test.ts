import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { strToU8, unzipSync, zipSync } from 'fflate';
import type { Piscina } from 'piscina';
import type { ImportPreview } from '@jigsaw/contract/import';
import { aCourse, base64 } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { aWorkbook } from '../test/aWorkbook.js';
import { ClassFiles } from './classFiles.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
});
afterAll(() => server.stop());

const preview = (source: object) =>
  given.instructor
    .post(`/api/courses/${given.course.id}/roster/preview`)
    .send({ source, role: 'student', meanings: null });
const file = (bytes: Uint8Array | string, fileName = 'class.csv') =>
  preview({ kind: 'file', fileName, contentBase64: base64(Buffer.from(bytes)) });

/** A spreadsheet whose only sheet is changed. */
function aSheetWith(change: (xml: string) => string): Uint8Array {
  const files = unzipSync(aWorkbook());
  const path = 'xl/worksheets/sheet2.xml';
  return zipSync({ ...files, [path]: strToU8(change(Buffer.from(files[path] ?? []).toString())) });
}

describe('a file that would hold the server', () => {
  it.each([
    ['a cell at the far end of a sheet', () => aSheetWith((xml) => xml.replace('</sheetData>', '<row r="1048576"><c r="XFD1048576"><v>1</v></c></row></sheetData>')), 'The table has over 200 columns.'],
    ['a cell in the last row of a sheet', () => aSheetWith((xml) => xml.replace('</sheetData>', '<row r="1048576"><c r="A1048576"><v>1</v></c></row></sheetData>')), 'The file has over 20,000 rows.'],
    ['a line of commas', () => 'a,'.repeat(2_500_000), 'One row of this file has over 100,000 characters.'],
    ['many short lines', () => `Email\n${'a\n'.repeat(2_000_000)}`, 'The file has over 20,000 rows.'],
    ['a line of blanks', () => `Email\n${' '.repeat(5_000_000)}x`, 'One row of this file has over 100,000 characters.'],
    ['very many cells', () => `Email${',x'.repeat(30)}\n${`a@b.example${',x'.repeat(30)}\n`.repeat(15_000)}`, 'The table has over 400,000 cells.'],
    ['too many columns', () => `Email${',x'.repeat(201)}\na@b.example`, 'The table has over 200 columns.'],
  ] as const)('with %s is refused in one sentence', async (_name, make, sentence) => {
    const { status, body } = await file(make());
    expect([status, body.detail]).toEqual([422, expect.stringContaining(sentence)]);
    await given.instructor.get(`/api/courses/${given.course.id}/roster`).expect(200);
  }); // prettier-ignore

  it('is read where the far end of its sheet is only formatted', async () => {
    const bytes = aSheetWith((xml) =>
      xml.replace(
        '</sheetData>',
        '<row r="1048576"><c r="XFD1048576" s="1"/></row><row r="9" spans="1:3"/></sheetData>',
      ),
    );
    const { body } = await file(bytes, 'class.xlsx').expect(200);
    expect((body as ImportPreview).rows.map((row) => row.line)).toEqual([3]);
  });

  it('is pasted in vain, too', async () => {
    const refusals: string[] = [];
    for (const text of [`<${' '.repeat(900_000)}x>`, 'a\n'.repeat(300_000), `a ${',; '.repeat(300_000)}@`])
      refusals.push((await preview({ kind: 'paste', text })).body.detail);
    expect(refusals).toEqual([
      'Line 1 is too long for a list of people. Write one person per line.',
      'Over 20,000 lines were pasted. Paste them in several parts.',
      'Line 1 is too long for a list of people. Write one person per line.',
    ]);
  });

  it('that takes a thread’s memory ends that thread, says so, and the next file is read', async () => {
    // Half a million small elements in a sheet: more than the reader has room for in its thread.
    const cell = '<c r="A5" t="inlineStr"><is><t>a</t></is></c>';
    const { status, body } = await file(
      aSheetWith((xml) =>
        xml.replace('</sheetData>', `<row r="5">${cell.repeat(700_000)}</row></sheetData>`),
      ),
      'class.xlsx',
    );
    expect([status, typeof body.detail]).toEqual([422, 'string']);
    await file('Email,Name\nada@b.example,Ada Okafor\n').expect(200);
  }, 60_000);

  it('is not read on for someone who has gone away', async () => {
    const files: unknown = server.app.get(ClassFiles, { strict: false });
    const { threads } = (files as { thread: { threads: Piscina } }).thread;
    const before = threads.completed;
    const rows = `Email,Name${',x'.repeat(15)}\n${`a@b.example,A${',x'.repeat(15)}\n`.repeat(19_000)}`;
    const asked = Array.from({ length: 6 }, () => {
      const sent = file(rows);
      sent.catch(() => undefined);
      return sent;
    });
    for (const until = Date.now() + 60_000; threads.threads.length === 0 && Date.now() < until;)
      await new Promise<void>((resolve) => setTimeout(resolve, 5));
    for (const sent of asked) sent.abort();
    await file('Email,Name\nada@b.example,Ada Okafor\n').expect(200);
    expect(threads.completed - before).toBeLessThan(6);
  });

  it('does not keep others waiting', async () => {
    const slow = file(
      aSheetWith((xml) =>
        xml.replace(
          '</sheetData>',
          `<row r="5">${'<c r="B5"><v>1</v></c>'.repeat(400_000)}</row></sheetData>`,
        ),
      ),
      'class.xlsx',
    ).then(() => 'file');
    const quick = (async () => {
      for (let at = 0; at < 5; at += 1)
        await given.instructor.get(`/api/courses/${given.course.id}/roster`).expect(200);
      return 'others';
    })();
    expect(await Promise.race([slow, quick])).toBe('others');
    await slow;
  }, 60_000);
});
