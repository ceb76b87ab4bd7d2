import { styled } from 'styled-components';
import { Emblem } from '../look/index.js';

const Row = styled.footer`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 15px;
  min-height: 40px;
  padding: 4px var(--s-4);
  border-top: var(--hair);
  background: var(--paper);
  font: var(--t-12);
  color: var(--ink-2);
  > span {
    display: flex;
    align-items: center;
    gap: 5px;
    white-space: nowrap;
  }
  svg {
    --hue: var(--ink-2);
    --hue-ink: var(--ink);
    --hue-tint: var(--sunk);
  }
  b {
    font: 700 11px/14px var(--font-text);
    color: var(--ink);
  }
  .band {
    width: 30px;
    height: 14px;
    border-radius: 7px;
    background: var(--ink-2);
  }
  .ring {
    width: 15px;
    height: 15px;
    border: 2px solid var(--attn);
    border-radius: 50%;
    box-shadow: 0 0 0 1px var(--attn-line);
  }
  .nil {
    width: 8px;
    height: 1.5px;
    background: var(--edge);
  }
`;

/** What the marks mean, in words. */
export function Legend() {
  const piece = { number: 3, size: 22, isOfNoGroup: true } as const;
  return (
    <Row aria-label="What the marks mean">
      <span>
        <Emblem {...piece} inside={null} /> own copy
      </span>
      <span>
        <Emblem {...piece} look="pale" inside={null} /> closed, or in another set
      </span>
      <span>
        <Emblem {...piece} look="line" shape="dot" /> reads along
      </span>
      <span>
        <Emblem {...piece} look="line" shape="bar" /> listed, locked
      </span>
      <span>
        <Emblem {...piece} size={26} look="pale" inside="13" /> from the 13th
      </span>
      <span>
        <b>+2d</b> due later
      </span>
      <span>
        <b>3/4</b> some members only
      </span>
      <span>
        <i className="band" /> one copy for all
      </span>
      <span>
        <i className="ring" /> to check
      </span>
      <span>
        <i className="nil" /> nothing
      </span>
    </Row>
  );
}
