import { Lock } from 'lucide-react';
import { useParams } from 'react-router';
import { styled } from 'styled-components';
import type { SignUpView } from '@jigsaw/contract/placing';
import type { GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { problemOf, ProblemStrip } from '../api/index.js';
import {
  Button,
  Emblem,
  Empty,
  hueOfGroup,
  PersonName,
  Small,
  Tag,
  useNotice,
  Waiting,
} from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useReadSignUpQuery, useTakePlaceMutation } from './placingApi.js';

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
  grid-template-columns: repeat(auto-fill, minmax(340px, 1fr));
  gap: 12px;
  padding: 16px 32px 32px;
  max-width: 1280px;
  @media (max-width: 700px) {
    grid-template-columns: 1fr;
    padding: 12px 16px 24px;
  }
`;
const Card = styled.li`
  display: flex;
  flex-direction: column;
  gap: 10px;
  padding: 12px 14px;
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  min-width: 0;
  &[data-yours] {
    border: 2px solid var(--hue);
    padding: 11px 13px;
    background: var(--hue-tint);
  }
  &[data-shut] {
    background: var(--sunk);
  }
  > header {
    display: grid;
    grid-template-columns: 44px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
  }
  h2 {
    font: var(--h-22);
    overflow-wrap: anywhere;
  }
  .left {
    text-align: right;
    font: var(--h-22);
  }
  .left small {
    display: block;
    font: var(--t-12);
    color: var(--ink-2);
  }
  ul {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 4px;
    flex: 1;
    align-content: start;
  }
  li {
    padding: 5px 9px;
    min-height: 32px;
    border-radius: 3px;
    background: var(--hue-tint);
    color: var(--hue-ink);
    font: 600 13px/22px var(--font-text);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &[data-yours] li {
    background: var(--surface);
  }
  li[data-you] {
    background: var(--hue) !important;
    color: var(--on-hue, #fff);
  }
  li[data-free] {
    background: none;
    border: 1px dashed var(--edge);
    line-height: 20px;
    color: var(--ink-3);
    font-weight: 450;
  }
  li[data-taken] {
    background: repeating-linear-gradient(
      -45deg,
      var(--hue-tint),
      var(--hue-tint) 5px,
      transparent 5px,
      transparent 9px
    );
  }
  footer {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 10px;
    min-height: 44px;
  }
  footer button {
    min-height: 44px;
    padding: 0 16px;
    font-size: 14px;
  }
`;

const placesDrawn = 12;

/** A student chooses a group. The figure is always the number of places that are left now. */
export function SignUpPage() {
  const { setId = '' } = useParams();
  const { dates } = useCourse();
  const notice = useNotice();
  const query = useReadSignUpQuery(setId);
  const [take, { isLoading }] = useTakePlaceMutation();
  const view = query.currentData;
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
  const yours = view.groups.find((group) => group.id === view.yours);
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
      <Cards>
        {view.groups.map((group) => {
          const left = group.capacity === null ? null : Math.max(0, group.capacity - group.members);
          const isYours = group.id === view.yours;
          const isShut = !isYours && (left === 0 || group.isLocked);
          return (
            <Card
              key={group.id}
              aria-label={group.name}
              style={hueOfGroup(group.number)}
              data-yours={isYours || undefined}
              data-shut={isShut || undefined}
            >
              <header>
                <Emblem number={group.number} size={44} look={isYours ? 'solid' : isShut ? 'line' : 'pale'} />
                <h2>{group.name}</h2>
                <span className="left">
                  {left === null ? group.members : left === 0 ? 'Full' : left}
                  <small>
                    {left === null
                      ? 'in it'
                      : left === 0
                        ? `${group.members} of ${group.capacity}`
                        : left === 1
                          ? 'place left'
                          : 'places left'}
                  </small>
                </span>
              </header>
              <ul aria-label={`In ${group.name}`}>
                {placesOf(group).map((place, at) =>
                  place.kind === 'named' ? (
                    <li key={at} data-you={place.isYou || undefined}>
                      {place.isYou ? 'You' : <PersonName name={place.name} />}
                    </li>
                  ) : (
                    <li
                      key={at}
                      data-taken={place.kind === 'taken' || undefined}
                      data-free={place.kind === 'free' || undefined}
                    >
                      {place.says}
                    </li>
                  ),
                )}
              </ul>
              <footer>
                <Small>
                  {group.isLocked ? (
                    <>
                      <Lock size={13} aria-hidden="true" /> Locked
                    </>
                  ) : isYours ? (
                    <Tag>Yours</Tag>
                  ) : group.names === null ? (
                    'Names only for its members'
                  ) : (
                    ''
                  )}
                </Small>
                {mayChoose &&
                  (isYours ? (
                    <Button
                      isDisabled={isLoading}
                      onPress={() => void choose(null, `You left ${group.name}`)}
                    >
                      Leave this group
                    </Button>
                  ) : (
                    !isShut && (
                      <Button
                        kind={view.yours ? 'plain' : 'main'}
                        isDisabled={isLoading}
                        onPress={() => void choose(group.id, `You are in ${group.name}`)}
                      >
                        {view.yours ? `Move to ${group.name}` : `Join ${group.name}`}
                      </Button>
                    )
                  ))}
              </footer>
            </Card>
          );
        })}
      </Cards>
    </Frame>
  );
}

type Place =
  | { readonly kind: 'named'; readonly name: string; readonly isYou: boolean }
  | { readonly kind: 'taken' | 'free'; readonly says: string };

/** One box a place, as far as they can be drawn. */
function placesOf({ names, members, capacity }: SignUpView['groups'][number]): Place[] {
  const taken: Place[] = names
    ? names.map(({ name, isYou }) => ({ kind: 'named', name, isYou }))
    : Array.from({ length: members }, () => ({ kind: 'taken', says: 'taken' }));
  const free = capacity === null ? 0 : Math.max(0, capacity - members);
  const places: Place[] = [
    ...taken,
    ...Array.from({ length: free }, (): Place => ({ kind: 'free', says: 'free' })),
  ];
  if (places.length <= placesDrawn) return places;
  const more = places.length - (placesDrawn - 1);
  return [
    ...places.slice(0, placesDrawn - 1),
    { kind: taken.length > placesDrawn ? 'taken' : 'free', says: `and ${more} more` },
  ];
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
