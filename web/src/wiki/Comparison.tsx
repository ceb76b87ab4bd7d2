import { useMemo } from 'react';
import { styled } from 'styled-components';
import type { PlaceholderValues, RichTextNode } from '@jigsaw/core/text';
import { counted, plainText } from '@jigsaw/core/text';
import { compare, countChanges } from '@jigsaw/core/wiki';
import { Small } from '../look/index.js';

const Text = styled.div`
  font: 14px/24px var(--font-text);
  color: var(--ink-2);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  ins {
    color: var(--ink);
    font-weight: 620;
    text-decoration: none;
    background: var(--hue-tint, var(--wash-2));
    border-bottom: 2px solid var(--hue, var(--ink));
  }
  del {
    background: var(--sunk);
    text-decoration: line-through;
  }
`;

interface ComparisonProps {
  readonly before: RichTextNode;
  readonly after: RichTextNode;
  readonly values: PlaceholderValues;
}

/** Two versions in one text: added, removed, and what stayed stepping back. Formatting is not compared, words are. */
export function Comparison({ before, after, values }: ComparisonProps) {
  const changes = useMemo(
    () => compare(plainText(before, values), plainText(after, values)),
    [before, after, values],
  );
  const { added, removed } = countChanges(changes);
  return (
    <>
      <p role="status">
        <Small>
          {added === 0 && removed === 0
            ? 'The same words in both.'
            : `${counted(added, 'word')} added, ${removed} removed.`}
        </Small>
      </p>
      <Text>
        {changes.map((change, at) =>
          change.kind === 'same' ? (
            <span key={at}>{change.text}</span>
          ) : change.kind === 'added' ? (
            <ins key={at}>{change.text}</ins>
          ) : (
            <del key={at}>{change.text}</del>
          ),
        )}
      </Text>
    </>
  );
}
