import { styled } from 'styled-components';

/** One part of a page that is filled in: what it is about on the left, what is set on the right. */
export const Part = styled.section`
  display: grid;
  grid-template-columns: 148px minmax(0, 1fr);
  border-bottom: var(--hair);
  > header {
    padding: 14px 12px 12px 20px;
    border-right: var(--hair);
    background: var(--paper);
  }
  > header h2 {
    font: var(--h-22);
    font-size: 20px;
  }
  > header p {
    font: var(--t-12);
    color: var(--ink-2);
    margin-top: 2px;
  }
  > div {
    padding: 12px 20px;
    min-width: 0;
    display: grid;
    gap: 10px;
    align-content: start;
  }
  .title input {
    height: 38px;
    font: var(--h-17);
  }
  .when {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
    gap: 8px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px;
  }
  @media (max-width: 700px) {
    display: block;
    > header {
      padding-bottom: 4px;
      border-right: 0;
    }
  }
`;
