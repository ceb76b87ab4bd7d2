import { useMemo, useRef, useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { groupFileColumns, readGroupFile, sayGroupFileProblem } from '@jigsaw/core/placing';
import type { GroupFileColumns, Place } from '@jigsaw/core/placing';
import { longestReadSeconds } from '@jigsaw/core/roster';
import type { Delimiter } from '@jigsaw/core/files';
import { problemOf, ProblemStrip } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { DelimiterChoice } from '../form/index.js';
import { Button, Choice, PersonName, Sheet, Small, WorkingUntil } from '../look/index.js';
import { useAct } from '../page/index.js';
import { added, asItIs } from './editedGroups.js';
import { readGroupTable } from './groupTable.js';
import type { GroupTable } from './groupTable.js';
import { useEditGroupsMutation, useReadTableMutation } from './placingApi.js';
import { counted } from '@jigsaw/core/text';

const List = styled.ul`
  display: grid;
  margin: 10px 0;
  max-height: 260px;
  overflow: auto;
  border-top: var(--hair);
  li {
    display: grid;
    grid-template-columns: 64px 1fr;
    gap: 10px;
    padding: 5px 0;
    border-bottom: var(--hair);
  }
`;
const Columns = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  margin: 8px 0;
`;

interface GroupFileSheetProps {
  readonly board: BoardView;
  readonly onPlace: (place: Place, says: string) => void;
  readonly onClose: () => void;
}

/** Places from a file: shown as what would move, then done as one step of the Board. */
export function GroupFileSheet({ board, onPlace, onClose }: GroupFileSheetProps) {
  const [fault, setFault] = useState<string | null>(null);
  const [file, setFile] = useState<File | null>(null);
  const [delimiter, setDelimiter] = useState<Delimiter | null>(null);
  const [isText, setText] = useState(false); // then something parts its columns, and can be chosen
  const [table, setTable] = useState<GroupTable | null>(null);
  const [columns, setColumns] = useState<GroupFileColumns>({ person: null, group: null });
  const { course } = useCourse();
  const refusal = useRef('');
  const readTable = useAct(useReadTableMutation(), {
    refused: (error) => {
      refusal.current = problemOf(error).detail; // said where the file would be
      return true;
    },
  });
  const edit = useAct(useEditGroupsMutation());
  const [going, setGoing] = useState<AbortController | null>(null);
  const turn = useRef<AbortController | null>(null);
  const name = file?.name ?? '';
  const take = async (next: File, chosen: Delimiter | null) => {
    turn.current?.abort();
    const stop = new AbortController();
    turn.current = stop;
    setTable(null);
    setFault(null);
    setFile(next);
    setGoing(stop);
    const onServer = async (contentBase64: string) => {
      const body = { kind: 'file' as const, fileName: next.name, contentBase64 };
      return (await readTable({ courseId: course.id, body })) ?? refusal.current;
    };
    const {
      found,
      isText: isOfText,
      delimiter: parted,
    } = await readGroupTable(next, chosen, onServer, stop.signal);
    if (turn.current !== stop) return; // another file was chosen meanwhile
    setGoing(null);
    setDelimiter(parted);
    setText(isOfText);
    setFault(typeof found === 'string' ? found : null);
    setTable(typeof found === 'string' ? null : found);
    setColumns({ person: null, group: null });
  };
  // Read anew where the Board has changed: groups that the file names may have been added.
  const result = useMemo(
    () => table && readGroupFile(table, board.students, board.groups, board.set.isExclusive, columns),
    [table, columns, board],
  );
  const read = result?.ok ? result : null;
  const headed = table && groupFileColumns(table.headings);
  const addLacking = (names: readonly string[]) =>
    void edit({
      setId: board.set.id,
      body: {
        groups: [...board.groups.map(asItIs), ...names.map(added)],
        removed: [],
      },
    });
  const students = new Map(board.students.map((student) => [student.enrolmentId, student]));
  const nameOf = (id: string | null) => board.groups.find((group) => group.id === id)?.name ?? 'no group';
  const count = read?.moves.length ?? 0;
  return (
    <Sheet
      title={name === '' ? 'Groups from a file' : name}
      onClose={() => {
        turn.current?.abort();
        onClose();
      }}
    >
      {fault && <ProblemStrip>{fault}</ProblemStrip>}
      {going && (
        <WorkingUntil
          what={`Reading ${name}`}
          seconds={longestReadSeconds}
          beyond="at its end"
          stop="Stop reading"
          onStop={() => going.abort()}
        />
      )}
      {!table && !going && (
        <p>
          A spreadsheet (XLSX), CSV or other delimited text with a column for the person (email, number or
          name) and one for the group (its name or number). An empty group removes the person from theirs. You
          see every change first.
        </p>
      )}
      {table && (
        <Columns role="group" aria-label="Columns of the file">
          <ColumnChoice
            label="Person"
            headings={table.headings}
            value={columns.person ?? headed?.person ?? null}
            onChange={(person) => setColumns({ ...columns, person })}
          />
          <ColumnChoice
            label="Group"
            headings={table.headings}
            value={columns.group ?? headed?.group ?? null}
            onChange={(group) => setColumns({ ...columns, group })}
          />
        </Columns>
      )}
      {result && !result.ok && (
        <p>
          {result.code === 'no-group-column'
            ? 'No column is called Group. Choose the one that names the groups.'
            : 'No column is called E-mail, Number or Name. Choose the one that names the people.'}
        </p>
      )}
      {read && (
        <>
          <p>
            <b>{count}</b> would move · <b>{read.same}</b> stay as they are ·{' '}
            {read.problems.length === 0 ? 'no problems' : <b>{read.problems.length} with problems</b>}
          </p>
          {read.lacking.length > 0 && course.role === 'instructor' && (
            <p>
              <Button isSmall isDisabled={edit.isBusy} onPress={() => addLacking(read.lacking)}>
                Add {counted(read.lacking.length, 'group')}: {read.lacking.slice(0, 4).join(', ')}
                {read.lacking.length > 4 ? '…' : ''}
              </Button>
            </p>
          )}
          <List aria-label="Lines">
            {read.problems.map(({ line, problem }) => (
              <li key={`line ${line}`} style={{ background: 'var(--attn-tint)' }}>
                <Small>Line {line}</Small>
                <span>{sayGroupFileProblem(problem)}</span>
              </li>
            ))}
            {read.moves.map((move) => (
              <li key={`${move.student} ${move.to}`}>
                <Small>{move.from === null ? 'Placed' : move.to === null ? 'Removed' : 'Moved'}</Small>
                <span>
                  <PersonName name={sure(students.get(move.student)).name} />: {nameOf(move.from)} →{' '}
                  {nameOf(move.to)}
                </span>
              </li>
            ))}
          </List>
        </>
      )}
      <footer>
        {file && isText && (
          <DelimiterChoice value={delimiter} onChange={(chosen) => void take(file, chosen)} />
        )}
        <FileTrigger
          acceptedFileTypes={['.csv', '.tsv', '.txt', '.xlsx', 'text/csv', 'text/plain']}
          onSelect={(files) => files?.[0] && void take(files[0], null)}
        >
          <Button kind={read ? 'plain' : 'main'}>{name === '' ? 'Choose a file…' : 'Choose another…'}</Button>
        </FileTrigger>
        {read && (
          <Button
            kind="main"
            isDisabled={count === 0}
            onPress={() => {
              onPlace({ moves: [...read.moves] }, `${counted(count, 'student')} placed as in ${name}`);
              onClose();
            }}
          >
            {count === 0 ? 'No one would move' : `Move ${count}`}
          </Button>
        )}
      </footer>
    </Sheet>
  );
}

interface ColumnChoiceProps {
  readonly label: string;
  readonly headings: readonly string[];
  /** null: not chosen yet. */
  readonly value: number | null;
  readonly onChange: (column: number) => void;
}

function ColumnChoice({ label, headings, value, onChange }: ColumnChoiceProps) {
  return (
    <Choice
      label={label}
      value={value === null ? none : String(value)}
      choices={[
        ...(value === null ? [{ id: none, label: 'Choose a column' }] : []),
        ...headings.map((heading, at) => ({ id: String(at), label: heading || `Column ${at + 1}` })),
      ]}
      onChange={(id) => id !== none && onChange(Number(id))}
    />
  );
}
const none = 'none';
