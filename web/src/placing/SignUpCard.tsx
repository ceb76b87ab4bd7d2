import { BellOff, BellRing, Lock } from 'lucide-react';
import { styled } from 'styled-components';
import type { SignUpView } from '@jigsaw/contract/placing';
import { Button, Emblem, hueOfGroup, PersonName, Small, Tag } from '../look/index.js';

type SignUpGroup = SignUpView['groups'][number];

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
  header small {
    display: block;
    font: var(--t-12);
    color: var(--ink-2);
    overflow-wrap: anywhere;
  }
  > p {
    font: var(--t-13);
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
    flex-wrap: wrap;
    gap: 8px 10px;
    min-height: 44px;
  }
  footer > :first-child {
    flex: 1 1 96px;
  }
  footer button {
    min-height: 44px;
    padding: 0 16px;
    font-size: 14px;
  }
`;

const placesDrawn = 12;

interface SignUpCardProps {
  readonly group: SignUpGroup;
  readonly isYours: boolean;
  /** Whether the reader has a place in some group. */
  readonly hasPlace: boolean;
  readonly mayChoose: boolean;
  readonly isSending: boolean;
  /** A place was taken or came free a moment ago. */
  readonly isJustNow: boolean;
  readonly onTake: () => void;
  readonly onLeave: () => void;
  readonly onAwait: (isAwaited: boolean) => void;
}

/** A group to choose: when and where it meets, who is in it, and how many places are left now. */
export function SignUpCard({ group, isYours, hasPlace, mayChoose, isSending, ...rest }: SignUpCardProps) {
  const left = group.capacity === null ? null : Math.max(0, group.capacity - group.members);
  const isShut = !isYours && (left === 0 || group.isLocked);
  const { time, place, about } = group.details;
  return (
    <Card
      aria-label={group.name}
      style={hueOfGroup(group.number)}
      data-yours={isYours || undefined}
      data-shut={isShut || undefined}
    >
      <header>
        <Emblem number={group.number} size={44} look={isYours ? 'solid' : isShut ? 'line' : 'pale'} />
        <div style={{ minWidth: 0 }}>
          <h2>
            <bdi>{group.name}</bdi>
          </h2>
          {(time !== '' || place !== '') && <small>{[time, place].filter(Boolean).join(' · ')}</small>}
        </div>
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
          {rest.isJustNow && <small>just now</small>}
        </span>
      </header>
      {about !== '' && <p>{about}</p>}
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
          <Says group={group} isYours={isYours} />
        </Small>
        {mayChoose && <Acts {...{ group, isYours, hasPlace, isShut, isSending }} {...rest} />}
      </footer>
    </Card>
  );
}

/** What to know before choosing it. */
function Says({ group, isYours }: Pick<SignUpCardProps, 'group' | 'isYours'>) {
  if (group.isLocked)
    return (
      <>
        <Lock size={13} aria-hidden="true" /> Locked
      </>
    );
  const fit = group.fits === null ? null : group.fits ? 'You are free then' : 'You are not free then';
  return (
    <>
      {isYours && <Tag>Yours</Tag>} {group.fits === false ? <Tag $look="dash">{fit}</Tag> : fit}
      {group.awaiting > 0 && <div>{group.awaiting} waiting for a place</div>}
      {group.names === null && <div>Names only for its members</div>}
    </>
  );
}

function Acts(props: Omit<SignUpCardProps, 'mayChoose' | 'isJustNow'> & { readonly isShut: boolean }) {
  const { group, isYours, hasPlace, isShut, isSending, onTake, onLeave, onAwait } = props;
  if (isYours)
    return (
      <Button isDisabled={isSending} onPress={onLeave}>
        Leave this group
      </Button>
    );
  if (!isShut)
    return (
      <Button kind={hasPlace ? 'plain' : 'main'} isDisabled={isSending} onPress={onTake}>
        {hasPlace ? `Move to ${group.name}` : `Join ${group.name}`}
      </Button>
    );
  return group.isAwaited ? (
    <Button isDisabled={isSending} onPress={() => onAwait(false)}>
      <BellOff size={15} aria-hidden="true" />
      Do not email me
    </Button>
  ) : (
    <Button isDisabled={isSending} onPress={() => onAwait(true)}>
      <BellRing size={15} aria-hidden="true" />
      Email me when a place is free
    </Button>
  );
}

type Place =
  | { readonly kind: 'named'; readonly name: string; readonly isYou: boolean }
  | { readonly kind: 'taken' | 'free'; readonly says: string };

/** One box a place, as far as they can be drawn. */
function placesOf({ names, members, capacity }: SignUpGroup): Place[] {
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
