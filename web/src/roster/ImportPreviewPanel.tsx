import { useMemo, useState } from 'react';
import { styled } from 'styled-components';
import type { ImportPreview } from '@jigsaw/contract/roster';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { Delimiter } from '@jigsaw/core/files';
import { ProblemStrip } from '../api/index.js';
import { DelimiterChoice, isDelimiter } from '../form/index.js';
import { Bar, Button, Choice, Page, Small, Tag, FootBar } from '../look/index.js';
import type { ImportRow } from './ImportRows.js';
import { ImportRows } from './ImportRows.js';
import { counted } from '@jigsaw/core/text';

const Frame = styled(Page)`
  grid-template-rows: auto auto minmax(0, 1fr) auto;
`;
const Columns = styled.div`
  display: flex;
  overflow-x: auto;
  border-bottom: 1px solid var(--ink);
  background: var(--surface);
  > div {
    flex: 1 0 170px;
    padding: 10px 12px;
    border-left: var(--hair);
    display: grid;
    gap: 4px;
    align-content: start;
    min-width: 0;
  }
  > div:first-child {
    border-left: 0;
    padding-left: var(--s-4);
  }
  > div[data-out] {
    background: var(--paper);
  }
  code {
    font: 600 12px/16px var(--font-mono);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;
const Rows = styled.div`
  overflow: auto;
  background: var(--surface);
  td,
  th {
    height: 28px;
    padding: 0 8px;
    border-bottom: var(--hair);
    white-space: nowrap;
  }
  th {
    position: sticky;
    top: 0;
    background: var(--surface);
    border-bottom: 1px solid var(--ink);
    height: 32px;
  }
  td:first-child,
  th:first-child {
    padding-left: var(--s-4);
    width: 60px;
    color: var(--ink-2);
  }
  tr[data-kind='problem'] td {
    background: var(--attn-tint);
  }
  tr[data-out] td {
    text-decoration: line-through;
    color: var(--ink-3);
    background: none;
  }
  tr[data-out] td:last-child {
    text-decoration: none;
  }
  code {
    font: 12px/16px var(--font-mono);
  }
  td.wrap {
    white-space: normal;
    padding: 5px 8px;
  }
  td form {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: end;
    padding: 6px 0;
  }
  td form label {
    display: grid;
    flex: 1 1 130px;
    max-width: 300px;
    gap: 1px;
    font: 600 11px/14px var(--font-text);
    color: var(--ink-2);
  }
  td form input {
    height: 28px;
    width: 100%;
    padding: 0 7px;
    border: 1px solid var(--edge);
    border-radius: var(--r-1);
    background: var(--surface);
    color: var(--ink);
    font: 12px/16px var(--font-mono);
  }
  tr[data-kind='missing'][data-out] td {
    text-decoration: none;
    color: var(--ink);
    background: var(--attn-tint);
  }
`;

const meaningWords = {
  email: 'Mail address',
  name: 'Full name',
  'given-name': 'Given name',
  'family-name': 'Family name',
  reading: 'Name in Latin letters',
  number: 'Number',
  role: 'Role',
  section: 'Section',
  group: 'Group of a set',
  attribute: 'An attribute',
  'left-out': 'Left out',
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
  /** Reads the file again with this between its columns; undefined: it is no file of text. */
  readonly onDelimiter: ((delimiter: Delimiter) => void) | undefined;
  /** Somebody's corrections of faulty rows, by line. */
  readonly mends: ReadonlyMap<number, readonly string[]>;
  readonly onMend: (line: number, cells: readonly string[] | null) => void;
  /** These lines are people who are known by their number, with a new address; or no longer are. */
  readonly onNewAddresses: (lines: readonly number[], have: boolean) => void;
  /** Whether people who are not in it are shown: a short list of latecomers is not the class. */
  readonly hasMissing: boolean;
  readonly onBringIn: (leaveOutLines: number[], drop: EnrolmentId[]) => void;
  readonly onPutAside: () => void;
}

/** What the file means, what it would change, and what is wrong with it, line by line. */
export function ImportPreviewPanel({
  title,
  preview,
  isBusy,
  error,
  mends,
  hasMissing,
  onMeanings,
  onDelimiter,
  onMend,
  onNewAddresses,
  onBringIn,
  onPutAside,
}: PanelProps) {
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null); // state, not a ref: the rows below are drawn once it is there
  const [leftOut, setLeftOut] = useState<ReadonlySet<number>>(new Set());
  const [drop, setDrop] = useState<ReadonlySet<EnrolmentId>>(
    () => new Set(preview.missing.flatMap((person) => (person.isDropped ? [person.enrolmentId] : []))),
  );
  const { counts, columns } = preview;
  const faulty = preview.rows.filter((row) => row.kind === 'problem');
  const open = faulty.filter((row) => !leftOut.has(row.line));
  const readdressed = open.filter((row) => row.mayBe?.isAlike);
  const missing = hasMissing ? preview.missing : [];
  const leaving = missing.filter((person) => drop.has(person.enrolmentId));
  // Faults first, then what changes; what stays as it is comes last.
  const sorted = useMemo((): ImportRow[] => {
    const rank = { problem: 0, changed: 1, new: 2, unchanged: 3 };
    const rows = preview.rows.toSorted((a, b) => rank[a.kind] - rank[b.kind] || a.line - b.line);
    const at = rows.findIndex((row) => row.kind === 'unchanged');
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
  const sure = counts.new + counts.changed;
  const why =
    preview.columnProblem ??
    (open.length > 0
      ? `${counted(open.length, 'row needs', 'rows need')} you first`
      : sure + leaving.length === 0
        ? 'Nothing in it differs from the roster'
        : null);
  return (
    <Frame>
      <Bar>
        <h1>{title}</h1>
        <Small>
          {counted(preview.rows.length, 'row')}, {counted(columns.length, 'column')},{' '}
          {formatWords[preview.delimiter] ?? preview.encoding}
          {preview.hasHeader ? '' : ', no header'}
        </Small>
        {onDelimiter && isDelimiter(preview.delimiter) && (
          <DelimiterChoice value={preview.delimiter} onChange={onDelimiter} />
        )}
        <span className="grow" />
        <span>
          <b>{counts.new}</b> new · <b>{counts.changed}</b> changed · <b>{counts.unchanged}</b> unchanged
          {missing.length > 0 && (
            <>
              {' '}
              · <b>{missing.length}</b> not in it
            </>
          )}
        </span>
        {counts.problem > 0 && (
          <Tag $look={open.length > 0 ? 'needs' : 'plain'}>{counts.problem} need you</Tag>
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
            <Small>
              {surenessWords[column.sureness]}
              {column.samples.length > 0 && `: ${column.samples.join(', ').slice(0, 60)}`}
            </Small>
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
            onNewAddress={(line, has) => onNewAddresses([line], has)}
            scroller={scroller}
          />
        )}
      </Rows>
      <FootBar data-acts>
        <span>
          Nothing has changed yet. All of it comes in, or nothing.
          {preview.newGroups.length > 0 && ` ${preview.newGroups.map(sayNewGroups).join(' ')}`}
        </span>
        <span className="grow" />
        {readdressed.length > 1 && (
          <Button
            kind="quiet"
            onPress={() =>
              onNewAddresses(
                readdressed.map((row) => row.line),
                true,
              )
            }
          >
            Update {readdressed.length} addresses
          </Button>
        )}
        {open.length > 1 && (
          <Button kind="quiet" onPress={() => setLeftOut(new Set(faulty.map((row) => row.line)))}>
            Leave all {open.length} out
          </Button>
        )}
        {missing.length > 1 && leaving.length < missing.length && (
          <Button kind="quiet" onPress={() => setDrop(new Set(missing.map((person) => person.enrolmentId)))}>
            Take out all {missing.length} who are not in it
          </Button>
        )}
        <Button onPress={onPutAside}>Put it aside</Button>
        {why && <Small>{why}</Small>}
        <Button
          kind="main"
          isDisabled={why !== null || isBusy}
          onPress={() =>
            onBringIn(
              [...leftOut],
              leaving.map((person) => person.enrolmentId),
            )
          }
        >
          {isBusy ? 'One moment…' : sayDoing(sure, leaving.length)}
        </Button>
      </FootBar>
    </Frame>
  );
}

const sayDoing = (rows: number, leaving: number): string => {
  const bring = `Bring in ${counted(rows, 'row')}`;
  if (leaving === 0) return bring;
  return rows === 0 ? `Take out ${leaving}` : `${bring}, take out ${leaving}`;
};

/** “New set Bench teams with 12 groups.” */
function sayNewGroups({ set, isNew, groups }: ImportPreview['newGroups'][number]): string {
  const named =
    groups.length > 4
      ? `${groups.length} groups, ${sure(groups[0])} to ${sure(groups.at(-1))}`
      : groups.join(', ');
  if (set === null) return `New, a group for each section: ${named}.`;
  return isNew ? `New set ${set}: ${named}.` : `New in ${set}: ${named}.`;
}
