import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { BoardGroup } from '@jigsaw/contract/sets';
import { Small } from '../look/index.js';
import { columnsOf } from './experts.js';

const Columns = styled.div`
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(228px, 1fr);
  min-height: 0;
  overflow: auto;
  align-items: stretch;
`;
const Column = styled.section`
  border-right: var(--hair);
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding-bottom: 12px;
  min-width: 0;
  &:last-child {
    border-right: 0;
  }
  > header {
    position: sticky;
    top: 0;
    z-index: 2;
    display: grid;
    grid-template-columns: 34px minmax(0, 1fr);
    gap: 10px;
    align-items: center;
    height: 72px;
    padding: 8px 12px;
    background: var(--surface);
    border-bottom: 1px solid var(--ink);
  }
  > header > b {
    display: grid;
    place-items: center;
    width: 34px;
    height: 42px;
    border: 1.5px solid var(--ink);
    border-radius: var(--r-1);
    font: var(--h-22);
  }
  > header > div > * {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    overflow: hidden;
  }
  > header > b:empty {
    visibility: hidden;
  }
  h2 {
    line-height: 20px;
    overflow-wrap: anywhere;
  }
  > div {
    margin: 0 8px;
  }
  > p {
    padding: 8px 14px;
    color: var(--ink-2);
  }
`;

interface ExpertTopicsProps {
  readonly board: BoardView;
  readonly renderTable: (table: BoardGroup) => ReactNode;
}

/** The topics as columns, each with its tables. */
export function ExpertTopics({ board, renderTable }: ExpertTopicsProps) {
  return (
    <Columns data-scroller role="group" aria-label="Topics">
      {columnsOf(board).map(({ letter, name, about, tables }) => (
        <Column key={letter ?? 'none'} aria-label={name}>
          <header>
            <b aria-hidden="true">{letter}</b>
            <div style={{ minWidth: 0 }} title={about === '' ? name : `${name}: ${about}`}>
              <h2>{name}</h2>
              {about !== '' && <Small>{about}</Small>}
            </div>
          </header>
          {tables.map((table) => (
            <div key={table.id}>{renderTable(table)}</div>
          ))}
          {tables.length === 0 && <p>No table yet. Add one under Set, Topics and tables.</p>}
        </Column>
      ))}
    </Columns>
  );
}
