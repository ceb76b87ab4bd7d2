import { Link, useLocation } from 'react-router';
import { styled } from 'styled-components';
import type { Figures } from '@jigsaw/contract/track';
import { seamPath } from '../look/index.js';
import { stationOf, stationsOf } from './stations.js';
import type { Side } from './stations.js';

const height = 56;
const knob = 52;
/** Which neighbour owns the tab at each seam. */
const owners = ['left', 'right', 'left', 'right'] as const;

const Nav = styled.nav`
  display: flex;
  flex: 1;
  border-left: var(--hair);
  border-right: var(--hair);
  min-width: 0;
  &[data-student] {
    flex: 0 1 520px;
    margin-left: auto;
  }
  @media (max-width: 700px) {
    &[data-student] {
      position: fixed;
      left: 0;
      right: 0;
      bottom: 0;
      height: 58px;
      border: 0;
      border-top: 1px solid var(--ink);
      background: var(--surface);
      z-index: var(--z-track);
    }
  }
`;
const Piece = styled(Link)`
  --fill: var(--surface);
  position: relative;
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 2px;
  padding: 0 var(--s-3) 0 26px;
  background: var(--fill);
  text-decoration: none;
  &:first-child {
    padding-left: 18px;
  }
  &[data-owner] {
    z-index: 1;
  }
  &:hover {
    --fill: var(--sunk);
  }
  &[aria-current] {
    --fill: var(--ink);
    color: var(--on-ink);
  }
  &:focus-visible {
    outline-offset: -4px;
    z-index: 2;
  }
  &[aria-current]:focus-visible {
    outline-color: var(--on-ink);
  }
  b {
    font: var(--h-14);
    font-size: 15px;
  }
  span {
    font: var(--t-12);
    color: var(--ink-2);
    align-self: flex-start;
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  @media (max-width: 900px) {
    padding-left: 20px;
    padding-right: 4px;
    /* Figures take a second line before they lose a word. */
    span {
      white-space: normal;
      line-height: 13px;
      max-height: 26px;
    }
  }
  &[aria-current] span {
    color: inherit;
    opacity: 0.86;
  }
  span[data-needs],
  &[aria-current] span[data-needs] {
    opacity: 1;
    color: var(--on-attn);
    background: var(--attn);
    border-radius: var(--r-1);
    padding: 0 5px;
    margin-left: -1px;
    font-weight: 600;
  }
  svg {
    position: absolute;
    top: 0;
    overflow: visible;
  }
  svg[data-side='right'] {
    left: 100%;
  }
  svg[data-side='left'] {
    left: 0;
  }
  svg path:first-child {
    fill: var(--fill);
  }
  svg path:last-child {
    fill: none;
    stroke: var(--line-2);
    stroke-width: 1.25;
  }
  &[aria-current] svg path:last-child {
    stroke: var(--ink);
  }
`;

function Seam({ side }: { readonly side: 'left' | 'right' }) {
  const path = seamPath(height, knob, side);
  return (
    <svg data-side={side} width="1" height={height} viewBox={`0 0 1 ${height}`} aria-hidden="true">
      <path d={`${path}Z`} />
      <path d={path} />
    </svg>
  );
}

interface TrackProps {
  readonly base: string;
  readonly side: Side;
  /** undefined: they are being counted. */
  readonly figures: Figures | undefined;
  readonly toCheck?: number | undefined;
}

/** The order of the work is the navigation; each piece says where someone is needed. */
export function Track({ base, side, figures, toCheck }: TrackProps) {
  const { pathname } = useLocation();
  const stations = stationsOf(side, figures, toCheck);
  const here = stationOf(pathname.slice(base.length + 1), side)?.path;
  return (
    <Nav aria-label="Stations" data-student={side === 'student' || undefined}>
      {stations.map((station, at) => {
        const ownsLeft = at > 0 && owners[at - 1] === 'right';
        const ownsRight = at < stations.length - 1 && owners[at] === 'left';
        return (
          <Piece
            key={station.path}
            to={`${base}/${station.path}`}
            aria-current={station.path === here ? 'page' : undefined}
            data-owner={ownsLeft || ownsRight || undefined}
          >
            {ownsLeft && <Seam side="left" />}
            {ownsRight && <Seam side="right" />}
            <b>{station.label}</b>
            {/* Its place is kept, so that nothing moves when it comes. */}
            <span data-needs={station.needs || undefined}>{station.figure ?? '\u00a0'}</span>
          </Piece>
        );
      })}
    </Nav>
  );
}
