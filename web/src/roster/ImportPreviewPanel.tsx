import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useState } from 'react';
import { styled } from 'styled-components';
import type { ImportPreview, PreviewRowView } from '@jigsaw/contract/roster';
import { ProblemStrip } from '../api/index.js';
import { Bar, Button, Choice, Page, PersonName, Small, Tag } from '../look/index.js';

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
`;
const Foot = styled.footer`
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 56px;
  padding: 8px var(--s-4);
  border-top: 1px solid var(--ink);
  background: var(--paper);
  .grow {
    flex: 1;
  }
`;

const meaningWords = {
  email: 'Mail address',
  name: 'Full name',
  'given-name': 'Given name',
  'family-name': 'Family name',
  reading: 'Name in Latin letters',
  number: 'Number',
  attribute: 'An attribute',
  'left-out': 'Left out',
} as const;
type Meaning = keyof typeof meaningWords;
const meaningChoices = Object.entries(meaningWords).map(([id, label]) => ({ id: id as Meaning, label }));
const delimiterWords: Readonly<Record<string, string>> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };
const surenessWords = { sure: 'Sure, by its heading', guess: 'A guess', chosen: 'As you chose' } as const;

interface PanelProps {
  readonly title: string;
  readonly preview: ImportPreview;
  readonly isBusy: boolean;
  readonly error: unknown;
  readonly onMeanings: (meanings: Meaning[]) => void;
  readonly onBringIn: (leaveOutLines: number[]) => void;
  readonly onPutAside: () => void;
}

/** What the file means, what it would change, and what is wrong with it, line by line. */
export function ImportPreviewPanel({ title, preview, isBusy, error, onMeanings, onBringIn, onPutAside }: PanelProps) {
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null); // state, not a ref: the rows below are drawn once it is there
  const [leftOut, setLeftOut] = useState<ReadonlySet<number>>(new Set());
  const { counts, columns } = preview;
  const faulty = preview.rows.filter((row) => row.kind === 'problem');
  const open = faulty.filter((row) => !leftOut.has(row.line));
  // Faults first, then what changes; what stays as it is comes last.
  const sorted = useMemo(() => {
    const rank = { problem: 0, changed: 1, new: 2, unchanged: 3 };
    return preview.rows.toSorted((a, b) => rank[a.kind] - rank[b.kind] || a.line - b.line);
  }, [preview.rows]);
  const toggle = (line: number) =>
    setLeftOut((before) => {
      const next = new Set(before);
      if (!next.delete(line)) next.add(line);
      return next;
    });
  const sure = counts.new + counts.changed;
  const why =
    preview.columnProblem ??
    (open.length > 0 ? `${open.length} ${open.length === 1 ? 'row needs' : 'rows need'} you first` : sure === 0 ? 'Nothing in it is new' : null);
  return (
    <Frame>
      <Bar>
        <h1>{title}</h1>
        <Small>
          {preview.rows.length} rows, {columns.length} columns, {delimiterWords[preview.delimiter] ?? preview.delimiter}, {preview.encoding}
          {preview.hasHeader ? '' : ', no header'}
        </Small>
        <span className="grow" />
        <span>
          <b>{counts.new}</b> new · <b>{counts.changed}</b> changed · <b>{counts.unchanged}</b> unchanged
        </span>
        {counts.problem > 0 && <Tag $look={open.length > 0 ? 'needs' : 'plain'}>{counts.problem} need you</Tag>}
      </Bar>
      <Columns role="group" aria-label="What the columns mean">
        {columns.map((column, at) => (
          <div key={at} data-out={column.meaning === 'left-out' || undefined}>
            <Choice
              label={`Meaning of ${column.heading}`}
              isLabelHidden
              value={column.meaning}
              choices={meaningChoices}
              onChange={(meaning) => onMeanings(columns.map((each, index) => (index === at ? meaning : each.meaning)))}
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
        {(preview.columnProblem || Boolean(error)) && <ProblemStrip of={error}>{preview.columnProblem ?? undefined}</ProblemStrip>}
        {sorted.length > 0 && <RowTable rows={sorted} leftOut={leftOut} onToggle={toggle} scroller={scroller} />}
      </Rows>
      <Foot>
        <span>Nothing has changed yet. All of it comes in, or nothing.</span>
        <span className="grow" />
        {open.length > 1 && (
          <Button kind="quiet" onPress={() => setLeftOut(new Set(faulty.map((row) => row.line)))}>
            Leave all {open.length} out
          </Button>
        )}
        <Button onPress={onPutAside}>Put it aside</Button>
        {why && <Small>{why}</Small>}
        <Button kind="main" isDisabled={why !== null || isBusy} onPress={() => onBringIn([...leftOut])}>
          {isBusy ? 'One moment…' : `Bring in ${sure} ${sure === 1 ? 'row' : 'rows'}`}
        </Button>
      </Foot>
    </Frame>
  );
}

interface RowTableProps {
  readonly rows: readonly PreviewRowView[];
  readonly leftOut: ReadonlySet<number>;
  readonly onToggle: (line: number) => void;
  readonly scroller: HTMLDivElement | null;
}

/** Only the rows in view are in the page; the space of the others is held by one row above and one below. */
function RowTable({ rows, leftOut, onToggle, scroller }: RowTableProps) {
  // eslint-disable-next-line react-hooks/incompatible-library -- its answers change with scrolling, which re-renders this component by itself
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller,
    estimateSize: () => 29,
    overscan: 12,
    initialRect: { width: 1280, height: 600 },
  });
  const shown = virtual.getVirtualItems();
  const above = shown[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (shown.at(-1)?.end ?? 0);
  return (
    <table aria-rowcount={rows.length + 1}>
      <thead>
        <tr aria-rowindex={1}>
          <th>Line</th>
          <th>What happens</th>
          <th>Person</th>
          <th>Details</th>
          <th aria-label="Choice" />
        </tr>
      </thead>
      <tbody>
        {above > 0 && <tr aria-hidden="true" style={{ height: above }} />}
        {shown.map(({ index }) => {
          const row = rows[index]!;
          return (
            <RowView
              key={row.line}
              row={row}
              index={index}
              isOut={leftOut.has(row.line)}
              onToggle={() => onToggle(row.line)}
              measure={virtual.measureElement}
            />
          );
        })}
        {below > 0 && <tr aria-hidden="true" style={{ height: below }} />}
      </tbody>
    </table>
  );
}

const kindWords = { new: 'Added', changed: 'Changed', unchanged: 'Stays', problem: 'Needs you' } as const;

interface RowViewProps {
  readonly row: PreviewRowView;
  readonly index: number;
  readonly isOut: boolean;
  readonly onToggle: () => void;
  readonly measure: (element: HTMLElement | null) => void;
}

function RowView({ row, index, isOut, onToggle, measure }: RowViewProps) {
  const place = { ref: measure, 'data-index': index, 'aria-rowindex': index + 2 };
  if (row.kind === 'problem') {
    return (
      <tr {...place} data-kind="problem" data-out={isOut || undefined}>
        <td>{row.line}</td>
        <td>{isOut ? <Tag>Left out</Tag> : <Tag $look="needs">Needs you</Tag>}</td>
        <td>
          <code>{row.cells.join(' │ ').slice(0, 90)}</code>
        </td>
        <td className="wrap">{row.sentences.join(' ')}</td>
        <td>
          <Button isSmall onPress={onToggle}>
            {isOut ? 'Take it in after all' : 'Leave it out'}
          </Button>
        </td>
      </tr>
    );
  }
  const { person } = row;
  const details =
    row.kind === 'changed'
      ? row.changes.map((change) => `${change.field}: ${change.from || 'nothing'} → ${change.to || 'nothing'}`)
      : [person.number, ...Object.entries(person.attributes).map(([key, value]) => `${key} ${value}`)];
  return (
    <tr {...place} data-kind={row.kind}>
      <td>{row.line}</td>
      <td>{kindWords[row.kind]}</td>
      <td>
        <b>
          <PersonName name={person.name} reading={person.reading} />
        </b>{' '}
        <Small>{person.email}</Small>
      </td>
      <td>
        <Small>{details.filter(Boolean).join(' · ')}</Small>
      </td>
      <td />
    </tr>
  );
}
