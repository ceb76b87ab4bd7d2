import { useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import type { BoardGroup } from '@jigsaw/contract/sets';
import type { BoardStudent, BoardView } from '@jigsaw/contract/placing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { Spot } from '../look/index.js';
import { Page, useNotice } from '../look/index.js';
import { WriteSheet } from '../messages/index.js';
import { useCourse } from '../course/index.js';
import { Balance } from './Balance.js';
import { BoardMenu } from './BoardMenu.js';
import type { OpenMenu } from './BoardMenu.js';
import { DealSheet } from './DealOutSheet.js';
import { EditGroupSheet } from './EditGroupSheet.js';
import type { BoardSide } from './ExpertSide.js';
import { ExpertSide } from './ExpertSide.js';
import { ExpertTopics } from './ExpertTopics.js';
import type { HomeTag } from './experts.js';
import { GroupCard } from './GroupCard.js';
import { useExperts, usePicked } from './useExperts.js';
import { ArchivedStrip } from '../sets/index.js';
import { PlanMoveSheet } from './PlanMoveSheet.js';
import { MovesSheet } from './MovesSheet.js';
import { MoveSheet } from './MoveSheet.js';
import { matching } from './matching.js';
import { FoundStudents, MovedStudents } from './StudentList.js';
import { capacityOf, leaderOf } from './seating.js';
import type { Chosen } from './seating.js';
import { showInGroup } from './PlacedHits.js';
import { Tray } from './Tray.js';
import { useBoard } from './useBoard.js';
import { useBoardKeys } from './useBoardKeys.js';
import { useSteady } from './useSteady.js';
import { SetTabs } from './SetTabs.js';
import { reminder } from './reminder.js';
import { BoardHints } from './BoardHints.js';
import { useSeating } from './useSeating.js';
import { useGroupEdits } from './useGroupEdits.js';
import { useOthersAct } from './useOthersAct.js';
import { useMoreKey } from './useMoreKey.js';

const Frame = styled(Page)`
  display: flex;
  flex-direction: column;
  min-height: 0;
  > :last-child {
    min-height: 34px;
  }
  @media (max-height: 620px) {
    overflow-y: auto;
    > * {
      flex: none;
    }
  }
`;
const Columns = styled.div`
  display: grid;
  grid-template-columns: 248px minmax(0, 1fr);
  flex: 1;
  min-height: 0;
  /* In a window as low as this the page scrolls, and the groups keep a height that can be worked in. */
  @media (max-height: 620px) {
    height: 420px;
  }
  @media (max-width: 700px) {
    grid-template-columns: 216px minmax(0, 1fr);
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
  const [isPlanning, setPlanning] = useState(false);
  const [isDealing, setDealing] = useDealing();
  const mayPlace = course.role === 'instructor' || course.role === 'assistant';
  const { set, groups, students } = board;
  const seating = useSeating(board);
  const unplaced = sure(seating.get(null));
  // Where one may be in several groups, everyone stays at hand.
  const tray = set.isExclusive ? unplaced : students;
  const found = useMemo(
    () => idsOf(sought.trim() === '' ? [] : matching(students, sought)),
    [students, sought],
  );
  const more = useMoreKey();
  const [isTelling, setTelling] = useState(false);
  const othersAct = useOthersAct(board, acts.savedAt);
  const moved = useMemo(() => new Set(othersAct?.moves.map((move) => move.enrolmentId)), [othersAct]);
  const edits = useGroupEdits();
  const letHold = useSteady((group: BoardGroup, places: number) => edits.letHold(group, places));
  const experts = useExperts(board, acts);
  const { picked, setPicked, marked } = usePicked(experts, sought, found);
  const [side, setSide] = useState<BoardSide>('homes');
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
  const jump = (groupId: GroupId | null, student: EnrolmentId) => {
    acts.select(new Map([[student, groupId]]));
    if (groupId !== null) showInGroup(groupId, student);
  };
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
    const isLeader = leaderOf(sure(seating.get(only[1])), only[1]) === only[0];
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
    onDeal: () => (experts ? experts.rebalance() : setDealing(true)),
    onUndo: acts.undo,
    onRedo: acts.redo,
    onClear: () => {
      acts.select(new Map());
      setPicked(null);
    },
    onFind: () => {
      flushSync(() => setSide('students')); // else there is no field yet
      find.current?.focus();
    },
  });
  const cardActs = {
    allSelected,
    onSelect: select,
    onDrop: drop,
    onStudentMenu: openStudentMenu,
    onGroupMenu: openGroupMenu,
  };

  const sideOfStudents = (
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
      onJump={jump}
    />
  );
  const card = (group: BoardGroup, missing: readonly HomeTag[] | null) => (
    <GroupCard
      key={group.id}
      group={group}
      members={sure(seating.get(group.id))}
      capacity={capacityOf(board, group)}
      selected={[...(heldIn.get(group.id) ?? nobodyHeld)].join(' ')}
      mayChange={mayPlace}
      homes={homes}
      onHold={course.role === 'instructor' ? letHold : null}
      isFar={group.number > drawnAtOnce && 'IntersectionObserver' in window}
      missing={missing}
      {...cardActs}
    />
  );

  return (
    <Frame {...more.handlers}>
      <SetTabs {...{ board, acts, experts }} onDeal={() => setDealing(true)} />
      <ArchivedStrip set={set} />
      <Balance board={board} />
      <Columns>
        {experts ? (
          <ExpertSide {...{ board, experts, picked, side }} onPick={setPicked} onTurn={setSide}>
            {sideOfStudents}
          </ExpertSide>
        ) : (
          sideOfStudents
        )}
        <FoundStudents value={marked}>
          <MovedStudents value={moved}>
            {experts ? (
              <ExpertTopics
                board={board}
                renderTable={(table) => card(table, experts.missing.get(table.id) ?? nobodyMissed)}
              />
            ) : (
              <Cards data-scroller>
                {groups.map((group) => card(group, null))}
                {groups.length === 0 && <NoGroups board={board} />}
              </Cards>
            )}
          </MovedStudents>
        </FoundStudents>
      </Columns>
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
          onPlan={() => setPlanning(true)}
          onDeal={() => setDealing(true)}
          onChange={setChanging}
          onWrite={setWritingTo}
          onClose={() => setMenu(null)}
        />
      )}
      {isPlanning && <PlanMoveSheet board={board} acts={acts} onClose={() => setPlanning(false)} />}
      {isTelling && <MovesSheet board={board} onClose={() => setTelling(false)} />}
      <BoardHints {...{ board, acts, typed, othersAct }} onMoves={() => setTelling(true)} />
    </Frame>
  );
}

/** Cards that are drawn whole at first; those further down are when they come near. */
const drawnAtOnce = 12;
const idsOf = (students: readonly BoardStudent[]): ReadonlySet<EnrolmentId> =>
  new Set(students.map((student) => student.enrolmentId));
const nobodyMissed: readonly HomeTag[] = [];
const nobodyHeld: ReadonlySet<EnrolmentId> = new Set();

function heldByPlace(selected: Chosen): ReadonlyMap<GroupId | null, ReadonlySet<EnrolmentId>> {
  const byPlace = new Map<GroupId | null, Set<EnrolmentId>>();
  for (const [student, from] of selected) byPlace.set(from, (byPlace.get(from) ?? new Set()).add(student));
  return byPlace;
}

/** Whether places are being dealt; asked for by the address once, by the person who made the set. */
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
        ? 'No groups yet. Students form them when they hand in. You can also add some under Set, Groups.'
        : 'No groups yet. Add the first ones under Set, Groups.'}
    </p>
  );
}
