import { useMemo } from 'react';
import { styled } from 'styled-components';
import type { RecipientChoice, Recipients } from '@jigsaw/contract/messages';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Choice, Small, Waiting } from '../look/index.js';
import { useListRecipientsQuery } from './messagesApi.js';

const Frame = styled.div`
  display: grid;
  gap: 6px;
`;

/** Who gets a message, in words, and how many that is. */
export interface Addressed {
  readonly to: Recipients;
  readonly count: number;
  /** “Noor”, “3 people”, “12 groups”. */
  readonly who: string;
}

/** One that can be written to, as the list of them shows it. */
interface Line extends Addressed {
  readonly id: string;
  readonly label: string;
}

const each = (who: string, count: number, noun: string, plural?: string) => `${who}, ${counted(count, noun, plural)}`; // prettier-ignore

function linesOf({ everyone, hasStaff, sets, audiences }: RecipientChoice): readonly Line[] {
  const lines: Line[] = [];
  if (hasStaff) lines.push({ id: 'staff', label: 'Staff', who: 'staff', to: { kind: 'staff' }, count: 1 });
  if (everyone !== null && everyone > 0)
    lines.push({ id: 'class', label: each('Every student', everyone, 'person', 'people'), who: counted(everyone, 'student'), to: { kind: 'class' }, count: everyone }); // prettier-ignore
  for (const { id, name, people } of audiences)
    if (people > 0)
      lines.push({ id, label: each(name, people, 'person', 'people'), who: each(name, people, 'person', 'people'), to: { kind: 'audience', audienceId: id }, count: people }); // prettier-ignore
  // A student’s sets are the one group in each.
  if (!hasStaff)
    for (const { id, name, groups } of sets)
      lines.push({ id, label: each(`Each of ${name}`, groups.length, 'group'), who: counted(groups.length, 'group'), to: { kind: 'set', setId: id }, count: groups.length }); // prettier-ignore
  for (const { name: set, groups } of sets)
    for (const { id, name } of groups)
      lines.push({ id, label: sets.length > 1 ? `${name}, ${set}` : name, who: name, to: { kind: 'groups', groupIds: [id] }, count: 1 }); // prettier-ignore
  return lines;
}

/** Who someone may write to now. Asked for anew whenever someone begins to write.
 * @param isChosen they choose; else nothing is asked for. */
export function useRecipients(courseId: string, isChosen: boolean) {
  const recipients = useListRecipientsQuery(courseId, { skip: !isChosen, refetchOnMountOrArgChange: true });
  const lines = useMemo(() => (recipients.data ? linesOf(recipients.data) : null), [recipients.data]);
  return { lines, fault: unshown(recipients), retry: () => void recipients.refetch() };
}

interface RecipientFieldProps {
  readonly recipients: ReturnType<typeof useRecipients>;
  readonly chosen: string | null;
  readonly onChoose: (id: string) => void;
}

/** Who to write to: staff, everyone, an audience, each group of a set, or one group. */
export function RecipientField({ recipients, chosen, onChoose }: RecipientFieldProps) {
  const { course } = useCourse();
  const { lines, fault, retry } = recipients;
  if (fault !== undefined) return <ProblemStrip of={fault} onRetry={retry} />;
  if (!lines) return <Waiting what="who you may write to" rows={1} />;
  return (
    <Frame>
      <Choice
        label="To"
        placeholder="Choose who to write to"
        value={chosen}
        choices={lines}
        onChange={onChoose}
      />
      {course.role !== 'student' && <Small>To write to single people, select them in People.</Small>}
    </Frame>
  );
}
