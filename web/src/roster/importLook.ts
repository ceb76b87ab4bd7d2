import { styled } from 'styled-components';

/** What the columns mean, a card each. */
export const Columns = styled.div`
  /* What is drawn apart for screen readers scrolls with it, and does not widen the page. */
  position: relative;
  display: flex;
  overflow-x: auto;
  border-bottom: 1px solid var(--ink);
  background: var(--surface);
  > div {
    flex: 1 0 170px;
    padding: 10px 12px;
    border-left: var(--hair);
    display: grid;
    gap: 4px;
    align-content: start;
    min-width: 0;
  }
  > div:first-child {
    border-left: 0;
    padding-left: var(--s-4);
  }
  > div[data-out] {
    background: var(--paper);
  }
  code {
    font: 600 12px/16px var(--font-mono);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** What happens to each row. */
export const Rows = styled.div`
  position: relative;
  overflow: auto;
  background: var(--surface);
  td,
  th {
    height: 28px;
    padding: 0 8px;
    border-bottom: var(--hair);
    white-space: nowrap;
  }
  th {
    position: sticky;
    top: 0;
    background: var(--surface);
    border-bottom: 1px solid var(--ink);
    height: 32px;
  }
  td:first-child,
  th:first-child {
    padding-left: var(--s-4);
    width: 60px;
    color: var(--ink-2);
  }
  tr[data-kind='problem'] td {
    background: var(--attn-tint);
  }
  tr[data-out] td {
    text-decoration: line-through;
    color: var(--ink-3);
    background: none;
  }
  tr[data-out] td:last-child {
    text-decoration: none;
  }
  code {
    font: 12px/16px var(--font-mono);
  }
  td.wrap {
    white-space: normal;
    padding: 5px 8px;
  }
  .fault {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    align-items: center;
  }
  .acts {
    display: inline-flex;
    justify-content: flex-end;
    gap: 6px;
  }
  .fault .acts {
    flex-wrap: wrap;
  }
  /* A row's own verbs stand at its end, quiet until the row is looked at. */
  tr > td:last-child > .acts {
    float: right;
  }
  td form {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: end;
    padding: 6px 0;
  }
  td form label {
    display: grid;
    flex: 1 1 130px;
    max-width: 300px;
    gap: 1px;
    font: 600 11px/14px var(--font-text);
    color: var(--ink-2);
  }
  td form input {
    height: 28px;
    width: 100%;
    padding: 0 7px;
    border: 1px solid var(--edge);
    border-radius: var(--r-1);
    background: var(--surface);
    color: var(--ink);
    font: 12px/16px var(--font-mono);
  }
  tr[data-kind='missing'][data-out] td {
    text-decoration: none;
    color: var(--ink);
    background: var(--attn-tint);
  }
`;
