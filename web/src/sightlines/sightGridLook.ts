import { styled } from 'styled-components';

export const rowPx = 36;
/** How high the names above the columns are: beside a piece, or turned, where names are long. */
export const headPx = { usual: 66, turned: 132 } as const;
export const namePx = 276;
export const leastPx = 50;

export const Sheet = styled.div`
  height: 100%;
  overflow: auto;
  background: var(--surface);
  [data-head] {
    position: sticky;
    top: 0;
    z-index: 3;
    height: var(--head);
    background: var(--surface);
    border-bottom: 1px solid var(--ink);
  }
  [data-body] {
    position: relative;
  }
  [role='row'] {
    position: absolute;
    left: 0;
    width: 100%;
    height: ${rowPx}px;
    border-bottom: var(--hair);
  }
  [data-head] [role='row'] {
    height: calc(var(--head) - 1px);
    border: 0;
  }
  [role='row'][data-chosen] {
    background: var(--wash);
  }
  [role='columnheader'],
  [role='gridcell'] {
    position: absolute;
    top: 0;
    height: 100%;
    display: grid;
    place-items: center;
    align-content: center;
    outline-offset: -2px;
  }
  [role='gridcell'] {
    cursor: pointer;
    border-radius: var(--r-2);
  }
  [role='gridcell']:hover,
  [role='gridcell'][data-chosen] {
    background: var(--hue-tint);
  }
  [role='gridcell'][data-chosen] {
    outline: 2px solid var(--ink);
  }
  [role='gridcell'][data-ringed]::after {
    content: '';
    position: absolute;
    width: 31px;
    height: 31px;
    border: 2px solid var(--attn);
    border-radius: 50%;
    box-shadow: 0 0 0 1px var(--attn-line);
    pointer-events: none;
  }
  [role='columnheader'] {
    gap: 4px;
    font: 600 10px/12px var(--font-text);
    color: var(--ink-2);
  }
  [role='columnheader'] span {
    max-width: 100%;
    padding: 0 2px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  [role='columnheader'][data-turned] {
    align-content: end;
    padding-bottom: 6px;
    font: 600 12px/14px var(--font-text);
    span {
      max-height: ${132 - 14}px;
      writing-mode: vertical-rl;
      transform: rotate(180deg);
    }
  }
  [role='rowheader'],
  [data-corner] {
    position: sticky;
    left: 0;
    z-index: 2;
    width: ${namePx}px;
    height: 100%;
    padding: 0 8px 0 var(--s-4);
    background: inherit;
    border-right: var(--hair);
  }
  [role='rowheader'] {
    display: grid;
    grid-template-columns: 20px minmax(0, 1fr);
    align-items: center;
    gap: 8px;
    background: var(--surface);
  }
  [role='row'][data-chosen] [role='rowheader'] {
    background: var(--wash);
  }
  [role='rowheader'] b,
  [role='rowheader'] small {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  [role='rowheader'] b svg {
    vertical-align: -2px;
    color: var(--attn-ink);
  }
  [role='rowheader'] b {
    font: 600 13px/16px var(--font-text);
  }
  [role='rowheader'] small {
    font: var(--t-11);
    color: var(--ink-2);
  }
  [data-corner] {
    display: grid;
    align-content: end;
    place-items: end start;
    gap: 4px;
    padding-bottom: 7px;
    font: var(--t-11);
    color: var(--ink-2);
  }
  [data-state] {
    background: var(--paper);
    font: 620 11px/${rowPx - 1}px var(--font-text);
    color: var(--ink-2);
  }
  [data-state] span {
    position: sticky;
    left: 0;
    padding-left: var(--s-4);
  }
  [data-state='live'] {
    background: var(--sunk);
    color: var(--ink);
  }
`;
export const Band = styled.span`
  position: absolute;
  z-index: 1;
  pointer-events: none;
  left: ${namePx + 12}px;
  right: 12px;
  top: 9px;
  height: 18px;
  border-radius: 9px;
  background: var(--ink-2);
  color: var(--on-ink);
  font: 600 11px/18px var(--font-text);
  span {
    position: sticky;
    left: ${namePx + 12}px;
    padding: 0 13px;
    white-space: nowrap;
  }
  &[data-later] {
    background: none;
    border: 1.5px dashed var(--ink-2);
    line-height: 15px;
    color: var(--ink);
  }
`;
