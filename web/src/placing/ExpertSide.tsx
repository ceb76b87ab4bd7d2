import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import { Segments } from '../look/index.js';
import { ExpertHomes } from './ExpertHomes.js';
import type { ExpertBoard } from './experts.js';

const Side = styled.div`
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-right: 1px solid var(--ink);
  background: var(--surface);
  > header {
    padding: 8px var(--s-4);
    border-bottom: var(--hair);
  }
  > header button {
    flex: 1;
  }
  > :last-child {
    flex: 1;
    border-right: 0;
  }
`;

export type BoardSide = 'homes' | 'students';

interface ExpertSideProps {
  readonly board: BoardView;
  readonly experts: ExpertBoard;
  readonly picked: number | null;
  readonly side: BoardSide;
  readonly onPick: (number: number | null) => void;
  readonly onTurn: (side: BoardSide) => void;
  /** The tray. */
  readonly children: ReactNode;
}

/** Beside expert tables: the home groups, or the tray. */
export function ExpertSide({ board, experts, picked, side, onPick, onTurn, children }: ExpertSideProps) {
  const { unplaced } = board.set;
  return (
    <Side>
      <header>
        <Segments
          label="List"
          value={side}
          choices={[
            { id: 'homes', label: 'Home groups' },
            { id: 'students', label: unplaced > 0 ? `${unplaced} unplaced` : 'Students' },
          ]}
          onChange={onTurn}
        />
      </header>
      {side === 'homes' ? <ExpertHomes {...{ board, experts, picked, onPick }} /> : children}
    </Side>
  );
}
