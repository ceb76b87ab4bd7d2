import type { BoardGroup } from '@jigsaw/contract/sets';
import type { BoardStudent, BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { may } from '@jigsaw/core/course';
import { movesOut } from '@jigsaw/core/placing';
import type { GroupId } from '@jigsaw/core/ids';
import { ContextMenu, Emblem } from '../look/index.js';
import type { MenuAct, Spot } from '../look/index.js';
import { sitIn, useCourse, useMaySitIn } from '../course/index.js';
import { leaderOf } from './seating.js';
import type { Seating } from './seating.js';
import { useGroupEdits } from './useGroupEdits.js';
import type { BoardActs } from './useBoard.js';

/** A menu that was asked for: of those who are selected, or of a group. */
export type OpenMenu =
  | { readonly of: 'students'; readonly at: Spot; readonly groupId: GroupId | null }
  | { readonly of: 'group'; readonly at: Spot; readonly groupId: GroupId };

interface BoardMenuProps {
  readonly menu: OpenMenu;
  readonly board: BoardView;
  readonly seating: Seating;
  readonly acts: BoardActs;
  readonly onLead: () => void;
  readonly onPlan: () => void;
  readonly onDeal: () => void;
  readonly onChange: (group: BoardGroup) => void;
  readonly onWrite: (people: readonly BoardStudent[]) => void;
  readonly onClose: () => void;
}

/** Everything that keys and dragging do on the Board, to be found without knowing them. */
export function BoardMenu({ menu, ...given }: BoardMenuProps) {
  const group = given.board.groups.find((each) => each.id === menu.groupId) ?? null;
  if (menu.of === 'students') return <StudentsMenu at={menu.at} group={group} {...given} />;
  return group && <GroupMenu at={menu.at} group={group} {...given} />;
}

type Rest = Omit<BoardMenuProps, 'menu'> & { readonly at: Spot };

function StudentsMenu({
  at,
  group,
  board,
  seating,
  acts,
  onLead,
  onPlan,
  onDeal,
  onWrite,
  onClose,
}: Rest & { readonly group: BoardGroup | null }) {
  const { course } = useCourse();
  const maySitIn = useMaySitIn();
  const people = board.students.filter((student) => acts.selected.has(student.enrolmentId));
  const count = people.length;
  const isLeader =
    group !== null &&
    count === 1 &&
    leaderOf(sure(seating.get(group.id)), group.id) === sure(people[0]).enrolmentId;
  const menuActs: MenuAct[] = [
    {
      label: board.set.isExclusive || group ? 'Move to' : 'Place in',
      text: 'Place in',
      choices: board.groups.map((each) => ({
        label: (
          <>
            <Emblem number={each.number} size={22} />
            {each.name}
          </>
        ),
        text: each.name,
        does: () => acts.send(acts.selected, each.id),
      })),
    },
    ...(may(course.role, 'release')
      ? [{ label: 'Show what a move changes…', text: 'What a move changes', does: onPlan }]
      : []),
    { label: 'Spread over groups…', text: 'Spread', keys: 'D', does: onDeal, isDisabled: count < 2 },
    { label: 'Swap these two', text: 'Swap', keys: 'S', does: acts.swapSelected, isDisabled: count !== 2 },
    {
      label: 'Remove from group',
      text: 'Remove from group',
      keys: 'U',
      does: () => acts.send(acts.selected, null),
      isDisabled: [...acts.selected.values()].every((from) => from === null),
    },
    ...(board.set.hasLeaders
      ? [
          {
            label: isLeader ? 'Remove as leader' : `Make leader of ${group?.name ?? 'the group'}`,
            text: 'Leader',
            keys: 'L',
            does: onLead,
            isDisabled: count !== 1 || group === null,
          },
        ]
      : []),
    ...(maySitIn && count === 1
      ? [
          {
            label: 'Sit in as them',
            text: 'Sit in as them',
            does: () =>
              sitIn(sure(people[0]).enrolmentId, `/c/${course.id}${group ? `/room/${group.id}` : ''}`),
          },
        ]
      : []),
    {
      label: count === 1 ? 'Write to them…' : `Write to these ${count}…`,
      text: 'Write',
      does: () => onWrite(people),
    },
  ];
  return (
    <ContextMenu
      title={count === 1 ? sure(people[0]).name : `${count} selected`}
      at={at}
      acts={menuActs}
      onClose={onClose}
    />
  );
}

function GroupMenu({
  at,
  group,
  seating,
  acts,
  onChange,
  onWrite,
  onClose,
}: Rest & { readonly group: BoardGroup }) {
  const { course } = useCourse();
  const edits = useGroupEdits();
  const members = sure(seating.get(group.id));
  const ids = members.map((student) => student.enrolmentId);
  const menuActs: MenuAct[] = [
    ...(course.role === 'instructor'
      ? [
          { label: 'Edit group…', text: 'Edit group', does: () => onChange(group) },
          {
            label: group.isLocked ? 'Unlock' : 'Lock: no one joins or leaves',
            text: 'Lock',
            does: () => void edits.lock(group, !group.isLocked),
          },
        ]
      : []),
    {
      label: 'Select its members',
      text: 'Select',
      does: () => acts.select(new Map(ids.map((id) => [id, group.id]))),
      isDisabled: members.length === 0,
    },
    {
      label: 'Remove everyone',
      text: 'Remove everyone',
      does: () =>
        acts.carry(
          { moves: movesOut(acts.placement, ids, (groupId) => groupId === group.id) },
          `${members.length} removed from ${group.name}`,
        ),
      isDisabled: members.length === 0,
    },
    {
      label: 'Write to its members…',
      text: 'Write',
      does: () => onWrite(members),
      isDisabled: members.length === 0,
    },
  ];
  return <ContextMenu title={group.name} at={at} acts={menuActs} onClose={onClose} />;
}
