import { Check, EyeOff, Lock, UserMinus, UserX, X } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import type { GroupSetId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import type { Decision, Wording } from '@jigsaw/core/release';
import { explain } from '@jigsaw/core/release';
import type { Explained, FormerMember } from '@jigsaw/core/sightlines';
import { whyOf } from '@jigsaw/core/sightlines';
import { namesTogether } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { Button, ButtonLink, Emblem, hueOfGroup, Muted, PersonName, Small, Tag } from '../look/index.js';
import { factsOf } from './factsOf.js';
import type { SightSpot } from './SightRow.js';

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
    border-left: 2px solid var(--hue);
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
  readonly setId: GroupSetId;
  readonly spot: SightSpot;
  readonly at: number;
  readonly onClose: () => void;
}

/** Why the people of one group see of one activity what they see: by the same decision that the server makes, person by person. */
export function WhyPanel({ view, setId, spot, at, onClose }: WhyPanelProps) {
  const { course } = useCourse();
  const facts = useMemo(() => factsOf(view), [view]);
  const activity = view.activities.find(({ activityId }) => activityId === spot.activityId);
  const groups = useMemo(
    () =>
      keyedBy(
        view.sets.flatMap((set) => set.groups),
        ({ groupId }) => groupId,
      ),
    [view],
  );
  const group = spot.groupId === null ? null : (groups.get(spot.groupId) ?? null);
  const why = useMemo(
    () => whyOf(facts, spot.activityId, { groupId: spot.groupId, setId }, at),
    [facts, spot, setId, at],
  );
  const wording = useWording(view);
  if (!activity || (spot.groupId !== null && !group)) return null;
  const name = group?.name ?? 'students in no group';
  const common = why === null ? null : inCommon(why.members, wording);
  const nameOf = new Map(
    view.people.map(({ enrolmentId, name, reading }) => [enrolmentId, { name, reading }]),
  );
  const person = ({ enrolmentId }: Explained) =>
    nameOf.get(enrolmentId) ?? { name: 'Someone', reading: null };
  const copy = activity.release?.copies.find(({ groupId }) => groupId === null || groupId === spot.groupId);
  return (
    <Panel
      aria-label={`What ${name} ${group ? 'sees' : 'see'}`}
      style={group ? hueOfGroup(group.number) : undefined}
    >
      <header>
        {group ? <Emblem number={group.number} size={44} /> : <UserX size={32} aria-hidden="true" />}
        <div>
          <h2>
            What {name} {group ? 'sees' : 'see'}, and why
          </h2>
          <Small>{activity.title}</Small>
        </div>
        <Button kind="quiet" isIconOnly aria-label="Close" onPress={onClose}>
          <X size={17} aria-hidden="true" />
        </Button>
      </header>
      <div>
        {why === null ? (
          <p>It is a draft that was never released. Staff who release see it; no one else does.</p>
        ) : (
          <>
            <InCommon said={common} members={why.members} />
            <h3>Person by person</h3>
            {why.members.length === 0 && (
              <Muted>No one is {group ? `in ${name}` : 'without a group'} at this time.</Muted>
            )}
            <ul aria-label="Members">
              {why.members.map((each) => (
                <Person
                  key={each.enrolmentId}
                  {...person(each)}
                  explained={each}
                  wording={wording}
                  isSaid={common !== null}
                />
              ))}
              {why.former.map((each) => (
                <Former
                  key={each.enrolmentId}
                  {...person(each)}
                  former={each}
                  nowIn={nowIn(view, each, at).flatMap((groupId) => groups.get(groupId)?.name ?? [])}
                  wording={wording}
                />
              ))}
            </ul>
            {why.staff.length > 0 && (
              <>
                <h3>Staff</h3>
                <ul aria-label="Staff">
                  {why.staff.map((each) => (
                    <Person key={each.enrolmentId} {...person(each)} explained={each} wording={wording} />
                  ))}
                </ul>
              </>
            )}
            {why.observers.length > 0 && (
              <>
                <h3>Observers</h3>
                <ul aria-label="Observers">
                  {why.observers.map((each) => (
                    <Person key={each.enrolmentId} {...person(each)} explained={each} wording={wording} />
                  ))}
                </ul>
              </>
            )}
          </>
        )}
      </div>
      <footer>
        <ButtonLink to={`/c/${course.id}/release/${activity.activityId}`}>Open the activity</ButtonLink>
        {copy && <Link to={`/c/${course.id}/copies/${copy.copyId}`}>Look into the copy</Link>}
      </footer>
    </Panel>
  );
}

/** What is said of all its members alike; null: they do not all see the same. */
function inCommon(members: readonly Explained[], wording: Wording): readonly string[] | null {
  const [first] = members;
  if (!first) return null;
  const said = explain(first.decision, wording);
  return members.every(({ decision }) => explain(decision, wording).join() === said.join()) ? said : null;
}

function InCommon({
  said,
  members,
}: {
  readonly said: readonly string[] | null;
  readonly members: readonly Explained[];
}) {
  if (members.length === 0) return null;
  if (said === null) return <p>They do not all see the same.</p>;
  return (
    <ol aria-label="Why">
      {said.map((sentence) => (
        <li key={sentence}>{sentence}</li>
      ))}
    </ol>
  );
}

interface PersonProps {
  readonly name: string;
  readonly reading: string | null;
  readonly explained: Explained;
  readonly wording: Wording;
  /** The reasons stand above, for all. */
  readonly isSaid?: boolean;
}
function Person({ name, reading, explained: { decision }, wording, isSaid = false }: PersonProps) {
  const said = explain(decision, wording);
  return (
    <li>
      <AccessIcon access={decision.access} />
      <span>
        <b>
          <PersonName name={name} reading={reading} />
        </b>
        <p>{isSaid ? said[0] : said.join(' ')}</p>
      </span>
    </li>
  );
}

interface FormerProps {
  readonly name: string;
  readonly reading: string | null;
  readonly former: FormerMember;
  readonly nowIn: readonly string[];
  readonly wording: Wording;
}
function Former({ name, reading, former: { until, decision }, nowIn, wording }: FormerProps) {
  return (
    <li>
      <UserMinus size={15} aria-hidden="true" />
      <span>
        <b>
          <PersonName name={name} reading={reading} />
        </b>{' '}
        <Tag>left the group</Tag>
        <p>
          Was in it until {wording.dateTime(until)}
          {nowIn.length > 0 && `, and is in ${namesTogether(nowIn)} now`}. What they wrote stays here under
          their name. {explain(decision, wording)[0]}
        </p>
      </span>
    </li>
  );
}

function AccessIcon({ access }: Pick<Decision, 'access'>) {
  if (access === 'hidden') return <EyeOff size={15} aria-hidden="true" />;
  if (access === 'listed') return <Lock size={15} aria-hidden="true" />;
  return <Check size={15} aria-hidden="true" />;
}

/** The groups in which someone sits at a moment. */
const nowIn = ({ seats }: SightlinesView, { enrolmentId }: Explained, at: number) =>
  seats.flatMap((seat) =>
    seat.enrolmentId === enrolmentId &&
    Date.parse(seat.from) <= at &&
    (seat.until === null || Date.parse(seat.until) > at)
      ? [seat.groupId]
      : [],
  );

function useWording(view: SightlinesView): Wording {
  const { dates } = useCourse();
  return useMemo(() => {
    const groups = new Map(
      view.sets.flatMap((set) => set.groups.map(({ groupId, name }) => [groupId as string, name])),
    );
    const sets = new Map(view.sets.map(({ setId, name }) => [setId as string, name]));
    const audiences = new Map(
      view.activities.flatMap(({ release }) =>
        (release?.audience.include ?? []).flatMap((entry) =>
          entry.kind === 'audience' ? [[entry.audienceId as string, entry.name] as const] : [],
        ),
      ),
    );
    return {
      dateTime: (at) => dates.dateTime(new Date(at).toISOString()),
      groupName: (id) => groups.get(id) ?? 'an archived group',
      setName: (id) => sets.get(id) ?? 'an archived set',
      audienceName: (id) => audiences.get(id) ?? 'a saved audience',
    };
  }, [view, dates]);
}
