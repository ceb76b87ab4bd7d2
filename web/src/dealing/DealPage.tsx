import { useParams } from 'react-router';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { RosterView } from '@jigsaw/contract/roster';
import { ProblemStrip } from '../api/index.js';
import { useCourse, useReadRosterQuery } from '../course/index.js';
import { Bar, ButtonLink, Empty, Page, Small, Waiting } from '../look/index.js';
import { MoveSheet, useReadBoardQuery } from '../placing/index.js';
import { AddRule } from './AddRule.js';
import { DealFoot } from './DealFoot.js';
import { DealRules } from './DealRules.js';
import { DealtGroups } from './DealtGroups.js';
import { RulesOfOthers } from './RulesOfOthers.js';
import { useDealer } from './useDealer.js';

const Frame = styled(Page)`
  grid-template-rows: auto minmax(0, 1fr) auto;
`;
const Columns = styled.div`
  display: grid;
  grid-template-columns: 448px minmax(0, 1fr);
  min-height: 0;
  /* In a small or enlarged window the groups come below the rules, and the page scrolls. */
  @media (max-width: 900px) {
    display: block;
    overflow-y: auto;
  }
`;

/** Rules as sentences on the left, and what they make of the class on the right: a proposal until it is accepted. */
export function DealPage() {
  const { setId = '' } = useParams();
  const { course } = useCourse();
  const board = useReadBoardQuery(setId);
  const roster = useReadRosterQuery(course.id);
  const error = board.error ?? roster.error;
  if (error) return <ProblemStrip of={error} onRetry={() => void board.refetch()} />;
  if (!board.currentData || !roster.data) return <Waiting what="the class" rows={10} />;
  if (!board.currentData.set.isExclusive)
    return (
      <Empty title="Rules need one group per student">
        In {board.currentData.set.name} a student may be in several groups. Place them on the Board.
      </Empty>
    );
  return <Dealer key={setId} board={board.currentData} roster={roster.data} />;
}

function Dealer({ board, roster }: { readonly board: BoardView; readonly roster: RosterView }) {
  const dealing = useDealer(board, roster);
  return (
    <Frame>
      <Bar>
        <h1>Deal {board.set.name}</h1>
        <Small>A deal is a proposal. No one moves until you accept it.</Small>
        <span className="grow" />
        <ButtonLink kind="quiet" to={`../groups/${board.set.id}`}>
          Back to the Board
        </ButtonLink>
        <RulesOfOthers board={board} roster={roster} onTake={dealing.takeRules} />
        <AddRule board={board} roster={roster} onAdd={dealing.addRule} />
      </Bar>
      <Columns>
        <DealRules board={board} roster={roster} dealing={dealing} />
        <DealtGroups board={board} dealing={dealing} />
      </Columns>
      {dealing.acts.pending && <MoveSheet board={board} pending={dealing.acts.pending} />}
      <DealFoot board={board} dealing={dealing} />
    </Frame>
  );
}
