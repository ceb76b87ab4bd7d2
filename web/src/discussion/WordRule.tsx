import { styled } from 'styled-components';
import { sayWords } from './words.js';

const Frame = styled.span`
  display: inline-grid;
  grid-template-columns: minmax(48px, 96px) auto;
  align-items: center;
  gap: 10px;
  font: var(--t-12);
  font-weight: 620;
  white-space: nowrap;
  > i {
    display: block;
    position: relative;
    height: 5px;
    background: var(--line);
  }
  > i::before {
    content: '';
    position: absolute;
    inset: 0 auto 0 0;
    width: var(--share);
    background: var(--hue, var(--ink));
    box-shadow: inset 0 0 0 1px var(--hue, var(--ink));
  }
  > i[data-short]::before {
    background: var(--hue-tint, var(--sunk));
  }
  > i::after {
    content: '';
    position: absolute;
    left: 75%;
    top: -3px;
    height: 11px;
    width: 1.5px;
    background: var(--ink);
  }
`;

/** How long a text is against the requirement: filled when met, hollow when short, a tick at the rule. */
export function WordRule({ words, wanted }: { readonly words: number; readonly wanted: number }) {
  if (wanted === 0)
    return <span style={{ font: 'var(--t-12)', color: 'var(--ink-2)' }}>{sayWords(words)}</span>;
  const share = Math.min(100, (words / wanted) * 75);
  return (
    <Frame style={{ '--share': `${share}%` }}>
      <i data-short={words < wanted || undefined} aria-hidden="true" />
      <span>
        {words} of {wanted} words
      </span>
    </Frame>
  );
}
