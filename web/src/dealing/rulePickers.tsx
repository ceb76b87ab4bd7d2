import { groupedBy } from '@jigsaw/core/lists';
import { X } from 'lucide-react';
import { useMemo } from 'react';
import { ComboBox, Input, ListBox, ListBoxItem } from 'react-aria-components';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { Button, Choice, Popup, Small } from '../look/index.js';

export const Who = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 2px;
  height: 24px;
  padding: 0 2px 0 7px;
  border: 1px solid var(--edge);
  border-radius: var(--r-1);
  background: var(--surface);
  font-weight: 600;
`;

const Picker = styled(ComboBox)`
  input {
    width: 132px;
    height: 24px;
    padding: 0 7px;
    border: 1px dashed var(--edge);
    border-radius: var(--r-1);
    background: none;
    color: var(--ink);
    font: var(--t-13);
  }
`;

export function Without({
  what,
  isLast,
  onPress,
}: {
  readonly what: string;
  readonly isLast: boolean;
  readonly onPress: () => void;
}) {
  return (
    <Button
      kind="quiet"
      isSmall
      isIconOnly
      isDisabled={isLast}
      aria-label={`Without ${what}`}
      onPress={onPress}
    >
      <X size={12} aria-hidden="true" />
    </Button>
  );
}

export function People({
  board,
  students,
  onChange,
}: {
  readonly board: BoardView;
  readonly students: readonly EnrolmentId[];
  readonly onChange: (students: EnrolmentId[]) => void;
}) {
  const others = board.students.filter((student) => !students.includes(student.enrolmentId));
  // Two of one name are told apart by their numbers.
  const twins = useMemo(() => {
    const byName = groupedBy(board.students, (student) => student.name);
    return new Set([...byName].flatMap(([name, own]) => (own.length > 1 ? [name] : [])));
  }, [board.students]);
  return (
    <>
      {students.map((id) => {
        const name =
          board.students.find((student) => student.enrolmentId === id)?.name ?? 'somebody who left';
        return (
          <Who key={id}>
            <bdi>{name}</bdi>
            <Without
              what={name}
              isLast={false}
              onPress={() => onChange(students.filter((each) => each !== id))}
            />
          </Who>
        );
      })}
      <Picker
        key={students.length} // begun anew with everybody who is named
        aria-label="Somebody more"
        value={null}
        defaultItems={others}
        onChange={(key) => key !== null && onChange([...students, key as EnrolmentId])}
      >
        <Input
          placeholder={students.length === 0 ? 'Name somebody…' : 'and…'}
          autoFocus={students.length < 2}
        />
        <Popup>
          <ListBox>
            {(student: (typeof others)[number]) => (
              <ListBoxItem id={student.enrolmentId} textValue={`${student.name} ${student.reading ?? ''}`}>
                {student.name}{' '}
                <Small>
                  {[student.reading, twins.has(student.name) && student.number].filter(Boolean).join(' ')}
                </Small>
              </ListBoxItem>
            )}
          </ListBox>
        </Popup>
      </Picker>
    </>
  );
}

export type Kind = BoardView['attributes'][number]['kind'];

interface AttributeProps {
  readonly board: BoardView;
  readonly kinds: readonly Kind[];
  readonly value: string;
  readonly onChange: (attribute: string, as: 'category' | 'number') => void;
}

export function Attribute({ board, kinds, value, onChange }: AttributeProps) {
  const fitting = board.attributes.filter((attribute) => kinds.includes(attribute.kind));
  const choices = [...new Set([value, ...fitting.map((attribute) => attribute.name)])].map((name) => ({
    id: name,
    label: name,
  }));
  return (
    <Choice
      label="Attribute"
      isLabelHidden
      value={value}
      choices={choices}
      onChange={(name) =>
        onChange(
          name,
          fitting.find((attribute) => attribute.name === name)?.kind === 'number' ? 'number' : 'category',
        )
      }
    />
  );
}
