import { useParams } from 'react-router';
import { styled } from 'styled-components';
import type { SignUpView } from '@jigsaw/contract/placing';
import type { GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { problemOf, ProblemStrip } from '../api/index.js';
import { Empty, useNotice, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useNow } from '../page/index.js';
import { useAwaitPlaceMutation, useReadSignUpQuery, useTakePlaceMutation } from './placingApi.js';
import { SignUpCard } from './SignUpCard.js';
import { SignUpSide } from './SignUpSide.js';
import { useIsNarrow } from './useIsNarrow.js';

const Frame = styled.main`
  overflow: auto;
`;
const Head = styled.header`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px 28px;
  align-items: end;
  padding: 20px 32px 18px;
  background: var(--surface);
  border-bottom: 1px solid var(--ink);
  h1 {
    font: var(--h-32);
  }
  p {
    font: 15px/22px var(--font-text);
    color: var(--ink-2);
    max-width: 70ch;
    white-space: pre-line;
  }
  dl {
    display: flex;
    gap: 24px;
  }
  dt {
    font: var(--h-17);
  }
  dd {
    font: var(--t-12);
    color: var(--ink-2);
  }
  @media (max-width: 700px) {
    grid-template-columns: 1fr;
    padding: 14px 16px;
  }
`;
const Cards = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 280px), 1fr));
  gap: 12px;
  align-content: start;
  padding: 16px 20px 32px 32px;
  @media (max-width: 700px) {
    grid-template-columns: 1fr;
    padding: 12px 16px 24px;
  }
`;
const Body = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 312px;
  max-width: 1600px;
  min-height: calc(100% - 110px);
  @media (max-width: 900px) {
    display: block;
    min-height: 0;
  }
`;

/** Something that happened this long ago is new to the eye. */
const justNowMs = 60_000;

/** A student chooses a group. The figure is always the number of places that are left now. */
export function SignUpPage() {
  const { setId = '' } = useParams();
  const { dates } = useCourse();
  const notice = useNotice();
  const query = useReadSignUpQuery(setId);
  const [take, { isLoading }] = useTakePlaceMutation();
  const [ask, { isLoading: isAsking }] = useAwaitPlaceMutation();
  const view = query.currentData;
  const now = useNow();
  const isNarrow = useIsNarrow();
  if (!view && query.error) {
    const isGone = problemOf(query.error).status === 404;
    return isGone ? (
      <Empty title="There is nothing to choose here">Your instructor places you in a group.</Empty>
    ) : (
      <ProblemStrip of={query.error} />
    );
  }
  if (!view) return <Waiting what="the groups" rows={8} />;
  const choose = async (groupId: GroupId | null, said: string) => {
    const before = view.yours;
    const answer = await take({ setId, groupId });
    if ('data' in answer && answer.data)
      notice(said, { label: 'Undo', do: () => void choose(before, 'Undone') });
    else notice(problemOf(answer.error).detail);
  };
  const awaitPlace = async ({ id, name }: SignUpView['groups'][number], isAwaited: boolean) => {
    const answer = await ask({ setId, groupId: id, isAwaited });
    if (!('data' in answer) || !answer.data) return notice(problemOf(answer.error).detail);
    notice(isAwaited ? `You get one email when a place in ${name} is free` : `No email about ${name}`, {
      label: 'Undo',
      do: () => void ask({ setId, groupId: id, isAwaited: !isAwaited }),
    });
  };
  const yours = view.groups.find((group) => group.id === view.yours);
  // On a phone one's own group is first, for eyes and readers alike.
  const inOrder =
    yours && isNarrow ? [yours, ...view.groups.filter((group) => group !== yours)] : view.groups;
  const mayChoose = view.state === 'open' && view.bound === null;
  return (
    <Frame>
      <Head>
        <div>
          <h1>{yours ? `${view.set.name}: ${yours.name}` : `Choose your group in ${view.set.name}`}</h1>
          <p>{view.set.description}</p>
        </div>
        <dl>
          <div>
            <dt>{sayWhen(view, dates)[0]}</dt>
            <dd>{sayWhen(view, dates)[1]}</dd>
          </div>
          <div>
            <dt>
              {view.chosen} of {view.students}
            </dt>
            <dd>have chosen</dd>
          </div>
        </dl>
      </Head>
      {view.bound && <ProblemStrip>{view.bound}</ProblemStrip>}
      <Body>
        <Cards>
          {inOrder.map((group) => (
            <SignUpCard
              key={group.id}
              group={group}
              isYours={group.id === view.yours}
              hasPlace={view.yours !== null}
              mayChoose={mayChoose}
              isSending={isLoading || isAsking}
              isJustNow={view.latest.some(
                (each) => each.groupId === group.id && now - Date.parse(each.at) < justNowMs,
              )}
              onTake={() => void choose(group.id, `You are in ${group.name}`)}
              onLeave={() => void choose(null, `You left ${group.name}`)}
              onAwait={(isAwaited) => void awaitPlace(group, isAwaited)}
            />
          ))}
        </Cards>
        <SignUpSide {...{ view, dates, now }} />
      </Body>
    </Frame>
  );
}

function sayWhen(
  { state, set }: SignUpView,
  dates: { dateTime: (at: string) => string },
): readonly [string, string] {
  if (state === 'frozen') return ['Fixed', 'by your instructor'];
  if (state === 'not-open-yet') return [dates.dateTime(sure(set.opens)), 'choosing begins then'];
  if (state === 'closed') return [dates.dateTime(sure(set.closes)), 'choosing ended then'];
  return set.closes
    ? [dates.dateTime(set.closes), 'your choice can change until then']
    : ['Open', 'until your instructor fixes the groups'];
}
