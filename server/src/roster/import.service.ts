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
  TableRequest,
  TableView,
} from '@jigsaw/contract/import';
import type { CourseId, EnrolmentId, GroupSetId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type {
  ColumnGuess,
  ColumnMeaning,
  KnownSets,
  PreviewRow,
  Roster,
  SaidOfLines,
} from '@jigsaw/core/roster';
import type { Table } from '@jigsaw/core/files';
import {
  guessColumns,
  importChange,
  lackingGroups,
  nothingChosen,
  previewImport,
  sayColumnProblem,
  sayLacking,
  sayRowProblem,
  sayUnreadable,
  sayUnreadablePaste,
  setKey,
  setOfHeading,
  withKnownSets,
} from '@jigsaw/core/roster';
import type { SignedIn } from '../identity/index.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { ClassFiles } from './classFiles.js';
import { groupTags, SetHearers, SetMaking } from '../sets/index.js';
import { countKinds, placeOf, rowView, samplesOf } from './previewView.js';
import { noneDropped, RegistrarService } from './registrar.service.js';
import { RosterChanges } from './rosterChanges.service.js';
import { readEntries } from './rosterStore.js';
import { makeGroups, readSets } from './knownSets.js';
import { Viewers } from '../course/index.js';
import { counted } from '@jigsaw/core/text';

type Column = ColumnGuess | { readonly meaning: ColumnMeaning; readonly sureness: 'chosen' };

interface ReadSource {
  readonly table: Table;
  /** From the file as it is, so that a corrected cell does not turn a column into another one. */
  readonly guess: (sets: KnownSets) => readonly Column[];
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

  /** A file as a table; nothing is looked up and nothing kept. */
  async table(
    person: SignedIn,
    courseId: CourseId,
    source: z.output<typeof TableRequest>,
  ): Promise<TableView> {
    await this.viewers.staff(person, courseId, 'place');
    const { table } = await this.read(person, courseId, source, []);
    return {
      headings: [...table.headings],
      rows: table.rows.map(({ line, cells }) => ({ line, cells: [...cells] })),
      place: placeOf(table),
    };
  }

  async preview(
    person: SignedIn,
    courseId: CourseId,
    request: z.output<typeof PreviewRequest>,
  ): Promise<ImportPreview> {
    await this.viewers.staff(person, courseId, 'manage-roster');
    const { table: read, guess } = await this.read(person, courseId, request.source, request.mends);
    const { manager } = this.dataSource;
    const roster = await readEntries(manager, courseId);
    const sets = await readSets(manager, courseId, read.classes);
    const columns = chosen(request.meanings) ?? guess(sets);
    const meanings = columns.map((column) => column.meaning);
    const table = withKnownSets(read, meanings, sets);
    const preview = previewImport(table, meanings, roster, request.role, sets, said(request));
    const rows = preview.ok ? preview.rows : [];
    const lacking = preview.ok ? lackingGroups(table, meanings, rows, sets) : [];
    const dropped =
      preview.ok && request.source.kind === 'registrar'
        ? await this.registrar.dropped(courseId, preview.missing)
        : noneDropped;
    return {
      columns: columns.map((column, at) => ({
        heading: sure(read.headings[at]),
        ...column,
        set: column.meaning === 'group' ? setNamed(sure(table.headings[at]), sets) : null,
        samples: samplesOf(table, at),
      })),
      place: placeOf(table),
      encoding: table.encoding,
      delimiter: table.delimiter,
      hasHeader: table.hasHeader,
      columnProblem: preview.ok ? sayLacking(lacking) : sayColumnProblem(preview),
      rows: rows.map((row) => rowView(row, table.headings, meanings)),
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
      throw problems.invalidInput('You cannot remove yourself from the course. Ask another instructor.');
    const { source } = request;
    const { table: read } = await this.read(person, courseId, source, request.mends);
    const kind = source.kind === 'registrar' ? 'sync' : 'import';
    const result = { added: 0, changed: 0, unchanged: 0, dropped: 0, leftOut: 0 };
    const { changeId, seated } = await this.changes.run(
      person,
      courseId,
      kind,
      async (roster, { manager, now }) => {
        const known = await readSets(manager, courseId, read.classes);
        const table = withKnownSets(read, request.meanings, known);
        const preview = previewImport(table, request.meanings, roster, request.role, known, said(request));
        if (!preview.ok) throw problems.invalidInput(sayColumnProblem(preview));
        if (fingerprint(preview.rows) !== request.fingerprint)
          throw problems.staleWrite(
            null,
            'The class changed since this preview. Check it again; nothing was imported.',
          );

        const leftOut = new Set(request.leaveOutLines);
        const faulty = preview.rows.filter((row) => row.kind === 'problem' && !leftOut.has(row.line));
        if (faulty.length > 0) {
          throw problems.invalidInput(
            `${counted(faulty.length, 'row needs', 'rows need')} you first. Nothing was imported.`,
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
            'The class changed since this preview. Check it again; nothing was imported.',
          );
        const rows = preview.rows.filter((row) => !leftOut.has(row.line));
        const counts = countKinds(rows);
        Object.assign(result, {
          added: counts.new,
          changed: counts.changed,
          unchanged: counts.unchanged,
          dropped: drop.length,
          leftOut: preview.rows.length - rows.length,
        });
        const lacking = lackingGroups(table, request.meanings, rows, known);
        const unmakeable = sayLacking(lacking);
        if (unmakeable !== null) throw problems.invalidInput(unmakeable);
        const sectionsName = source.kind === 'registrar' ? source.setName : 'Sections';
        const onNewGroups = (setId: GroupSetId) => this.hearers.groupsMade({ manager, now, setId, by: you });
        const sets = await makeGroups(
          { manager, making: this.making, courseId, sectionsName, now, onNewGroups },
          lacking,
          read.classes ?? [],
          known,
        );
        return importChange(roster, rows, request.role, drop, newId<'enrolment'>, sets);
      },
      async ({ manager, now }) => {
        if (source.kind === 'registrar')
          await this.registrar.note(manager, courseId, source.course, read, request.meanings, now);
      },
    );
    return { changeId, seated, ...result };
  }

  private async read(
    person: SignedIn,
    courseId: CourseId,
    source: z.output<typeof ImportSource>,
    mends: z.output<typeof PreviewRequest>['mends'],
  ): Promise<ReadSource> {
    if (source.kind === 'paste') {
      const paste = await this.files.paste(person.id, source.text, {
        ...nothingChosen,
        headingLine: source.headingLine,
      });
      if (!paste.ok) throw problems.unreadableFile(sayUnreadablePaste(paste));
      const columns = paste.meanings?.map((meaning) => ({ meaning, sureness: 'sure' as const }));
      return {
        table: mended(paste.table, mends),
        guess: (sets) => columns ?? guessColumns(paste.table, sets),
      };
    }
    if (source.kind === 'file') {
      const bytes = new Uint8Array(Buffer.from(source.contentBase64, 'base64'));
      const { delimiter, sheet, headingLine } = source;
      const result = await this.files.file(person.id, bytes, delimiter, { sheet, headingLine });
      if (!result.ok) throw problems.unreadableFile(sayUnreadable(result));
      return { table: mended(result.table, mends), guess: (sets) => guessColumns(result.table, sets) };
    }
    const table = await this.registrar.roster(person, courseId, source.course);
    const isOfSections = (at: number) => table.headings[at] === 'Section';
    return {
      table: mended(table, mends),
      guess: (sets) =>
        guessColumns(table, sets).map((column, at) =>
          isOfSections(at) ? { meaning: 'section', sureness: 'sure' } : column,
        ),
    };
  }
}

/** The set that a column of groups tells of. */
function setNamed(heading: string, sets: KnownSets): { name: string; isNew: boolean } {
  const { name } = setOfHeading(heading);
  const known = sets.get(setKey(name));
  return { name: known?.name ?? name, isNew: known === undefined };
}

const chosen = (meanings: readonly ColumnMeaning[] | null) =>
  meanings?.map((meaning) => ({ meaning, sureness: 'chosen' as const })) ?? null;

/** A row as someone corrected it stands in the place of the file's. */
function mended(
  table: Table,
  mends: readonly { readonly line: number; readonly cells: readonly string[] }[],
): Table {
  if (mends.length === 0) return table;
  const cellsOf = new Map(mends.map((mend) => [mend.line, mend.cells]));
  return { ...table, rows: table.rows.map((row) => ({ ...row, cells: cellsOf.get(row.line) ?? row.cells })) };
}

const said = ({
  newAddresses,
  newRoles,
}: z.output<typeof PreviewRequest | typeof ImportRequest>): SaidOfLines => ({
  newAddresses: new Set(newAddresses),
  newRoles: new Set(newRoles),
});

const fingerprint = (rows: readonly PreviewRow[]) =>
  createHash('sha256').update(JSON.stringify(rows)).digest('base64url');
