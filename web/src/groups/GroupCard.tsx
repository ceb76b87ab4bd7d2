import { Pencil } from 'lucide-react';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { styled } from 'styled-components';
import type { BoardGroup, BoardStudent, BoardView } from '@jigsaw/contract/groups';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { fold } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { Button, Emblem, Field, hueOfGroup, Sheet, Small, Tag } from '../look/index.js';
import { useCourse } from '../track/index.js';
import { useEditGroupMutation } from './groupsApi.js';
import { Tickbox } from './SetSheet.js';
import { StudentList, StudentName } from './StudentList.js';
import { capacityOf } from './useBoard.js';

const Card = styled.section`
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  min-width: 0;
  min-height: 194px;
  display: flex;
  flex-direction: column;
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
  h3 {
    font: var(--h-17);
    font-size: 16px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
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
    opacity: 0;
  }
  &:hover > header button,
  > header button[data-focus-visible] {
    opacity: 1;
  }
`;
const Found = styled.mark`
  display: contents;
  color: inherit;
  .name {
    font-weight: 680;
    text-decoration: underline 2px;
    text-underline-offset: 3px;
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

interface GroupCardProps {
  readonly board: BoardView;
  readonly group: BoardGroup;
  readonly members: readonly BoardStudent[];
  readonly sought: string;
  readonly selected: ReadonlySet<EnrolmentId>;
  readonly onSelect: (students: readonly EnrolmentId[]) => void;
  readonly onDrop: (students: readonly EnrolmentId[]) => void;
}

export function GroupCard({ board, group, members, sought, selected, onSelect, onDrop }: GroupCardProps) {
  const { course } = useCourse();
  const [isEditing, setEditing] = useState(false);
  const capacity = capacityOf(board, group);
  const over = capacity === null ? 0 : members.length - capacity;
  const free = capacity === null ? 0 : Math.max(0, capacity - members.length);
  return (
    <Card
      style={hueOfGroup(group.number)}
      data-over={over > 0 || undefined}
      data-locked={group.isLocked || undefined}
      aria-label={`Group ${group.number}, ${group.name}`}
    >
      <header>
        <Emblem number={group.number} size={36} />
        <h3>{group.name}</h3>
        {course.role === 'instructor' ? (
          <Button kind="quiet" isSmall isIconOnly aria-label={`Change ${group.name}`} onPress={() => setEditing(true)}>
            <Pencil size={13} aria-hidden="true" />
          </Button>
        ) : (
          <span />
        )}
        <span className="count">
          {group.isLocked && <Tag>Locked</Tag>} {over > 0 && <Tag $look="needs">{over} over</Tag>} {members.length}
          {capacity !== null && <small>/{capacity}</small>}
        </span>
      </header>
      <div>
        <StudentList
          label={`${group.name}, group ${group.number}`}
          students={members}
          selected={selected}
          onSelect={onSelect}
          onDrop={onDrop}
          renderEmpty={() => <Free>{free > 0 ? `${free} free places` : 'Nobody yet'}</Free>}
          renderStudent={(student) =>
            isSought(student, sought) ? (
              <Found>
                <StudentName student={student} />
              </Found>
            ) : (
              <StudentName student={student} />
            )
          }
        />
        {members.length > 0 && free > 0 && <Free>{free === 1 ? 'Free place' : `${free} free places`}</Free>}
      </div>
      {isEditing && <EditGroupSheet board={board} group={group} onClose={() => setEditing(false)} />}
    </Card>
  );
}

function isSought(student: BoardStudent, sought: string): boolean {
  return sought.trim() !== '' && fold(`${student.name} ${student.reading ?? ''}`).includes(fold(sought));
}

function EditGroupSheet({ board, group, onClose }: { readonly board: BoardView; readonly group: BoardGroup; readonly onClose: () => void }) {
  const [name, setName] = useState(group.name);
  const [isLocked, setLocked] = useState(group.isLocked);
  const [places, setPlaces] = useState(group.capacity === null ? '' : String(group.capacity));
  const [edit, { error, isLoading }] = useEditGroupMutation();
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const answer = await edit({ groupId: group.id, body: { name, capacity: places === '' ? null : Number(places), isLocked, version: group.version } });
    if (!('error' in answer) || answer.error === undefined) onClose();
  };
  return (
    <Sheet title={`Change ${group.name}`} onClose={onClose}>
      <form onSubmit={(event) => void submit(event)} style={{ display: 'grid', gap: 12 }}>
        <Field label="Name, shown everywhere at once" value={name} onChange={setName} autoFocus />
        <Field
          label="Places in this group"
          inputMode="numeric"
          value={places}
          onChange={(value) => setPlaces(value.replace(/\D/g, ''))}
          hint={board.set.capacity === null ? 'Empty: no limit' : `Empty: ${board.set.capacity}, as in the whole set`}
        />
        <Tickbox>
          <input type="checkbox" checked={isLocked} onChange={(event) => setLocked(event.target.checked)} />
          <span>
            Locked
            <br />
            <Small>No student joins or leaves by themselves, and nobody is dealt into it. You may still move people.</Small>
          </span>
        </Tickbox>
        {error && <ProblemStrip of={error} />}
        <footer>
          <Button onPress={onClose}>Leave it</Button>
          <Button type="submit" kind="main" isDisabled={isLoading || name.trim() === ''}>
            Change the group
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
