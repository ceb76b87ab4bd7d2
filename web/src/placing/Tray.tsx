import { startTransition, useCallback, useDeferredValue, useMemo, useState } from 'react';
import type { RefObject } from 'react';
import { Checkbox } from 'react-aria-components';
import { css, styled } from 'styled-components';
import type { BoardGroup } from '@jigsaw/contract/sets';
import type { BoardStudent, BoardView } from '@jigsaw/contract/placing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import type { Spot } from '../look/index.js';
import { Button, Emblem, FindField, Key, Tag } from '../look/index.js';
import { matching } from './matching.js';
import type { Chosen } from './seating.js';
import { mostDrawn, PlainStudents, StudentList, StudentName } from './StudentList.js';
import { useNow } from '../page/index.js';
import type { BoardActs } from './useBoard.js';
import { PlacedHits } from './PlacedHits.js';
import { WhereTheyFit } from './WhereTheyFit.js';

const Frame = styled.section`
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
    position: relative;
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
const box = css`
  flex: none;
  display: grid;
  place-items: center;
  width: 15px;
  height: 15px;
  border: 1px solid var(--edge);
  border-radius: var(--r-1);
  background: var(--surface);
`;
const Box = styled.span`
  ${box}
`;
const Tick = styled(Checkbox)`
  ${box}
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
/** Over the list until it has caught up with what is sought. */
const AtOnce = styled(PlainStudents)`
  position: absolute;
  inset: 6px 8px;
  z-index: 1;
  overflow: hidden;
  background: var(--surface);
`;

interface TrayProps {
  readonly board: BoardView;
  readonly acts: BoardActs;
  /** The unplaced; where one may be in several groups, everyone. */
  readonly students: readonly BoardStudent[];
  readonly unplaced: readonly BoardStudent[];
  readonly mayPlace: boolean;
  readonly selected: ReadonlySet<EnrolmentId>;
  readonly find: RefObject<HTMLInputElement | null>;
  readonly onSeek: (sought: string) => void;
  readonly allSelected: () => Chosen;
  readonly onSelect: (groupId: GroupId | null, students: readonly EnrolmentId[]) => void;
  readonly onDrop: (groupId: GroupId | null, students: Chosen) => void;
  readonly onMenu: (groupId: GroupId | null, student: EnrolmentId, at: Spot) => void;
  readonly onWrite: (students: readonly BoardStudent[]) => void;
  /** Selects a student where they are, and goes there. */
  readonly onJump: (groupId: GroupId | null, student: EnrolmentId) => void;
}

/** Everyone who waits for a place, found as fast as is typed: plain rows answer the key; the list that can be carried off and the marks in the groups follow as
 * soon as there is time, and wait for no typing. */
export function Tray({
  board,
  acts,
  students,
  unplaced,
  mayPlace,
  selected,
  find,
  onSeek,
  allSelected,
  onSelect,
  onDrop,
  onMenu,
  onWrite,
  onJump,
}: TrayProps) {
  const { set, groups } = board;
  const [sought, setSought] = useState('');
  const soughtSoon = useDeferredValue(sought);
  const shown = useMemo(() => matching(students, soughtSoon), [students, soughtSoon]);
  // In a set of one place each, the others are in groups: found there, and not left out in silence.
  const placed = useMemo(
    () =>
      set.isExclusive && soughtSoon.trim() !== ''
        ? matching(board.students, soughtSoon).filter((student) => student.seats.length > 0)
        : [],
    [set.isExclusive, board.students, soughtSoon],
  );
  const now = useNow(set.signUp?.closes ?? null);
  const goToFirst = () => {
    if (sought.trim() === '') return;
    const [first] = [...matching(students, sought), ...matching(board.students, sought)];
    if (first) onJump(students.includes(first) ? null : (first.seats[0]?.groupId ?? null), first.enrolmentId);
  };
  const seek = (next: string) => {
    setSought(next);
    startTransition(() => onSeek(next));
  };
  const renderStudent = useCallback(
    (student: BoardStudent) => <TrayStudent student={student} groups={groups} />,
    [groups],
  );
  const renderPlain = useCallback(
    (student: BoardStudent) => <TrayStudent student={student} groups={groups} isPlain />,
    [groups],
  );
  const renderNobody = useCallback(
    () => (
      <p style={{ padding: '8px 6px', color: 'var(--ink-2)' }}>
        {trayEmpty(board, students.length, placed.length)}
      </p>
    ),
    [board, students, placed.length],
  );
  return (
    <Frame aria-label={set.isExclusive ? 'Unplaced' : 'Everyone'}>
      <header>
        <div>
          <h2>{set.isExclusive ? 'Unplaced' : 'Everyone'}</h2>
          <Tag $look={unplaced.length > 0 && !areChoosing(board, now) ? 'needs' : 'plain'} role="status">
            {unplaced.length} of {board.students.length} {set.isExclusive ? 'unplaced' : 'in no group'}
          </Tag>
        </div>
        <FindField
          label="Find a student"
          placeholder="Find a name"
          value={sought}
          onChange={seek}
          inputRef={find}
          onEnter={goToFirst}
        >
          <Key aria-hidden="true">/</Key>
        </FindField>
      </header>
      <div>
        {sought !== soughtSoon && (
          <AtOnce
            aria-hidden="true"
            students={matching(students, sought).slice(0, mostDrawn)}
            renderStudent={renderPlain}
          />
        )}
        <StudentList
          label={set.isExclusive ? 'Unplaced students' : 'All students'}
          groupId={null}
          students={shown}
          isLong={students.length > mostDrawn}
          selected={selected}
          allSelected={allSelected}
          onSelect={onSelect}
          onDrop={onDrop}
          onMenu={onMenu}
          renderEmpty={renderNobody}
          renderStudent={renderStudent}
        />
      </div>
      <PlacedHits hits={placed} groups={groups} onJump={onJump} />
      {mayPlace && (
        <WhereTheyFit
          board={board}
          selected={acts.selected}
          onPlace={(groupId) => acts.send(acts.selected, groupId)}
        />
      )}
      {mayPlace && unplaced.length > 0 && acts.selected.size === 0 && (
        <aside>
          <Button isSmall onPress={() => onWrite(unplaced)}>
            {set.signUp && !set.frozenAt ? 'Remind' : 'Write to'}{' '}
            {unplaced.length === 1 ? 'them' : `these ${unplaced.length}`}…
          </Button>
        </aside>
      )}
      {acts.history.length > 0 && (
        <footer>
          <h3>Your changes</h3>
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
    </Frame>
  );
}

interface TrayStudentProps {
  readonly student: BoardStudent;
  readonly groups: readonly BoardGroup[];
  /** Only looks as if it could be ticked. */
  readonly isPlain?: boolean;
}

function TrayStudent({ student, groups, isPlain = false }: TrayStudentProps) {
  return (
    <>
      {isPlain ? <Box /> : <Tick slot="selection">{({ isSelected }) => (isSelected ? '✓' : '')}</Tick>}
      <StudentName student={student} />
      {student.seats.map(({ groupId }) => {
        const group = groups.find((each) => each.id === groupId);
        return group && <Emblem key={groupId} number={group.number} size={18} />;
      })}
    </>
  );
}

function trayEmpty(board: BoardView, inTray: number, placed: number): string {
  if (placed > 0) return 'They are all in groups.';
  if (inTray > 0) return 'No student has that name.';
  return board.students.length === 0
    ? 'No students in this course yet.'
    : `No one is unplaced. All ${board.students.length} students have a group in ${board.set.name}.`;
}

/** As long as students choose for themselves, no one waits for the instructor. */
const areChoosing = ({ set: { signUp, frozenAt } }: BoardView, now: number): boolean =>
  signUp !== null && frozenAt === null && (signUp.closes === null || Date.parse(signUp.closes) > now);
