import { ChevronDown, Layers, Lock, Plus, Redo2, Undo2 } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { Link, useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import type { BoardGroup } from '@jigsaw/contract/sets';
import type { BoardStudent, BoardView } from '@jigsaw/contract/placing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import type { Dates, Spot } from '../look/index.js';
import { Button, Emblem, Key, Page, Popup, Small, useNotice } from '../look/index.js';
import { WriteSheet } from '../mail/index.js';
import { useCourse } from '../course/index.js';
import { Balance } from './Balance.js';
import { BoardMenu } from './BoardMenu.js';
import type { OpenMenu } from './BoardMenu.js';
import { DealSheet } from './DealOutSheet.js';
import { EditGroupSheet } from './EditGroupSheet.js';
import { GroupCard } from './GroupCard.js';
import { useListGroupSetsQuery, PutAwayStrip } from '../sets/index.js';
import { MoveSheet } from './MoveSheet.js';
import { matching } from './matching.js';
import { SetMenu } from './SetMenu.js';
import { FoundStudents } from './StudentList.js';
import { capacityOf, isIn, leaderOf, seatingOf } from './seating.js';
import type { Seating, Chosen } from './seating.js';
import { Tray } from './Tray.js';
import { useBoard } from './useBoard.js';
import type { BoardActs } from './useBoard.js';
import { useBoardKeys } from './useBoardKeys.js';
import { useSteady } from './useSteady.js';
import { counted } from '@jigsaw/core/text';

const Frame = styled(Page)`
  display: flex;
  flex-direction: column;
  min-height: 0;
  > :last-child {
    min-height: 34px;
  }
`;
const SetBar = styled.div`
  display: flex;
  align-items: center;
  gap: var(--s-3);
  min-height: var(--bar);
  padding-right: var(--s-4);
  border-bottom: var(--hair);
  nav {
    display: flex;
    align-self: stretch;
    min-width: 0;
    overflow-x: auto;
    /* Tabs that go on fade out, and do not look cut. */
    padding-right: 28px;
    mask-image: linear-gradient(to right, #000 calc(100% - 28px), transparent);
  }
  nav a {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 0 var(--s-4);
    text-decoration: none;
    color: var(--ink-2);
    border-right: var(--hair);
    white-space: nowrap;
    outline-offset: -3px;
  }
  nav b {
    font: var(--h-14);
  }
  nav a[aria-current] {
    background: var(--surface);
    color: var(--ink);
    box-shadow: inset 0 -2px var(--ink);
  }
  nav a[aria-current] b {
    font: var(--h-17);
  }
  > button {
    flex: none;
  }
  .grow {
    flex: 1;
  }
`;
const Work = styled.div`
  display: grid;
  grid-template-columns: 248px minmax(0, 1fr);
  flex: 1;
  min-height: 0;
`;
const Cards = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(232px, 1fr));
  grid-auto-rows: max-content;
  gap: 8px;
  padding: 12px var(--s-4);
  min-height: 0;
  overflow: auto;
  align-content: start;
`;
const Hints = styled.footer`
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 0 var(--s-4);
  border-top: var(--hair);
  background: var(--surface);
  color: var(--ink-2);
  font: var(--t-12);
  white-space: nowrap;
  overflow: hidden;
  kbd {
    margin-right: 4px;
  }
  .grow {
    flex: 1;
  }
  b {
    color: var(--ink);
  }
`;

/** The tray on the left, the groups on the right; drag, or select and type a number. */
export function Board({ board }: { readonly board: BoardView }) {
  const { course, dates } = useCourse();
  const notice = useNotice();
  const acts = useBoard(board);
  const find = useRef<HTMLInputElement>(null);
  const [sought, setSought] = useState(''); // as far as the groups have heard of it; the tray is ahead
  const [writingTo, setWritingTo] = useState<readonly BoardStudent[] | null>(null);
  const [changing, setChanging] = useState<BoardGroup | null>(null);
  const [menu, setMenu] = useState<OpenMenu | null>(null);
  const [isDealing, setDealing] = useDealing();
  const mayPlace = course.role === 'instructor' || course.role === 'assistant';
  const { set, groups, students } = board;
  const seating = useSeating(board);
  const unplaced = seating.get(null)!;
  // Where one may be in several groups, everybody stays at hand.
  const tray = set.isExclusive ? unplaced : students;
  const found = useMemo(
    () => idsOf(sought.trim() === '' ? [] : matching(students, sought)),
    [students, sought],
  );
  const more = useMoreKey();
  const homes = useMemo(() => new Map(board.homes.map((home) => [home.enrolmentId, home])), [board.homes]);
  const heldIn = useMemo(() => heldByPlace(acts.selected), [acts.selected]);

  const listOf = (groupId: GroupId | null) => (groupId === null ? tray : (seating.get(groupId) ?? []));
  const select = useSteady((groupId: GroupId | null, chosen: readonly EnrolmentId[]) => {
    const inList = new Set(listOf(groupId).map((student) => student.enrolmentId));
    const kept = more.isHeld()
      ? [...acts.selected].filter(([id, from]) => !(from === groupId && inList.has(id)))
      : [];
    acts.select(new Map([...kept, ...chosen.map((id) => [id, groupId] as const)]));
  });
  const drop = useSteady((groupId: GroupId | null, carried: Chosen) => {
    if (mayPlace) acts.send(carried, groupId);
  });
  const allSelected = useSteady(() => acts.selected);
  const openStudentMenu = useSteady((groupId: GroupId | null, student: EnrolmentId, at: Spot) => {
    if (!mayPlace) return;
    if (acts.selected.get(student) !== groupId) acts.select(new Map([[student, groupId]]));
    setMenu({ of: 'students', at, groupId });
  });
  const openGroupMenu = useSteady(
    (groupId: GroupId, at: Spot) => mayPlace && setMenu({ of: 'group', at, groupId }),
  );
  const turnLeading = () => {
    const [only] = [...acts.selected];
    if (acts.selected.size !== 1 || !only || only[1] === null)
      return notice('Select one student in a group to name its leader.');
    const isLeader = leaderOf(seating.get(only[1])!, only[1]) === only[0];
    acts.lead(only[0], only[1], !isLeader);
  };
  const typed = useBoardKeys({
    groupCount: Math.max(0, ...groups.map((group) => group.number)),
    hasSelection: acts.selected.size > 0 && mayPlace,
    onNumber: (number) => {
      const group = groups.find((each) => each.number === number);
      if (group) acts.send(acts.selected, group.id);
      else notice(`There is no group ${number} in this set.`);
    },
    onNoSuchGroup: (typed) => notice(`There is no group ${typed} in this set.`),
    onUnplace: () => acts.send(acts.selected, null),
    onSwap: acts.swapSelected,
    onLead: turnLeading,
    onDeal: () => setDealing(true),
    onUndo: acts.undo,
    onRedo: acts.redo,
    onClear: () => acts.select(new Map()),
    onFind: () => find.current?.focus(),
  });
  const cardActs = {
    allSelected,
    onSelect: select,
    onDrop: drop,
    onStudentMenu: openStudentMenu,
    onGroupMenu: openGroupMenu,
  };

  return (
    <Frame {...more.handlers}>
      <SetTabs board={board} acts={acts} onDeal={() => setDealing(true)} />
      <PutAwayStrip set={set} />
      <Balance board={board} />
      <Work>
        <Tray
          board={board}
          acts={acts}
          students={tray}
          unplaced={unplaced}
          mayPlace={mayPlace}
          selected={heldIn.get(null) ?? nobodyHeld}
          find={find}
          onSeek={setSought}
          allSelected={allSelected}
          onSelect={select}
          onDrop={drop}
          onMenu={openStudentMenu}
          onWrite={setWritingTo}
        />
        <Cards>
          <FoundStudents value={found}>
            {groups.map((group, at) => {
              const members = seating.get(group.id)!;
              return (
                <GroupCard
                  key={group.id}
                  group={group}
                  members={members}
                  capacity={capacityOf(board, group)}
                  selected={[...(heldIn.get(group.id) ?? nobodyHeld)].join(' ')}
                  mayChange={mayPlace}
                  homes={homes}
                  isFar={at >= drawnAtOnce && 'IntersectionObserver' in window}
                  {...cardActs}
                />
              );
            })}
          </FoundStudents>
          {groups.length === 0 && <NoGroups board={board} />}
        </Cards>
      </Work>
      {acts.pending && <MoveSheet board={board} pending={acts.pending} />}
      {isDealing && (
        <DealSheet
          board={board}
          selected={acts.selected}
          onDeal={acts.carry}
          onClose={() => setDealing(false)}
        />
      )}
      {changing && <EditGroupSheet board={board} group={changing} onClose={() => setChanging(null)} />}
      {writingTo && (
        <WriteSheet
          people={writingTo}
          {...(writingTo === unplaced && set.signUp && { draft: reminder(board, dates, course) })}
          hasOutbox={course.role === 'instructor'}
          onClose={() => setWritingTo(null)}
          onDone={() => setWritingTo(null)}
        />
      )}
      {menu && (
        <BoardMenu
          menu={menu}
          board={board}
          seating={seating}
          acts={acts}
          onLead={turnLeading}
          onDeal={() => setDealing(true)}
          onChange={setChanging}
          onWrite={setWritingTo}
          onClose={() => setMenu(null)}
        />
      )}
      <Hints>
        {typed !== '' ? (
          <b>To group {typed}…</b>
        ) : acts.selected.size > 0 ? (
          <>
            <b>{acts.selected.size} selected.</b>
            <span>Type a group’s number to send them there</span>
            <PlaceIn board={board} onPlace={(groupId) => acts.send(acts.selected, groupId)} />
            <span>
              <Key>U</Key>take out
            </span>
            {acts.selected.size > 1 && (
              <>
                <span>
                  <Key>D</Key>spread
                </span>
                <span>
                  <Key>S</Key>swap two
                </span>
              </>
            )}
            {acts.selected.size === 1 && set.hasLeaders && (
              <span>
                <Key>L</Key>leads
              </span>
            )}
            <span>
              <Key>Esc</Key>let go
            </span>
          </>
        ) : set.signUp && !set.frozenAt ? (
          <span>{sayChoosing(board, dates)}</span>
        ) : set.isSynchronised ? (
          <span>
            These sections follow the registrar: where somebody sits otherwise here, its next sync proposes to
            move them back.
          </span>
        ) : set.isExclusive ? (
          <span>
            Select students, then type a group’s number, or drag them. Shift and Ctrl select several.
          </span>
        ) : (
          <span>From the list on the left students get one more group; from a group they move.</span>
        )}
        <span className="grow" />
        <span>
          {acts.isSaving
            ? 'Saving…'
            : acts.savedAt
              ? `Saved ${dates.time(new Date(acts.savedAt).toISOString())}`
              : 'Every change is saved at once'}
        </span>
      </Hints>
    </Frame>
  );
}

/** Cards that are drawn whole at first; those further down are when they come near. */
const drawnAtOnce = 12;
const idsOf = (students: readonly BoardStudent[]): ReadonlySet<EnrolmentId> =>
  new Set(students.map((student) => student.enrolmentId));
const nobodyHeld: ReadonlySet<EnrolmentId> = new Set();

function heldByPlace(selected: Chosen): ReadonlyMap<GroupId | null, ReadonlySet<EnrolmentId>> {
  const byPlace = new Map<GroupId | null, Set<EnrolmentId>>();
  for (const [student, from] of selected) byPlace.set(from, (byPlace.get(from) ?? new Set()).add(student));
  return byPlace;
}

/** Lists of members that did not change are the same objects as before. */
function useSeating(board: BoardView): Seating {
  const [kept, keep] = useState(() => ({
    students: board.students,
    groups: board.groups,
    seating: seatingOf(board),
  }));
  if (kept.students === board.students && kept.groups === board.groups) return kept.seating;
  const next = { students: board.students, groups: board.groups, seating: seatingOf(board, kept.seating) };
  keep(next);
  return next.seating;
}

/** Whether places are being dealt; asked for by the address once, by whoever made the set. */
function useDealing(): [boolean, (isDealing: boolean) => void] {
  const [params, setParams] = useSearchParams();
  const [isDealing, setDealing] = useState(params.has('deal'));
  return [
    isDealing,
    (next) => {
      setDealing(next);
      if (!next && params.has('deal')) setParams({}, { replace: true });
    },
  ];
}

function NoGroups({ board }: { readonly board: BoardView }) {
  return (
    <p style={{ gridColumn: '1 / -1', maxWidth: '60ch', padding: '12px 4px', color: 'var(--ink-2)' }}>
      {board.set.isFormedAtHandIn
        ? 'No group yet: they come to be when students hand in and name their partners. You may make some yourself meanwhile, under Set, Groups.'
        : 'No group yet. Make some under Set, Groups.'}
    </p>
  );
}

/** What those are written who have not chosen yet; changed as anybody likes before it goes. */
function reminder(
  { set, groups, students }: BoardView,
  dates: Dates,
  course: { readonly code: string },
): { subject: string; text: string } {
  const places = groups.reduce(
    (sum, group) =>
      sum +
      Math.max(
        0,
        (group.capacity ?? set.capacity ?? Infinity) -
          students.filter((student) => isIn(student, group.id)).length,
      ),
    0,
  );
  const until = set.signUp?.closes ? ` until ${dates.dateTime(set.signUp.closes)}` : '';
  const left = Number.isFinite(places) ? ` ${counted(places, 'place is', 'places are')} left.` : '';
  return {
    subject: `Choose your place in ${set.name}`,
    text: `You have no place in ${set.name} yet. Please choose one in ${course.code}${until}.${left}\n\nIf none of the groups suits you, write to me.`,
  };
}

/** How far the students have come with choosing. */
function sayChoosing({ set, students }: BoardView, dates: Dates): string {
  const { opens, closes } = set.signUp!;
  const chosen = `${students.length - set.unplaced} of ${students.length} have a place.`;
  if (opens && !dates.isPast(opens))
    return `Students choose their places from ${dates.dateTime(opens)}. ${chosen}`;
  if (closes && dates.isPast(closes)) return `Choosing ended on ${dates.dateTime(closes)}. ${chosen}`;
  return `Students are choosing${closes ? ` until ${dates.dateTime(closes)}` : ' until you freeze the set'}. ${chosen} You may place them too.`;
}

/** Whether Ctrl, Shift or ⌘ is held, so that a selection in one list can leave those in the others. */
function useMoreKey() {
  const held = useRef(false);
  const note = (event: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean; target: EventTarget }) => {
    const isTick =
      event.target instanceof HTMLElement && event.target.closest('[slot="selection"], label') !== null;
    held.current = event.ctrlKey || event.metaKey || event.shiftKey || isTick;
  };
  return { isHeld: () => held.current, handlers: { onPointerDownCapture: note, onKeyDown: note } };
}

function SetTabs({
  board,
  acts,
  onDeal,
}: {
  readonly board: BoardView;
  readonly acts: BoardActs;
  readonly onDeal: () => void;
}) {
  const { course } = useCourse();
  const sets = useListGroupSetsQuery(course.id);
  const { unplaced } = board.set;
  const mayPlace = course.role === 'instructor' || course.role === 'assistant';
  return (
    <SetBar>
      <nav aria-label="Group sets">
        {(sets.data?.sets ?? [board.set]).map((set) => (
          <Link
            key={set.id}
            ref={set.id === board.set.id ? intoView : undefined}
            to={`../groups/${set.id}`}
            aria-current={set.id === board.set.id ? 'page' : undefined}
          >
            <b>{set.name}</b>
            {set.frozenAt && <Lock size={13} aria-label="Frozen" />}
            <Small>
              {set.groupCount}
              {set.isSynchronised
                ? ' sections'
                : set.capacity === null || set.isFormedAtHandIn
                  ? ' groups'
                  : ` of ${set.capacity}`}
            </Small>
          </Link>
        ))}
        {course.role === 'instructor' && (
          <Link to="../groups/new" aria-label="Make another group set">
            <Plus size={16} aria-hidden="true" />
          </Link>
        )}
      </nav>
      <span className="grow" />
      <Button
        kind="quiet"
        isDisabled={!acts.canUndo}
        onPress={acts.undo}
        aria-label={acts.canUndo ? `Undo: ${acts.canUndo.says}` : 'Undo'}
      >
        <Undo2 size={16} aria-hidden="true" />
        Undo
        <Key aria-hidden="true">Z</Key>
      </Button>
      <Button
        kind="quiet"
        isIconOnly
        isDisabled={!acts.canRedo}
        onPress={acts.redo}
        aria-label={acts.canRedo ? `Redo: ${acts.canRedo.says}` : 'Redo'}
      >
        <Redo2 size={16} aria-hidden="true" />
      </Button>
      {course.role === 'instructor' && <SetMenu board={board} acts={acts} onDeal={onDeal} />}
      {mayPlace && unplaced > 0 && board.groups.length > 0 && (
        <Button kind="main" onPress={onDeal}>
          <Layers size={16} aria-hidden="true" />
          Deal {counted(unplaced, 'student')}…
        </Button>
      )}
    </SetBar>
  );
}

/** Of many sets, the one that is open is not out of sight. */
const intoView = (tab: HTMLElement | null) => {
  // Once the frame is laid out anyway.
  requestAnimationFrame(() => tab?.scrollIntoView?.({ block: 'nearest', inline: 'nearest' }));
};

function PlaceIn({
  board,
  onPlace,
}: {
  readonly board: BoardView;
  readonly onPlace: (groupId: BoardView['groups'][number]['id']) => void;
}) {
  return (
    <MenuTrigger>
      <Button isSmall>
        Place in…
        <ChevronDown size={13} aria-hidden="true" />
      </Button>
      <Popup placement="top">
        <Menu aria-label="Place in" items={board.groups}>
          {(group) => (
            <MenuItem
              id={group.id}
              textValue={group.name}
              onAction={() => onPlace(group.id)}
              style={{ display: 'flex', alignItems: 'center', gap: 8 }}
            >
              <Emblem number={group.number} size={24} />
              {group.name}
            </MenuItem>
          )}
        </Menu>
      </Popup>
    </MenuTrigger>
  );
}
