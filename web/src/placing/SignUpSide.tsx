import { Clock, EyeOff, Lock, Users } from 'lucide-react';
import { styled } from 'styled-components';
import type { SignUpView } from '@jigsaw/contract/placing';
import type { Dates } from '../look/index.js';
import { counted } from '@jigsaw/core/text';

const Frame = styled.aside`
  display: flex;
  flex-direction: column;
  gap: 16px;
  padding: 18px 24px;
  background: var(--surface);
  border-left: var(--hair);
  > ul > li {
    display: grid;
    grid-template-columns: 22px minmax(0, 1fr);
    gap: 9px;
    padding: 7px 0;
    border-top: var(--hair);
    font: var(--t-13);
  }
  svg {
    margin-top: 1px;
    color: var(--ink-2);
  }
  section {
    border-top: 1px solid var(--ink);
    padding-top: 10px;
  }
  h2 {
    margin-bottom: 6px;
  }
  ol > li {
    display: grid;
    grid-template-columns: 56px minmax(0, 1fr);
    gap: 8px;
    padding: 3px 0;
    font: var(--t-13);
    overflow-wrap: anywhere;
  }
  time,
  p {
    font: var(--t-12);
    line-height: 18px;
    color: var(--ink-2);
  }
  @media (max-width: 900px) {
    border-left: 0;
    border-top: var(--hair);
    padding: 16px;
  }
`;
const Places = styled.div`
  display: flex;
  gap: 2px;
  height: 8px;
  margin: 6px 0 5px;
  i {
    border-radius: 2px;
    background: var(--ink-2);
  }
  i + i {
    background: none;
    border: 1px dashed var(--edge);
  }
`;

const did = {
  taken: 'A place was taken in',
  'came-free': 'A place came free in',
  filled: 'The last place was taken in',
};

interface SignUpSideProps {
  readonly view: SignUpView;
  readonly dates: Dates;
  /** On the server's clock. */
  readonly now: number;
}

/** What holds for choosing, and what has just happened. */
export function SignUpSide({ view, dates, now }: SignUpSideProps) {
  const { set, groups, latest, state } = view;
  const nameOf = new Map(groups.map((group) => [group.id, group.name]));
  const isAnyHidden = groups.some((group) => group.names === null);
  const yours = groups.find((group) => group.id === view.yours);
  return (
    <Frame aria-label="About choosing">
      {yours && (
        <div>
          <h2>
            Yours: <bdi>{yours.name}</bdi>
          </h2>
          {state === 'open' && view.bound === null && (
            <p>If you move to another group, this place is free at once.</p>
          )}
        </div>
      )}
      <ul>
        <li>
          <Clock size={16} aria-hidden="true" />
          First come, first served. The numbers on this page are always up to date.
        </li>
        <li>
          <Lock size={16} aria-hidden="true" />
          {set.closes && state !== 'frozen'
            ? `Choosing ends on ${dates.dateTime(set.closes)}.`
            : state === 'frozen'
              ? 'Your instructor has fixed the groups.'
              : 'You can choose until your instructor fixes the groups.'}
        </li>
        <li>
          <Users size={16} aria-hidden="true" />
          Your instructor places everyone who has not chosen.
        </li>
        {isAnyHidden && (
          <li>
            <EyeOff size={16} aria-hidden="true" />
            Only members of a group see its names.
          </li>
        )}
      </ul>
      {latest.length > 0 && (
        <section aria-label="Just now">
          <h2>Just now</h2>
          <ol>
            {latest.map(({ at, groupId, what }) => (
              <li key={`${at} ${groupId} ${what}`}>
                <time dateTime={at}>{sayAgo(at, now)}</time>
                <span>
                  {did[what]} <b>{nameOf.get(groupId)}</b>
                </span>
              </li>
            ))}
          </ol>
        </section>
      )}
      <PlacesLeft view={view} />
    </Frame>
  );
}

/** Whether there is a place for everyone; nothing where some group has no limit. */
function PlacesLeft({ view: { groups, chosen, students } }: { readonly view: SignUpView }) {
  if (groups.some((group) => group.capacity === null)) return null;
  const free = groups.reduce(
    (sum, group) => sum + (group.isLocked ? 0 : Math.max(0, (group.capacity ?? 0) - group.members)),
    0,
  );
  const taken = groups.reduce((sum, group) => sum + group.members, 0);
  const waiting = students - chosen;
  return (
    <div style={{ marginTop: 'auto' }}>
      <p>
        {counted(taken + free, 'place')}, {taken} taken
      </p>
      <Places aria-hidden="true">
        <i style={{ flex: taken }} />
        <i style={{ flex: free }} />
      </Places>
      <p>
        {free >= waiting
          ? 'There is a place for everyone.'
          : `${counted(waiting, 'student')} still to choose, ${counted(free, 'free place')}.`}
      </p>
    </div>
  );
}

/** “just now”, “2 min” */
function sayAgo(at: string, now: number): string {
  const minutes = Math.floor((now - Date.parse(at)) / 60_000);
  return minutes < 1 ? 'just now' : `${minutes} min`;
}
