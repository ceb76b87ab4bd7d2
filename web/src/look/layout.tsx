import { styled } from 'styled-components';

/** Page frame under the masthead: an optional bar, then a work area that scrolls inside itself. */
export const Page = styled.main`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
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

/** Read by screen readers, seen by nobody. */
export const Spoken = styled.span`
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
  white-space: nowrap;
`;
