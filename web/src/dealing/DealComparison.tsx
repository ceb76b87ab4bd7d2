import { styled } from 'styled-components';
import type { BoardStudent, BoardView } from '@jigsaw/contract/placing';
import { Emblem, PersonName } from '../look/index.js';
import { membersIn, Plain } from './DealCards.js';
import type { Seats } from './dealProblem.js';

const Frame = styled.div`
  overflow: auto;
  padding: 0 var(--s-4) var(--s-4);
  table {
    width: 100%;
    border-collapse: collapse;
    table-layout: fixed;
  }
  th {
    text-align: left;
    font: 600 12px/16px var(--font-text);
    color: var(--ink-2);
    padding: 10px 8px 6px;
  }
  thead th {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--paper);
    border-bottom: 1px solid var(--ink);
  }
  thead th:first-child {
    width: 150px;
    padding-left: 0;
  }
  tbody th {
    padding: 8px 8px 8px 0;
    vertical-align: top;
    border-bottom: var(--hair);
  }
  tbody th > span {
    display: flex;
    align-items: center;
    gap: 6px;
    font: var(--h-14);
    color: var(--ink);
  }
  td {
    padding: 8px;
    vertical-align: top;
    border-bottom: var(--hair);
  }
  > p {
    padding: 12px 0 0;
    color: var(--ink-2);
    font: var(--t-13);
  }
`;

interface Side {
  readonly label: string;
  readonly seats: Seats;
}

/** Two ways of seating side by side: groups in which they differ, and who sits elsewhere in the other. */
export function DealComparison({
  board,
  one,
  other,
}: {
  readonly board: BoardView;
  readonly one: Side;
  readonly other: Side;
}) {
  const differs = (student: BoardStudent) =>
    one.seats.get(student.enrolmentId) !== other.seats.get(student.enrolmentId);
  const rows = board.groups.map((group) => ({
    group,
    sides: [membersIn(board, one.seats, group.id), membersIn(board, other.seats, group.id)],
  }));
  const isDifferent = ({ sides }: (typeof rows)[number]) => sides.some((members) => members.some(differs));
  const alike = rows.filter((row) => !isDifferent(row));
  const different = rows.filter(isDifferent);
  return (
    <Frame tabIndex={0} role="region" aria-label={`${one.label} beside ${other.label}`}>
      {different.length > 0 && (
        <table>
          <thead>
            <tr>
              <th scope="col">Group</th>
              <th scope="col">{one.label}</th>
              <th scope="col">{other.label}</th>
            </tr>
          </thead>
          <tbody>
            {different.map(({ group, sides }) => (
              <tr key={group.id}>
                <th scope="row">
                  <span>
                    <Emblem number={group.number} size={24} />
                    {group.name}
                  </span>
                </th>
                {sides.map((members, side) => (
                  <td key={side}>
                    <ul>
                      {members.map((student) => (
                        <Plain key={student.enrolmentId} data-differs={differs(student) || undefined}>
                          <PersonName name={student.name} reading={student.reading} />
                        </Plain>
                      ))}
                    </ul>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {alike.length > 0 && (
        <p>
          {different.length === 0
            ? 'Everyone is in the same group in both.'
            : `Alike in both: ${alike.map((row) => row.group.name).join(', ')}.`}
        </p>
      )}
    </Frame>
  );
}
