import { Radio } from 'react-aria-components';
import { styled } from 'styled-components';

/** One of a few ways, as large as what it says; the chosen one has an ink edge. */
export const Option = styled(Radio)`
  position: relative; /* its hidden input stays inside, so that focusing it scrolls nothing else */
  display: grid;
  gap: 1px;
  align-content: center;
  min-height: 40px;
  min-width: 0;
  padding: 6px 12px;
  border: 1px solid var(--line);
  border-radius: var(--r-2);
  cursor: pointer;
  &[data-selected] {
    border-color: var(--ink);
    box-shadow: inset 0 0 0 1px var(--ink);
  }
`;
