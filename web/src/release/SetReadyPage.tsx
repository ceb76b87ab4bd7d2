import { ArrowRight, Check } from 'lucide-react';
import { Link, Navigate, useLocation, useParams } from 'react-router';
import { styled } from 'styled-components';
import type { MadeGroupSet } from '@jigsaw/contract/setUp';
import { sure } from '@jigsaw/core/lists';
import { ProblemStrip, unshown } from '../api/index.js';
import { kindOf } from '../kinds/index.js';
import { Bar, ButtonLink, Emblem, Muted, Page, Scroll, Tag, Waiting } from '../look/index.js';
import { useReadBoardQuery, capacityOf } from '../placing/index.js';
import { counted } from '@jigsaw/core/text';

const Columns = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(360px, 1fr));
  gap: 20px;
  padding: 20px;
  max-width: 1080px;
  section {
    background: var(--surface);
    border: var(--hair);
    border-radius: var(--r-2);
    align-self: start;
  }
  h2 {
    padding: 12px 16px 2px;
    font: var(--h-17);
  }
  section > p {
    padding: 0 16px 10px;
    color: var(--ink-2);
  }
  li {
    display: grid;
    grid-template-columns: 28px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
    min-height: 36px;
    padding: 3px 16px;
    border-top: var(--hair);
  }
  ul {
    max-height: 420px;
    overflow: auto;
  }
  li a {
    font-weight: 620;
  }
`;

export type Next = 'board' | 'deal' | 'deal-out' | 'file';

/** Where in the course what comes next is done. */
export const pathOfNext = (setId: string, next: Next): string =>
  `../groups/${setId}${{ board: '', deal: '/deal', 'deal-out': '?deal', file: '?file' }[next]}`;

export interface ReadyState {
  readonly activities: MadeGroupSet['activities'];
  readonly next: Next;
}

const nextSays: Readonly<Record<Next, string>> = {
  board: 'Go to the Board',
  deal: 'Deal by rules',
  'deal-out': 'Deal the places',
  file: 'Read the file',
};

/** What there is once a set was made with what its groups get, and what comes next. */
export function SetReadyPage() {
  const { setId = '' } = useParams();
  const state = useLocation().state as ReadyState | null;
  const board = useReadBoardQuery(setId);
  const to = `../groups/${setId}`;
  if (!state) return <Navigate to={to} replace />;
  if (unshown(board) !== undefined)
    return <ProblemStrip of={board.error} onRetry={() => void board.refetch()} />;
  if (!board.data) return <Waiting what="the new set" rows={8} />;
  const { data } = board;
  const { set, groups, students } = data;
  const placed = students.length - set.unplaced;
  return (
    <Page>
      <Bar>
        <Check size={20} aria-hidden="true" />
        <h1>{set.name} is set up</h1>
        <span className="grow" />
        <ButtonLink kind="main" to={pathOfNext(setId, state.next)}>
          {nextSays[state.next]}
          <ArrowRight size={15} aria-hidden="true" />
        </ButtonLink>
      </Bar>
      <Scroll>
        <Columns>
          <section aria-label="Groups">
            <h2>{counted(groups.length, 'group')}</h2>
            <p>{sayPlaced(placed, students.length, groups.length === 0)}</p>
            <ul>
              {groups.map((group) => {
                const capacity = capacityOf(data, group);
                return (
                  <li key={group.id}>
                    <Emblem number={group.number} size={26} />
                    <b>{group.name}</b>
                    <Muted>{capacity === null ? '' : `${capacity} places`}</Muted>
                  </li>
                );
              })}
            </ul>
          </section>
          <section aria-label="What each group gets">
            <h2>What each group gets</h2>
            <p>Seen by its own members and by staff. Press one to write its task, or to release it.</p>
            <ul>
              {state.activities.map((activity) => {
                const Icon = kindOf(activity.kind)?.icon;
                return (
                  <li key={activity.id}>
                    {Icon && <Icon size={18} aria-label={sure(kindOf(activity.kind)).word} />}
                    <Link to={`../release/${activity.id}${activity.isReleased ? '' : `?for=${setId}`}`}>
                      {activity.title}
                    </Link>
                    {activity.isReleased ? (
                      <Muted>
                        {activity.copies === 1 ? '1 copy, live' : `${activity.copies} copies, live`}
                      </Muted>
                    ) : (
                      <Tag $look="dash">Draft</Tag>
                    )}
                  </li>
                );
              })}
            </ul>
          </section>
        </Columns>
      </Scroll>
    </Page>
  );
}

function sayPlaced(placed: number, students: number, isLater: boolean): string {
  if (isLater) return 'Students form them when they hand in.';
  if (placed === students)
    return students === 1 ? 'The one student has a place.' : `All ${students} students have a place.`;
  return placed === 0
    ? `None of ${students} students has a place yet.`
    : `${placed} of ${students} students have a place.`;
}
