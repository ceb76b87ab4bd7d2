import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { EditTopics } from '@jigsaw/contract/sets';
import { topicLetter } from '@jigsaw/core/dealing';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { Button, Sheet, Small, useNotice } from '../look/index.js';
import { useEditTopicsMutation } from './placingApi.js';

const Table = styled.div`
  max-height: min(50vh, 460px);
  overflow: auto;
  border-block: var(--hair);
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--surface);
    padding: 6px 4px;
    font: 600 12px/16px var(--font-text);
    color: var(--ink-2);
    text-align: left;
    border-bottom: var(--hair);
  }
  td {
    padding: 3px 4px;
  }
  td:first-child {
    font: var(--h-17);
    width: 30px;
  }
  input {
    width: 100%;
    height: 30px;
    padding: 0 8px;
    border: 1px solid var(--edge);
    border-radius: var(--r-1);
    background: var(--surface);
    color: var(--ink);
    font: var(--t-13);
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

type Row = EditTopics['topics'][number] & { readonly key: number };

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
  const shift = (at: number, by: 1 | -1) => {
    const next = [...rows];
    next.splice(at + by, 0, ...next.splice(at, 1));
    setRows(next);
  };
  const isNameless = rows.some((row) => row.name.trim() === '');
  const isChanged = JSON.stringify(rows) !== JSON.stringify(rowsOf(board));
  const add = () => {
    const key = Math.max(0, ...rows.map((row) => row.key)) + 1;
    setRows([...rows, { key, topic: null, name: '', about: '', tables: 1 }]);
  };
  const save = async () => {
    const topics = rows.map(({ key: _key, ...row }) => row);
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
          if (isChanged && !isNameless && !isLoading) void save();
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
                        onChange={(event) => put(at, { tables: tablesTyped(event.target.value) })}
                      />
                    </td>
                    <td>
                      <Button
                        kind="quiet"
                        isSmall
                        isIconOnly
                        isDisabled={at === 0}
                        aria-label={`Move ${says} up`}
                        onPress={() => shift(at, -1)}
                      >
                        <ArrowUp size={14} aria-hidden="true" />
                      </Button>
                      <Button
                        kind="quiet"
                        isSmall
                        isIconOnly
                        isDisabled={at === rows.length - 1}
                        aria-label={`Move ${says} down`}
                        onPress={() => shift(at, 1)}
                      >
                        <ArrowDown size={14} aria-hidden="true" />
                      </Button>
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
          <Button kind="main" type="submit" isDisabled={!isChanged || isNameless || isLoading}>
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
    tables: Math.max(1, groups.filter((group) => group.topic === at + 1).length),
  }));

const tablesTyped = (typed: string): number => Math.min(100, Math.max(1, Number(typed.replace(/\D/g, ''))));

/** What will be there once it is saved. */
function sayChange(rows: readonly Row[], board: BoardView): string {
  const tables = rows.reduce((sum, row) => sum + row.tables, 0);
  const perTable = Math.ceil(board.students.length / Math.max(1, tables));
  const isSame = tables === board.groups.filter((group) => group.topic !== null).length;
  return isSame
    ? 'Tables that are called after their topic take its new name. Tables with people or work cannot be removed.'
    : `${counted(tables, 'table')}, up to ${counted(perTable, 'person', 'people')} each once you rebalance. Tables with people or work cannot be removed.`;
}
