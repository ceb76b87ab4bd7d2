import { Fragment } from 'react';
import { ToggleButton } from 'react-aria-components';
import { styled } from 'styled-components';
import type { HalfDay } from '@jigsaw/core/course';
import { days, halfDays, writeHalfDays } from '@jigsaw/core/course';

const square = 7;
const step = square + 2;

/** The week in small: morning above, afternoon below, filled where free. The weekend is drawn only if it is used. */
export function HalfDayMarks({ free }: { readonly free: ReadonlySet<HalfDay> }) {
  const shown = [...free].some((each) => /^(Sat|Sun)/.test(each)) ? days : days.slice(0, 5);
  return (
    <svg
      role="img"
      aria-label={writeHalfDays(free)}
      width={shown.length * step}
      height={2 * step}
      style={{ verticalAlign: 'middle' }}
    >
      <title>{writeHalfDays(free)}</title>
      {shown.map((day, at) =>
        (['am', 'pm'] as const).map((half, below) => (
          <rect
            key={half}
            x={at * step + 0.5}
            y={below * step + 0.5}
            width={square}
            height={square}
            rx={1}
            fill={free.has(`${day} ${half}`) ? 'var(--ink)' : 'none'}
            stroke={free.has(`${day} ${half}`) ? 'var(--ink)' : 'var(--edge)'}
          />
        )),
      )}
    </svg>
  );
}

const Week = styled.div`
  display: grid;
  grid-template-columns: auto repeat(7, 34px);
  gap: 4px;
  align-items: center;
  width: max-content;
  font: 600 11px/16px var(--font-text);
  color: var(--ink-2);
  text-align: center;
  button {
    height: 28px;
    border: 1px solid var(--edge);
    border-radius: var(--r-1);
    background: var(--surface);
    cursor: pointer;
  }
  button[data-selected] {
    background: var(--ink);
    border-color: var(--ink);
  }
`;

/** The same to be filled in: a press on a half-day makes it free or not. */
export function HalfDayGrid({
  free,
  onChange,
}: {
  readonly free: ReadonlySet<HalfDay>;
  readonly onChange: (free: ReadonlySet<HalfDay>) => void;
}) {
  const toggle = (each: HalfDay) => {
    const next = new Set(free);
    if (!next.delete(each)) next.add(each);
    onChange(next);
  };
  return (
    <Week role="group" aria-label="Free half-days">
      <span />
      {days.map((day) => (
        <span key={day}>{day}</span>
      ))}
      {(['am', 'pm'] as const).map((half) => (
        <Fragment key={half}>
          <span>{half === 'am' ? 'Morning' : 'Afternoon'}</span>
          {halfDays
            .filter((each) => each.endsWith(half))
            .map((each) => (
              <ToggleButton
                key={each}
                aria-label={each}
                isSelected={free.has(each)}
                onChange={() => toggle(each)}
              />
            ))}
        </Fragment>
      ))}
    </Week>
  );
}
