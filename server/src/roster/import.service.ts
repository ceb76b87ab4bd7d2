import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { z } from 'zod';
import type { ImportPreview, ImportRequest, ImportResult, ImportSource, PreviewRequest, PreviewRowView } from '@jigsaw/contract/roster';
import type { CourseId } from '@jigsaw/core/ids';
import type { ColumnGuess, ColumnMeaning, EnrolledPerson, PreviewRow, Table } from '@jigsaw/core/roster';
import { guessColumns, previewImport, readPaste, readTable, sameAddress, sayColumnProblem, sayRowProblem, sayUnreadable } from '@jigsaw/core/roster';
import type { SignedIn } from '../identity/index.js';
import { PeopleService, PersonRow } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import { UnitOfWork } from '../platform/unitOfWork.js';
import { CourseRow, EnrolmentRow } from './roster.rows.js';
import { Viewers } from './viewers.js';

const samplesShown = 3;

interface ReadSource {
  readonly table: Table;
  readonly columns: readonly (ColumnGuess | { meaning: ColumnMeaning; sureness: 'chosen' })[];
}

/** A class file comes in as a whole or not at all, and only as it was previewed. */
@Injectable()
export class ImportService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly unitOfWork: UnitOfWork,
    private readonly viewers: Viewers,
    private readonly people: PeopleService,
  ) {}

  async preview(person: SignedIn, courseId: CourseId, request: z.output<typeof PreviewRequest>): Promise<ImportPreview> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    const { table, columns } = read(request.source, request.meanings);
    const preview = previewImport(
      table,
      columns.map((column) => column.meaning),
      await rosterOf(this.dataSource.manager, courseId),
    );
    const rows = preview.ok ? preview.rows : [];
    return {
      columns: columns.map((column, at) => ({ heading: table.headings[at]!, ...column, samples: samplesOf(table, at) })),
      encoding: table.encoding,
      delimiter: table.delimiter,
      hasHeader: table.hasHeader,
      columnProblem: preview.ok ? null : sayColumnProblem(preview),
      rows: rows.map(rowView),
      counts: countKinds(rows),
      fingerprint: fingerprint(rows),
    };
  }

  async apply(person: SignedIn, courseId: CourseId, request: z.output<typeof ImportRequest>): Promise<ImportResult> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    const { table } = read(request.source, request.meanings);
    return this.unitOfWork.run(async ({ manager, now, record }) => {
      await manager.findOneOrFail(CourseRow, { where: { id: courseId }, lock: { mode: 'pessimistic_write' } }); // one import at a time
      const preview = previewImport(table, request.meanings, await rosterOf(manager, courseId));
      if (!preview.ok) throw problems.invalidInput(sayColumnProblem(preview));
      if (fingerprint(preview.rows) !== request.fingerprint)
        throw problems.staleWrite(null, 'The class changed since this preview. Look at it once more; nothing was brought in.');

      const leftOut = new Set(request.leaveOutLines);
      const faulty = preview.rows.filter((row) => row.kind === 'problem' && !leftOut.has(row.line));
      if (faulty.length > 0) {
        throw problems.invalidInput(`${faulty.length} ${faulty.length === 1 ? 'row needs' : 'rows need'} you first. Nothing was brought in.`, {
          issues: faulty.flatMap((row) =>
            row.kind === 'problem' ? row.problems.map((each) => ({ path: `line ${row.line}`, message: sayRowProblem(each) })) : [],
          ),
        });
      }
      await this.add(manager, courseId, request.role, preview.rows, now);
      await change(manager, preview.rows);
      const counts = countKinds(preview.rows);
      await record({ type: 'roster.imported', courseId, actorId: person.id, subjectId: courseId, facts: counts });
      return { added: counts.new, changed: counts.changed, unchanged: counts.unchanged, leftOut: counts.problem };
    });
  }

  private async add(manager: EntityManager, courseId: CourseId, role: EnrolmentRow['role'], rows: readonly PreviewRow[], now: Date): Promise<void> {
    const newcomers = rows.flatMap((row) => (row.kind === 'new' ? [row.person] : []));
    if (newcomers.length === 0) return;
    const personIdByAddress = await this.people.accountsFor(manager, newcomers);
    const enrolments = newcomers.map((each) => ({
      id: newId(),
      courseId,
      personId: personIdByAddress.get(sameAddress(each.email))!,
      role,
      number: each.number,
      attributes: each.attributes,
      joinedAt: now,
      leftAt: null,
    }));
    for (let at = 0; at < enrolments.length; at += 1000) await manager.insert(EnrolmentRow, enrolments.slice(at, at + 1000));
  }
}

async function change(manager: EntityManager, rows: readonly PreviewRow[]): Promise<void> {
  for (const row of rows) {
    if (row.kind !== 'changed') continue;
    const { name, familyName, reading, number, attributes } = row.person;
    await manager.update(EnrolmentRow, row.enrolmentId, { number, attributes: json(attributes) });
    await manager.query(
      `UPDATE "person" SET "name" = $2, "familyName" = $3, "reading" = $4 FROM "enrolment" e
        WHERE e."id" = $1 AND "person"."id" = e."personId"`,
      [row.enrolmentId, name, familyName, reading],
    );
  }
}

function read(source: z.output<typeof ImportSource>, meanings: readonly ColumnMeaning[] | null): ReadSource {
  if (source.kind === 'paste') {
    const paste = readPaste(source.text);
    if (paste.table.rows.length === 0) throw problems.unreadableFile('Nothing was pasted. Write one person a line.');
    return { table: paste.table, columns: paste.meanings.map((meaning) => ({ meaning, sureness: 'sure' })) };
  }
  const result = readTable(new Uint8Array(Buffer.from(source.contentBase64, 'base64')));
  if (!result.ok) throw problems.unreadableFile(sayUnreadable(result));
  const { table } = result;
  return { table, columns: meanings === null ? guessColumns(table) : meanings.map((meaning) => ({ meaning, sureness: 'chosen' })) };
}

async function rosterOf(manager: EntityManager, courseId: CourseId): Promise<EnrolledPerson[]> {
  return manager
    .createQueryBuilder(EnrolmentRow, 'e')
    .innerJoin(PersonRow, 'p', 'p."id" = e."personId"')
    .where('e."courseId" = :courseId', { courseId })
    .select([
      'e."id" AS "enrolmentId"',
      'p."email" AS "email"',
      'p."name" AS "name"',
      'p."familyName" AS "familyName"',
      'p."reading" AS "reading"',
      'e."number" AS "number"',
      'e."attributes" AS "attributes"',
    ])
    .getRawMany<EnrolledPerson>();
}

const samplesOf = (table: Table, at: number) =>
  [...new Set(table.rows.map((row) => row.cells[at] ?? '').filter((cell) => cell.trim() !== ''))].slice(0, samplesShown);

function rowView(row: PreviewRow): PreviewRowView {
  return row.kind === 'problem'
    ? { kind: row.kind, line: row.line, cells: [...row.cells], sentences: row.problems.map(sayRowProblem) }
    : ({ ...row } as PreviewRowView);
}

function countKinds(rows: readonly PreviewRow[]): ImportPreview['counts'] {
  const counts = { new: 0, changed: 0, unchanged: 0, problem: 0 };
  for (const row of rows) counts[row.kind] += 1;
  return counts;
}

const fingerprint = (rows: readonly PreviewRow[]) => createHash('sha256').update(JSON.stringify(rows)).digest('base64url');
