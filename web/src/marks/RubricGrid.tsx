import { useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { styled } from 'styled-components';
import type { Picks, Rubric } from '@jigsaw/contract/rubric';
import { sure } from '@jigsaw/core/lists';
import { levelOf, mostOf, readPoints } from '@jigsaw/core/marks';
import { Field, Key, Small } from '../look/index.js';

const Head = styled.div`
  display: flex;
  align-items: baseline;
  gap: 10px;
  h3 {
    font: var(--h-17);
  }
  strong {
    margin-left: auto;
    font: var(--h-22);
  }
  strong small {
    font: var(--t-13);
    color: var(--ink-2);
  }
`;
const Grid = styled.div`
  border: var(--hair);
  border-radius: var(--r-2);
  overflow: hidden;
  > div {
    display: grid;
    grid-template-columns: 104px repeat(var(--levels), minmax(0, 1fr)) 56px;
    border-top: var(--hair);
  }
  > div:first-child {
    border-top: 0;
  }
  > div[data-active] {
    background: var(--wash);
  }
  [role='rowheader'] {
    padding: 6px 8px;
    font: 620 12px/16px var(--font-text);
    min-width: 0;
    overflow-wrap: anywhere;
  }
  [role='rowheader'] small {
    display: block;
    font: var(--t-11);
    color: var(--ink-2);
  }
  [role='gridcell'] {
    border: 0;
    border-left: var(--hair);
    border-radius: 0;
    background: none;
    padding: 5px 6px;
    text-align: left;
    font: var(--t-11);
    color: var(--ink-2);
    min-height: 46px;
    min-width: 0;
    overflow: hidden;
    cursor: pointer;
    outline-offset: -3px;
  }
  [role='gridcell'] b {
    display: block;
    color: var(--ink);
    font-weight: 620;
  }
  [role='gridcell']:hover {
    background: var(--wash);
  }
  [role='gridcell'][aria-selected='true'],
  [role='gridcell'][aria-selected='true'] b {
    background: var(--ink);
    color: var(--on-ink);
  }
  label {
    border-left: var(--hair);
    display: grid;
    place-items: center;
  }
  input[role='gridcell'] {
    width: 46px;
    min-height: 0;
    height: 30px;
    border: 1px solid var(--line);
    border-radius: var(--r-1);
    background: var(--surface);
    text-align: right;
    padding: 0 6px;
    font: 650 15px/1 var(--font-text);
  }
  input[role='gridcell']:hover,
  input[role='gridcell']:focus {
    border-color: var(--edge);
    background: var(--surface);
  }
`;

interface RubricGridProps {
  readonly rubric: Rubric;
  readonly picks: Picks;
  readonly points: string;
  /** What it comes to; null while a criterion is unpicked. */
  readonly sum: string | null;
  readonly isDisabled: boolean;
  readonly onPick: (picks: Picks) => void;
}

/** Picking levels: arrows move, a figure picks and goes on to the next criterion, points between two levels are typed at the right. */
export function RubricGrid({ rubric, picks, points, sum, isDisabled, onPick }: RubricGridProps) {
  const { criteria } = rubric;
  const [at, setAt] = useState({ row: 0, column: 0 });
  const [typed, setTyped] = useState<{ readonly id: string; readonly text: string } | null>(null);
  const grid = useRef<HTMLDivElement>(null);
  const active = sure(criteria[Math.min(at.row, criteria.length - 1)]);
  const left = criteria.filter((criterion) => (picks[criterion.id]?.points ?? null) === null).length;

  const put = (criterionId: string, part: Partial<Picks[string]>) =>
    onPick({
      ...picks,
      [criterionId]: { ...(picks[criterionId] ?? { points: null, comment: '' }), ...part },
    });
  const pick = (row: number, column: number) => {
    const criterion = criteria[row];
    const level = criterion?.levels[column];
    if (!criterion || !level || isDisabled) return false;
    const isPicked = picks[criterion.id]?.points === level.points;
    put(criterion.id, { points: isPicked ? null : level.points });
    return true;
  };
  const moveTo = (row: number, column: number) => {
    const next = { row: Math.min(Math.max(row, 0), criteria.length - 1), column: 0 };
    next.column = Math.min(Math.max(column, 0), sure(criteria[next.row]).levels.length - 1);
    setAt(next);
    grid.current?.querySelector<HTMLElement>(`[data-cell="${next.row} ${next.column}"]`)?.focus();
  };
  const onKey = (event: KeyboardEvent) => {
    const steps: Readonly<Record<string, readonly [number, number]>> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    const step = steps[event.key];
    const figure = /^[1-9]$/.test(event.key) ? Number(event.key) - 1 : null;
    if (step) moveTo(at.row + step[0], at.column + step[1]);
    else if (figure !== null && pick(at.row, figure)) moveTo(at.row + 1, figure);
    else if (event.key === 'Backspace' || event.key === 'Delete') {
      if (!isDisabled) put(active.id, { points: null });
    } else return;
    event.preventDefault();
  };
  const type = (id: string, most: string, text: string) => {
    setTyped({ id, text });
    const read = readPoints(text, most);
    if (read.ok) put(id, { points: read.points });
  };

  return (
    <div style={{ display: 'grid', gap: 8 }}>
      <Head>
        <h3>Rubric</h3>
        <Small>
          <Key>1</Key>–<Key>{Math.max(...criteria.map((criterion) => criterion.levels.length))}</Key> pick a
          level
        </Small>
        <strong role="status">
          {sum ?? <small>{left} to pick</small>} {sum !== null && <small>/ {points}</small>}
        </strong>
      </Head>
      <Grid
        ref={grid}
        role="grid"
        aria-label="Rubric"
        aria-readonly={isDisabled || undefined}
        style={{ '--levels': Math.max(...criteria.map((criterion) => criterion.levels.length)) }}
      >
        {criteria.map((criterion, row) => {
          const given = picks[criterion.id]?.points ?? null;
          const picked = levelOf(criterion, given);
          const most = mostOf(criterion);
          return (
            <div key={criterion.id} role="row" data-active={row === at.row || undefined}>
              <span role="rowheader">
                {criterion.name}
                <small>{criterion.description}</small>
              </span>
              {criterion.levels.map((level, column) => (
                <button
                  key={level.id}
                  type="button"
                  role="gridcell"
                  data-cell={`${row} ${column}`}
                  aria-selected={picked?.id === level.id}
                  aria-label={`${criterion.name}: ${level.name}, ${level.points}${level.description ? `, ${level.description}` : ''}`}
                  tabIndex={row === at.row && column === at.column ? 0 : -1}
                  onFocus={() => setAt({ row, column })}
                  onKeyDown={onKey}
                  onClick={() => pick(row, column)}
                >
                  <b>
                    {level.name} {level.points}
                  </b>
                  {level.description}
                </button>
              ))}
              <label>
                <input
                  role="gridcell"
                  inputMode="decimal"
                  aria-label={`Points for ${criterion.name}, of ${most}`}
                  aria-invalid={typed?.id === criterion.id && !readPoints(typed.text, most).ok}
                  value={typed?.id === criterion.id ? typed.text : (given ?? '')}
                  disabled={isDisabled}
                  onFocus={() => setAt({ row, column: 0 })}
                  onChange={(event) => type(criterion.id, most, event.target.value)}
                  onBlur={() => setTyped(null)}
                />
              </label>
            </div>
          );
        })}
      </Grid>
      <Field
        key={active.id}
        label={`On ${active.name}, shown to the student`}
        value={picks[active.id]?.comment ?? ''}
        onChange={(comment) => put(active.id, { comment })}
        isDisabled={isDisabled}
        placeholder="What meets this criterion, and what is missing"
      />
    </div>
  );
}
