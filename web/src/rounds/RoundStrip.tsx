import { useLocation, useNavigate, useNavigation } from 'react-router';
import { styled } from 'styled-components';
import type { CourseView } from '@jigsaw/contract/course';
import type { StopAnswer } from '@jigsaw/core/rooms';
import { sure } from '@jigsaw/core/lists';
import { Button, ButtonLink, datesIn, Emblem, hueOfGroup, Key, Tag } from '../look/index.js';
import { useKey, useNow } from '../page/index.js';
import { nextOpen, stopsNow, useRound } from './round.js';
import type { Round } from './round.js';
import { useListRoomLinesQuery } from './roundsApi.js';
import { sayNeed } from './sayNeed.js';
import { sayHow } from './sayRound.js';
import { useAnswer } from './useAnswer.js';

const Strip = styled.section`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  min-height: 46px;
  padding: 6px var(--s-4);
  background: var(--surface);
  &[data-open] {
    background: var(--attn-tint);
    box-shadow: inset 0 3px var(--attn);
  }
  border-bottom: 1px solid var(--ink);
  font: var(--t-13);
  > p {
    flex: 1 1 320px;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  b {
    font: var(--h-14);
    font-size: 15px;
  }
`;

/** Goes along from stop to stop: where one is, what is to be done there, and on to the next. Nothing where no round goes on. */
export function RoundStrip({ course }: { readonly course: CourseView }) {
  const [round, keep] = useRound(course.id);
  const { pathname } = useLocation();
  const isOnTheRooms = pathname === `/c/${course.id}/rooms`; // where the whole round is shown
  return round && !isOnTheRooms ? <Going course={course} round={round} keep={keep} /> : null;
}

const whereStopsAre = /^\/c\/[^/]+\/(copies|marks|room)\//;

interface GoingProps {
  readonly course: CourseView;
  readonly round: Round;
  readonly keep: (round: Round | null) => void;
}
function Going({ course, round, keep }: GoingProps) {
  const navigate = useNavigate();
  const { pathname, hash } = useLocation();
  const isOnTheWay = useNavigation().state !== 'idle';
  const now = useNow(null);
  const { data } = useListRoomLinesQuery(course.id);
  const answer = useAnswer(course.id);
  const stops = stopsNow(round.stops, data?.lines ?? null);
  const at = Math.min(round.at, stops.length - 1);
  const stop = sure(stops[at]);
  const base = `/c/${course.id}`;
  const placeOf = (of: typeof stop) => sayNeed(of.need, of.group.id, datesIn(course.timeZone), now);
  const { tag, look, says, to } = placeOf(stop);
  const next = nextOpen(stops, at + 1);
  const go = () => {
    if (next === null) void navigate(`${base}/rooms`);
    else {
      keep({ ...round, at: next });
      void navigate(`${base}/${placeOf(sure(stops[next])).to}`);
    }
  };
  const say = async (said: StopAnswer) => {
    if (await answer(stop, said)) go();
  };
  // On other pages a letter finds a name.
  useKey('s', () => whereStopsAre.test(pathname) && go());
  const isOpen = stop.state === 'open';
  const mayAnswer = isOpen && data !== undefined;
  return (
    <Strip
      aria-label="Your round"
      data-round
      data-open={isOpen || undefined}
      style={hueOfGroup(stop.group.number)}
    >
      <Emblem number={stop.group.number} size={30} />
      <p>
        Stop {at + 1} of {stops.length}: <b>{stop.group.name}</b>{' '}
        {isOpen ? (
          <>
            <Tag $look={look}>{tag}</Tag> {says}
          </>
        ) : (
          <Tag>{sayHow(stop.state)}</Tag>
        )}
      </p>
      {isOpen && !isOnTheWay && `${base}/${to}` !== `${pathname}${hash}` && (
        <ButtonLink to={`${base}/${to}`}>Go there</ButtonLink>
      )}
      {mayAnswer && (
        <>
          <Button onPress={() => void say('done')}>Done</Button>
          <Button onPress={() => void say('later')}>Later</Button>
          <Button onPress={() => void say('not-needed')}>Not needed</Button>
        </>
      )}
      <Button kind={isOpen ? 'plain' : 'main'} onPress={go}>
        {next === null ? 'To the rooms' : 'Next stop'} <Key>S</Key>
      </Button>
      <Button kind="quiet" onPress={() => keep(null)}>
        End the round
      </Button>
    </Strip>
  );
}
