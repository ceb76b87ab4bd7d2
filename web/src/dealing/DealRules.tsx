import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { RosterView } from '@jigsaw/contract/roster';
import { Segments, Small } from '../look/index.js';
import { GroupSize } from './GroupSize.js';
import { RuleList } from './RuleList.js';
import type { Dealing } from './useDealer.js';
import { WhyShort } from './WhyShort.js';

const Left = styled.section`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  background: var(--surface);
  border-right: 1px solid var(--ink);
  > header {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 8px;
    padding: 10px var(--s-4);
    border-bottom: 1px solid var(--ink);
    background: var(--paper);
  }
  > div {
    overflow: auto;
    min-height: 0;
  }
  > div > p {
    padding: 8px var(--s-4) 0;
  }
  > p {
    padding: 14px var(--s-4);
    color: var(--ink-2);
  }
`;

interface DealRulesProps {
  readonly board: BoardView;
  readonly roster: RosterView;
  readonly dealing: Dealing;
}

/** Who is dealt, by which rules, and what the deal in view made of each. */
export function DealRules({ board, roster, dealing }: DealRulesProps) {
  const { rules, seats, outcomes, isPlain, beside, other, nameOf, why } = dealing;
  return (
    <Left aria-label="Rules of this deal">
      <header>
        <Segments
          label="Who is dealt"
          value={dealing.who}
          choices={[
            { id: 'unplaced', label: `${board.set.unplaced} unplaced` },
            { id: 'all', label: `All ${board.students.length}` },
          ]}
          onChange={dealing.setWho}
        />
        <GroupSize board={board} />
      </header>
      {rules.length === 0 ? (
        <p>
          No rules yet, so the deal is random. Add a rule, for example to spread an attribute evenly or to
          keep two students apart.
        </p>
      ) : (
        <div>
          {rules.length > 1 && <Small as="p">The first rule matters most.</Small>}
          <RuleList
            board={board}
            roster={roster}
            rules={rules}
            outcomes={isPlain && seats ? outcomes : null}
            against={
              isPlain && beside !== null && other.outcomes
                ? { label: nameOf(beside), outcomes: other.outcomes }
                : null
            }
            onWhy={dealing.askWhy}
            renderWhy={(rule) =>
              why?.rule === rule && (
                <WhyShort
                  board={board}
                  rule={rule}
                  isHard={dealing.isHard}
                  why={why.answer}
                  part={dealing.going?.part ?? 0}
                  onRaise={(above) => dealing.raise(rule, above)}
                  onTakeAway={dealing.takeAway}
                  onUnpin={dealing.unpin}
                  onClose={dealing.leaveWhy}
                />
              )
            }
            onChange={dealing.changeRules}
            onShow={dealing.show}
          />
        </div>
      )}
    </Left>
  );
}
