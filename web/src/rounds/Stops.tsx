import { ArrowRight } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { z } from 'zod';
import type { RoomLine, RoomNeed } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { counted } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import type { Dates } from '../look/index.js';
import { Button, Emblem, hueOfGroup, Key, Segments, Small, Tag } from '../look/index.js';
import { useKey, useNow, useStored } from '../page/index.js';
import { nextOpen, someMinutes, stopsNow, useRound } from './round.js';
import type { Stop, StopState } from './round.js';
import { sayNeed } from './sayNeed.js';
import { sayHow, sayStops } from './sayRound.js';

const Walk = styled.section`
  display: grid;
  grid-template-columns: 232px minmax(0, 1fr);
  border-bottom: 1px solid var(--ink);
  background: var(--surface);
  > div {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 8px;
    padding: 12px var(--s-4);
    border-right: var(--hair);
  }
  ol {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }
  li {
    min-width: 0;
    border-right: var(--hair);
  }
  li:last-child {
    border-right: 0;
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
    > div {
      border-right: 0;
      border-bottom: var(--hair);
    }
    ol {
      grid-template-columns: repeat(2, minmax(0, 1fr));
    }
  }
`;
const Card = styled(Link)`
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: 6px;
  padding: 12px 14px;
  text-decoration: none;
  &:hover {
    background: var(--wash);
  }
  &[data-first] {
    background: var(--attn-tint);
    box-shadow: inset 0 3px var(--attn);
  }
  &[data-over] {
    color: var(--ink-2);
    background: var(--sunk);
  }
  header {
    display: grid;
    grid-template-columns: 36px minmax(0, 1fr) auto;
    gap: 8px;
    align-items: center;
  }
  b {
    display: block;
    font: var(--h-17);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  p {
    font: var(--t-13);
    overflow-wrap: anywhere;
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 3;
    overflow: hidden;
  }
  footer {
    display: flex;
    gap: 6px;
    align-items: center;
    font: 620 12px/16px var(--font-text);
  }
  &:hover footer {
    text-decoration: underline;
  }
`;

/** So many are written out. */
const mostShown = 4;

interface WhereToGoProps {
  /** Those that fit into the minutes. */
  readonly stops: readonly Stop[];
  /** How many need someone in all. */
  readonly rooms: number;
  readonly minutes: number;
  readonly onMinutes: (minutes: number) => void;
}

/** Where to go first, as far as the time goes that one has. Nothing where no room needs anyone. */
export function WhereToGo({ stops, rooms, minutes, onMinutes }: WhereToGoProps) {
  const { course } = useCourse();
  const [, keep] = useRound(course.id);
  const begin = (at: number) => keep({ stops: [...stops], at });
  const [first] = stops;
  if (!first) return null;
  return (
    <Walk aria-label="Where to go first">
      <div>
        <h2>I have</h2>
        <Segments
          label="Minutes that you have"
          value={String(minutes)}
          choices={someMinutes.map((each) => ({ id: String(each), label: `${each} min` }))}
          onChange={(value) => onMinutes(Number(value))}
        />
        <Small>{sayProposed(stops, rooms)}</Small>
        <Go label="Begin" to={first} onGo={() => begin(0)} />
      </div>
      <Cards stops={stopsNow(stops, null)} first={0} onGo={begin} />
    </Walk>
  );
}

/** How far the round has come that goes on. Nothing where none does.
 * @param lines of all rooms, also those that are not looked for now. */
export function RoundSoFar({ lines }: { readonly lines: readonly RoomLine[] }) {
  const { course } = useCourse();
  const [round, keep] = useRound(course.id);
  if (!round) return null;
  const stops = stopsNow(round.stops, lines);
  const next = nextOpen(stops, 0);
  const goOn = (at: number) => keep({ ...round, at });
  return (
    <Walk aria-label="Your round">
      <div>
        <h2>{next === null ? 'Your round is over' : 'Your round'}</h2>
        <Small>{sayStops(stops)}</Small>
        {next !== null && <Go label="Go on" to={sure(stops[next])} onGo={() => goOn(next)} />}
        <Button isSmall onPress={() => keep(null)}>
          {next === null ? 'Close' : 'End the round'}
        </Button>
      </div>
      <Cards stops={stops} first={next} onGo={goOn} />
    </Walk>
  );
}

/** How many minutes one has: as many as the last time. */
export function useMinutes(): [minutes: number, set: (minutes: number) => void] {
  const [kept, keep] = useStored('jigsaw.minutes', z.literal(someMinutes));
  return [kept ?? 10, (minutes) => keep(minutes as (typeof someMinutes)[number])];
}

function sayProposed(stops: readonly Stop[], rooms: number): string {
  const takes = stops.reduce((sum, { minutes }) => sum + minutes, 0);
  const rest = rooms - stops.length;
  return `${counted(stops.length, 'stop')}, about ${takes} min${rest > 0 ? `; ${rest} more ${rest === 1 ? 'room waits' : 'rooms wait'}` : ''}`;
}

interface GoProps {
  readonly label: string;
  readonly to: Stop;
  readonly onGo: () => void;
}
function Go({ label, to, onGo }: GoProps) {
  const { dates } = useCourse();
  const navigate = useNavigate();
  const now = useNow(null);
  const go = () => {
    onGo();
    void navigate(`../${sayNeed(to.need, to.group.id, dates, now).to}`);
  };
  useKey('s', go);
  return (
    <Button kind="main" onPress={go}>
      {label} <Key>S</Key>
    </Button>
  );
}

interface CardsProps {
  readonly stops: readonly (Stop & { readonly state: StopState })[];
  /** The next that waits. */
  readonly first: number | null;
  readonly onGo: (at: number) => void;
}
/** Some stops written out, from the next one on as far as there is room. */
function Cards({ stops, first, onGo }: CardsProps) {
  const { dates } = useCourse();
  const now = useNow(null);
  const from = Math.max(0, Math.min(first ?? 0, stops.length - mostShown));
  return (
    <ol start={from + 1}>
      {stops.slice(from, from + mostShown).map(({ group, need, minutes, state }, index) => {
        const { tag, look, act, to } = sayNeed(need, group.id, dates, now);
        const at = from + index;
        return (
          <li key={`${group.id} ${need.code}`} style={hueOfGroup(group.number)}>
            <Card
              to={`../${to}`}
              onClick={() => onGo(at)}
              data-first={at === first || undefined}
              data-over={state === 'open' ? undefined : ''}
            >
              <header>
                <Emblem number={group.number} size={36} />
                <span>
                  <b>{group.name}</b>
                  <Tag $look={state === 'open' ? look : 'dash'}>{state === 'open' ? tag : sayHow(state)}</Tag>
                </span>
                <Small>{minutes} min</Small>
              </header>
              <p>
                <Why need={need} dates={dates} now={now} />
              </p>
              {state === 'open' && (
                <footer>
                  {act} <ArrowRight size={14} aria-hidden="true" />
                </footer>
              )}
            </Card>
          </li>
        );
      })}
    </ol>
  );
}

interface WhyProps {
  readonly need: RoomNeed;
  readonly dates: Dates;
  readonly now: number;
}
function Why({ need, dates, now }: WhyProps) {
  if (need.code !== 'question') return sayNeed(need, '', dates, now).says;
  return (
    <>
      <b style={{ display: 'inline', font: 'inherit', fontWeight: 650 }}>
        <bdi>{need.by}</bdi>
      </b>{' '}
      in {need.title}, {dates.fromNow(need.since, now)}: <q>{need.excerpt}</q>
    </>
  );
}
