import { styled } from 'styled-components';
import type { ForeseenMarks } from '@jigsaw/contract/marks';
import { groupedBy, sure } from '@jigsaw/core/lists';
import { counted } from '@jigsaw/core/text';

const List = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  max-height: 84px;
  overflow: auto;
`;

/** Members of one group with the same change are named together. */
function together(changes: ForeseenMarks['changes']) {
  const alike = groupedBy(changes, ({ group, says }) => `${group?.id} ${says}`);
  return [...alike].map(([key, [first, ...others]]) => {
    const { member, group, says } = sure(first);
    const who = others.length === 0 ? member.name : counted(others.length + 1, 'student');
    return { key, says, who: group ? `${group.name}, ${who}` : who };
  });
}

/** Whose marks would no longer be what they would be given. The marks that they have stay until someone releases them again. */
export function MarksForeseen({ foreseen: { changes } }: { readonly foreseen: ForeseenMarks }) {
  if (changes.length === 0) return <p>No released mark changes.</p>;
  return (
    <div>
      <p>
        This changes the mark of <b>{counted(changes.length, 'student')}</b>. They keep their current mark
        until you release it again at the Marking desk.
      </p>
      <List tabIndex={0} aria-label="Released marks that change">
        {together(changes).map(({ key, who, says }) => (
          <li key={key}>
            <b>{who}</b>: {says}
          </li>
        ))}
      </List>
    </div>
  );
}
