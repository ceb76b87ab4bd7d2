import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { z } from 'zod';
import type {
  ImportPreview,
  ImportRequest,
  ImportResult,
  ImportSource,
  PreviewRequest,
  PreviewRowView,
} from '@jigsaw/contract/roster';
import type { CourseId, EnrolmentId, GroupSetId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { ColumnGuess, ColumnMeaning, PreviewRow, Roster, RowProblem } from '@jigsaw/core/roster';
import type { Table } from '@jigsaw/core/files';
import {
  guessColumns,
  importChange,
  lackingGroups,
  previewImport,
  sayColumnProblem,
  sayLacking,
  sayRowProblem,
  sayUnreadable,
  sayUnreadablePaste,
} from '@jigsaw/core/roster';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { ClassFiles } from './classFiles.js';
import { groupTags, SetHearers, SetMaking } from '../sets/index.js';
import { noneDropped, RegistrarService } from './registrar.service.js';
import { RosterChanges } from './rosterChanges.service.js';
import { readEntries } from './rosterStore.js';
import { makeGroups, readSets } from './knownSets.js';
import { Viewers } from '../course/index.js';
import { counted } from '@jigsaw/core/text';

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
    private readonly viewers: Viewers,
    private readonly changes: RosterChanges,
    private readonly registrar: RegistrarService,
    private readonly files: ClassFiles,
    private readonly making: SetMaking,
    private readonly hearers: SetHearers,
  ) {}

  async preview(
    person: SignedIn,
    courseId: CourseId,
    request: z.output<typeof PreviewRequest>,
  ): Promise<ImportPreview> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    const { table, columns } = await this.read(
      person,
      courseId,
      request.source,
      request.meanings,
      request.mends,
    );
    const { manager } = this.dataSource;
    const roster = await readEntries(manager, courseId);
    const meanings = columns.map((column) => column.meaning);
    const sets = await readSets(manager, courseId, table.classes);
    const preview = previewImport(table, meanings, roster, request.role, sets, new Set(request.newAddresses));
    const rows = preview.ok ? preview.rows : [];
    const lacking = preview.ok ? lackingGroups(table, meanings, rows, sets) : [];
    const dropped =
      preview.ok && request.source.kind === 'registrar'
        ? await this.registrar.dropped(courseId, preview.missing)
        : noneDropped;
    return {
      columns: columns.map((column, at) => ({
        heading: sure(table.headings[at]),
        ...column,
        samples: samplesOf(table, at),
      })),
      encoding: table.encoding,
      delimiter: table.delimiter,
      hasHeader: table.hasHeader,
      columnProblem: preview.ok ? sayLacking(lacking) : sayColumnProblem(preview),
      rows: rows.map(rowView),
      missing: preview.ok ? await this.missing(roster, preview.missing, dropped.enrolmentIds) : [],
      newGroups: lacking.map(({ set, isNew, groups }) => ({ set, isNew, groups: [...groups] })),
      warning: dropped.warning,
      counts: countKinds(rows),
      fingerprint: fingerprint(rows),
    };
  }

  /** With the names of the groups in which they would leave a place. */
  private async missing(
    roster: Roster,
    missing: readonly EnrolmentId[],
    dropped: ReadonlySet<EnrolmentId>,
  ): Promise<ImportPreview['missing']> {
    const entries = missing.flatMap((enrolmentId) => {
      const entry = roster.get(enrolmentId);
      return entry ? [{ enrolmentId, entry }] : [];
    });
    const groupIds = [...new Set(entries.flatMap(({ entry }) => entry.groups))];
    const tags = await groupTags(this.dataSource.manager, groupIds);
    return entries
      .map(({ enrolmentId, entry }) => ({
        enrolmentId,
        name: entry.name,
        email: entry.email,
        groups: entry.groups.flatMap((groupId) => tags.get(groupId)?.name ?? []),
        isDropped: dropped.has(enrolmentId),
      }))
      .sort((a, b) => Number(b.isDropped) - Number(a.isDropped) || a.name.localeCompare(b.name));
  }

  async apply(
    person: SignedIn,
    courseId: CourseId,
    request: z.output<typeof ImportRequest>,
  ): Promise<ImportResult> {
    const { enrolmentId: you } = await this.viewers.staff(person, courseId, 'manage-roster');
    if (request.drop.includes(you))
      throw problems.invalidInput('You cannot take yourself out of the course. Ask another instructor.');
    const { source } = request;
    const { table } = await this.read(person, courseId, source, request.meanings, request.mends);
    const kind = source.kind === 'registrar' ? 'sync' : 'import';
    const result = { added: 0, changed: 0, unchanged: 0, dropped: 0, leftOut: 0 };
    const { changeId, seated } = await this.changes.run(
      person,
      courseId,
      kind,
      async (roster, { manager, now }) => {
        const known = await readSets(manager, courseId, table.classes);
        const preview = previewImport(
          table,
          request.meanings,
          roster,
          request.role,
          known,
          new Set(request.newAddresses),
        );
        if (!preview.ok) throw problems.invalidInput(sayColumnProblem(preview));
        if (fingerprint(preview.rows) !== request.fingerprint)
          throw problems.staleWrite(
            null,
            'The class changed since this preview. Look at it once more; nothing was brought in.',
          );

        const leftOut = new Set(request.leaveOutLines);
        const faulty = preview.rows.filter((row) => row.kind === 'problem' && !leftOut.has(row.line));
        if (faulty.length > 0) {
          throw problems.invalidInput(
            `${counted(faulty.length, 'row needs', 'rows need')} you first. Nothing was brought in.`,
            {
              issues: faulty.flatMap((row) =>
                row.kind === 'problem'
                  ? row.problems.map((each) => ({ path: `line ${row.line}`, message: sayRowProblem(each) }))
                  : [],
              ),
            },
          );
        }
        const missing = new Set(preview.missing);
        const drop = request.drop.filter((enrolmentId) => missing.has(enrolmentId));
        if (drop.length < request.drop.length)
          throw problems.staleWrite(
            null,
            'The class changed since this preview. Look at it once more; nothing was brought in.',
          );
        const counts = countKinds(preview.rows);
        Object.assign(result, {
          added: counts.new,
          changed: counts.changed,
          unchanged: counts.unchanged,
          dropped: drop.length,
          leftOut: counts.problem,
        });
        const lacking = lackingGroups(table, request.meanings, preview.rows, known);
        const unmakeable = sayLacking(lacking);
        if (unmakeable !== null) throw problems.invalidInput(unmakeable);
        const sectionsName = source.kind === 'registrar' ? source.setName : 'Sections';
        const onNewGroups = (setId: GroupSetId) => this.hearers.groupsMade({ manager, now, setId, by: you });
        const sets = await makeGroups(
          { manager, making: this.making, courseId, sectionsName, now, onNewGroups },
          lacking,
          table.classes ?? [],
          known,
        );
        return importChange(roster, preview.rows, request.role, drop, newId<'enrolment'>, sets);
      },
      async ({ manager, now }) => {
        if (source.kind === 'registrar')
          await this.registrar.note(manager, courseId, source.course, table, request.meanings, now);
      },
    );
    return { changeId, seated, ...result };
  }

  private async read(
    person: SignedIn,
    courseId: CourseId,
    source: z.output<typeof ImportSource>,
    meanings: readonly ColumnMeaning[] | null,
    mends: z.output<typeof PreviewRequest>['mends'],
  ): Promise<ReadSource> {
    if (source.kind === 'paste') {
      const paste = await this.files.paste(person.id, source.text);
      if (!paste.ok) throw problems.unreadableFile(sayUnreadablePaste(paste));
      return {
        table: mended(paste.table, mends),
        columns: paste.meanings.map((meaning) => ({ meaning, sureness: 'sure' })),
      };
    }
    if (source.kind === 'file') {
      const bytes = new Uint8Array(Buffer.from(source.contentBase64, 'base64'));
      const result = await this.files.file(person.id, bytes, source.delimiter);
      if (!result.ok) throw problems.unreadableFile(sayUnreadable(result));
      // Guessed from the file as it is, so that a mended cell does not turn a column into another one.
      return {
        table: mended(result.table, mends),
        columns: chosen(meanings) ?? guessColumns(result.table),
      };
    }
    const table = await this.registrar.roster(person, courseId, source.course);
    const guessed = guessColumns(table).map((column, at) =>
      table.headings[at] === 'Section' ? { meaning: 'section' as const, sureness: 'sure' as const } : column,
    );
    return { table: mended(table, mends), columns: chosen(meanings) ?? guessed };
  }
}

const chosen = (meanings: readonly ColumnMeaning[] | null) =>
  meanings?.map((meaning) => ({ meaning, sureness: 'chosen' as const })) ?? null;

/** A row as somebody corrected it stands in the place of the file's. */
function mended(
  table: Table,
  mends: readonly { readonly line: number; readonly cells: readonly string[] }[],
): Table {
  if (mends.length === 0) return table;
  const cellsOf = new Map(mends.map((mend) => [mend.line, mend.cells]));
  return { ...table, rows: table.rows.map((row) => ({ ...row, cells: cellsOf.get(row.line) ?? row.cells })) };
}

const samplesOf = (table: Table, at: number) =>
  [...new Set(table.rows.map((row) => row.cells[at] ?? '').filter((cell) => cell.trim() !== ''))].slice(
    0,
    samplesShown,
  );

/** Offered only where nothing else is wrong with the row. */
function mayBe(found: readonly RowProblem[]): { name: string; isAlike: boolean } | null {
  const [only, ...more] = found;
  if (only?.code !== 'number-of-another' || !only.mayBeSame || more.length > 0) return null;
  return { name: only.name, isAlike: only.isAlike };
}

function rowView(row: PreviewRow): PreviewRowView {
  return row.kind === 'problem'
    ? {
        kind: row.kind,
        line: row.line,
        cells: [...row.cells],
        sentences: row.problems.map(sayRowProblem),
        mayBe: mayBe(row.problems),
      }
    : ({ ...row } as PreviewRowView);
}

function countKinds(rows: readonly PreviewRow[]): ImportPreview['counts'] {
  const counts = { new: 0, changed: 0, unchanged: 0, problem: 0 };
  for (const row of rows) counts[row.kind] += 1;
  return counts;
}

const fingerprint = (rows: readonly PreviewRow[]) =>
  createHash('sha256').update(JSON.stringify(rows)).digest('base64url');
