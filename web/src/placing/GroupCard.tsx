import { Ellipsis, FileCheck, Flag } from 'lucide-react';
import { memo, useEffect, useMemo, useState } from 'react';
import { styled } from 'styled-components';
import type { BoardGroup } from '@jigsaw/contract/sets';
import type { BoardStudent } from '@jigsaw/contract/placing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { Emblem, hueOfGroup, Small, Tag } from '../look/index.js';
import type { Spot } from '../look/index.js';
import type { HomeTag } from './experts.js';
import { leaderOf } from './seating.js';
import type { Chosen } from './seating.js';
import { mostDrawn, StudentList, StudentName } from './StudentList.js';
import { counted } from '@jigsaw/core/text';

const Card = styled.section`
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  min-width: 0;
  min-height: 194px;
  display: flex;
  flex-direction: column;
  /* Cards out of view are neither laid out nor painted. */
  content-visibility: auto;
  contain-intrinsic-size: auto 194px;
  &[data-table] {
    min-height: 120px;
    contain-intrinsic-size: auto 120px;
  }
  &[data-locked] {
    background: var(--paper);
  }
  &[data-over] {
    border-color: var(--attn-line);
    box-shadow: inset 0 3px var(--attn);
  }
  > header {
    display: grid;
    grid-template-columns: 36px minmax(0, 1fr) auto auto;
    gap: 6px;
    align-items: center;
    padding: 6px 8px 4px 7px;
  }
  > header > div > * {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  h3 {
    font: var(--h-17);
    font-size: 16px;
  }
  > div {
    flex: 1;
    padding: 0 6px 6px;
    display: flex;
    flex-direction: column;
  }
  > div > :first-child {
    flex: 1;
  }
  /* A section of hundreds scrolls in itself. */
  > div[data-long] {
    position: relative;
    min-height: 420px;
  }
  .count {
    font: 620 13px/16px var(--font-text);
    color: var(--ink);
    white-space: nowrap;
  }
  .count small {
    font: inherit;
    color: var(--ink-3);
    font-weight: 500;
  }
  > header button {
    display: grid;
    place-items: center;
    width: 24px;
    height: 24px;
    padding: 0;
    border: 0;
    border-radius: var(--r-1);
    background: none;
    color: inherit;
    cursor: pointer;
    opacity: 0;
  }
  > header button:hover {
    background: var(--wash);
  }
  &:hover > header button,
  > header button:focus-visible {
    opacity: 1;
  }
`;
const Free = styled.p`
  height: 28px;
  line-height: 26px;
  padding: 0 8px;
  border: 1px dashed var(--line);
  border-radius: 4px;
  color: var(--ink-3);
`;

/** The number that is typed for a table. */
const Tile = styled.b`
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  border: 1.5px solid var(--ink);
  border-radius: var(--r-1);
  font: 650 13px/1 var(--font-text);
`;
const Gap = styled.p`
  display: flex;
  flex: none;
  align-items: center;
  gap: 7px;
  min-height: 28px;
  padding: 0 6px;
  border: 1px dashed var(--edge);
  border-radius: 4px;
  color: var(--ink-2);
`;

const Hold = styled.button`
  flex: none;
  min-height: 28px;
  padding: 0 8px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: var(--surface);
  color: var(--ink);
  font: 600 13px/18px var(--font-text);
  text-align: left;
  cursor: pointer;
  &:hover {
    background: var(--wash);
  }
`;

/** The members of a card that is out of view, in one piece: it costs next to nothing, and the search of the browser finds them. */
const Names = styled.div`
  padding: 0 8px;
  font: 400 14px/28px var(--font-text);
  white-space: pre;
  overflow: hidden;
  outline-offset: -2px;
`;

/** So many fit into the card of a group of hundreds. */
const inLongCard = 14;

export interface CardActs {
  readonly allSelected: () => Chosen;
  readonly onSelect: (groupId: GroupId | null, students: readonly EnrolmentId[]) => void;
  readonly onDrop: (groupId: GroupId | null, students: Chosen) => void;
  readonly onStudentMenu: (groupId: GroupId | null, student: EnrolmentId, at: Spot) => void;
  readonly onGroupMenu: (groupId: GroupId, at: Spot) => void;
}

interface GroupCardProps extends CardActs {
  readonly group: BoardGroup;
  readonly members: readonly BoardStudent[];
  readonly capacity: number | null;
  /** Ids of those who are selected here, parted by spaces: a card is drawn again only when they have changed. */
  readonly selected: string;
  readonly mayChange: boolean;
  /** Of expert tables: from which group each student comes. */
  readonly homes: ReadonlyMap<EnrolmentId, { readonly number: number; readonly name: string }>;
  /** Lets a group that is over its places hold those who are in it; null: not the reader's to say. */
  readonly onHold: ((group: BoardGroup, places: number) => void) | null;
  /** Drawn as a plain list until it comes near to view: a Board of 160 groups is there at once. */
  readonly isFar: boolean;
  /** Of an expert table: the homes that no one comes from though they should; it has no hue of its own, for hues are of the homes. null: it is none. */
  readonly missing?: readonly HomeTag[] | null;
}

export const GroupCard = memo(function GroupCard({
  group,
  members,
  capacity,
  selected,
  mayChange,
  homes,
  onHold,
  isFar,
  missing = null,
  ...acts
}: GroupCardProps) {
  const [card, setCard] = useState<HTMLElement | null>(null);
  const [isNear, setNear] = useState(!isFar);
  const isHeld = selected !== '';
  useEffect(() => {
    if (!card) return;
    const seen = new IntersectionObserver(
      (entries) => {
        const isIn = entries.at(-1)?.isIntersecting ?? true;
        // Anyone who is chosen, carried or in the focus stays what they are, wherever the Board is scrolled.
        if (isIn || !(isHeld || card.contains(document.activeElement))) setNear(isIn);
      },
      { root: card.closest('[data-scroller]'), rootMargin: '500px 0px' },
    );
    seen.observe(card);
    return () => seen.disconnect();
  }, [card, isHeld]);
  const own = useMemo(() => idsIn(selected), [selected]);
  const isLong = members.length > mostDrawn;
  const leader = leaderOf(members, group.id);
  const over = capacity === null ? 0 : members.length - capacity;
  const free = capacity === null ? 0 : Math.max(0, capacity - members.length);
  const label = `${group.name}, group ${group.number}`;
  const { time, place } = group.details;
  const says = [time, place, group.motto, ...group.leads.map((each) => each.name)]
    .filter(Boolean)
    .join(' · ');
  const isTable = missing !== null;
  const row = (student: BoardStudent) => (
    <>
      <HomeOf home={homes.get(student.enrolmentId)} />
      <StudentName student={student} />
      <HandIns count={student.seats.find((seat) => seat.groupId === group.id)?.handIns ?? 0} />
      {student.enrolmentId === leader && (
        <Flag size={13} aria-label="leads the group" style={{ flex: 'none' }} fill="currentColor" />
      )}
    </>
  );
  return (
    <Card
      ref={setCard}
      data-group={group.id}
      tabIndex={-1}
      style={isTable ? undefined : hueOfGroup(group.number)}
      data-table={isTable || undefined}
      data-over={over > 0 || undefined}
      data-locked={group.isLocked || undefined}
      aria-label={`Group ${group.number}, ${group.name}`}
      onContextMenu={(event) => {
        event.preventDefault();
        acts.onGroupMenu(group.id, { x: event.clientX, y: event.clientY });
      }}
    >
      <header>
        {isTable ? (
          <Tile aria-hidden="true">{group.number}</Tile>
        ) : (
          <Emblem number={group.number} size={36} />
        )}
        <div>
          <h3>{group.name}</h3>
          {says && <Small title={says}>{says}</Small>}
        </div>
        {mayChange ? (
          <button
            type="button"
            aria-label={`More of ${group.name}`}
            onClick={(event) => acts.onGroupMenu(group.id, spotOf(event.currentTarget))}
          >
            <Ellipsis size={15} aria-hidden="true" />
          </button>
        ) : (
          <span />
        )}
        <span className="count">
          {group.isLocked && <Tag>Locked</Tag>} {over > 0 && <Tag $look="needs">{over} over</Tag>}{' '}
          {members.length}
          {capacity !== null && <small>/{capacity}</small>}
        </span>
      </header>
      <div data-long={isLong || undefined}>
        {isNear ? (
          <StudentList
            label={label}
            groupId={group.id}
            students={members}
            isLong={isLong}
            selected={own}
            allSelected={acts.allSelected}
            onSelect={acts.onSelect}
            onDrop={acts.onDrop}
            onMenu={acts.onStudentMenu}
            renderEmpty={() => <Free>{free > 0 ? `${free} free places` : 'No one yet'}</Free>}
            renderStudent={row}
          />
        ) : (
          <Names role="group" aria-label={label} tabIndex={0} onFocus={() => setNear(true)}>
            {(isLong ? members.slice(0, inLongCard) : members).map((member) => member.name).join('\n')}
          </Names>
        )}
        {missing?.map((home) => (
          <Gap key={home.number}>
            <Emblem number={home.number} size={24} look="dash" />
            No one from {home.name}
          </Gap>
        ))}
        {over > 0 && onHold && (
          <Hold type="button" onClick={() => onHold(group, members.length)}>
            Let {group.name} hold {members.length}
          </Hold>
        )}
        {members.length > 0 && free > 0 && !isLong && (
          <Free>{free === 1 ? 'Free place' : `${free} free places`}</Free>
        )}
      </div>
    </Card>
  );
});

const spotOf = (element: Element): Spot => {
  const { left, bottom } = element.getBoundingClientRect();
  return { x: left, y: bottom + 4 };
};

function HomeOf({ home }: { readonly home: { readonly number: number; readonly name: string } | undefined }) {
  if (!home) return null;
  return (
    <span title={`from ${home.name}`} role="img" aria-label={`from ${home.name}`} style={{ display: 'flex' }}>
      <Emblem number={home.number} size={24} />
    </span>
  );
}

/** What someone has in this group's work: a move concerns it. */
function HandIns({ count }: { readonly count: number }) {
  if (count === 0) return null;
  const says = `credited with ${counted(count, 'hand-in')} of this group`;
  return (
    <Small title={says} style={{ display: 'flex', alignItems: 'center', gap: 2, color: 'var(--ink-3)' }}>
      <FileCheck size={12} aria-label={says} />
      {count}
    </Small>
  );
}

const idsIn = (text: string): ReadonlySet<EnrolmentId> =>
  new Set(text.split(' ').filter(Boolean) as EnrolmentId[]);
