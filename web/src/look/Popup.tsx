import { Popover } from 'react-aria-components';
import { styled } from 'styled-components';

/** What opens beside a button: a menu, a list or a small form. */
export const Popup = styled(Popover)`
  padding: 5px;
  min-width: var(--trigger-width);
  max-height: 70vh;
  overflow: auto;
  background: var(--surface);
  border: 1px solid var(--ink);
  border-radius: var(--r-2);
  box-shadow: var(--lift);
  [role='menu'] {
    outline: none;
  }
  [role^='menuitem'],
  [role='option'] {
    display: grid;
    padding: 6px 10px;
    border-radius: var(--r-1);
    text-decoration: none;
    cursor: pointer;
    outline-offset: -2px;
  }
  [role^='menuitem'][data-focused],
  [role='option'][data-focused] {
    background: var(--wash-2);
  }
  [role='option'][data-selected] {
    font-weight: 650;
  }
  [data-disabled] {
    color: var(--ink-3);
  }
`;
