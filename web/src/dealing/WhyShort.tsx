import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { Hindrance, Why } from '@jigsaw/core/dealing';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { namesTogether } from '@jigsaw/core/text';
import { Button, PersonName } from '../look/index.js';

const Panel = styled.div`
  grid-column: 2 / -1;
  display: grid;
  gap: 6px;
  padding: 8px 10px;
  border-left: 3px solid var(--ink);
  background: var(--sunk);
  font: var(--t-13);
  progress {
    width: 160px;
    accent-color: var(--ink);
  }
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
`;

interface WhyShortProps {
  readonly board: BoardView;
  /** Its place among the rules, from 0. */
  readonly rule: number;
  /** What must hold is not outweighed by moving a wish up. */
  readonly isHard: (rule: number) => boolean;
  /** null: it is still being worked out, so far. */
  readonly why: Why | null;
  readonly part: number;
  readonly onRaise: (above: number) => void;
  readonly onTakeAway: (rules: readonly number[]) => void;
  readonly onUnpin: () => void;
  readonly onClose: () => void;
}

const namesShown = 4;
const hindrancesShown = 2;

/** What stands in a rule's way, what it would reach otherwise, and what can be done about it in one press. */
export function WhyShort({
  board,
  rule,
  isHard,
  why,
  part,
  onRaise,
  onTakeAway,
  onUnpin,
  onClose,
}: WhyShortProps) {
  if (!why)
    return (
      <Panel role="status">
        <span>Dealing without each of the other rules, to see which stands in its way…</span>
        <progress value={part} aria-label="How far that is" />
        <div>
          <Button isSmall kind="quiet" onPress={onClose}>
            Stop
          </Button>
        </div>
      </Panel>
    );
  const shown = why.hindrances.slice(0, hindrancesShown);
  return (
    <Panel role="status">
      {shown.length === 0 && <p>{sayNothing(why)}</p>}
      {shown.map((hindrance) => (
        <p key={String(hindrance.by)}>
          <b>{sayWhat(board, hindrance.by)}</b>{' '}
          {typeof hindrance.by === 'object'
            ? 'are in its way only together: without both'
            : 'is in its way: without it'}
          , {hindrance.outcome.says}.{' '}
          {hindrance.by === 'locks' && 'Unlock groups on the Board, then deal again. '}
          {hindrance.spared.length > 0 && hindrance.spared.length <= namesShown && (
            <Spared board={board} hindrance={hindrance} />
          )}
        </p>
      ))}
      <div>
        {shown.map(({ by }) =>
          by === 'locks' ? null : by === 'pins' ? (
            <Button key="pins" isSmall onPress={onUnpin}>
              Deal all again without pins
            </Button>
          ) : (
            <Ways key={String(by)} {...{ rule, isHard, onRaise, onTakeAway }} by={[by].flat()} />
          ),
        )}
        <Button isSmall kind="quiet" onPress={onClose}>
          {shown.length === 0 ? 'Close' : 'Keep as it is'}
        </Button>
      </div>
    </Panel>
  );
}

interface WaysProps extends Pick<WhyShortProps, 'rule' | 'isHard' | 'onRaise' | 'onTakeAway'> {
  readonly by: readonly number[];
}

/** What can be done about rules that are in the way of another: that one goes above them, or they go. */
function Ways({ rule, by, isHard, onRaise, onTakeAway }: WaysProps) {
  const first = Math.min(...by);
  const numbers = by.map((each) => each + 1).join(' and ');
  return (
    <span style={{ display: 'contents' }}>
      {first < rule && !by.some(isHard) && (
        <Button isSmall onPress={() => onRaise(first)}>
          Put rule {rule + 1} above {numbers}
        </Button>
      )}
      <Button isSmall onPress={() => onTakeAway(by)}>
        Deal without {by.length === 1 ? 'rule' : 'rules'} {numbers}
      </Button>
    </span>
  );
}

function sayWhat(board: BoardView, by: Hindrance['by']): string {
  if (by === 'pins') return 'That some are pinned or stay';
  if (typeof by === 'object') return `Rules ${by[0] + 1} and ${by[1] + 1}`;
  if (by !== 'locks') return `Rule ${by + 1}`;
  const locked = board.groups.filter((group) => group.isLocked).map((group) => group.name);
  return `That ${namesTogether(locked, namesShown)} ${locked.length === 1 ? 'is' : 'are'} locked`;
}

function Spared({ board, hindrance }: { readonly board: BoardView; readonly hindrance: Hindrance }) {
  const person = (id: EnrolmentId) => board.students.find((student) => student.enrolmentId === id);
  return (
    <>
      That would help{' '}
      {hindrance.spared.map((id, at) => (
        <span key={id}>
          {at > 0 && (at === hindrance.spared.length - 1 ? ' and ' : ', ')}
          <b>
            <PersonName name={person(id)?.name ?? 'someone'} reading={person(id)?.reading ?? null} />
          </b>
        </span>
      ))}
      .
    </>
  );
}

const sayNothing = ({ alone }: Why): string =>
  alone.part === 1 || alone.isBest
    ? `No rule by itself is in its way; all of them together are. Alone it would reach ${alone.says}.`
    : `Nothing is in its way: with no other rule, ${alone.says} was the best that was found.`;
