import type { CSSProperties } from 'react';
import { styled } from 'styled-components';
import { formOf, hueOf, nudgeOf, piecePath } from './emblem.js';

/** solid: here; line: not theirs to change, or not handed in; pale: still to come; dash: missing. */
export type EmblemLook = 'solid' | 'line' | 'pale' | 'dash';

const Svg = styled.svg`
  flex: none;
  overflow: visible;
  display: block;
  path,
  circle,
  rect {
    fill: var(--hue);
  }
  text {
    font: 700 38px/1 var(--font-head);
    fill: var(--on-hue);
    text-anchor: middle;
    dominant-baseline: central;
    letter-spacing: -0.02em;
  }
  &[data-two] text {
    font-size: 33px;
  }
  &[data-look='line'] path,
  &[data-look='dash'] path {
    fill: none;
    stroke: var(--hue);
    stroke-width: 7;
  }
  &[data-look='dash'] path {
    stroke-dasharray: 11 9;
  }
  &[data-look='pale'] path {
    fill: var(--hue-tint);
    stroke: var(--hue);
    stroke-width: 3.5;
  }
  &:not([data-look='solid']) text {
    fill: var(--hue-ink);
  }
`;

/** The custom properties that give a part of the page a group's hue. */
export function hueOfGroup(number: number): CSSProperties {
  const hue = hueOf(number);
  return {
    '--hue': `var(--g${hue})`,
    '--hue-tint': `var(--g${hue}-tint)`,
    '--hue-ink': `var(--g${hue}-ink)`,
  } as CSSProperties;
}

interface EmblemProps {
  readonly number: number;
  readonly size?: number;
  readonly look?: EmblemLook;
  /** Spoken name; without it the emblem stands beside the name and is hidden from readers. */
  readonly label?: string;
  /** What stands in it in place of its number: a word, a shape, or nothing. */
  readonly inside?: string | null;
  readonly shape?: 'dot' | 'bar';
  /** It takes the hue of what it stands in, not its number's. */
  readonly isOfNoGroup?: boolean;
}

export function Emblem({
  number,
  size = 24,
  look = 'solid',
  label,
  inside,
  shape,
  isOfNoGroup,
}: EmblemProps) {
  const form = formOf(number);
  const { x, y } = nudgeOf(form);
  const word = shape ? null : inside === undefined ? String(number) : inside;
  const text = size >= 22 ? word : null;
  return (
    <Svg
      style={isOfNoGroup ? undefined : hueOfGroup(number)}
      width={size}
      height={size}
      viewBox="0 0 100 100"
      data-look={look}
      data-two={(text?.length ?? 0) > 1 || undefined}
      role={label ? 'img' : undefined}
      aria-label={label}
      aria-hidden={label ? undefined : true}
    >
      <path d={piecePath(form)} />
      {shape === 'dot' && <circle cx="50" cy="50" r="13" />}
      {shape === 'bar' && <rect x="30" y="44" width="40" height="12" rx="2" />}
      {text && (
        <text x={50 + x} y={51 + y}>
          {text}
        </text>
      )}
    </Svg>
  );
}

const Chip = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 5px;
  font-weight: 600;
  white-space: nowrap;
  vertical-align: middle;
`;

export function GroupChip({
  number,
  name,
  look,
}: {
  readonly number: number;
  readonly name: string;
  readonly look?: EmblemLook;
}) {
  return (
    <Chip>
      <Emblem number={number} size={24} {...(look ? { look } : {})} />
      {name}
    </Chip>
  );
}
