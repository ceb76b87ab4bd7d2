import { Link, useNavigate, useParams } from 'react-router';
import { styled } from 'styled-components';
import type { SendingView } from '@jigsaw/contract/messages';
import { counted } from '@jigsaw/core/text';
import { isProblem, ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Small, Tag, useFontsOf, Waiting } from '../look/index.js';
import { useAct } from '../page/index.js';
import { useReadSendingQuery, useRemoveSendingMutation, useRestoreSendingMutation } from './messagesApi.js';
import { NotHere } from './NotHere.js';
import { Reading } from './ThreadPanel.js';
import { WithName } from './WithName.js';

const Text = styled.p`
  max-width: 760px;
  padding: 12px 16px;
  background: var(--surface);
  border: var(--hair);
  border-left: 4px solid var(--ink);
  border-radius: var(--r-2);
  font: var(--t-15);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
`;
const Recipients = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 0 16px;
  margin-top: 8px;
  li {
    border-bottom: var(--hair);
    content-visibility: auto;
    contain-intrinsic-size: auto 36px;
  }
  a {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    align-items: center;
    min-height: 36px;
    text-decoration: none;
  }
  a:hover {
    text-decoration: underline;
  }
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  margin-top: 22px;
  h3 {
    font: var(--h-14);
  }
`;

/** One message that went to many: who got it, who replied, and the way to each thread. */
export function SendingPanel() {
  const { sendingId = '' } = useParams();
  const sending = useReadSendingQuery(sendingId);
  if (isProblem(unshown(sending), 'not-found')) return <NotHere />;
  if (unshown(sending) !== undefined)
    return <ProblemStrip of={sending.error} onRetry={() => void sending.refetch()} />;
  if (!sending.currentData) return <Waiting what="the message" rows={4} />;
  return <Shown key={sendingId} sending={sending.currentData} />;
}

function Shown({ sending }: { readonly sending: SendingView }) {
  const { id, subject, text, at, by, kind, count, replied, threads } = sending;
  const { course, dates } = useCourse();
  const navigate = useNavigate();
  const base = `/c/${course.id}/messages`;
  const restore = useAct(useRestoreSendingMutation());
  const remove = useAct(useRemoveSendingMutation(), {
    says: () => `“${subject}” removed from ${counted(count, 'thread')}`,
    undo: () => () => restore(id),
  });
  useFontsOf(text);
  const first = [...threads].sort((a, b) => Number(b.hasReplied) - Number(a.hasReplied));
  return (
    <Reading aria-label={subject}>
      <header>
        <Link className="back" to={base}>
          All messages
        </Link>
        <h2 dir="auto">{subject}</h2>
        <Small>
          {by.isYou ? 'You' : by.name} to{' '}
          {kind === 'groups' ? counted(count, 'group') : counted(count, 'person', 'people')},{' '}
          {dates.dateTime(at)}
        </Small>
      </header>
      <div className="body" tabIndex={0} role="group" aria-label="The message and who got it">
        <Text dir="auto">{text}</Text>
        <Head>
          <h3>
            {replied} of {count} replied
          </h3>
          <Button
            kind="quiet"
            isSmall
            isDisabled={remove.isBusy}
            onPress={() => void remove(id).then((done) => done && navigate(base))}
          >
            Remove from all threads
          </Button>
        </Head>
        <Recipients aria-label="Recipients">
          {first.map((thread) => (
            <li key={thread.id}>
              <Link to={`${base}/${thread.id}`}>
                <WithName of={thread.with} />
                {thread.hasReplied && <Tag $look="solid">replied</Tag>}
              </Link>
            </li>
          ))}
        </Recipients>
      </div>
    </Reading>
  );
}
