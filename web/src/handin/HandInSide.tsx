import { styled } from 'styled-components';
import type { WorkView } from '@jigsaw/contract/handin';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { lateness } from '@jigsaw/core/handin';
import { sure } from '@jigsaw/core/lists';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { Button, PersonName, Small, Tag, useNotice } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useNow } from '../page/index.js';
import { useHandInMutation } from './handinApi.js';
import { sayLate } from './words.js';
import { HandedInWork } from './HandedIn.js';

const Side = styled.aside`
  overflow: auto;
  border-left: 1px solid var(--ink);
  background: var(--surface);
  padding: 20px 24px;
  display: grid;
  gap: 14px;
  align-content: start;
  .main button {
    width: 100%;
    height: 44px;
    font-size: 15px;
  }
  ol {
    display: grid;
    gap: 8px;
    border-top: var(--hair);
    padding-top: 12px;
  }
  @media (max-width: 900px) {
    border-left: 0;
    border-top: 1px solid var(--ink);
    padding: 16px;
  }
`;

const Who = styled.ul`
  border-top: var(--hair);
  padding-top: 10px;
  li {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 4px 0;
    font: var(--t-13);
  }
  li > :last-child {
    color: var(--ink-2);
    white-space: nowrap;
  }
`;

/** What each member has put in so far; the same for everyone in the group. */
function Shares({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  return (
    <Who aria-label="Who contributed what">
      {head.members.map((member) => {
        const words = work.parts.find((part) => part.author.enrolmentId === member.enrolmentId)?.words ?? 0;
        const files = work.files.filter((file) => file.addedBy.enrolmentId === member.enrolmentId).length;
        const done = [words > 0 && `${words} words`, files > 0 && counted(files, 'file')]
          .filter(Boolean)
          .join(', ');
        return (
          <li key={member.enrolmentId}>
            <b>
              <PersonName name={member.name} reading={member.reading} />
              {member.isYou && ' (you)'}
            </b>
            <span>{done || 'nothing yet'}</span>
          </li>
        );
      })}
    </Who>
  );
}

export function HandInSide({ head, work }: { readonly head: CopyHead; readonly work: WorkView }) {
  const { dates } = useCourse();
  const notice = useNotice();
  const [handIn, { error, isLoading }] = useHandInMutation();
  const latest = work.handIns[0];
  // As of this moment, not of when the page was opened.
  const { due, closes } = head.schedule;
  const now = useNow(due, closes);
  const late = sayLate(
    lateness(now, due === null ? null : Date.parse(due), head.latePolicy, head.points ?? '0'),
  );
  const isClosed = closes !== null && now >= Date.parse(closes);
  const isEach = work.rules.by === 'student';
  const isNew = work.files.some((file) => !file.isHandedIn);
  const isEmpty = work.files.length === 0 && work.parts.every((part) => part.words === 0);
  const isUnchanged =
    work.state === 'done' ||
    (work.rules.attempts === 'all' && latest !== undefined && !isNew && !work.rules.takesText);
  const why = isEmpty
    ? work.rules.takesText
      ? 'Write something or add a file first.'
      : 'Add a file first.'
    : isUnchanged
      ? 'Everything here is handed in.'
      : null;
  const forWhom = isEach ? '' : ` for all ${head.members.length}`;
  const submit = async () => {
    const answer = await handIn({ copyId: head.id, attempt: (latest?.attempt ?? 0) + 1 });
    if ('data' in answer && answer.data) notice(`Handed in${forWhom}`);
  };
  return (
    <Side aria-label="Hand in">
      <h2>{latest ? (isUnchanged ? 'Handed in' : 'Handed in, changed since') : 'Not handed in yet'}</h2>
      {latest && (
        <p>
          <PersonName name={latest.handedInBy.isYou ? 'You' : latest.handedInBy.name} /> handed in{' '}
          {dates.dateTime(latest.handedInAt)}
          {sayLate(latest.late) ? `, ${sayLate(latest.late)}` : ', on time'}
          {isEach
            ? '.'
            : `. It counts for ${latest.credited.map((member) => (member.isYou ? 'you' : member.name)).join(', ')}.`}
        </p>
      )}
      {work.mayHandIn && isClosed && (
        <p>It closed on {dates.dateTime(sure(closes))}. You can still read what is here.</p>
      )}
      {work.mayHandIn && !isClosed && (
        <>
          {late && !isUnchanged && (
            <p>
              <Tag $look="needs">{late}</Tag> <Small>if handed in now</Small>
            </p>
          )}
          {error && <ProblemStrip of={error} />}
          <div className="main">
            <Button kind="main" isDisabled={why !== null || isLoading} onPress={() => void submit()}>
              {isLoading ? 'Handing in…' : `${latest ? 'Hand in again' : 'Hand in'}${forWhom}`}
            </Button>
          </div>
          <Small>{why ?? attemptsSay[work.rules.attempts]}</Small>
        </>
      )}
      {!isEach && <Shares head={head} work={work} />}
      {work.handIns.length > 0 && (
        <ol aria-label="Hand-ins">
          {work.handIns.map((each) => (
            <li key={each.id}>
              <details>
                <summary>
                  <b>No. {each.attempt}</b> · {dates.dateTime(each.handedInAt)} · {each.files.length}{' '}
                  {each.files.length === 1 ? 'file' : 'files'}
                  {work.rules.takesText && `, ${each.parts.reduce((sum, part) => sum + part.words, 0)} words`}
                </summary>
                <HandedInWork copyId={head.id} handIn={each} dates={dates} />
              </details>
            </li>
          ))}
        </ol>
      )}
    </Side>
  );
}

const attemptsSay = {
  one: 'You can hand in only once. Check everything first.',
  latest: 'What is here is handed in as it is. You can add to it and hand in again; the latest counts.',
  all: 'What is new here is handed in. You can hand in more later. Everything is kept.',
} as const;
