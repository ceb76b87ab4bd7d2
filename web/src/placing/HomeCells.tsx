import { styled } from 'styled-components';
import { topicLetter } from '@jigsaw/core/dealing';

const Cells = styled.span`
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  i {
    display: grid;
    place-items: center;
    width: 20px;
    height: 20px;
    border-radius: var(--r-1);
    background: var(--hue);
    color: var(--on-hue);
    font: 650 11px/1 var(--font-text);
    font-style: normal;
  }
  i[data-gap] {
    background: none;
    border: 1.5px dashed var(--edge);
    color: var(--ink-2);
  }
`;

/** Of more topics the cells stand under the name, and show letters: a row of figures would not say which is which. */
export const topicsBeside = 5;

interface HomeCellsProps {
  readonly topics: readonly string[];
  /** How many of the home group go to each topic. */
  readonly counts: readonly number[];
}

/** One cell per topic of a home group, dashed where no one goes. Read aloud by what stands around it. */
export function HomeCells({ topics, counts }: HomeCellsProps) {
  const areLetters = topics.length > topicsBeside;
  return (
    <Cells aria-hidden="true">
      {counts.map((count, topic) => (
        <i key={topic} data-gap={count === 0 || undefined} title={topics[topic]}>
          {areLetters ? topicLetter(topic) : count === 0 ? '?' : count}
        </i>
      ))}
    </Cells>
  );
}
