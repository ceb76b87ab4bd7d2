import { useState } from 'react';
import { useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { linkDays } from '@jigsaw/contract/identity';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { invitation } from '@jigsaw/core/mail';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { useReadSessionQuery } from '../identity/index.js';
import { Button, PersonName, Sheet, Small, useNotice } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useInviteMutation } from './mailApi.js';

const People = styled.ul`
  max-height: 168px;
  overflow: auto;
  border: var(--hair);
  margin: 6px 0 14px;
  li {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0 12px;
    padding: 5px 10px;
    border-bottom: var(--hair);
  }
`;
const Letter = styled.blockquote`
  display: grid;
  margin: 0;
  gap: 8px;
  padding: 12px 14px;
  border: var(--hair);
  background: var(--wash-2);
  u {
    text-underline-offset: 3px;
  }
`;

interface InviteSheetProps {
  readonly people: readonly {
    readonly enrolmentId: EnrolmentId;
    readonly name: string;
    readonly email: string;
  }[];
  readonly onClose: () => void;
  readonly onDone: () => void;
}

const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString();

/** What each person gets, before it goes. */
export function InviteSheet({ people: asked, onClose, onDone }: InviteSheetProps) {
  const [people] = useState(asked); // as it was shown, also when someone signs in meanwhile
  const { course, dates } = useCourse();
  const session = useReadSessionQuery();
  const navigate = useNavigate();
  const notice = useNotice();
  const [invite, { error, isLoading }] = useInviteMutation();
  const mail = invitation({
    name: sure(people[0]).name,
    courseTitle: course.title,
    courseCode: course.code,
    invitedBy: session.data?.person.name ?? '',
    url: '',
    until: dates.day(inDays(linkDays)),
  });
  const send = async () => {
    const answer = await invite({
      courseId: course.id,
      body: { enrolmentIds: people.map((each) => each.enrolmentId) },
    });
    if (!('data' in answer) || !answer.data) return;
    notice(`${answer.data.invited} invited`, {
      label: 'Outbox',
      do: () => void navigate(`/c/${course.id}/outbox`),
    });
    onDone();
  };
  return (
    <Sheet title={`Invite ${counted(people.length, 'person', 'people')}`} onClose={onClose}>
      {error && <ProblemStrip of={error} />}
      <h3>To</h3>
      <People aria-label="Recipients" tabIndex={0}>
        {people.map((each) => (
          <li key={each.enrolmentId}>
            <PersonName name={each.name} />
            <Small>{each.email}</Small>
          </li>
        ))}
      </People>
      <Letter aria-label="What they get">
        <b>{mail.subject}</b>
        {mail.paragraphs.map((paragraph) => (
          <p key={paragraph}>{paragraph}</p>
        ))}
        <u>{mail.link.label}</u>
        <Small>{mail.why}</Small>
      </Letter>
      <footer>
        {people.length > 1 && (
          <Small style={{ alignSelf: 'center' }}>Each person gets their own name and link.</Small>
        )}
        <Button kind="main" isDisabled={isLoading} onPress={() => void send()}>
          {isLoading ? 'One moment…' : `Send ${counted(people.length, 'invitation')}`}
        </Button>
      </footer>
    </Sheet>
  );
}
