import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { EditTopics } from '@jigsaw/contract/sets';
import { topicLetter } from '@jigsaw/core/dealing';
import { shifted } from '@jigsaw/core/lists';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { Button, Sheet, Shifts, Small, useNotice } from '../look/index.js';
import { EditTable } from './EditTable.js';
import { useEditTopicsMutation } from './placingApi.js';

const Table = styled(EditTable)`
  td:first-child {
    font: var(--h-17);
    width: 30px;
  }
  td:nth-child(2) {
    width: 34%;
  }
  td:nth-child(4) {
    width: 56px;
  }
  td:nth-child(4) input {
    text-align: right;
  }
  td:last-child {
    white-space: nowrap;
    width: 90px;
    text-align: right;
  }
`;

/** A topic as it is being written; the number of tables as it was typed. */
type Row = Omit<EditTopics['topics'][number], 'tables'> & { readonly key: number; readonly tables: string };

interface TopicsSheetProps {
  readonly board: BoardView;
  readonly onClose: () => void;
}

/** The topics of expert tables: their names, what they are about, their order, and how many tables each has. */
export function TopicsSheet({ board, onClose }: TopicsSheetProps) {
  const notice = useNotice();
  const [rows, setRows] = useState<readonly Row[]>(() => rowsOf(board));
  const [edit, { error, isLoading }] = useEditTopicsMutation();
  const put = (at: number, part: Partial<Row>) =>
    setRows(rows.map((row, index) => (index === at ? { ...row, ...part } : row)));
  const isIncomplete = rows.some((row) => row.name.trim() === '' || Number(row.tables) < 1);
  const isChanged = JSON.stringify(rows) !== JSON.stringify(rowsOf(board));
  const add = () => {
    const key = Math.max(0, ...rows.map((row) => row.key)) + 1;
    setRows([...rows, { key, topic: null, name: '', about: '', tables: '1' }]);
  };
  const save = async () => {
    const topics = rows.map(({ key: _key, ...row }) => ({ ...row, tables: Number(row.tables) }));
    const answer = await edit({ setId: board.set.id, body: { topics, version: board.set.version } });
    if (!('data' in answer) || !answer.data) return;
    notice(`Topics of ${board.set.name} saved`);
    onClose();
  };
  return (
    <Sheet title={`Topics of ${board.set.name}`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (isChanged && !isIncomplete && !isLoading) void save();
        }}
      >
        {error && <ProblemStrip of={error} />}
        <Table>
          <table>
            <thead>
              <tr>
                <th aria-label="Letter" />
                <th>Topic</th>
                <th>What it is about</th>
                <th>Tables</th>
                <th aria-label="Order and removal" />
              </tr>
            </thead>
            <tbody>
              {rows.map((row, at) => {
                const letter = topicLetter(at);
                const says = row.name.trim() === '' ? `topic ${letter}` : row.name;
                return (
                  <tr key={row.key}>
                    <td>{letter}</td>
                    <td>
                      <input
                        aria-label={`Name of topic ${letter}`}
                        value={row.name}
                        maxLength={80}
                        onChange={(event) => put(at, { name: event.target.value })}
                      />
                    </td>
                    <td>
                      <input
                        aria-label={`What topic ${letter} is about`}
                        value={row.about}
                        maxLength={200}
                        onChange={(event) => put(at, { about: event.target.value })}
                      />
                    </td>
                    <td>
                      <input
                        aria-label={`Tables of topic ${letter}`}
                        inputMode="numeric"
                        value={row.tables}
                        onChange={(event) =>
                          put(at, { tables: event.target.value.replace(/\D/g, '').slice(0, 3) })
                        }
                      />
                    </td>
                    <td>
                      <Shifts
                        at={at}
                        count={rows.length}
                        up={`Move ${says} up`}
                        down={`Move ${says} down`}
                        onShift={(by) => setRows(shifted(rows, at, by))}
                      />
                      <Button
                        kind="quiet"
                        isSmall
                        isIconOnly
                        isDisabled={rows.length === 1}
                        aria-label={`Remove ${says}`}
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
        <Small style={{ display: 'block', marginTop: 8 }}>{sayChange(rows, board)}</Small>
        <footer>
          <Button onPress={add} isDisabled={rows.length >= 40}>
            <Plus size={15} aria-hidden="true" />
            Add a topic
          </Button>
          <span style={{ flex: 1 }} />
          <Button onPress={onClose}>Cancel</Button>
          <Button kind="main" type="submit" isDisabled={!isChanged || isIncomplete || isLoading}>
            {isLoading ? 'Saving…' : 'Save topics'}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}

const rowsOf = ({ topics, groups }: BoardView): Row[] =>
  topics.map(({ name, about }, at) => ({
    key: at,
    topic: at + 1,
    name,
    about,
    tables: String(Math.max(1, groups.filter((group) => group.topic === at + 1).length)),
  }));

/** What will be there once it is saved. */
function sayChange(rows: readonly Row[], board: BoardView): string {
  const tables = rows.reduce((sum, row) => sum + Number(row.tables), 0);
  const perTable = Math.ceil(board.students.length / Math.max(1, tables));
  const isSame = tables === board.groups.filter((group) => group.topic !== null).length;
  return isSame
    ? 'Tables that are called after their topic take its new name. Tables with people or work cannot be removed.'
    : `${counted(tables, 'table')}, up to ${counted(perTable, 'person', 'people')} each once you rebalance. Tables with people or work cannot be removed.`;
}
