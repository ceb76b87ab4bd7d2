import { styled } from 'styled-components';
import type { SightCell } from '@jigsaw/core/sightlines';
import { Emblem } from '../look/index.js';
import { isPartial, shortLater } from './words.js';

const Glyph = styled.span`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 1px;
  b {
    font: 700 11px/14px var(--font-text);
    letter-spacing: -0.02em;
    color: var(--ink);
  }
`;
const Nothing = styled.i`
  display: inline-block;
  vertical-align: middle;
  width: 8px;
  height: 1.5px;
  background: var(--edge);
`;

const Pill = styled.b`
  display: inline-block;
  vertical-align: middle;
  min-width: 36px;
  height: 18px;
  padding: 0 6px;
  border-radius: 9px;
  background: var(--ink-2);
  color: var(--on-ink);
  font: 700 11px/18px var(--font-text);
  text-align: center;
  &[data-later] {
    background: none;
    border: 1.5px dashed var(--ink-2);
    color: var(--ink);
    line-height: 15px;
  }
`;

interface SightGlyphProps {
  readonly cell: SightCell;
  /** null: of students in no group. */
  readonly number: number | null;
  /** What all have in common is one band across the line. */
  readonly isBanded: boolean;
  /** The day of the month on which something comes. */
  readonly dayOf: (at: number) => string;
}

/** What a group sees, as a piece: its fill says whose it is, the mark inside what may be done. */
export function SightGlyph({ cell, number: ofGroup, isBanded, dayOf }: SightGlyphProps) {
  const { code, from, laterMs, isClosed } = cell;
  // Any piece will do; the page gives it no group's hue.
  const piece = { number: ofGroup ?? 3, isOfNoGroup: ofGroup === null };
  if (code === 'none') return <Nothing />;
  if (code === 'common')
    return isBanded ? null : (
      <Pill data-later={from === null ? undefined : ''}>
        {from !== null ? dayOf(from) : isPartial(cell) ? `${cell.see}/${cell.members}` : null}
      </Pill>
    );
  if (from !== null)
    return (
      <Glyph>
        <Emblem {...piece} size={28} look="pale" inside={dayOf(from)} />
      </Glyph>
    );
  if (code === 'listed' || code === 'along')
    return (
      <Glyph>
        <Emblem {...piece} size={26} look="line" shape={code === 'along' ? 'dot' : 'bar'} />
      </Glyph>
    );
  const beside = isPartial(cell)
    ? `${cell.see}/${cell.members}`
    : laterMs === null
      ? null
      : shortLater(laterMs);
  return (
    <Glyph>
      <Emblem
        {...piece}
        size={beside === null ? 26 : 22}
        look={code === 'elsewhere' || isClosed ? 'pale' : 'solid'}
        inside={null}
      />
      {beside !== null && <b>{beside}</b>}
    </Glyph>
  );
}
