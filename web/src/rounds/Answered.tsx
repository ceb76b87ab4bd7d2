import { styled } from 'styled-components';
import type { RoomLine } from '@jigsaw/contract/rooms';
import { useCourse } from '../course/index.js';
import { Button, Emblem, hueOfGroup, Small, Tag } from '../look/index.js';
import { useNow } from '../page/index.js';
import { sayNeed } from './sayNeed.js';
import { sayHow } from './sayRound.js';
import { useAnswer } from './useAnswer.js';

const List = styled.ul`
  max-height: 220px;
  overflow: auto;
  background: var(--surface);
  border-top: var(--hair);
  li {
    display: grid;
    grid-template-columns: 26px minmax(0, 1fr) auto auto;
    gap: 10px;
    align-items: center;
    padding: 4px var(--s-4);
    border-bottom: var(--hair);
    font: var(--t-13);
    overflow-wrap: anywhere;
  }
`;

/** What one has answered and is still there, each with the way back. */
export function Answered({ lines }: { readonly lines: readonly RoomLine[] }) {
  const { course, dates } = useCourse();
  const now = useNow(null);
  const answer = useAnswer(course.id);
  return (
    <List aria-label="What you have answered">
      {lines.flatMap(({ group, answered }) =>
        answered.map(({ need, said, at }) => {
          const { tag, says } = sayNeed(need, group.id, dates, now);
          return (
            <li key={`${group.id} ${tag} ${says}`} style={hueOfGroup(group.number)}>
              <Emblem number={group.number} size={26} />
              <span>
                <b>{group.name}</b>, {tag}: {says}
              </span>
              <Small>
                <Tag $look="dash">{sayHow(said)}</Tag> {dates.fromNow(at, now)}
              </Small>
              <Button
                isSmall
                aria-label={`Open again: ${group.name}, ${tag}`}
                onPress={() => void answer({ group, need }, null)}
              >
                Open again
              </Button>
            </li>
          );
        }),
      )}
    </List>
  );
}
