import { useEffect } from 'react';
import { styled } from 'styled-components';
import type { WorkView } from '@jigsaw/contract/handin';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { ProblemStrip } from '../api/index.js';
import { Brief, CopyFrame, useMarkSeenMutation } from '../rooms/index.js';
import { PersonName, Small, Waiting, Split } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { RubricTable } from '../rubric/index.js';
import { useReadWorkQuery } from './handinApi.js';
import { sayLate } from './words.js';
import { HandedInWork, PartView } from './HandedIn.js';
import { FilesSection } from './FilesSection.js';
import { OwnPart } from './OwnPart.js';
import { HandInSide } from './HandInSide.js';

const Main = styled.div`
  overflow: auto;
  padding: 22px 32px 40px;
  display: grid;
  gap: 22px;
  align-content: start;
  > section,
  > details {
    max-width: 820px;
  }
  h2 {
    margin-bottom: 8px;
  }
  .add {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px;
    margin-top: 8px;
  }
  h2 small {
    font: var(--t-13);
    color: var(--ink-2);
    margin-left: 8px;
  }
  @media (max-width: 700px) {
    padding: 16px;
  }
`;
const BriefBox = styled.section`
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  padding: 16px 20px;
`;
const OneStudent = styled.section`
  border-top: var(--hair);
  padding: 10px 0;
  > header {
    display: flex;
    align-items: baseline;
    gap: 10px;
    margin-bottom: 6px;
  }
`;

/** What is handed in: read, written and added to by its members, read by staff. */
export default function HandInPage({ head }: { readonly head: CopyHead }) {
  const work = useReadWorkQuery(head.id);
  const [markSeen] = useMarkSeenMutation();
  const { unread } = head;
  useEffect(() => {
    if (unread > 0) void markSeen({ copyId: head.id, body: { what: 'all' } });
  }, [unread, head.id, markSeen]);
  return (
    <CopyFrame head={head} note={sayWhose(head, work.data)}>
      {work.data ? (
        <WorkOfCopy head={head} work={work.data} reload={() => work.refetch().unwrap()} />
      ) : work.error ? (
        <ProblemStrip of={work.error} onRetry={() => void work.refetch()} />
      ) : (
        <Waiting what="the work" />
      )}
    </CopyFrame>
  );
}

const sayPoints = ({ points }: CopyHead) => (points === null ? 'not marked' : `${points} points`);
function sayWhose(head: CopyHead, work: WorkView | undefined): string {
  if (work?.rules.by === 'student')
    return `Each hands in alone, ${sayPoints(head)}. Teammates do not see it.`;
  return `One hand-in for the ${head.members.length} of ${head.part === 'member' ? 'you' : 'them'}, ${sayPoints(head)}`;
}

interface WorkOfCopyProps {
  readonly head: CopyHead;
  readonly work: WorkView;
  readonly reload: () => Promise<WorkView>;
}

function WorkOfCopy({ head, work, reload }: WorkOfCopyProps) {
  const others = work.parts.filter((part) => !part.author.isYou && part.words > 0);
  const isEach = work.rules.by === 'student';
  return (
    <Split $aside="340px">
      <Main>
        <BriefBox aria-label="Brief">
          <Brief head={head} />
        </BriefBox>
        {head.rubric && head.points !== null && (
          <RubricTable rubric={head.rubric} points={head.points} isFolded />
        )}
        {!work.mayHandIn && <ProblemStrip>{sayWhyNot(head, work)}</ProblemStrip>}
        {work.mayHandIn && work.rules.takesText && <OwnPart head={head} work={work} reload={reload} />}
        {isEach && head.part !== 'member' ? (
          <EachHandIn head={head} work={work} />
        ) : (
          <FilesSection head={head} work={work} />
        )}
        {others.length > 0 && (
          <section aria-label="What the others wrote">
            <h2>
              What the others wrote<small>only they can change it</small>
            </h2>
            {others.map((part) => (
              <PartView key={part.author.enrolmentId} part={part} />
            ))}
          </section>
        )}
      </Main>
      {!(isEach && head.part !== 'member') && <HandInSide head={head} work={work} />}
    </Split>
  );
}

function sayWhyNot(head: CopyHead, work: WorkView): string {
  if (head.part === 'staff') return 'This is the students’ own work; you can read it.';
  if (head.part === 'reader') return 'This is another group’s work; you can read it.';
  if (head.access === 'read-only') return 'This is closed. You can read it, but no longer change it.';
  return work.rules.attempts === 'one'
    ? 'You can hand in only once here, and it is handed in.'
    : 'You can read it, but not change it.';
}

/** For staff: what each student of a group handed in alone. */
function EachHandIn({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  const { dates } = useCourse();
  return (
    <section aria-label="Hand-ins">
      <h2>Hand-ins</h2>
      {head.members.map((member) => {
        const own = work.handIns.filter((handIn) => handIn.owner?.enrolmentId === member.enrolmentId);
        return (
          <OneStudent key={member.enrolmentId} aria-label={member.name}>
            <header>
              <b>
                <PersonName name={member.name} reading={member.reading} />
              </b>
              <Small>
                {own[0]
                  ? `${dates.dateTime(own[0].handedInAt)}, ${sayLate(own[0].late) ?? 'on time'}`
                  : 'not handed in'}
              </Small>
            </header>
            {own.map((handIn) => (
              <HandedInWork key={handIn.id} copyId={head.id} handIn={handIn} dates={dates} />
            ))}
          </OneStudent>
        );
      })}
    </section>
  );
}
