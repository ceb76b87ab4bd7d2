import { ChevronLeft, ChevronRight, Pause, Play } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import { styled } from 'styled-components';
import type { Tick } from '@jigsaw/core/sightlines';
import { useCourse } from '../course/index.js';
import { Button, Small } from '../look/index.js';

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 6px var(--s-4);
  border-bottom: var(--hair);
  background: var(--paper);
  font: var(--t-12);
  > [role='group'] {
    flex: 1;
    min-width: 160px;
  }
  .track {
    position: relative;
    height: 30px;
    cursor: pointer;
  }
  .track::before {
    content: '';
    position: absolute;
    left: 0;
    right: 0;
    top: 14px;
    height: 2px;
    background: var(--edge);
  }
  i {
    position: absolute;
    top: 9px;
    width: 1.5px;
    height: 12px;
    background: var(--ink-2);
  }
  i[data-now] {
    top: 3px;
    width: 2px;
    height: 24px;
    background: var(--attn);
  }
  .thumb {
    top: 15px;
    width: 16px;
    height: 22px;
    border-radius: var(--r-1);
    background: var(--ink);
  }
  .thumb[data-focus-visible] {
    outline: 2px solid var(--focus);
    outline-offset: 2px;
  }
  output {
    min-width: 148px;
    font: 620 13px/1 var(--font-text);
  }
`;
const dayMs = 86_400_000;
const stepMs = 900;

interface TermLineProps {
  readonly ticks: readonly Tick[];
  readonly now: number;
  /** null: now. */
  readonly at: number | null;
  readonly onChange: (at: number | null) => void;
}

/** The term from its first change to its last: any moment of it can be looked at, change by change or as it plays. */
export function TermLine({ ticks, now, at, onChange }: TermLineProps) {
  const { dates } = useCourse();
  const [isPlaying, setIsPlaying] = useState(false);
  const moments = useMemo(() => [...new Set(ticks.map((tick) => tick.at))], [ticks]);
  const first = Math.min(moments[0] ?? now, now) - dayMs;
  const last = Math.max(moments.at(-1) ?? now, now) + dayMs;
  const shown = at ?? now;
  const before = moments.findLast((moment) => moment < shown);
  const next = moments.find((moment) => moment > shown);
  const go = useRef(() => undefined as void);
  useEffect(() => {
    go.current = () => (next === undefined ? setIsPlaying(false) : onChange(next));
  });
  useEffect(() => {
    if (!isPlaying) return;
    const timer = setInterval(() => go.current(), stepMs);
    return () => clearInterval(timer);
  }, [isPlaying]);
  const place = (moment: number) => `${(((moment - first) / (last - first)) * 100).toFixed(3)}%`;
  const sayAt = dates.dateTime(new Date(shown).toISOString());
  return (
    <Line>
      <output>{at === null ? 'Now' : sayAt}</output>
      <Button
        kind="quiet"
        isIconOnly
        aria-label="The change before"
        isDisabled={before === undefined}
        onPress={() => before !== undefined && onChange(before)}
      >
        <ChevronLeft size={17} aria-hidden="true" />
      </Button>
      <Button
        kind="quiet"
        isIconOnly
        aria-label={isPlaying ? 'Pause' : 'Play the term from here'}
        isDisabled={next === undefined && !isPlaying}
        onPress={() => setIsPlaying(!isPlaying)}
      >
        {isPlaying ? <Pause size={17} aria-hidden="true" /> : <Play size={17} aria-hidden="true" />}
      </Button>
      <Button
        kind="quiet"
        isIconOnly
        aria-label="The next change"
        isDisabled={next === undefined}
        onPress={() => next !== undefined && onChange(next)}
      >
        <ChevronRight size={17} aria-hidden="true" />
      </Button>
      <Slider
        aria-label="Moment of the term"
        minValue={first}
        maxValue={last}
        step={60_000}
        value={Math.min(last, Math.max(first, shown))}
        onChange={(value) => {
          setIsPlaying(false);
          onChange(value);
        }}
      >
        <SliderTrack className="track">
          {moments.map((moment) => (
            <i key={moment} style={{ left: place(moment) }} />
          ))}
          <i data-now="" style={{ left: place(now) }} />
          <SliderThumb className="thumb" aria-valuetext={sayAt} />
        </SliderTrack>
      </Slider>
      <Button isSmall isDisabled={at === null} onPress={() => onChange(null)}>
        Back to now
      </Button>
      {at !== null && at < now && <Small>Groups as they were then, dates as they are now.</Small>}
    </Line>
  );
}
