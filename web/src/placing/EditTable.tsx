import { styled } from 'styled-components';

/** A table in a sheet whose cells are typed into, its headings in view while it scrolls. */
export const EditTable = styled.div`
  max-height: min(48vh, 440px);
  overflow: auto;
  border-block: var(--hair);
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--surface);
    padding: 6px 4px;
    font: 600 12px/16px var(--font-text);
    color: var(--ink-2);
    text-align: left;
    border-bottom: var(--hair);
  }
  td {
    padding: 3px 4px;
  }
  input:not([type='checkbox']) {
    width: 100%;
    height: 28px;
    padding: 0 8px;
    border: 1px solid var(--edge);
    border-radius: var(--r-1);
    background: var(--surface);
    color: var(--ink);
    font: var(--t-13);
  }
`;
