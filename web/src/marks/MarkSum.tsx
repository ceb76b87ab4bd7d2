import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { seamPath } from '../look/index.js';

/** Pieces that lock together, left to right: how one number becomes another. */
export const SumStrip = styled.div<{ $height: number }>`
  display: flex;
  height: ${({ $height }) => $height}px;
  background: var(--surface);
  @media (max-width: 700px) {
    flex-direction: column;
    height: auto;
  }
`;
const Piece = styled.div`
  --fill: var(--surface);
  position: relative;
  background: var(--fill);
  padding: 0 14px 0 28px;
  display: flex;
  align-items: center;
  gap: 10px;
  font: var(--t-12);
  color: var(--ink-2);
  white-space: nowrap;
  &:first-child {
    padding-left: 16px;
  }
  strong {
    font: var(--h-32);
    font-size: 30px;
    color: var(--ink);
    letter-spacing: -0.03em;
  }
  strong small {
    font: 500 15px/1 var(--font-text);
    color: var(--ink-2);
    letter-spacing: 0;
  }
  &[data-look='late'] strong {
    background: var(--attn-tint);
    box-shadow: inset 0 0 0 1px var(--attn-line);
    color: var(--attn-ink);
    padding: 0 7px;
    border-radius: var(--r-1);
    font-size: 24px;
    line-height: 32px;
  }
  &[data-look='net'] {
    --fill: var(--hue);
    color: var(--on-hue);
  }
  &[data-look='own'] {
    --fill: var(--ink);
    color: var(--on-ink);
    flex: 1;
  }
  &[data-look='net'] strong,
  &[data-look='net'] strong small,
  &[data-look='own'] strong,
  &[data-look='own'] strong small {
    color: inherit;
  }
  > svg {
    position: absolute;
    top: 0;
    left: 100%;
    overflow: visible;
    z-index: 1;
  }
  > svg path:first-child {
    fill: var(--fill);
  }
  > svg path:last-child {
    fill: none;
    stroke: var(--line-2);
    stroke-width: 1.25;
  }
  &[data-look='net'] > svg path:last-child {
    stroke: var(--hue);
  }
  @media (max-width: 700px) {
    padding: 12px 16px;
    white-space: normal;
    border-bottom: var(--hair);
    > svg {
      display: none;
    }
  }
`;

interface SumPieceProps {
  readonly look?: 'plain' | 'late' | 'net' | 'own';
  readonly figure: ReactNode;
  readonly says: ReactNode;
  readonly height: number;
  readonly isLast?: boolean;
}

export function SumPiece({ look = 'plain', figure, says, height, isLast }: SumPieceProps) {
  const path = seamPath(height, 50, 'right');
  return (
    <Piece data-look={look}>
      <strong>{figure}</strong>
      <span>{says}</span>
      {!isLast && (
        <svg width="1" height={height} viewBox={`0 0 1 ${height}`} aria-hidden="true">
          <path d={`${path}Z`} />
          <path d={path} />
        </svg>
      )}
    </Piece>
  );
}
