import { useEffect } from 'react';
import { createPortal } from 'react-dom';
import { createGlobalStyle, styled } from 'styled-components';
import type { CSSProperties } from 'react';
import { useCourse } from '../course/index.js';
import { hueOfGroup } from '../look/index.js';
import { stateWords } from '../release/index.js';
import type { SightColumn } from './columns.js';
import { Legend } from './Legend.js';
import type { SightLine } from './lines.js';
import { SightGlyph } from './SightGlyph.js';
import { sayCell } from './words.js';

/** On paper there is the matrix, whole, and nothing around it. */
const OnlyIt = createGlobalStyle`
  @media print {
    body > :not([data-printed]) {
      display: none;
    }
  }
  @media screen {
    [data-printed] {
      display: none;
    }
  }
`;
const Paper = styled.div`
  padding: 0;
  color: var(--ink);
  print-color-adjust: exact;
  table {
    width: 100%;
    border-collapse: collapse;
    margin-bottom: 16px;
    font: var(--t-12);
  }
  caption {
    text-align: left;
    font: var(--h-14);
    padding-bottom: 4px;
  }
  tr {
    break-inside: avoid;
  }
  th,
  td {
    border: 1px solid var(--edge);
    padding: 2px 4px;
    text-align: center;
    font-weight: 500;
  }
  th[scope='row'],
  th[colspan] {
    text-align: left;
  }
`;
/** So many columns can be read across a page at the most; several blocks have as many as one another. */
const mostAcross = 14;
const noHue = {
  '--hue': 'var(--ink-2)',
  '--hue-ink': 'var(--ink)',
  '--hue-tint': 'var(--sunk)',
} as CSSProperties;

interface PrintedProps {
  readonly title: string;
  readonly when: string;
  readonly lines: readonly SightLine[];
  readonly columns: readonly SightColumn[];
  readonly onDone: () => void;
}

/** The whole matrix for paper, in blocks of columns; asks for the print by itself, and is gone afterwards. */
export function Printed({ title, when, lines, columns, onDone }: PrintedProps) {
  const { dates } = useCourse();
  useEffect(() => {
    window.addEventListener('afterprint', onDone);
    window.print();
    return () => window.removeEventListener('afterprint', onDone);
  }, [onDone]);
  const dayOf = (at: number) => dates.day(new Date(at).toISOString()).split(' ')[1] ?? '';
  const blocks = Math.ceil(columns.length / mostAcross);
  const across = Math.ceil(columns.length / blocks);
  return createPortal(
    <Paper data-printed="" aria-hidden="true">
      <OnlyIt />
      {Array.from({ length: blocks }, (_, block) => {
        const from = block * across;
        const shown = columns.slice(from, from + across);
        return (
          <table key={from}>
            <caption>
              {title}, {when}
            </caption>
            <thead>
              <tr>
                <th scope="col">Activity</th>
                {shown.map(({ key, name }) => (
                  <th key={key} scope="col">
                    {name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {lines.map((line) =>
                line.kind === 'state' ? (
                  <tr key={line.state}>
                    <th colSpan={shown.length + 1}>{stateWords[line.state]}</th>
                  </tr>
                ) : (
                  <tr key={line.activity.activityId}>
                    <th scope="row">{line.activity.title}</th>
                    {shown.map((column, index) => {
                      const cell = line.cells[from + index];
                      return (
                        <td
                          key={column.key}
                          title={cell && sayCell(cell, dates, column.of.kind)}
                          style={column.number === null ? noHue : hueOfGroup(column.number)}
                        >
                          {cell && (
                            <SightGlyph cell={cell} number={column.number} isBanded={false} dayOf={dayOf} />
                          )}
                        </td>
                      );
                    })}
                  </tr>
                ),
              )}
            </tbody>
          </table>
        );
      })}
      <Legend />
    </Paper>,
    document.body,
  );
}
