import { ChevronDown, Layers, Lock, Plus, Redo2, Undo2 } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { Checkbox, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { Link, useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import type { BoardStudent, BoardView } from '@jigsaw/contract/groups';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { fold } from '@jigsaw/core/text';
import type { Dates } from '../look/index.js';
import { Button, Emblem, FindField, Key, Page, Small, Tag, useNotice } from '../look/index.js';
import { WriteSheet } from '../mail/index.js';
import { useCourse } from '../track/index.js';
import { GroupCard } from './GroupCard.js';
import { Balance } from './Balance.js';
import { DealSheet } from './DealSheet.js';
import { useListGroupSetsQuery } from './groupsApi.js';
import { MoveSheet } from './MoveSheet.js';
import { SetMenu } from './SetMenu.js';
import { StudentList, StudentName } from './StudentList.js';
import { membersOf, useBoard } from './useBoard.js';
import type { BoardActs } from './useBoard.js';
import { useBoardKeys } from './useBoardKeys.js';
import { WhereTheyFit } from './WhereTheyFit.js';

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
const Tray = styled.section`
  border-right: var(--hair);
  background: var(--surface);
  display: flex;
  flex-direction: column;
  min-height: 0;
  > header {
    padding: 12px var(--s-4) 10px;
    border-bottom: var(--hair);
    display: grid;
    gap: 8px;
  }
  > header > div:first-child {
    display: flex;
    justify-content: space-between;
    align-items: center;
  }
  > div {
    flex: 1;
    min-height: 120px;
    overflow: auto;
    padding: 6px 8px;
    display: flex;
    flex-direction: column;
  }
  > div > * {
    flex: 1;
  }
  > aside {
    padding: 8px var(--s-4);
    border-top: var(--hair);
  }
  > footer {
    padding: 10px var(--s-4) 12px;
    border-top: var(--hair);
    font: var(--t-12);
    color: var(--ink-2);
    max-height: 128px;
    overflow: auto;
  }
  > footer h3 {
    font: 600 11px/14px var(--font-text);
    color: var(--ink-3);
    margin-bottom: 4px;
  }
  > footer li {
    padding: 2px 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
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
const Tick = styled(Checkbox)`
  flex: none;
  display: grid;
  place-items: center;
  width: 15px;
  height: 15px;
  border: 1px solid var(--edge);
  border-radius: var(--r-1);
  background: var(--surface);
  font: 700 11px/1 var(--font-text);
  &[data-selected] {
    background: var(--ink);
    border-color: var(--ink);
    color: var(--on-ink);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
`;
const PlaceMenu = styled(Popover)`
  max-height: 320px;
  overflow: auto;
  min-width: 200px;
  background: var(--surface);
  border: 1px solid var(--ink);
  border-radius: var(--r-2);
  box-shadow: var(--lift);
  padding: 5px;
  [role='menuitem'] {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 3px 8px;
    border-radius: var(--r-1);
    cursor: pointer;
    outline-offset: -2px;
  }
  [data-focused] {
    background: var(--wash-2);
  }
`;

/** The tray of the unplaced on the left, the groups on the right; drag, or select and type a number. */
export function Board({ board }: { readonly board: BoardView }) {
  const { course, dates } = useCourse();
  const notice = useNotice();
  const acts = useBoard(board);
  const find = useRef<HTMLInputElement>(null);
  const [sought, setSought] = useState('');
  const [isWriting, setWriting] = useState(false);
  const mayPlace = course.role === 'instructor' || course.role === 'assistant';
  const unplaced = useMemo(() => membersOf(board, null), [board]);
  const shown = useMemo(() => matching(unplaced, sought), [unplaced, sought]);
  const more = useMoreKey();

  const select = (list: readonly BoardStudent[]) => (students: readonly EnrolmentId[]) => {
    const inList = new Set(list.map((student) => student.enrolmentId));
    const kept = more.isHeld() ? [...acts.selected].filter((id) => !inList.has(id)) : [];
    acts.select([...kept, ...students]);
  };
  const typed = useBoardKeys({
    groupCount: board.groups.length,
    hasSelection: acts.selected.size > 0 && mayPlace,
    onNumber: (number) => acts.send(acts.selected, board.groups.find((group) => group.number === number)!.id),
    onNoSuchGroup: (typed) => notice(`There is no group ${typed} in this set.`),
    onUnplace: () => acts.send(acts.selected, null),
    onSwap: acts.swapSelected,
    onUndo: acts.undo,
    onRedo: acts.redo,
    onClear: () => acts.select([]),
    onFind: () => find.current?.focus(),
  });
  const drop = (to: Parameters<BoardActs['send']>[1]) => (students: readonly EnrolmentId[]) => mayPlace && acts.send(students, to);

  return (
    <Frame {...more.handlers}>
      <SetTabs board={board} acts={acts} />
      <Balance board={board} />
      <Work>
        <Tray aria-label="Unplaced">
          <header>
            <div>
              <h2>Unplaced</h2>
              <Tag $look={unplaced.length > 0 ? 'needs' : 'plain'} role="status">
                {unplaced.length} of {board.students.length} unplaced
              </Tag>
            </div>
            <FindField label="Find a student" placeholder="Find a name" value={sought} onChange={setSought} inputRef={find}>
              <Key aria-hidden="true">/</Key>
            </FindField>
          </header>
          <div>
            <StudentList
              label="Unplaced students"
              students={shown}
              selected={acts.selected}
              onSelect={select(shown)}
              onDrop={drop(null)}
              renderEmpty={() => <p style={{ padding: '8px 6px', color: 'var(--ink-2)' }}>{trayEmpty(board, unplaced.length)}</p>}
              renderStudent={renderTrayStudent}
            />
          </div>
          {mayPlace && <WhereTheyFit board={board} selected={acts.selected} onPlace={(groupId) => acts.send(acts.selected, groupId)} />}
          {mayPlace && unplaced.length > 0 && acts.selected.size === 0 && (
            <aside>
              <Button isSmall onPress={() => setWriting(true)}>
                Write to {unplaced.length === 1 ? 'them' : `these ${unplaced.length}`}…
              </Button>
            </aside>
          )}
          {isWriting && (
            <WriteSheet people={unplaced} hasOutbox={course.role === 'instructor'} onClose={() => setWriting(false)} onDone={() => setWriting(false)} />
          )}
          {acts.history.length > 0 && (
            <footer>
              <h3>This sitting</h3>
              <ul>
                {acts.history
                  .slice(-5)
                  .reverse()
                  .map((done, at) => (
                    <li key={acts.history.length - at}>{done.says}</li>
                  ))}
              </ul>
            </footer>
          )}
        </Tray>
        <Cards>
          {board.groups.map((group) => {
            const members = membersOf(board, group.id);
            return (
              <GroupCard
                key={group.id}
                board={board}
                group={group}
                members={members}
                sought={sought}
                selected={acts.selected}
                onSelect={select(members)}
                onDrop={drop(group.id)}
              />
            );
          })}
        </Cards>
      </Work>
      {acts.pending && <MoveSheet board={board} pending={acts.pending} />}
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
            <span>
              <Key>S</Key>swap two
            </span>
            <span>
              <Key>Esc</Key>let go
            </span>
          </>
        ) : board.set.signUp && !board.set.frozenAt ? (
          <span>{sayChoosing(board, dates)}</span>
        ) : board.set.isSynchronised ? (
          <span>These sections follow the registrar: where somebody sits otherwise here, its next sync proposes to move them back.</span>
        ) : (
          <span>Select students, then type a group’s number, or drag them. Shift and Ctrl select several.</span>
        )}
        <span className="grow" />
        <span>{acts.isSaving ? 'Saving…' : acts.savedAt ? `Saved ${dates.time(new Date(acts.savedAt).toISOString())}` : 'Every change is saved at once'}</span>
      </Hints>
    </Frame>
  );
}

const renderTrayStudent = (student: BoardStudent) => (
  <>
    <Tick slot="selection">{({ isSelected }) => (isSelected ? '✓' : '')}</Tick>
    <StudentName student={student} />
  </>
);

/** How far the students have come with choosing. */
function sayChoosing({ set, students }: BoardView, dates: Dates): string {
  const { opens, closes } = set.signUp!;
  const chosen = `${students.length - set.unplaced} of ${students.length} have a place.`;
  if (opens && !dates.isPast(opens)) return `Students choose their places from ${dates.dateTime(opens)}. ${chosen}`;
  if (closes && dates.isPast(closes)) return `Choosing ended on ${dates.dateTime(closes)}. ${chosen}`;
  return `Students are choosing${closes ? ` until ${dates.dateTime(closes)}` : ' until you freeze the set'}. ${chosen} You may place them too.`;
}

function trayEmpty(board: BoardView, unplaced: number): string {
  if (unplaced > 0) return 'Nobody unplaced by that name.';
  return board.students.length === 0
    ? 'No students in this course yet.'
    : `No one is unplaced. All ${board.students.length} students have a group in ${board.set.name}.`;
}

function matching(students: readonly BoardStudent[], sought: string): readonly BoardStudent[] {
  const words = fold(sought).split(/\s+/).filter(Boolean);
  if (words.length === 0) return students;
  return students.filter((student) => {
    const text = fold(`${student.name} ${student.reading ?? ''}`);
    return words.every((word) => text.includes(word));
  });
}

/** Whether Ctrl, Shift or ⌘ is held, so that a selection in one list can leave those in the others. */
function useMoreKey() {
  const held = useRef(false);
  const note = (event: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean; target: EventTarget }) => {
    const isTick = event.target instanceof HTMLElement && event.target.closest('[slot="selection"], label') !== null;
    held.current = event.ctrlKey || event.metaKey || event.shiftKey || isTick;
  };
  return { isHeld: () => held.current, handlers: { onPointerDownCapture: note, onKeyDown: note } };
}

function SetTabs({ board, acts }: { readonly board: BoardView; readonly acts: BoardActs }) {
  const { course } = useCourse();
  const sets = useListGroupSetsQuery(course.id);
  const [params, setParams] = useSearchParams();
  const [isDealing, setDealing] = useState(params.has('deal'));
  const closeDealing = () => {
    setDealing(false);
    if (params.has('deal')) setParams({}, { replace: true }); // asked for once, by whoever made the set
  };
  const { unplaced } = board.set;
  const mayPlace = course.role === 'instructor' || course.role === 'assistant';
  return (
    <SetBar>
      <nav aria-label="Group sets">
        {(sets.data?.sets ?? [board.set]).map((set) => (
          <Link key={set.id} to={`../groups/${set.id}`} aria-current={set.id === board.set.id ? 'page' : undefined}>
            <b>{set.name}</b>
            {set.frozenAt && <Lock size={13} aria-label="Frozen" />}
            <Small>
              {set.groupCount}
              {set.isSynchronised ? ' sections' : set.capacity === null ? ' groups' : ` of ${set.capacity}`}
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
      <Button kind="quiet" isDisabled={!acts.canUndo} onPress={acts.undo} aria-label={acts.canUndo ? `Undo: ${acts.canUndo.says}` : 'Undo'}>
        <Undo2 size={16} aria-hidden="true" />
        Undo
        <Key aria-hidden="true">Z</Key>
      </Button>
      <Button kind="quiet" isIconOnly isDisabled={!acts.canRedo} onPress={acts.redo} aria-label={acts.canRedo ? `Redo: ${acts.canRedo.says}` : 'Redo'}>
        <Redo2 size={16} aria-hidden="true" />
      </Button>
      {course.role === 'instructor' && <SetMenu board={board} acts={acts} onDeal={() => setDealing(true)} />}
      {mayPlace && unplaced > 0 && board.groups.length > 0 && (
        <Button kind="main" onPress={() => setDealing(true)}>
          <Layers size={16} aria-hidden="true" />
          Deal {unplaced} {unplaced === 1 ? 'student' : 'students'}…
        </Button>
      )}
      {isDealing && <DealSheet board={board} onDeal={acts.carry} onClose={closeDealing} />}
    </SetBar>
  );
}

function PlaceIn({ board, onPlace }: { readonly board: BoardView; readonly onPlace: (groupId: BoardView['groups'][number]['id']) => void }) {
  return (
    <MenuTrigger>
      <Button isSmall>
        Place in…
        <ChevronDown size={13} aria-hidden="true" />
      </Button>
      <PlaceMenu placement="top">
        <Menu aria-label="Place in" items={board.groups}>
          {(group) => (
            <MenuItem id={group.id} textValue={group.name} onAction={() => onPlace(group.id)}>
              <Emblem number={group.number} size={24} />
              {group.name}
            </MenuItem>
          )}
        </Menu>
      </PlaceMenu>
    </MenuTrigger>
  );
}
