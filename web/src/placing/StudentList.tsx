import { GripVertical } from 'lucide-react';
import { createContext, memo, useContext, useState } from 'react';
import type { ComponentProps, ReactNode } from 'react';
import {
  Button,
  GridList,
  GridListItem,
  ListLayout,
  useDragAndDrop,
  Virtualizer,
} from 'react-aria-components';
import type { Key, Selection } from 'react-aria-components';
import { css, styled } from 'styled-components';
import type { BoardStudent } from '@jigsaw/contract/placing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { PersonName } from '../look/index.js';
import type { Spot } from '../look/index.js';
import type { Chosen } from './seating.js';

const dragType = 'application/x-jigsaw-students+json';

const List = styled(GridList<BoardStudent>)`
  display: block;
  min-height: 36px;
  &[data-long] {
    position: absolute;
    inset: 6px 8px;
    overflow: auto;
  }
  outline: none;
  &[data-drop-target] {
    outline: 2px solid var(--hue, var(--ink));
    outline-offset: -1px;
    border-radius: var(--r-2);
    background: var(--hue-tint, var(--wash));
  }
  &[data-focus-visible]:not([data-drop-target]) {
    outline: 2px solid var(--ink);
    outline-offset: -2px;
  }
`;
const row = css`
  position: relative;
  display: flex;
  align-items: center;
  gap: 7px;
  min-height: 28px;
  padding: 3px 6px;
`;
const Item = styled(GridListItem)`
  ${row}
  border-radius: 4px;
  cursor: grab;
  outline-offset: -2px;
  &[data-hovered] {
    background: var(--wash);
  }
  &[data-selected] {
    background: var(--wash-2);
    font-weight: 620;
  }
  &[data-dragging] {
    opacity: 0.45;
  }
`;
const PlainRows = styled.ul`
  li {
    ${row}
  }
`;
/** For the keyboard and for readers: it takes the student up, Tab goes from group to group, Enter puts down. */
const Grip = styled(Button)`
  display: grid;
  place-items: center;
  position: absolute;
  right: 2px;
  top: 2px;
  width: 24px;
  height: 24px;
  border: 0;
  border-radius: var(--r-1);
  background: var(--surface);
  color: var(--ink-2);
  cursor: grab;
  opacity: 0;
  [data-hovered] > * > &,
  [data-focus-visible-within] > * > &,
  &[data-focus-visible] {
    opacity: 1;
  }
`;
const Carried = styled.div`
  display: flex;
  align-items: center;
  height: 32px;
  padding: 0 10px;
  border-radius: var(--r-2);
  background: var(--ink);
  color: var(--on-ink);
  font: 600 13px/1 var(--font-text);
`;

interface StudentListProps {
  readonly label: string;
  /** Whose list it is; null: the tray. */
  readonly groupId: GroupId | null;
  readonly students: readonly BoardStudent[];
  /** How many there are when nothing is sought: a long list draws the rows in view only, and stays one while a search makes it short. */
  readonly isLong?: boolean;
  /** Of these students, those who are selected here. */
  readonly selected: ReadonlySet<EnrolmentId>;
  /** Everyone who is selected, here or elsewhere: they are carried off together. */
  readonly allSelected: () => Chosen;
  readonly onSelect: (groupId: GroupId | null, students: readonly EnrolmentId[]) => void;
  readonly onDrop: (groupId: GroupId | null, students: Chosen) => void;
  readonly onMenu: (groupId: GroupId | null, student: EnrolmentId, at: Spot) => void;
  readonly renderEmpty: () => ReactNode;
  readonly renderStudent?: (student: BoardStudent) => ReactNode;
}

/** Students who can be selected, carried off and carried in, by mouse, touch or keyboard. */
export const StudentList = memo(function StudentList({
  label,
  groupId,
  students,
  isLong = false,
  selected,
  allSelected,
  onSelect,
  onDrop,
  onMenu,
  renderEmpty,
  renderStudent,
}: StudentListProps) {
  // The list's own set remembers where a range began; a copy of it would not.
  const [heard, setHeard] = useState<Set<Key>>(new Set());
  const { dragAndDropHooks } = useDragAndDrop({
    // A selected student carries the whole selection along, from other lists too.
    getItems: (keys) => {
      const isSelected = [...keys].some((key) => selected.has(key as EnrolmentId));
      const carried = isSelected
        ? [...allSelected()]
        : ([...keys] as EnrolmentId[]).map((id) => [id, groupId] as const);
      return carried.map(([id, from]) => ({
        [dragType]: JSON.stringify([id, from]),
        'text/plain': students.find((student) => student.enrolmentId === id)?.name ?? id,
      }));
    },
    renderDragPreview: (items) => (
      <Carried>{items.length === 1 ? sure(items[0])['text/plain'] : `${items.length} students`}</Carried>
    ),
    acceptedDragTypes: [dragType],
    getDropOperation: () => 'move',
    onRootDrop: (event) => {
      const ids = event.items.map((item) =>
        item.kind === 'text' ? item.getText(dragType) : Promise.resolve(''),
      );
      void Promise.all(ids).then((all) =>
        onDrop(
          groupId,
          new Map(
            all.filter((id) => id !== '').map((each) => JSON.parse(each) as [EnrolmentId, GroupId | null]),
          ),
        ),
      );
    },
  });
  const list = (
    <List
      aria-label={label}
      data-long={isLong || undefined}
      items={students}
      dependencies={[renderStudent]}
      selectionMode="multiple"
      selectionBehavior="replace"
      selectedKeys={isSame(heard, selected) ? heard : selected}
      onSelectionChange={(keys: Selection) => {
        setHeard(keys === 'all' ? new Set() : keys);
        onSelect(
          groupId,
          keys === 'all' ? students.map((student) => student.enrolmentId) : ([...keys] as EnrolmentId[]),
        );
      }}
      dragAndDropHooks={dragAndDropHooks}
      onContextMenu={(event) => {
        const id =
          event.target instanceof Element && event.target.closest('[data-key]')?.getAttribute('data-key');
        if (!id) return;
        event.preventDefault();
        event.stopPropagation(); // the group's own menu is another
        onMenu(groupId, id as EnrolmentId, { x: event.clientX, y: event.clientY });
      }}
      renderEmptyState={renderEmpty}
    >
      {(student) => (
        <Item id={student.enrolmentId} textValue={student.name}>
          {renderStudent ? renderStudent(student) : <StudentName student={student} />}
          <Grip slot="drag">
            <GripVertical size={14} aria-hidden="true" />
          </Grip>
        </Item>
      )}
    </List>
  );
  // A class that no one has placed yet: only the rows in view are in the page.
  return isLong ? (
    <Virtualizer layout={ListLayout} layoutOptions={{ rowHeight }}>
      {list}
    </Virtualizer>
  ) : (
    list
  );
});

/** Of more students, only the rows in view are drawn. */
export const mostDrawn = 60;
const rowHeight = 28;

interface PlainStudentsProps {
  readonly students: readonly BoardStudent[];
  readonly renderStudent?: (student: BoardStudent) => ReactNode;
}

/** Looks like the list that can be selected and carried, and costs a fraction of it: for what is not in view yet, or about to be there. */
export function PlainStudents({
  students,
  renderStudent,
  ...rest
}: PlainStudentsProps & ComponentProps<typeof PlainRows>) {
  return (
    <PlainRows {...rest}>
      {students.map((student) => (
        <li key={student.enrolmentId}>
          {renderStudent ? renderStudent(student) : <StudentName student={student} />}
        </li>
      ))}
    </PlainRows>
  );
}

const isSame = (one: ReadonlySet<Key>, other: ReadonlySet<Key>) =>
  one.size === other.size && [...one].every((key) => other.has(key));

/** Those who a search found, to be marked where they sit. Only names hear of it: a row is far more than its name, and a key must be answered at once. */
export const FoundStudents = createContext<ReadonlySet<EnrolmentId>>(new Set());

/** The students that someone else just moved, to be seen where they are now. */
export const MovedStudents = createContext<ReadonlySet<EnrolmentId>>(new Set());

const Name = styled.span`
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  &[data-found] {
    font-weight: 680;
    text-decoration: underline 2px;
    text-underline-offset: 3px;
  }
  &[data-moved] {
    font-weight: 620;
    box-shadow:
      -6px 0 var(--wash-2),
      inset 0 0 0 20px var(--wash-2);
    border-radius: 2px;
  }
`;

export function StudentName({ student }: { readonly student: BoardStudent }) {
  const isFound = useContext(FoundStudents).has(student.enrolmentId);
  const isMoved = useContext(MovedStudents).has(student.enrolmentId);
  return (
    <Name data-found={isFound || undefined} data-moved={isMoved || undefined}>
      <PersonName name={student.name} reading={student.reading} />
    </Name>
  );
}
