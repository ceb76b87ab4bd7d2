import { styled } from 'styled-components';
import type { ForeseenMarks } from '@jigsaw/contract/marks';
import { counted } from '@jigsaw/core/text';

const List = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  max-height: 84px;
  overflow: auto;
`;

/** Whose marks would no longer be what they would be given. The marks that they have stay until somebody releases them again. */
export function MarksForeseen({ foreseen: { changes } }: { readonly foreseen: ForeseenMarks }) {
  if (changes.length === 0) return <p>No mark that was given is touched by it.</p>;
  return (
    <div>
      <p>
        <b>{counted(changes.length, 'student')}</b> would get another mark. They keep what they were given
        until it is released again at the Marking desk.
      </p>
      <List tabIndex={0} aria-label="Marks that it touches">
        {changes.map(({ member, group, says }) => (
          <li key={`${group?.id} ${member.enrolmentId}`}>
            {member.name}
            {group && `, ${group.name}`}: {says}
          </li>
        ))}
      </List>
    </div>
  );
}
