import { useState } from 'react';
import { styled } from 'styled-components';
import { v7 as uuid } from 'uuid';
import { z } from 'zod';
import { SendingId } from '@jigsaw/contract/common';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { placeholdersIn, wordsToFill } from '@jigsaw/core/messages';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Empty, Field, Sheet, Small } from '../look/index.js';
import { forgetKeptDraft, useAct, useKeptDraft } from '../page/index.js';
import { useRemoveMessageMutation, useRemoveSendingMutation, useSendMessageMutation } from './messagesApi.js';
import { RecipientField, useRecipients } from './RecipientField.js';
import type { Addressed } from './RecipientField.js';

const Fields = styled.div`
  display: grid;
  gap: 12px;
  .fill {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 6px;
    align-items: center;
  }
`;

interface WriteSheetProps {
  /** People to write to, each alone; who writes is left out. */
  readonly people?: readonly { readonly enrolmentId: EnrolmentId; readonly name: string }[];
  /** Groups to write to. Neither: the writer chooses. */
  readonly groups?: readonly { readonly id: GroupId; readonly name: string }[];
  /** What is written already, for them to change. */
  readonly draft?: { readonly subject: string; readonly text: string };
  readonly onClose: () => void;
  /** @param threadId the thread that was begun; null: there are several. */
  readonly onDone: (threadId: string | null) => void;
}

const addressedPeople = (people: NonNullable<WriteSheetProps['people']>): Addressed => ({
  to: { kind: 'people', enrolmentIds: people.map(({ enrolmentId }) => enrolmentId) },
  count: people.length,
  who: people.length === 1 ? sure(people[0]).name : counted(people.length, 'person', 'people'),
});
const addressedGroups = (groups: NonNullable<WriteSheetProps['groups']>): Addressed => ({
  to: { kind: 'groups', groupIds: groups.map(({ id }) => id) },
  count: groups.length,
  who: groups.length === 1 ? sure(groups[0]).name : counted(groups.length, 'group'),
});

/** A message to people or groups, each in a thread of their own. */
export function WriteSheet({ people, groups, draft, onClose, onDone }: WriteSheetProps) {
  const { course } = useCourse();
  const others = people?.filter(({ enrolmentId }) => enrolmentId !== course.enrolmentId);
  const given = others ? addressedPeople(others) : groups ? addressedGroups(groups) : null;
  // As it was shown, also when someone leaves meanwhile: the server says so.
  const [fixed] = useState(given);
  if (fixed?.count === 0)
    return (
      <Sheet title="Write a message" onClose={onClose}>
        <Empty title="No one else here">There is no one to write to but you.</Empty>
      </Sheet>
    );
  return <Letter fixed={fixed} draft={draft} onClose={onClose} onDone={onDone} />;
}

const newId = () => SendingId.parse(uuid());
const Draft = z.object({ subject: z.string(), text: z.string() });
const nothing = { subject: '', text: '' };

/** Each has a draft of its own, whatever is written to others meanwhile. */
const draftOf = (courseId: string, fixed: Addressed | null): string =>
  `message ${courseId} ${fixed === null ? '' : `${JSON.stringify(fixed.to).slice(0, 400)} ${fixed.count}`}`;

interface LetterProps extends Pick<WriteSheetProps, 'onClose' | 'onDone'> {
  readonly fixed: Addressed | null;
  readonly draft: WriteSheetProps['draft'];
}
function Letter({ fixed, draft: begun, onClose, onDone }: LetterProps) {
  const { course } = useCourse();
  const key = draftOf(course.id, fixed);
  const [draft, setDraft] = useKeptDraft(key, Draft, begun ?? nothing);
  const [chosen, setChosen] = useState<string | null>(null);
  const recipients = useRecipients(course.id, fixed === null);
  const [id] = useState(newId);
  // As many as are shown at this moment.
  const addressed = fixed ?? recipients.lines?.find((line) => line.id === chosen) ?? null;
  const removeMessage = useAct(useRemoveMessageMutation());
  const removeSending = useAct(useRemoveSendingMutation());
  const send = useAct(useSendMessageMutation(), {
    isRefusalShown: true,
    says: () => `Sent to ${addressed?.who ?? ''}`,
    undo: (sent) => () => (sent.threadId === null ? removeSending(sent.id) : removeMessage(sent.id)),
  });
  const isStaff = course.role !== 'student';
  const { subject, text } = draft;
  const isReady = addressed !== null && subject.trim() !== '' && text.trim() !== '';
  const submit = async () => {
    if (!addressed || !isReady) return;
    const body = { id, to: addressed.to, subject, text, count: addressed.count };
    const sent = await send({ courseId: course.id, body });
    if (!sent) return;
    forgetKeptDraft(key);
    onDone(sent.threadId);
  };
  return (
    <Sheet title={fixed ? `Write to ${fixed.who}` : 'Write a message'} onClose={onClose}>
      {send.error !== undefined && <ProblemStrip of={send.error} />}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <Fields>
          {fixed === null && <RecipientField recipients={recipients} chosen={chosen} onChoose={setChosen} />}
          <Field
            label="Subject"
            value={subject}
            onChange={(next) => setDraft({ ...draft, subject: next })}
            maxLength={200}
            autoFocus={fixed !== null}
          />
          <Field
            label="Message"
            lines={8}
            value={text}
            onChange={(next) => setDraft({ ...draft, text: next })}
            maxLength={10_000}
          />
          {isStaff && (
            <div className="fill">
              <Small>Add</Small>
              {wordsToFill.map((word) => (
                <Button
                  key={word}
                  kind="quiet"
                  isSmall
                  aria-label={`Add ${word} to the message`}
                  onPress={() => setDraft({ ...draft, text: text + word })}
                >
                  {word}
                </Button>
              ))}
            </div>
          )}
          <Small>{addressed ? sayWhoReads(addressed, subject + text) : 'Replies come back here.'}</Small>
        </Fields>
        <footer>
          <Button kind="main" type="submit" isDisabled={!isReady || send.isBusy}>
            {send.isBusy ? 'One moment…' : addressed ? `Send to ${addressed.who}` : 'Send'}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}

function sayWhoReads({ to, count }: Addressed, typed: string): string {
  const reads = {
    staff: 'Those who teach you read this. Their reply comes back here.',
    groups:
      count === 1
        ? 'The members and the staff read this, and reply here.'
        : 'Each group gets a thread of its own, which its members and the staff read.',
    set: 'Each group gets a thread of its own, which its members and the staff read.',
    people:
      count === 1
        ? 'Their reply comes back here.'
        : 'Each person gets a thread of their own. Replies come back here.',
    audience: 'Each person gets a thread of their own. Replies come back here.',
    class: 'Each student gets a thread of their own. Replies come back here.',
  }[to.kind];
  const filled = to.kind === 'staff' ? [] : placeholdersIn(typed);
  return filled.length === 0
    ? reads
    : `${reads} ${filled.join(' and ')} ${filled.length === 1 ? 'is' : 'are'} replaced by their own.`;
}
