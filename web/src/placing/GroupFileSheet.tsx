import { useRef, useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { readGroupFile, sayGroupFileProblem } from '@jigsaw/core/placing';
import type { GroupFile, Place } from '@jigsaw/core/placing';
import { longestReadSeconds, sayUnreadable } from '@jigsaw/core/roster';
import type { Delimiter } from '@jigsaw/core/files';
import { ProblemStrip } from '../api/index.js';
import { DelimiterChoice, isDelimiter, NotRead, readApart } from '../form/index.js';
import { Button, PersonName, Sheet, Small, WorkingUntil } from '../look/index.js';
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
const largestBytes = 5_000_000;

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
  const [read, setRead] = useState<Extract<GroupFile, { ok: true }> | null>(null);
  const [going, setGoing] = useState<AbortController | null>(null);
  const turn = useRef<AbortController | null>(null);
  const name = file?.name ?? '';
  const take = async (next: File, chosen: Delimiter | null) => {
    turn.current?.abort();
    const stop = new AbortController();
    turn.current = stop;
    setRead(null);
    setFault(null);
    setFile(next);
    setGoing(stop);
    const looked = await look(next, chosen, board, stop.signal);
    if (turn.current !== stop) return; // another file was chosen meanwhile
    setGoing(null);
    setDelimiter(looked.delimiter);
    setFault(typeof looked.found === 'string' ? looked.found : null);
    setRead(typeof looked.found === 'string' ? null : looked.found);
  };
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
      {!read && !going && (
        <p>
          A CSV or other delimited text with a column for the person (<b>E-mail</b>, <b>Number</b> or{' '}
          <b>Name</b>) and one called <b>Group</b>, with a group’s name or number. An empty group removes the
          person from theirs. You see every change first.
        </p>
      )}
      {read && (
        <>
          <p>
            <b>{count}</b> would move · <b>{read.same}</b> stay as they are ·{' '}
            {read.problems.length === 0 ? 'no problems' : <b>{read.problems.length} with problems</b>}
          </p>
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
        {file && <DelimiterChoice value={delimiter} onChange={(chosen) => void take(file, chosen)} />}
        <FileTrigger
          acceptedFileTypes={['.csv', '.tsv', '.txt', 'text/csv', 'text/plain']}
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

interface Looked {
  /** What the file would do, or why it is no list of groups. */
  readonly found: Extract<GroupFile, { ok: true }> | string;
  /** What is between its columns; null: it could not be read as columns. */
  readonly delimiter: Delimiter | null;
}

async function look(
  file: File,
  chosen: Delimiter | null,
  board: BoardView,
  stop: AbortSignal,
): Promise<Looked> {
  if (file.size > largestBytes)
    return {
      found: 'The file is over 5 MB. A list of groups is smaller; check that this is the right one.',
      delimiter: null,
    };
  const bytes = new Uint8Array(await file.arrayBuffer());
  const table = await readApart((reading) => reading.table(bytes, chosen), stop).catch((error: unknown) => {
    if (error instanceof NotRead) return error;
    throw error;
  });
  if (table instanceof NotRead)
    return {
      found:
        table.why === 'stopped'
          ? `${file.name} was not read. Choose it again, or another file.`
          : `${file.name} takes too long to be read. Save the list alone as CSV and choose that.`,
      delimiter: chosen,
    };
  if (!table.ok) return { found: sayUnreadable(table), delimiter: chosen };
  const delimiter = isDelimiter(table.table.delimiter) ? table.table.delimiter : null;
  const read = readGroupFile(table.table, board.students, board.groups, board.set.isExclusive);
  if (read.ok) return { found: read, delimiter };
  const found =
    read.code === 'no-group-column'
      ? 'No column is called Group. Give the column of the groups that name.'
      : 'No column is called E-mail, Number or Name. Give the column of the people one of these names.';
  return { found, delimiter };
}
