import type { CopyHead } from '@jigsaw/contract/rooms';
import { ProblemStrip, unshown } from '../api/index.js';
import { PersonName, Small, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useReadWorkQuery } from './handinApi.js';
import { HandedInWork, PartView } from './HandedIn.js';

/** What was handed in, or what stands there so far, as it lies on the Marking desk. */
export default function DeskWork({
  head,
  student,
}: {
  readonly head: CopyHead;
  readonly student: string | null;
}) {
  const { dates } = useCourse();
  const work = useReadWorkQuery(head.id);
  if (unshown(work) !== undefined)
    return <ProblemStrip of={work.error} onRetry={() => void work.refetch()} />;
  if (!work.data) return <Waiting what="the work" rows={5} />;
  const { rules, parts } = work.data;
  const handIns = work.data.handIns.filter(
    (handIn) => student === null || handIn.owner?.enrolmentId === student,
  );
  const [latest] = handIns;
  const who =
    student === null
      ? (head.group?.name ?? 'Everyone')
      : (head.members.find((member) => member.enrolmentId === student)?.name ?? 'The student');
  if (!latest) {
    return (
      <>
        <header>
          <b>{who} has not handed in</b>
          <span>{head.schedule.due ? `due ${dates.dateTime(head.schedule.due)}` : ''}</span>
        </header>
        {parts.length > 0 && <Small>What they have so far:</Small>}
        {parts.map((part) => (
          <PartView key={part.author.enrolmentId} part={part} />
        ))}
      </>
    );
  }
  // Where all attempts are kept they make up the work together; else the latest counts.
  return (rules.attempts === 'all' ? handIns : [latest]).map((handIn) => (
    <section key={handIn.id}>
      <header>
        <b>
          {who}, hand-in no. {handIn.attempt}
        </b>
        <span>
          <PersonName name={handIn.handedInBy.name} />, {dates.dateTime(handIn.handedInAt)}
        </span>
      </header>
      <HandedInWork copyId={head.id} handIn={handIn} dates={dates} isOpen />
    </section>
  ));
}
