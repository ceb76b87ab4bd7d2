import { useState } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import { AuditFilter } from '@jigsaw/contract/audit';
import type { AuditChoice, AuditLine } from '@jigsaw/contract/audit';
import { may } from '@jigsaw/core/course';
import { groupedBy } from '@jigsaw/core/lists';
import { namesTogether } from '@jigsaw/core/text';
import { apiAddress, ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import {
  Bar,
  Button,
  Choice,
  Empty,
  GroupChip,
  hueOfGroup,
  Page,
  PersonName,
  Scroll,
  Small,
  Waiting,
  DownloadLink,
} from '../look/index.js';
import { queryOf, useReadAuditChoiceQuery, useReadAuditQuery } from './auditApi.js';

const Day = styled.section`
  background: var(--surface);
  h2 {
    padding: 5px var(--s-4);
    background: var(--wash-2);
    font: 600 12px/20px var(--font-text);
    position: sticky;
    top: 0;
    z-index: var(--z-sticky);
  }
  li {
    display: grid;
    grid-template-columns: 52px minmax(0, 5fr) minmax(0, 4fr) 132px;
    gap: 2px 14px;
    align-items: center;
    min-height: 38px;
    padding: 4px var(--s-4);
    border-bottom: var(--hair);
    content-visibility: auto;
    contain-intrinsic-size: auto 39px;
  }
  p {
    overflow-wrap: anywhere;
  }
  .about {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    align-items: center;
    min-width: 0;
    font: var(--t-13);
  }
  li > :last-child {
    justify-self: end;
    font: var(--t-13);
  }
  @media (max-width: 900px) {
    li {
      grid-template-columns: 52px minmax(0, 1fr) auto;
    }
    .about {
      grid-column: 2;
      grid-row: 2;
    }
  }
`;
const Foot = styled.div`
  display: flex;
  gap: 8px;
  padding: 12px var(--s-4);
`;

const every = 'all';
const kinds = [
  { id: every, label: 'All acts' },
  { id: 'people', label: 'People' },
  { id: 'groups', label: 'Groups' },
  { id: 'release', label: 'Release' },
  { id: 'work', label: 'Work' },
  { id: 'marks', label: 'Marks' },
  { id: 'messages', label: 'Messages and notes' },
  { id: 'course', label: 'Course' },
] as const;

interface Chosen {
  readonly kind: (typeof kinds)[number]['id'];
  readonly person: string;
  readonly group: string;
  readonly activity: string;
}
const everything: Chosen = { kind: every, person: every, group: every, activity: every };

/** What is chosen, as it is asked for; “all” narrows nothing. */
const filterOf = (chosen: Chosen, before: string | null): AuditFilter =>
  AuditFilter.parse(
    Object.fromEntries([...Object.entries(chosen), ['before', before]].filter(([, value]) => value !== every && value !== null)), // prettier-ignore
  );

/** Who did what in the course, for instructors. */
export function AuditPage() {
  const { course } = useCourse();
  const [chosen, setChosen] = useState(everything);
  // Where each page begins that was gone through; the last is the one that is shown.
  const [begins, setBegins] = useState<readonly string[]>([]);
  const mayRead = may(course.role, 'read-audit');
  const choice = useReadAuditChoiceQuery(course.id, { skip: !mayRead });
  const filter = filterOf(chosen, begins.at(-1) ?? null);
  const trail = useReadAuditQuery(
    { courseId: course.id, filter },
    { skip: !mayRead, refetchOnMountOrArgChange: true },
  );
  if (!mayRead) return <Empty title="Nothing here">Only instructors see who did what in the course.</Empty>;
  const choose = (next: Partial<Chosen>) => {
    setChosen({ ...chosen, ...next });
    setBegins([]);
  };
  const before = trail.currentData?.before ?? null;
  return (
    <Page>
      <Bar>
        <h1>Audit trail</h1>
        {choice.data && <Filters choice={choice.data} chosen={chosen} onChoose={choose} />}
        <span className="grow" />
        <DownloadLink
          href={apiAddress(`courses/${course.id}/audit.csv?${queryOf(filterOf(chosen, null))}`)}
          name="audit.csv"
        >
          Export as CSV
        </DownloadLink>
      </Bar>
      <Scroll tabIndex={0} role="group" aria-label="Acts">
        {unshown(choice) !== undefined && (
          <ProblemStrip of={choice.error} onRetry={() => void choice.refetch()} />
        )}
        {unshown(trail) !== undefined ? (
          <ProblemStrip of={trail.error} onRetry={() => void trail.refetch()} />
        ) : !trail.currentData ? (
          <Waiting what="the trail" rows={12} />
        ) : (
          <Lines lines={trail.currentData.lines} />
        )}
        {(before !== null || begins.length > 0) && (
          <Foot>
            {begins.length > 0 && <Button onPress={() => setBegins(begins.slice(0, -1))}>Later acts</Button>}
            {before !== null && <Button onPress={() => setBegins([...begins, before])}>Earlier acts</Button>}
          </Foot>
        )}
      </Scroll>
    </Page>
  );
}

interface FiltersProps {
  readonly choice: AuditChoice;
  readonly chosen: Chosen;
  readonly onChoose: (next: Partial<Chosen>) => void;
}
function Filters({ choice: { people, groups, activities }, chosen, onChoose }: FiltersProps) {
  const inSeveralSets = new Set(groups.map(({ setId }) => setId)).size > 1;
  return (
    <>
      <Choice
        label="Kind"
        isLabelHidden
        value={chosen.kind}
        choices={kinds}
        onChange={(kind) => onChoose({ kind })}
      />
      <Choice
        label="Person"
        isLabelHidden
        value={chosen.person}
        choices={[
          { id: every, label: 'Everyone' },
          ...people.map(({ id, name }) => ({ id: id, label: name })),
        ]}
        onChange={(person) => onChoose({ person })}
      />
      <Choice
        label="Group"
        isLabelHidden
        value={chosen.group}
        choices={[
          { id: every, label: 'All groups' },
          ...groups.map(({ id, name, setName }) => ({
            id: id,
            label: inSeveralSets ? `${name}, ${setName}` : name,
          })),
        ]}
        onChange={(group) => onChoose({ group })}
      />
      <Choice
        label="Activity"
        isLabelHidden
        value={chosen.activity}
        choices={[
          { id: every, label: 'All activities' },
          ...activities.map(({ id, title }) => ({ id: id, label: title })),
        ]}
        onChange={(activity) => onChoose({ activity })}
      />
    </>
  );
}

function Lines({ lines }: { readonly lines: readonly AuditLine[] }) {
  const { dates } = useCourse();
  if (lines.length === 0)
    return (
      <Empty title="No act is like that">
        Choose fewer things above, or another person, group or activity.
      </Empty>
    );
  return [...groupedBy(lines, ({ at }) => dates.day(at))].map(([day, own]) => (
    <Day key={day} aria-label={day}>
      <h2>{day}</h2>
      <ul>
        {own.map((line) => (
          <OneLine key={line.id} line={line} />
        ))}
      </ul>
    </Day>
  ));
}

const mostNamed = 3;
function OneLine({ line }: { readonly line: AuditLine }) {
  const { course, dates } = useCourse();
  const { at, by, says, times, activity, group, people, way } = line;
  return (
    <li style={group ? hueOfGroup(group.number) : undefined}>
      <Small>{dates.time(at)}</Small>
      <p>
        {by ? (
          <>
            <b>{by.isYou ? 'You' : <PersonName name={by.name} reading={by.reading} />}</b> {says}
          </>
        ) : (
          says.charAt(0).toUpperCase() + says.slice(1)
        )}
        {times > 1 && <Small> {times} times</Small>}
      </p>
      <span className="about">
        {group && <GroupChip number={group.number} name={group.name} />}
        {activity && <span dir="auto">{activity.title}</span>}
        {people.length > 0 && <Small>{namesTogether(people, mostNamed)}</Small>}
      </span>
      {way ? <Link to={`/c/${course.id}/${way.path}`}>{way.label}</Link> : <span />}
    </li>
  );
}
