import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { ClipboardEvent } from 'react';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import { noDetails } from '@jigsaw/contract/sets';
import type { EditGroups } from '@jigsaw/contract/sets';
import { nameByPattern } from '@jigsaw/core/sets';
import { ProblemStrip } from '../api/index.js';
import { Button, Emblem, Field, Sheet, Small, useNotice } from '../look/index.js';
import { EditTable } from './EditTable.js';
import { added, asItIs } from './editedGroups.js';
import { useEditGroupsMutation } from './placingApi.js';
import { seatingOf } from './seating.js';

const Table = styled(EditTable)`
  td:nth-child(3) input {
    width: 72px;
    text-align: right;
  }
`;
const Tools = styled.div`
  display: grid;
  grid-template-columns: 1fr auto 1fr auto;
  gap: 8px;
  align-items: end;
  margin: 12px 0 4px;
`;

type Row = EditGroups['groups'][number] & { readonly number: number };

interface GroupsSheetProps {
  readonly board: BoardView;
  readonly onClose: () => void;
}

/** All groups of a set at once: their names, places and locks; more of them, or fewer. */
export function GroupsSheet({ board, onClose }: GroupsSheetProps) {
  const notice = useNotice();
  const [rows, setRows] = useState<readonly Row[]>(() =>
    board.groups.map((group) => ({
      ...asItIs(group),
      ...(board.set.signUp && { details: group.details }),
      number: group.number,
    })),
  );
  const [pattern, setPattern] = useState('');
  const [places, setPlaces] = useState('');
  const [edit, { error, isLoading }] = useEditGroupsMutation();
  const members = seatingOf(board);
  const { signUp } = board.set;
  const put = (at: number, part: Partial<Row>) =>
    setRows(rows.map((row, index) => (index === at ? { ...row, ...part } : row)));
  const removed = board.groups
    .filter((group) => !rows.some((row) => row.id === group.id))
    .map((group) => group.id);
  const isChanged = removed.length > 0 || rows.some((row) => row.id === null || isOther(row, board));
  const nameless = rows.some((row) => row.name.trim() === '');
  const add = () => {
    const number =
      Math.max(0, ...board.groups.map((group) => group.number), ...rows.map((row) => row.number)) + 1;
    setRows([...rows, { ...added(nameByPattern('', number)), number }]);
  };
  /** Several lines that are pasted into a name go into the names below it, too. */
  const paste = (at: number) => (event: ClipboardEvent) => {
    const lines = event.clipboardData
      .getData('text')
      .split(/\r?\n/)
      .map((line) => line.trim())
      .filter(Boolean);
    if (lines.length < 2) return;
    event.preventDefault();
    setRows(rows.map((row, index) => ({ ...row, name: lines[index - at] ?? row.name })));
  };
  const save = async () => {
    const body = { groups: rows.map(({ number: _number, ...row }) => row), removed };
    const answer = await edit({ setId: board.set.id, body });
    if (!('data' in answer) || !answer.data) return;
    notice(`Groups of ${board.set.name} saved`);
    onClose();
  };
  return (
    <Sheet title={`Groups of ${board.set.name}`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (isChanged && !nameless) void save();
        }}
      >
        {error && <ProblemStrip of={error} />}
        <Table>
          <table>
            <thead>
              <tr>
                <th aria-label="Group" />
                <th>Name (you can paste a list)</th>
                <th>Places</th>
                <th>Locked</th>
                {signUp && <th>Time</th>}
                {signUp && <th>Place</th>}
                <th aria-label="Remove" />
              </tr>
            </thead>
            <tbody>
              {rows.map((row, at) => {
                const inside = row.id === null ? 0 : (members.get(row.id)?.length ?? 0);
                return (
                  <tr key={row.id ?? `new ${row.number}`}>
                    <td>
                      <Emblem number={row.number} size={26} />
                    </td>
                    <td>
                      <input
                        aria-label={`Name of group ${row.number}`}
                        value={row.name}
                        maxLength={80}
                        onChange={(event) => put(at, { name: event.target.value })}
                        onPaste={paste(at)}
                      />
                    </td>
                    <td>
                      <input
                        aria-label={`Places in group ${row.number}`}
                        inputMode="numeric"
                        placeholder={board.set.capacity === null ? 'any' : String(board.set.capacity)}
                        value={row.capacity ?? ''}
                        onChange={(event) => put(at, { capacity: wholeNumber(event.target.value) })}
                      />
                    </td>
                    <td>
                      <input
                        type="checkbox"
                        aria-label={`Group ${row.number} is locked`}
                        checked={row.isLocked}
                        onChange={(event) => put(at, { isLocked: event.target.checked })}
                      />
                    </td>
                    {signUp &&
                      (['time', 'place'] as const).map((part) => (
                        <td key={part}>
                          <input
                            aria-label={`${part === 'time' ? 'Time' : 'Place'} of group ${row.number}`}
                            value={(row.details ?? noDetails)[part]}
                            maxLength={80}
                            onChange={(event) =>
                              put(at, {
                                details: { ...(row.details ?? noDetails), [part]: event.target.value },
                              })
                            }
                          />
                        </td>
                      ))}
                    <td>
                      <Button
                        kind="quiet"
                        isSmall
                        isIconOnly
                        isDisabled={inside > 0}
                        aria-label={
                          inside > 0
                            ? `Group ${row.number} has members and cannot be removed`
                            : `Remove group ${row.number}`
                        }
                        onPress={() => setRows(rows.filter((each) => each !== row))}
                      >
                        <Trash2 size={14} aria-hidden="true" />
                      </Button>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </Table>
        <Tools>
          <Field label="Name all by pattern" value={pattern} onChange={setPattern} placeholder="Bench {n}" />
          <Button
            isDisabled={!/\{[nA]\}/.test(pattern)}
            onPress={() => setRows(rows.map((row) => ({ ...row, name: nameByPattern(pattern, row.number) })))}
          >
            Name all
          </Button>
          <Field
            label="Places in all"
            inputMode="numeric"
            value={places}
            onChange={(value) => setPlaces(value.replace(/\D/g, ''))}
            placeholder="as the set"
          />
          <Button onPress={() => setRows(rows.map((row) => ({ ...row, capacity: wholeNumber(places) })))}>
            Set for all
          </Button>
        </Tools>
        <Small>
          Groups with members, work, notes or files cannot be removed. New groups get what was released to the
          whole set.
        </Small>
        <footer>
          <Button onPress={add}>
            <Plus size={15} aria-hidden="true" />
            Add a group
          </Button>
          <span style={{ flex: 1 }} />
          <Button onPress={onClose}>Cancel</Button>
          <Button kind="main" type="submit" isDisabled={!isChanged || nameless || isLoading}>
            {isLoading ? 'Saving…' : 'Save'}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}

const wholeNumber = (typed: string): number | null => {
  const digits = typed.replace(/\D/g, '').slice(0, 4);
  return digits === '' ? null : Math.max(1, Number(digits));
};

function isOther(row: Row, board: BoardView): boolean {
  const was = board.groups.find((group) => group.id === row.id);
  return (
    was === undefined ||
    was.name !== row.name ||
    was.capacity !== row.capacity ||
    was.isLocked !== row.isLocked ||
    (row.details !== undefined && JSON.stringify(was.details) !== JSON.stringify(row.details))
  );
}
