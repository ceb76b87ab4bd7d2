import { styled } from 'styled-components';

/** One line a group: its piece, what is said of it, and what can be done. */
export const GroupLines = styled.ul`
  border-top: var(--hair);
  li {
    display: grid;
    grid-template-columns: 26px minmax(0, 1fr) auto;
    gap: 8px;
    align-items: center;
    min-height: 34px;
    border-bottom: var(--hair);
    font: var(--t-13);
  }
  span {
    overflow-wrap: anywhere;
  }
`;
