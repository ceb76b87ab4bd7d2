import { Pin } from 'lucide-react';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import { sayClash } from '@jigsaw/core/dealing';
import { ProblemStrip } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Choice, Segments, Small } from '../look/index.js';
import { DealCards } from './DealCards.js';
import { DealComparison } from './DealComparison.js';
import { EarlierDeals } from './EarlierDeals.js';
import { sayHeld, saySizes } from './sayDeal.js';
import { boardNow, dealsAtHand } from './useDealer.js';
import type { Dealing } from './useDealer.js';

const Right = styled.section`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  > header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px 12px;
    min-height: 44px;
    padding: 6px var(--s-4);
    border-bottom: var(--hair);
  }
  .grow {
    flex: 1;
  }
`;

interface DealtGroupsProps {
  readonly board: BoardView;
  readonly dealing: Dealing;
}

/** The groups as a deal or the Board has them, alone or beside another. */
export function DealtGroups({ board, dealing }: DealtGroupsProps) {
  const { dates } = useCourse();
  const { deals, deal, viewed, look, nameOf, moves, seats, outcomes, beside, setBeside, other } = dealing;
  const { pins, shown, clash } = dealing;
  const views = [boardNow, ...deals.slice(-dealsAtHand).map((each) => each.number)];
  return (
    <Right aria-label="The groups">
      <header>
        {deals.length === 0 ? (
          <b>The Board now</b>
        ) : (
          <Segments
            label="What is shown"
            value={String(viewed)}
            choices={[...views, ...(views.includes(viewed) ? [] : [viewed])].map((number) => ({
              id: String(number),
              label: number === boardNow ? 'Board now' : `Deal ${number}`,
            }))}
            onChange={(number) => look(Number(number))}
          />
        )}
        {deals.length > dealsAtHand && (
          <EarlierDeals deals={deals.slice(0, -dealsAtHand)} when={dates.dateTime} onLook={look} />
        )}
        {deals.length > 0 && (
          <Choice
            label="Compare with another deal"
            isLabelHidden
            value={beside === null ? 'none' : String(beside)}
            choices={[
              { id: 'none', label: 'Compare with…' },
              ...[boardNow, ...deals.map((each) => each.number)]
                .filter((number) => number !== viewed)
                .map((number) => ({ id: String(number), label: `beside ${nameOf(number)}` })),
            ]}
            onChange={(number) => setBeside(number === 'none' ? null : Number(number))}
          />
        )}
        <span className="grow" />
        {beside !== null && outcomes && other.outcomes ? (
          <Small role="status">{sayHeld(outcomes, other.outcomes)}</Small>
        ) : (
          <>
            {deal && seats && <Small>{saySizes(board, seats)}</Small>}
            {deal && <Small>{moves.length === 0 ? 'as on the Board' : `${moves.length} moved`}</Small>}
            <Small title="Press a name to keep it where it is">
              <Pin size={12} aria-hidden="true" />{' '}
              {pins.size === 0 ? 'press a name to pin it' : `${pins.size} pinned`}
            </Small>
          </>
        )}
      </header>
      {clash ? (
        <div>
          <ProblemStrip>{sayClash(clash)}</ProblemStrip>
        </div>
      ) : beside !== null && seats && other.seats ? (
        <DealComparison
          board={board}
          one={{ label: viewed === boardNow ? 'Board now' : nameOf(viewed), seats }}
          other={{ label: beside === boardNow ? 'Board now' : nameOf(beside), seats: other.seats }}
        />
      ) : (
        seats && (
          <DealCards
            board={board}
            seats={seats}
            pins={pins}
            shown={shown}
            onPin={dealing.pin}
            rules={dealing.rules}
          />
        )
      )}
    </Right>
  );
}
