import { Shuffle, Undo2 } from 'lucide-react';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import { counted } from '@jigsaw/core/text';
import { Button, Small, FootBar } from '../look/index.js';
import { Proof } from './Proof.js';
import { sayQuality } from './sayDeal.js';
import { SeedButton } from './SeedButton.js';
import type { Dealing } from './useDealer.js';

const Foot = styled(FootBar)`
  background: var(--surface);
  progress {
    width: 140px;
    accent-color: var(--ink);
  }
`;

interface DealFootProps {
  readonly board: BoardView;
  readonly dealing: Dealing;
}

/** How far the deal is or how good it came out, and the ways on from it. */
export function DealFoot({ board, dealing }: DealFootProps) {
  const { acts, rules, deals, deal, worth, outcomes, moves, pins, count, going, hindrance } = dealing;
  return (
    <Foot data-acts>
      {dealing.isDealing ? (
        <>
          <progress value={going?.part} aria-label="How far the deal is" />
          <Small role="status">Looking for a better deal…</Small>
          <span className="grow" />
          <Button isDisabled={!going?.best} onPress={dealing.stop}>
            Use the best so far
          </Button>
        </>
      ) : (
        <>
          <span role="status">{hindrance ?? (deal && worth ? sayQuality(worth, deal.isStopped) : '')}</span>
          {deal && <Small>Seed {deal.seed}</Small>}
          {deal && worth && outcomes && rules.length > 0 && <Proof worth={worth} outcomes={outcomes} />}
          {dealing.looking && (
            <LookingOn
              isOver={dealing.looking.isOver}
              hasBetter={dealing.looking.better !== null}
              onShow={dealing.showBetter}
            />
          )}
          <span className="grow" />
          {acts.canUndo && (
            <Button kind="quiet" onPress={acts.undo} aria-label={`Undo: ${acts.canUndo.says}`}>
              <Undo2 size={15} aria-hidden="true" />
              Undo
            </Button>
          )}
          {deal && (
            <Button kind="quiet" onPress={dealing.discard}>
              Discard Deal {dealing.viewed}
            </Button>
          )}
          <SeedButton
            isDisabled={board.groups.length === 0 || count === 0}
            onDeal={(seed) => dealing.dealBy(rules, seed)}
          />
          <Button
            kind={deal ? 'plain' : 'main'}
            isDisabled={board.groups.length === 0 || count === 0}
            onPress={() => dealing.dealBy(rules)}
          >
            <Shuffle size={15} aria-hidden="true" />
            {deals.length === 0
              ? `Deal ${counted(count, 'student')}`
              : pins.size > 0
                ? `Deal again, keeps ${pins.size} pinned`
                : 'Deal again'}
          </Button>
          {deal && (
            <Button
              kind="main"
              isDisabled={moves.length === 0 || acts.isSaving || hindrance !== null}
              onPress={dealing.accept}
            >
              {moves.length === 0 ? 'No one would move' : `Accept for ${counted(moves.length, 'student')}`}
            </Button>
          )}
        </>
      )}
    </Foot>
  );
}

/** It goes on looking while the deal is read, and says what comes of it. */
function LookingOn({
  isOver,
  hasBetter,
  onShow,
}: {
  readonly isOver: boolean;
  readonly hasBetter: boolean;
  readonly onShow: () => void;
}) {
  return (
    <>
      <Small role="status">
        {hasBetter
          ? 'A better deal was found.'
          : isOver
            ? 'Nothing better found since.'
            : 'Still looking for a better one…'}
      </Small>
      {hasBetter && (
        <Button isSmall onPress={onShow}>
          Show the better deal
        </Button>
      )}
    </>
  );
}
