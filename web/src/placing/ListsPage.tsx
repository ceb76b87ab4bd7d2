import { Printer } from 'lucide-react';
import { useState } from 'react';
import { useParams } from 'react-router';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { ProblemStrip, unshown } from '../api/index.js';
import {
  Bar,
  Button,
  ButtonLink,
  Emblem,
  GroupChip,
  Page,
  PersonName,
  Scroll,
  Segments,
  Waiting,
} from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useReadBoardQuery } from './placingApi.js';
import { leaderOf, membersOf } from './seating.js';

const Sheets = styled.div`
  padding: 20px var(--s-4) 40px;
  max-width: 1100px;
  margin: 0 auto;
  h2 {
    font: var(--h-22);
    margin-bottom: 12px;
  }
  .groups {
    columns: 3 260px;
    column-gap: 24px;
  }
  section {
    break-inside: avoid;
    margin-bottom: 18px;
  }
  section h3 {
    display: flex;
    gap: 8px;
    align-items: center;
    font: var(--h-17);
    border-bottom: 1px solid var(--ink);
    padding-bottom: 4px;
  }
  section li,
  tr > * {
    padding: 4px 0;
    border-bottom: var(--hair);
    text-align: left;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  tr {
    break-inside: avoid;
  }
`;
/** On paper there is the list and nothing around it. */
const Screen = styled(Page)`
  @media print {
    display: block;
    > :first-child {
      display: none;
    }
  }
`;

type By = 'group' | 'student';

/** Lists to be printed and put up: by group, or by student with the emblem to look for. */
export function ListsPage() {
  const { setId = '' } = useParams();
  const { course } = useCourse();
  const board = useReadBoardQuery(setId);
  const [by, setBy] = useState<By>('group');
  if (unshown(board) !== undefined)
    return <ProblemStrip of={board.error} onRetry={() => void board.refetch()} />;
  if (!board.currentData) return <Waiting what="the lists" rows={10} />;
  const { set } = board.currentData;
  return (
    <Screen>
      <Bar>
        <h1>Lists of {set.name}</h1>
        <Segments
          label="In which order"
          value={by}
          choices={[
            { id: 'group', label: 'By group' },
            { id: 'student', label: 'By student' },
          ]}
          onChange={setBy}
        />
        <span className="grow" />
        <ButtonLink kind="quiet" to={`../groups/${setId}`}>
          Back to the Board
        </ButtonLink>
        <Button kind="main" onPress={() => window.print()}>
          <Printer size={16} aria-hidden="true" />
          Print
        </Button>
      </Bar>
      <Scroll>
        <Sheets>
          <h2>
            {course.code} {course.title}: {set.name}
          </h2>
          {by === 'group' ? <ByGroup board={board.currentData} /> : <ByStudent board={board.currentData} />}
        </Sheets>
      </Scroll>
    </Screen>
  );
}

function ByGroup({ board }: { readonly board: BoardView }) {
  return (
    <div className="groups">
      {board.groups.map((group) => (
        <section key={group.id} aria-label={group.name}>
          <h3>
            <Emblem number={group.number} size={28} />
            {group.name}
          </h3>
          <ul>
            {membersOf(board, group.id).map((student) => (
              <li key={student.enrolmentId}>
                <PersonName name={student.name} reading={student.reading} />
                {leaderOf([student], group.id) && ' (leads)'}
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

function ByStudent({ board }: { readonly board: BoardView }) {
  const groups = new Map(board.groups.map((group) => [group.id, group]));
  return (
    <table>
      <thead>
        <tr>
          <th>Student</th>
          <th>Number</th>
          <th>Group</th>
        </tr>
      </thead>
      <tbody>
        {board.students.map((student) => {
          return (
            <tr key={student.enrolmentId}>
              <td>
                <PersonName name={student.name} reading={student.reading} />
              </td>
              <td>{student.number}</td>
              <td>
                {student.seats.length === 0
                  ? 'no group yet'
                  : student.seats.map(({ groupId }) => (
                      <GroupChip
                        key={groupId}
                        number={sure(groups.get(groupId)).number}
                        name={sure(groups.get(groupId)).name}
                      />
                    ))}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
