import { TriangleAlert, UserX, Users, X } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import { keyedBy } from '@jigsaw/core/lists';
import type { Explained, Why } from '@jigsaw/core/sightlines';
import { ProblemStrip } from '../api/index.js';
import type { ToCheck } from '../checks/index.js';
import { SitInLink, useCourse } from '../course/index.js';
import { Button, ButtonLink, Emblem, hueOfGroup, Muted, Small, Waiting } from '../look/index.js';
import { CellActs } from './CellActs.js';
import type { SightColumn, SightSpot } from './columns.js';
import { useWording } from './useWording.js';
import type { Sight } from './useSight.js';
import { useWhy } from './useSight.js';
import { Former, InCommon, inCommon, nowIn, Person } from './WhyRows.js';

const Panel = styled.aside`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
  border-left: 1px solid var(--ink);
  background: var(--surface);
  > header {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr) auto;
    gap: 10px;
    padding: 14px var(--s-4) 12px;
    background: var(--hue-tint);
    border-bottom: var(--hair);
  }
  > header h2 {
    font: var(--h-17);
    overflow-wrap: anywhere;
  }
  > div {
    overflow: auto;
    padding: 12px var(--s-4);
    font: var(--t-13);
  }
  h3 {
    font: var(--h-14);
    margin: 14px 0 4px;
  }
  ol li {
    position: relative;
    padding: 0 0 8px 14px;
    border-left: 2px solid var(--hue, var(--ink-2));
  }
  ul li {
    display: grid;
    grid-template-columns: 18px minmax(0, 1fr);
    gap: 6px;
    padding: 6px 0;
    border-top: var(--hair);
  }
  ul p {
    font: var(--t-12);
    color: var(--ink-2);
  }
  ul svg {
    margin-top: 2px;
  }
  .check {
    display: grid;
    grid-template-columns: 16px minmax(0, 1fr);
    gap: 8px;
    margin-bottom: 12px;
    padding: 8px 10px;
    background: var(--attn-tint);
    border: 1px solid var(--attn-line);
    border-radius: var(--r-2);
    svg {
      margin-top: 2px;
      color: var(--attn-ink);
    }
    a {
      white-space: nowrap;
    }
  }
  > footer {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    padding: 10px var(--s-4);
    border-top: var(--hair);
  }
  @media (max-width: 1199px) {
    position: absolute;
    inset: 0 0 0 auto;
    width: min(340px, 100%);
    z-index: 5;
    box-shadow: var(--lift);
  }
`;

interface WhyPanelProps {
  readonly view: SightlinesView;
  readonly sight: Sight;
  readonly spot: SightSpot;
  readonly column: SightColumn;
  readonly at: number;
  /** What is to be checked about the activity. */
  readonly toCheck: readonly ToCheck[];
  /** What is shown is of now: what is done about it is done to this. */
  readonly isNow: boolean;
  readonly onClose: () => void;
}

/** Why people see of one activity what they see: by the same decision that the server makes, person by person. */
export function WhyPanel({ view, sight, spot, column, at, toCheck, isNow, onClose }: WhyPanelProps) {
  const { course } = useCourse();
  const activity = view.activities.find(({ activityId }) => activityId === spot.activityId);
  const { why, hasFailed } = answerOf(useWhy(sight, spot, column.of, at));
  if (!activity) return null;
  const { number } = column;
  const groupId = column.of.kind === 'group' ? column.of.groupId : null;
  const copy = activity.release?.copies.find((each) => each.groupId === null || each.groupId === groupId);
  const sees = `What ${calledIn(column)}`;
  return (
    <Panel aria-label={sees} style={number === null ? undefined : hueOfGroup(number)}>
      <header>
        {number !== null ? (
          <Emblem number={number} size={44} />
        ) : column.of.kind === 'people' ? (
          <Users size={32} aria-hidden="true" />
        ) : (
          <UserX size={32} aria-hidden="true" />
        )}
        <div>
          <h2>{sees}, and why</h2>
          <Small>{activity.title}</Small>
        </div>
        <Button kind="quiet" isIconOnly aria-label="Close" onPress={onClose}>
          <X size={17} aria-hidden="true" />
        </Button>
      </header>
      <div>
        {isNow && <ToCheckIn toCheck={toCheck.filter((each) => each.at.includes(column.key))} />}
        {hasFailed ? (
          <ProblemStrip>The reasons could not be worked out. Load the page again.</ProblemStrip>
        ) : why === undefined ? (
          <Waiting what="the reasons" />
        ) : why === null ? (
          <p>It is a draft that was never released. Staff who release see it; no one else does.</p>
        ) : (
          <Reasons
            view={view}
            why={why}
            column={column}
            at={at}
            sitInAt={isNow ? `/go/activity/${activity.activityId}` : null}
          />
        )}
      </div>
      <footer>
        {isNow && activity.release && (
          <CellActs view={view} activityId={activity.activityId} column={column} />
        )}
        <ButtonLink isSmall to={`/c/${course.id}/release/${activity.activityId}`}>
          Open the activity
        </ButtonLink>
        {copy && <Link to={`/c/${course.id}/copies/${copy.copyId}`}>Look into the copy</Link>}
      </footer>
    </Panel>
  );
}

/** Why the cell is ringed. */
function ToCheckIn({ toCheck }: Pick<WhyPanelProps, 'toCheck'>) {
  const { course } = useCourse();
  return toCheck.map(({ says }) => (
    <p key={says} className="check">
      <TriangleAlert size={15} role="img" aria-label="To check" />
      <span>
        {says}. <Link to={`/c/${course.id}/release/checks`}>See what to do</Link>
      </span>
    </p>
  ));
}

/** "Crock sees", "students in no group see". */
function calledIn({ of, name }: SightColumn): string {
  if (of.kind === 'unplaced') return 'students in no group see';
  return of.kind === 'people' ? `the people in ${name} see` : `${name} sees`;
}

const answerOf = (asked: ReturnType<typeof useWhy>): { why: Why | null | undefined; hasFailed: boolean } =>
  asked !== null && 'answer' in asked
    ? { why: asked.answer, hasFailed: false }
    : { why: undefined, hasFailed: asked !== null };

interface ReasonsProps {
  readonly view: SightlinesView;
  readonly why: Why;
  readonly column: SightColumn;
  readonly at: number;
  /** Where each student would find it; null: what is shown is not of now. */
  readonly sitInAt: string | null;
}
function Reasons({ view, why, column, at, sitInAt }: ReasonsProps) {
  const wording = useWording(view);
  const groups = useMemo(() => keyedBy(view.sets.flatMap((set) => set.groups), ({ groupId }) => groupId), [view]); // prettier-ignore
  const people = useMemo(() => keyedBy(view.people, ({ enrolmentId }) => enrolmentId), [view]);
  const person = ({ enrolmentId }: Explained) => {
    const { name, reading } = people.get(enrolmentId) ?? { name: 'Someone', reading: null };
    return { name, reading };
  };
  const { members, former } = why;
  const common = inCommon(members, wording);
  const others = [
    { title: 'Staff', people: why.staff },
    { title: 'Observers', people: why.observers },
  ].filter((each) => each.people.length > 0);
  return (
    <>
      <InCommon said={common} members={members} />
      {column.of.kind !== 'person' && <h3>Person by person</h3>}
      {members.length === 0 && <Muted>{noOneIn(column)}</Muted>}
      <ul aria-label="Members">
        {members.map((each) => (
          <Person
            key={each.enrolmentId}
            {...person(each)}
            explained={each}
            wording={wording}
            isSaid={common !== null}
            act={
              sitInAt !== null && (
                <SitInLink enrolmentId={each.enrolmentId} name={person(each).name} to={sitInAt} />
              )
            }
          />
        ))}
        {former.map((each) => (
          <Former
            key={each.enrolmentId}
            {...person(each)}
            former={each}
            nowIn={nowIn(view, each, at).flatMap((groupId) => groups.get(groupId)?.name ?? [])}
            wording={wording}
          />
        ))}
      </ul>
      {others.map(({ title, people }) => (
        <section key={title}>
          <h3>{title}</h3>
          <ul aria-label={title}>
            {people.map((each) => (
              <Person key={each.enrolmentId} {...person(each)} explained={each} wording={wording} />
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}

function noOneIn({ of, name }: SightColumn): string {
  switch (of.kind) {
    case 'group':
      return `No one is in ${name} at this time.`;
    case 'unplaced':
      return 'No one is without a group at this time.';
    case 'person':
      return `${name} is not in the course at this time.`;
    case 'people':
      return `${name} reaches no student at this time.`;
  }
}
