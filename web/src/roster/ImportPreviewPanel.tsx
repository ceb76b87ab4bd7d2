import { useMemo, useState } from 'react';
import { styled } from 'styled-components';
import type { ImportPreview, PreviewRowView } from '@jigsaw/contract/import';
import type { EnrolmentId } from '@jigsaw/core/ids';
import type { Delimiter } from '@jigsaw/core/files';
import { ProblemStrip } from '../api/index.js';
import { DelimiterChoice, isDelimiter } from '../form/index.js';
import { Bar, Choice, Page, Small, Tag } from '../look/index.js';
import { ImportFoot } from './ImportFoot.js';
import { ImportPlace } from './ImportPlace.js';
import { Columns, Rows } from './importLook.js';
import type { ImportRow } from './ImportRows.js';
import { ImportRows } from './ImportRows.js';
import type { SaidOfLine } from './useImport.js';
import { counted } from '@jigsaw/core/text';

const Frame = styled(Page)`
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  h1 {
    flex: none;
    max-width: 300px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const meaningWords = {
  email: 'Email',
  name: 'Full name',
  'given-name': 'Given name',
  'family-name': 'Family name',
  reading: 'Name in Latin letters',
  number: 'Number',
  role: 'Role',
  section: 'Section',
  group: 'Group of a set',
  attribute: 'An attribute',
  'left-out': 'Not imported',
} as const;
type Meaning = keyof typeof meaningWords;
const meaningChoices = Object.entries(meaningWords).map(([id, label]) => ({ id: id as Meaning, label }));
const formatWords: Readonly<Record<string, string>> = {
  spreadsheet: 'spreadsheet',
  bundle: 'OneRoster bundle',
};
const surenessWords = { sure: 'Sure, by its heading', guess: 'A guess', chosen: 'As you chose' } as const;

interface PanelProps {
  readonly title: string;
  readonly preview: ImportPreview;
  readonly isBusy: boolean;
  readonly error: unknown;
  readonly onMeanings: (meanings: Meaning[]) => void;
  /** Reads the file again with this sheet and these headings. */
  readonly onPlace: (chosen: { readonly sheet: number; readonly headingLine: number | null }) => void;
  /** Reads the file again with this between its columns; undefined: it is no file of text. */
  readonly onDelimiter: ((delimiter: Delimiter) => void) | undefined;
  /** Someone's corrections of faulty rows, by line. */
  readonly mends: ReadonlyMap<number, readonly string[]>;
  readonly onMend: (line: number, cells: readonly string[] | null) => void;
  readonly onSayOfLines: (what: SaidOfLine, lines: readonly number[], isSo: boolean) => void;
  /** Whether people not in the file are shown: a short list of latecomers is not the class. */
  readonly hasMissing: boolean;
  readonly onImport: (leaveOutLines: number[], drop: EnrolmentId[]) => void;
  readonly onCancel: () => void;
}

const ranks = { problem: 0, changed: 2, new: 3, unchanged: 4 };
const rankOf = (row: PreviewRowView) => ('otherRole' in row && row.otherRole ? 1 : ranks[row.kind]);

/** What the file means, what it would change, and what is wrong with it, line by line. */
export function ImportPreviewPanel({
  title,
  preview,
  isBusy,
  error,
  mends,
  hasMissing,
  onMeanings,
  onPlace,
  onDelimiter,
  onMend,
  onSayOfLines,
  onImport,
  onCancel,
}: PanelProps) {
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null); // state, not a ref: the rows below are drawn once it is there
  const [leftOut, setLeftOut] = useState<ReadonlySet<number>>(new Set());
  const [drop, setDrop] = useState<ReadonlySet<EnrolmentId>>(
    () => new Set(preview.missing.flatMap((person) => (person.isDropped ? [person.enrolmentId] : []))),
  );
  const { counts, columns } = preview;
  const faulty = preview.rows.filter((row) => row.kind === 'problem');
  const open = faulty.filter((row) => !leftOut.has(row.line));
  const missing = hasMissing ? preview.missing : [];
  const leaving = missing.filter((person) => drop.has(person.enrolmentId));
  // Faults first, then what is to be said, then what changes; what stays as it is comes last.
  const sorted = useMemo((): ImportRow[] => {
    const rows = preview.rows.toSorted((a, b) => rankOf(a) - rankOf(b) || a.line - b.line);
    const at = rows.findIndex((row) => rankOf(row) === ranks.unchanged);
    const absent = hasMissing ? preview.missing.map((person) => ({ kind: 'missing' as const, person })) : [];
    return at < 0 ? [...rows, ...absent] : [...rows.slice(0, at), ...absent, ...rows.slice(at)];
  }, [preview.rows, preview.missing, hasMissing]);
  const toggleDrop = (id: EnrolmentId) =>
    setDrop((before) => {
      const next = new Set(before);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const toggle = (line: number) =>
    setLeftOut((before) => {
      const next = new Set(before);
      if (!next.delete(line)) next.add(line);
      return next;
    });
  return (
    <Frame>
      <Bar>
        <h1>{title}</h1>
        <Small style={{ flex: 'none' }}>
          {counted(preview.rows.length, 'row')}, {counted(columns.length, 'column')},{' '}
          {formatWords[preview.delimiter] ?? preview.encoding}
        </Small>
        {onDelimiter && isDelimiter(preview.delimiter) && (
          <DelimiterChoice value={preview.delimiter} onChange={onDelimiter} />
        )}
        {preview.place && <ImportPlace place={preview.place} onChoose={onPlace} />}
        <span className="grow" />
        <span>
          <b>{counts.new}</b> new · <b>{counts.changed}</b> changed · <b>{counts.unchanged}</b> unchanged
          {missing.length > 0 && (
            <>
              {' '}
              · <b>{missing.length}</b> not in the file
            </>
          )}
        </span>
        {counts.problem > 0 && (
          <Tag $look={open.length > 0 ? 'needs' : 'plain'}>
            {counted(counts.problem, 'row needs', 'rows need')} you
          </Tag>
        )}
      </Bar>
      <Columns role="group" aria-label="What the columns mean">
        {columns.map((column, at) => (
          <div key={at} data-out={column.meaning === 'left-out' || undefined}>
            <Choice
              label={`Meaning of ${column.heading}`}
              isLabelHidden
              value={column.meaning}
              choices={meaningChoices}
              onChange={(meaning) =>
                onMeanings(columns.map((each, index) => (index === at ? meaning : each.meaning)))
              }
            />
            <code>{column.heading}</code>
            <Small>{saySure(column)}</Small>
            <Small className="samples">{column.samples.join(' · ').slice(0, 60)}</Small>
          </div>
        ))}
      </Columns>
      <Rows ref={setScroller} tabIndex={0} role="region" aria-label="Rows">
        {preview.warning && <ProblemStrip>{preview.warning}</ProblemStrip>}
        {(preview.columnProblem || Boolean(error)) && (
          <ProblemStrip of={error}>{preview.columnProblem ?? undefined}</ProblemStrip>
        )}
        {sorted.length > 0 && (
          <ImportRows
            rows={sorted}
            columns={columns}
            leftOut={leftOut}
            onToggle={toggle}
            drop={drop}
            onDrop={toggleDrop}
            mends={mends}
            onMend={onMend}
            onSayOfLine={(what, line, isSo) => onSayOfLines(what, [line], isSo)}
            scroller={scroller}
          />
        )}
      </Rows>
      <ImportFoot
        {...{ preview, leftOut, open, missing, leaving, isBusy, onSayOfLines, onCancel }}
        onSkipAll={() => setLeftOut(new Set([...leftOut, ...open.map((row) => row.line)]))}
        onRemoveAll={() => setDrop(new Set(missing.map((person) => person.enrolmentId)))}
        onImport={() =>
          onImport(
            [...leftOut],
            leaving.map((person) => person.enrolmentId),
          )
        }
      />
    </Frame>
  );
}

/** “Sure, by its heading”; of a column of groups, which set they are in. */
function saySure({ sureness, set }: ImportPreview['columns'][number]): string {
  if (set) return set.isNew ? `New group set “${set.name}”` : `Groups of ${set.name}`;
  return surenessWords[sureness];
}
