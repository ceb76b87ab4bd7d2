import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { styled } from 'styled-components';
import type { ActivityView } from '@jigsaw/contract/release';
import { ProblemStrip, unshown } from '../api/index.js';
import { ChecksLink } from '../checks/index.js';
import { draftOfKind, kindOf, sayHappenings } from '../kinds/index.js';
import type { KindOnPages } from '../kinds/index.js';
import { Bar, Button, ButtonLink, Empty, Muted, Page, Scroll, Small, Tag, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useNow } from '../page/index.js';
import { useDraftActivityMutation, useListActivitiesQuery } from './releaseApi.js';
import { everything, isOut, stateOf, wantedOf } from './activityList.js';
import type { Wanted } from './activityList.js';
import { ListTools } from './ListTools.js';
import { KindIcon } from './KindIcon.js';
import { ManyFoot } from './ManyFoot.js';
import { sayTo } from './sayTo.js';
import { stateLook, stateWords } from './states.js';
import { WriteMenu } from './WriteMenu.js';

const List = styled.ul`
  background: var(--surface);
  border-bottom: var(--hair);
`;
const Row = styled.li`
  display: grid;
  grid-template-columns: 0 minmax(0, 1fr);
  position: relative;
  &[data-choosable] {
    grid-template-columns: 44px minmax(0, 1fr);
  }
  > label {
    display: grid;
    place-items: center;
    padding-left: 8px;
    border-bottom: var(--hair);
    cursor: pointer;
  }
  > :last-child {
    grid-column: 2;
  }
`;
const Line = styled.div<{ to?: string }>`
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) 270px 190px 80px 96px;
  gap: 16px;
  align-items: center;
  min-height: 52px;
  padding: 6px var(--s-4);
  border-bottom: var(--hair);
  text-decoration: none;
  outline-offset: -3px;
  &:is(a):hover {
    background: var(--wash);
  }
  b {
    font: var(--h-14);
    font-size: 15px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  > :last-child {
    justify-self: end;
  }
  @media (max-width: 1100px) {
    grid-template-columns: 22px minmax(160px, 1fr) minmax(0, 200px) 160px 70px 90px;
    gap: 12px;
  }
  /* In a small or enlarged window a line takes two rows, its title the first. */
  @media (max-width: 900px) {
    grid-template-columns: 22px minmax(0, 1fr) auto auto;
    gap: 2px 12px;
    > :nth-child(2) {
      grid-column: 2 / 4;
    }
    > :last-child {
      grid-area: 1 / 4;
    }
    > :nth-child(3) {
      grid-area: 2 / 2;
    }
    > :nth-child(4) {
      grid-area: 2 / 3;
    }
    > :nth-child(5) {
      grid-area: 2 / 4;
      justify-self: end;
    }
  }
`;
const Head = styled.header`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 16px var(--s-4) 8px;
  color: var(--ink-2);
  h2 {
    font: 600 12px/16px var(--font-text);
  }
`;

export function ActivitiesPage() {
  const { course } = useCourse();
  const navigate = useNavigate();
  const list = useListActivitiesQuery(course.id);
  const [create, { isLoading, error }] = useDraftActivityMutation();
  const mayRelease = course.role === 'instructor';
  const [wanted, setWanted] = useState<Wanted>(everything);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const now = useNow(null);
  const begin = async (kind: KindOnPages) => {
    const answer = await create({ courseId: course.id, body: draftOfKind(kind) });
    if ('data' in answer && answer.data) void navigate(answer.data.id);
  };
  if (unshown(list) !== undefined)
    return <ProblemStrip of={list.error} onRetry={() => void list.refetch()} />;
  if (!list.data) return <Waiting what="what is released" />;
  const { activities } = list.data;
  const shown = wantedOf(activities, wanted, now);
  const drafts = shown.filter((activity) => !isOut(activity));
  const out = shown.filter(isOut);
  // What someone else deleted meanwhile, or what is not shown any more, is not acted on.
  const selected = shown.filter((activity) => chosen.has(activity.id));
  const choosing = mayRelease ? { chosen, onChoose: setChosen } : null;
  const write = mayRelease && <WriteMenu isDisabled={isLoading} onChoose={(kind) => void begin(kind)} />;
  return (
    <Page>
      <Bar>
        <h1>Release</h1>
        <Muted>Write once, release to each group</Muted>
        <span className="grow" />
        <ButtonLink to={`/c/${course.id}/outline`}>Outline</ButtonLink>
        {mayRelease && <ChecksLink />}
        {mayRelease && <ButtonLink to="sightlines">Sightlines</ButtonLink>}
        <ButtonLink to="week">Week</ButtonLink>
        <ButtonLink to={`/c/${course.id}/audiences`}>Saved audiences</ButtonLink>
        {activities.length > 0 && write}
      </Bar>
      <Scroll>
        {activities.length > 0 && (
          <ListTools activities={activities} shown={shown.length} wanted={wanted} onChange={setWanted} />
        )}
        {error && <ProblemStrip of={error} />}
        {activities.length === 0 && (
          <Empty title="Nothing written yet" action={write}>
            Create one and release it to a group set. Each group works in its own copy that no other group
            sees.
          </Empty>
        )}
        {activities.length > 0 && shown.length === 0 && (
          <Empty title="Nothing is like that">Try fewer words, or show all.</Empty>
        )}
        {drafts.length > 0 && (
          <Activities title="Drafts, seen by staff only" activities={drafts} choosing={choosing} />
        )}
        {out.length > 0 && <Activities title="Released" activities={out} choosing={choosing} />}
      </Scroll>
      {selected.length > 0 && <ManyFoot chosen={selected} onClear={() => setChosen(new Set())} />}
    </Page>
  );
}

interface Choosing {
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (chosen: ReadonlySet<string>) => void;
}

interface ActivitiesProps {
  readonly title: string;
  readonly activities: readonly ActivityView[];
  /** null: they are only looked at. */
  readonly choosing: Choosing | null;
}

function Activities({ title, activities, choosing }: ActivitiesProps) {
  const { dates } = useCourse();
  const isAll = choosing !== null && activities.every(({ id }) => choosing.chosen.has(id));
  const choose = (ids: readonly string[], isIn: boolean) => {
    const next = new Set(choosing?.chosen);
    for (const id of ids)
      if (isIn) next.add(id);
      else next.delete(id);
    choosing?.onChoose(next);
  };
  return (
    <section aria-label={title}>
      <Head>
        <h2>{title}</h2>
        {choosing && activities.length > 1 && (
          <Button
            kind="quiet"
            isSmall
            onPress={() =>
              choose(
                activities.map(({ id }) => id),
                !isAll,
              )
            }
          >
            {isAll ? 'Select none' : `Select these ${activities.length}`}
          </Button>
        )}
      </Head>
      <List>
        {activities.map((activity) => {
          const state = stateOf(activity);
          const kind = kindOf(activity.kind);
          const isWork = kind?.isWork ?? true;
          return (
            <Row key={activity.id} data-choosable={choosing ? '' : undefined}>
              {choosing && (
                <label>
                  <input
                    type="checkbox"
                    aria-label={`Select ${activity.title}`}
                    checked={choosing.chosen.has(activity.id)}
                    onChange={(event) => choose([activity.id], event.target.checked)}
                  />
                </label>
              )}
              <Line {...(choosing ? { as: Link, to: activity.id } : {})}>
                <KindIcon kind={activity.kind} />
                <b>{activity.title}</b>
                <span>
                  {activity.release && state !== 'withdrawn' ? (
                    sayTo(activity.release)
                  ) : (
                    <Muted>to no one yet</Muted>
                  )}
                </span>
                <span>
                  {activity.schedule.due ? (
                    `Due ${dates.dateTime(activity.schedule.due)}`
                  ) : isWork ? (
                    <Muted>No due date</Muted>
                  ) : (
                    sayHappenings(activity.happens, dates)
                  )}
                </span>
                <Small>
                  {kind?.isMarked !== false &&
                    (activity.points === null ? 'not marked' : `${activity.points} points`)}
                </Small>
                <Tag $look={stateLook[state]}>{stateWords[state]}</Tag>
              </Line>
            </Row>
          );
        })}
      </List>
    </section>
  );
}
