import { useState } from 'react';
import { useNavigate } from 'react-router';
import { styled } from 'styled-components';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { ProblemStrip } from '../api/index.js';
import { Button, Field, Sheet, Small, useNotice } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useWriteToPeopleMutation } from './mailApi.js';

const Fields = styled.div`
  display: grid;
  gap: 12px;
`;

interface WriteSheetProps {
  readonly people: readonly { readonly enrolmentId: EnrolmentId; readonly name: string }[];
  /** Whether the writer may look at the outbox. */
  readonly hasOutbox: boolean;
  /** What is written already, for them to change. */
  readonly draft?: { readonly subject: string; readonly text: string };
  readonly onClose: () => void;
  readonly onDone: () => void;
}

/** A message to people of the roster, each alone. */
export function WriteSheet({ people, draft, hasOutbox, onClose, onDone }: WriteSheetProps) {
  const { course } = useCourse();
  const navigate = useNavigate();
  const notice = useNotice();
  const [subject, setSubject] = useState(draft?.subject ?? '');
  const [text, setText] = useState(draft?.text ?? '');
  const [write, { error, isLoading }] = useWriteToPeopleMutation();
  const isReady = subject.trim() !== '' && text.trim() !== '';
  const who = people.length === 1 ? sure(people[0]).name : `${people.length} people`;
  const send = async () => {
    const answer = await write({
      courseId: course.id,
      body: { enrolmentIds: people.map((each) => each.enrolmentId), subject, text },
    });
    if (!('data' in answer) || !answer.data) return;
    notice(
      `Written to ${who}`,
      ...(hasOutbox ? [{ label: 'Outbox', do: () => void navigate(`/c/${course.id}/outbox`) }] : []),
    );
    onDone();
  };
  return (
    <Sheet title={`Write to ${who}`} onClose={onClose}>
      {error && <ProblemStrip of={error} />}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (isReady) void send();
        }}
      >
        <Fields>
          <Field label="Subject" value={subject} onChange={setSubject} maxLength={200} autoFocus />
          <Field label="Message" lines={8} value={text} onChange={setText} maxLength={10_000} />
          <Small>
            {people.length === 1
              ? 'Replies go to your own address.'
              : 'Each person gets a separate message. Replies go to your own address.'}
          </Small>
        </Fields>
        <footer>
          <Button kind="main" type="submit" isDisabled={!isReady || isLoading}>
            {isLoading ? 'One moment…' : `Send to ${who}`}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
