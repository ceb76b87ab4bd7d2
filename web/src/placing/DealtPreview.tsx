import { useMemo } from 'react';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import type { Place } from '@jigsaw/core/placing';
import { Emblem, PersonName, Small } from '../look/index.js';
import { groupsAfter } from './dealOut.js';

const Groups = styled.ul`
  display: grid;
  max-height: 188px;
  overflow: auto;
  margin-top: 6px;
  border-block: var(--hair);
  > li {
    display: grid;
    grid-template-columns: 24px 1fr;
    gap: 2px 8px;
    padding: 5px 0;
    border-bottom: var(--hair);
    /* 160 groups are laid out as they come into view. */
    content-visibility: auto;
    contain-intrinsic-size: auto 46px;
  }
  > li:last-child {
    border-bottom: 0;
  }
  p {
    font: var(--t-12);
    color: var(--ink-2);
    overflow-wrap: anywhere;
  }
  p b {
    font-weight: 650;
    color: var(--ink);
  }
`;

/** The groups as they would be: who would come stands out. */
export function DealtPreview({ board, place }: { readonly board: BoardView; readonly place: Place }) {
  const after = useMemo(() => groupsAfter(board, place), [board, place]);
  return (
    <Groups aria-label="Groups after the deal" tabIndex={0}>
      {board.groups.map((group) => {
        const members = sure(after.get(group.id));
        return (
          <li key={group.id} aria-label={group.name}>
            <Emblem number={group.number} size={22} />
            <div>
              <span>{group.name}</span> <Small>{members.length}</Small>
              <p>
                {members.length === 0 && 'No one'}
                {members.map(({ student, comes }, at) => (
                  <span key={student.enrolmentId}>
                    {at > 0 && ', '}
                    {comes ? (
                      <b>
                        <PersonName name={student.name} />
                      </b>
                    ) : (
                      <PersonName name={student.name} />
                    )}
                  </span>
                ))}
              </p>
            </div>
          </li>
        );
      })}
    </Groups>
  );
}
