import { css, styled } from 'styled-components';

/** Page frame under the masthead: an optional bar, then a work area that scrolls inside itself. */
export const Page = styled.main`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  grid-template-columns: minmax(0, 1fr);
`;

/** In a small or enlarged window what does not fit goes on below. */
const goesOnBelow = css`
  @media (max-width: 1100px) {
    flex-wrap: wrap;
    row-gap: 6px;
    padding-block: 6px;
  }
`;

export const Bar = styled.div`
  display: flex;
  align-items: center;
  gap: var(--s-3);
  min-height: var(--bar);
  padding: 0 var(--s-4);
  border-bottom: var(--hair);
  background: var(--paper);
  .grow {
    flex: 1;
    min-width: 0;
  }
  ${goesOnBelow}
`;

/** What a page says and offers below its work: small and quiet, or, for acts that end it, `data-acts`: higher, and set off. */
export const FootBar = styled.footer`
  display: flex;
  align-items: center;
  gap: 16px;
  min-height: 32px;
  padding: 2px var(--s-4);
  border-top: var(--hair);
  background: var(--paper);
  font: var(--t-12);
  color: var(--ink-2);
  &[data-acts] {
    gap: 10px;
    min-height: 52px;
    border-top: 1px solid var(--ink);
    font: inherit;
    color: inherit;
  }
  b {
    color: var(--ink);
  }
  .grow {
    flex: 1;
  }
  ${goesOnBelow}
`;

/** Work and what stands beside it, each scrolling by itself; one below the other where there is no room. */
export const Split = styled.div<{ $aside: string; $side?: 'left' | 'right' }>`
  display: grid;
  grid-template-columns: ${({ $aside, $side = 'right' }) =>
    $side === 'right' ? `minmax(0, 1fr) ${$aside}` : `${$aside} minmax(0, 1fr)`};
  min-height: 0;
  @media (max-width: 900px) {
    display: block;
  }
`;

export const Scroll = styled.div`
  overflow: auto;
  min-height: 0;
  /* Paper does not scroll. */
  @media print {
    overflow: visible;
  }
`;

export const Muted = styled.span`
  color: var(--ink-2);
`;

export const Small = styled.span`
  font: var(--t-12);
  color: var(--ink-2);
`;

/** Read by screen readers, seen by no one. */
export const Spoken = styled.span`
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
  white-space: nowrap;
`;
