import { styled } from 'styled-components';
import type { ChangeSince } from '@jigsaw/contract/marks';
import { groupedBy } from '@jigsaw/core/lists';
import { namesTogether } from '@jigsaw/core/text';
import { Small } from '../look/index.js';

const List = styled.ul`
  margin: 0;
  padding: 8px 16px;
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 20px;
  max-height: 96px;
  overflow: auto;
  border-top: var(--hair);
  background: var(--attn-tint);
  font: var(--t-13);
`;

/** Who would be given something else if it were released again, and what: before it is pressed. */
export function ChangesSince({ changes }: { readonly changes: readonly ChangeSince[] }) {
  return (
    <List aria-label="Changed since release" tabIndex={0}>
      <li>
        <Small>Changes if you release again:</Small>
      </li>
      {[...groupedBy(changes, (change) => change.says)].map(([says, alike]) => (
        <li key={says}>
          <b>
            {namesTogether(
              alike.map(({ member }) => member.name),
              4,
            )}
          </b>
          : {says}
        </li>
      ))}
    </List>
  );
}
