import { useState } from 'react';
import {
  Button as AriaButton,
  Dialog,
  DialogTrigger,
  Header,
  Menu,
  MenuItem,
  MenuSection,
  MenuTrigger,
} from 'react-aria-components';
import { styled } from 'styled-components';
import type { RosterEntry, RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { inverse } from '@jigsaw/core/placing';
import type { Move, Place } from '@jigsaw/core/placing';
import type { GroupId, GroupSetId } from '@jigsaw/core/ids';
import type { Role } from '@jigsaw/core/course';
import { may } from '@jigsaw/core/course';
import { problemOf, ProblemStrip } from '../api/index.js';
import { usePlaceStudentsMutation } from '../placing/index.js';
import { Button, Field, GroupChip, Popup, Small, useNotice } from '../look/index.js';
import { InviteSheet } from '../mail/index.js';
import { WriteSheet } from '../messages/index.js';
import { SitInLink, useCourse } from '../course/index.js';
import { roleSays, roleWords } from './columns.js';
import { JoinSheet } from './JoinSheet.js';
import { useRosterAct } from './useRosterAct.js';

const List = styled(Popup)`
  min-width: 260px;
  header {
    padding: 6px 10px 2px;
    font: 600 11px/16px var(--font-text);
    color: var(--ink-2);
  }
  form {
    display: grid;
    gap: 10px;
    padding: 8px;
  }
`;
const Act = styled(AriaButton)`
  border: 0;
  background: none;
  padding: 4px 2px;
  font: 600 12px/16px var(--font-text);
  color: var(--ink);
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  &:hover {
    background: var(--wash);
  }
`;

interface SelectionBarProps {
  readonly selected: readonly RosterEntry[];
  readonly attributes: RosterView['attributes'];
  readonly sets: RosterView['sets'];
  readonly onDone: () => void;
  readonly onOpen: (entry: RosterEntry) => void;
}

const sayWho = (entries: readonly RosterEntry[]) =>
  entries.length === 1 ? sure(entries[0]).name : `${entries.length} people`;

/** What can be done with the people who are selected. */
export function SelectionBar({ selected, attributes, sets, onDone, onOpen }: SelectionBarProps) {
  const { course } = useCourse();
  const { act, error, isBusy } = useRosterAct();
  const mayManage = may(course.role, 'manage-roster');
  const here = selected.filter((entry) => entry.leftAt === null);
  const left = selected.filter((entry) => entry.leftAt !== null);
  const others = here.filter((entry) => entry.enrolmentId !== course.enrolmentId);
  const students = here.filter((entry) => entry.role === 'student');
  const [student] = students;
  const uninvited = here.filter((entry) => !entry.hasComeIn);
  const [open, setOpen] = useState<'join' | 'write' | 'invite' | null>(null);
  const ids = (entries: readonly RosterEntry[]) => entries.map((entry) => entry.enrolmentId);
  const done = async (doing: Promise<boolean>) => {
    if (await doing) onDone();
  };
  const setRole = (role: Role) => {
    const edits = here
      .filter((entry) => entry.role !== role)
      .map((entry) => ({ enrolmentId: entry.enrolmentId, from: { role: entry.role }, to: { role } }));
    if (edits.length > 0)
      void done(act({ act: 'edit', edits }, `${sayWho(here)}: ${roleWords[role].toLowerCase()} now`));
  };
  const setAttribute = (name: string, value: string) => {
    const edits = selected.map((entry) => ({
      enrolmentId: entry.enrolmentId,
      from: { attributes: { [name]: entry.attributes[name] ?? null } },
      to: { attributes: { [name]: value.trim() || null } },
    }));
    void done(act({ act: 'edit', edits }, `${name} set for ${sayWho(selected)}`));
  };
  return (
    <>
      <b role="status">{selected.length} selected</b>
      {mayManage && selected.length === 1 && <Act onPress={() => onOpen(sure(selected[0]))}>Edit…</Act>}
      {mayManage && here.length > 0 && (
        <MenuTrigger>
          <Act isDisabled={isBusy}>Role…</Act>
          <List placement="top start">
            <Menu aria-label="Their role" onAction={(role) => setRole(role as Role)}>
              {Object.entries(roleWords).map(([id, word]) => (
                <MenuItem key={id} id={id} textValue={word}>
                  <b>{word}</b>
                  <Small>{roleSays[id as Role]}</Small>
                </MenuItem>
              ))}
            </Menu>
          </List>
        </MenuTrigger>
      )}
      {selected.length === 1 && student && (
        <SitInLink enrolmentId={student.enrolmentId} name={student.name} />
      )}
      {students.length > 0 && sets.length > 0 && (
        <PlaceMenu students={students} sets={sets} onDone={onDone} />
      )}
      {mayManage && (
        <DialogTrigger>
          <Act isDisabled={isBusy}>Set an attribute…</Act>
          <List placement="top start">
            <Dialog aria-label="Set an attribute">
              {({ close }) => (
                <AttributeForm
                  names={attributes.map((each) => each.name)}
                  onSet={setAttribute}
                  onDone={close}
                />
              )}
            </Dialog>
          </List>
        </DialogTrigger>
      )}
      {here.length > 0 && (
        <Act onPress={() => setOpen('write')}>
          {here.length === 1 ? 'Write to them…' : `Write to these ${here.length}…`}
        </Act>
      )}
      {mayManage && uninvited.length > 0 && (
        <Act isDisabled={isBusy} onPress={() => setOpen('invite')}>
          Invite {uninvited.length}…
        </Act>
      )}
      {mayManage && others.length > 0 && (
        <Act
          isDisabled={isBusy}
          onPress={() =>
            void done(
              act(
                { act: 'drop', enrolmentIds: ids(others) },
                `${sayWho(others)} removed from the course. Work and marks are kept.`,
              ),
            )
          }
        >
          Remove from course
        </Act>
      )}
      {mayManage && left.length > 0 && (
        <Act
          isDisabled={isBusy}
          onPress={() =>
            void done(
              act({ act: 'restore', enrolmentIds: ids(left) }, `${sayWho(left)} restored to the course`),
            )
          }
        >
          Restore
        </Act>
      )}
      {mayManage && selected.length === 2 && <Act onPress={() => setOpen('join')}>Merge entries…</Act>}
      {open === 'join' && selected.length === 2 && (
        <JoinSheet
          pair={[sure(selected[0]), sure(selected[1])]}
          onClose={() => setOpen(null)}
          onDone={onDone}
        />
      )}
      {open === 'write' && <WriteSheet people={others} onClose={() => setOpen(null)} onDone={onDone} />}
      {open === 'invite' && <InviteSheet people={uninvited} onClose={() => setOpen(null)} onDone={onDone} />}
      <Act onPress={onDone}>Clear selection</Act>
      {error && <ProblemStrip of={error} />}
    </>
  );
}

interface PlaceMenuProps {
  readonly students: readonly RosterEntry[];
  readonly sets: RosterView['sets'];
  readonly onDone: () => void;
}

/** Into a group of any set, each from where they are; the way back puts each where they were. */
function PlaceMenu({ students, sets, onDone }: PlaceMenuProps) {
  const notice = useNotice();
  const [send, { isLoading }] = usePlaceStudentsMutation();
  const carryOut = async (setId: GroupSetId, place: Place, said: string, back: boolean) => {
    const answer = await send({ setId, place });
    if (!('data' in answer) || !answer.data) return notice(problemOf(answer.error).detail);
    notice(
      said,
      ...(back ? [{ label: 'Undo', do: () => void carryOut(setId, inverse(place), 'Undone', false) }] : []),
    );
  };
  const placeIn = (
    { id: setId, isExclusive }: RosterView['sets'][number],
    to: GroupId | null,
    name: string,
  ) => {
    const moves = students.flatMap(({ enrolmentId: student, groups }): Move[] => {
      const seats = groups.flatMap((group) => (group.setId === setId ? [group.groupId] : []));
      if (to === null) return seats.map((from) => ({ student, from, to }));
      if (seats.includes(to)) return [];
      // Where one may be in several groups, they get one more.
      return [{ student, from: isExclusive ? (seats[0] ?? null) : null, to }];
    });
    if (moves.length > 0)
      void carryOut(
        setId,
        { moves },
        `${sayWho(students)} ${to === null ? `in no group of ${name}` : `in ${name}`}`,
        true,
      );
    onDone();
  };
  return (
    <MenuTrigger>
      <Act isDisabled={isLoading}>Place in…</Act>
      <List placement="top start">
        <Menu aria-label="Place in">
          {sets.map((set) => (
            <MenuSection key={set.id}>
              <Header>{set.name}</Header>
              {set.groups.map((group) => (
                <MenuItem
                  key={group.id}
                  id={group.id}
                  textValue={group.name}
                  onAction={() => placeIn(set, group.id, group.name)}
                >
                  <GroupChip number={group.number} name={group.name} />
                </MenuItem>
              ))}
              <MenuItem
                id={`none ${set.id}`}
                textValue={`None of ${set.name}`}
                onAction={() => placeIn(set, null, set.name)}
              >
                None of them
              </MenuItem>
            </MenuSection>
          ))}
        </Menu>
      </List>
    </MenuTrigger>
  );
}

function AttributeForm({
  names,
  onSet,
  onDone,
}: {
  readonly names: readonly string[];
  readonly onSet: (name: string, value: string) => void;
  readonly onDone: () => void;
}) {
  const [name, setName] = useState(names[0] ?? '');
  const [value, setValue] = useState('');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() === '') return;
        onSet(name.trim(), value);
        onDone();
      }}
    >
      <Field
        label="Attribute"
        value={name}
        onChange={setName}
        hint={names.length > 0 ? `Known here: ${names.join(', ')}` : 'A name of your own, like Timetable'}
        autoFocus
      />
      <Field label="Value" value={value} onChange={setValue} hint="Leave empty to remove the value" />
      <Button kind="main" type="submit" isDisabled={name.trim() === ''}>
        Set value
      </Button>
    </form>
  );
}
