import { styled } from 'styled-components';

/** A page of a student's own: one column, from a phone to a desk. */
export const StudentPage = styled.main`
  overflow: auto;
  padding: 24px 32px;
  max-width: 900px;
  width: 100%;
  margin: 0 auto;
  h1 {
    font: var(--h-32);
    margin-bottom: 16px;
  }
  h2 {
    margin: 24px 0 8px;
    overflow-wrap: anywhere;
  }
  @media (max-width: 700px) {
    padding: 16px;
  }
`;
