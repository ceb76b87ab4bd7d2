import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { RosterView } from '@jigsaw/contract/roster';
import type { Outcome } from '@jigsaw/core/dealing';
import { shifted } from '@jigsaw/core/lists';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { Button, Shifts, Small } from '../look/index.js';
import { sayRule, Sentence } from './ruleKinds.js';
import { importanceOf, sayReach } from './sayDeal.js';

const List = styled.ol`
  overflow: auto;
  min-height: 0;
  > li {
    display: grid;
    grid-template-columns: 34px minmax(0, 1fr) auto;
    gap: 4px 8px;
    align-items: start;
    padding: 9px 10px 9px 0;
    border-bottom: var(--hair);
  }
  > li > b {
    text-align: right;
    color: var(--ink-2);
    font: 650 12px/26px var(--font-text);
  }
  .sentence [data-rac] > button {
    height: 26px;
    padding: 0 7px;
  }
  .sentence {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 6px;
    align-items: center;
  }
  .tools {
    display: flex;
    gap: 4px;
    align-items: center;
  }
  .outcome {
    grid-column: 2 / -1;
    display: grid;
    grid-template-columns: 76px minmax(0, 1fr) auto;
    gap: 8px;
    align-items: center;
    font: var(--t-12);
    color: var(--ink-2);
  }
  .outcome em {
    display: block;
    font-style: normal;
    color: var(--ink-3);
  }
`;
const Reach = styled.span`
  position: relative;
  display: block;
  height: 8px;
  border-radius: 2px;
  background: var(--sunk);
  i {
    position: absolute;
    inset: 0 auto 0 0;
    background: var(--ink-2);
    border-radius: 2px;
  }
  /* Short of the whole: striped, beside the words that say by how much. */
  &[data-short] i {
    background: repeating-linear-gradient(115deg, var(--ink-2) 0 4px, var(--ink-3) 4px 8px);
  }
  /* What the other deal reached. */
  s {
    position: absolute;
    top: 9px;
    left: 0;
    height: 3px;
    border-radius: 2px;
    background: var(--ink-3);
  }
`;

interface RuleListProps {
  readonly board: BoardView;
  readonly roster: RosterView;
  readonly rules: readonly DealRule[];
  /** What the deal in view made of each; null: none is in view. */
  readonly outcomes: readonly Outcome[] | null;
  /** What another made of each, to be held against it. */
  readonly against: { readonly label: string; readonly outcomes: readonly Outcome[] } | null;
  /** Asks what stands in the way of a rule that is not fully met; null: cannot be asked now. */
  readonly onWhy: ((rule: number) => void) | null;
  /** The answer, below the rule that it is about. */
  readonly renderWhy: (rule: number) => ReactNode;
  readonly onChange: (rules: readonly DealRule[]) => void;
  readonly onShow: (who: readonly EnrolmentId[]) => void;
}

/** Rules as sentences, each to be filled in where it stands; their order is their weight. */
export function RuleList({
  board,
  roster,
  rules,
  outcomes,
  against,
  onWhy,
  renderWhy,
  onChange,
  onShow,
}: RuleListProps) {
  const put = (at: number, rule: DealRule | null) =>
    onChange(rules.flatMap((each, index) => (index === at ? (rule === null ? [] : [rule]) : [each])));
  return (
    <List aria-label="Rules">
      {rules.map((rule, at) => {
        const says = sayRule(rule, board, roster);
        const outcome = outcomes?.[at];
        const other = against?.outcomes[at];
        return (
          <li key={at} aria-label={says}>
            <b>{at + 1}</b>
            <div className="sentence">
              <Sentence rule={rule} board={board} roster={roster} onChange={(next) => put(at, next)} />
            </div>
            <div className="tools">
              <Small>{importanceOf(rules, at)}</Small>
              <Shifts
                at={at}
                count={rules.length}
                up={`Rule ${at + 1} matters more`}
                down={`Rule ${at + 1} matters less`}
                onShift={(by) => onChange(shifted(rules, at, by))}
              />
              <Button
                kind="quiet"
                isSmall
                isIconOnly
                aria-label={`Remove rule ${at + 1}`}
                onPress={() => put(at, null)}
              >
                <X size={14} aria-hidden="true" />
              </Button>
            </div>
            {outcome && (
              <div className="outcome">
                <Reach data-short={outcome.part < 1 || undefined}>
                  <i style={{ width: `${Math.round(outcome.part * 100)}%` }} />
                  {other && <s style={{ width: `${Math.round(other.part * 100)}%` }} />}
                </Reach>
                <span>
                  {outcome.says} {!other && <em>{sayReach(outcome)}</em>}
                  {other && (
                    <>
                      {' · '}
                      {other.met === outcome.met ? 'the same' : <b>{other.met}</b>} in {against.label}
                    </>
                  )}
                </span>
                <span className="tools">
                  {outcome.concerned.length > 0 && (
                    <Button
                      isSmall
                      kind="quiet"
                      onPress={() => onShow(outcome.concerned)}
                      aria-label={`Show who rule ${at + 1} does not reach`}
                    >
                      Who
                    </Button>
                  )}
                  {onWhy && !outcome.isBest && (
                    <Button
                      isSmall
                      kind="quiet"
                      onPress={() => onWhy(at)}
                      aria-label={`Why rule ${at + 1} is not fully met`}
                    >
                      Why
                    </Button>
                  )}
                </span>
              </div>
            )}
            {renderWhy(at)}
          </li>
        );
      })}
    </List>
  );
}
