import { Pin, Shuffle, Undo2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { RosterView } from '@jigsaw/contract/roster';
import type { Clash, Deal, DealProblem, Outcome, Why } from '@jigsaw/core/dealing';
import { isWish, judge, outcomesOf, sayClash } from '@jigsaw/core/dealing';
import { sayForecast } from '@jigsaw/core/sets';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { ProblemStrip } from '../api/index.js';
import {
  Bar,
  Button,
  ButtonLink,
  Choice,
  Empty,
  Page,
  Segments,
  Small,
  useNotice,
  Waiting,
} from '../look/index.js';
import { useReadRosterQuery } from '../roster/index.js';
import { useCourse } from '../course/index.js';
import { DealCards, membersIn } from './DealCards.js';
import { DealComparison } from './DealComparison.js';
import { isWhole, movesOf, problemOf, seatsNow, seatsOf } from './dealProblem.js';
import type { Seats } from './dealProblem.js';
import type { Whom } from './keptDeals.js';
import { EarlierDeals } from './EarlierDeals.js';
import { useReadBoardQuery, MoveSheet, useBoard } from '../placing/index.js';
import { useKeptDeals } from './keptDeals.js';
import { AddRule } from './AddRule.js';
import { RuleList } from './RuleList.js';
import { RulesOfOthers } from './RulesOfOthers.js';
import { SeedButton } from './SeedButton.js';
import { useDeal } from './useDeal.js';
import { useRules } from './useRules.js';
import { WhyShort } from './WhyShort.js';
import { counted } from '@jigsaw/core/text';

const Frame = styled(Page)`
  grid-template-rows: auto minmax(0, 1fr) auto;
`;
const Work = styled.div`
  display: grid;
  grid-template-columns: 448px minmax(0, 1fr);
  min-height: 0;
`;
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
  > p {
    padding: 14px var(--s-4);
    color: var(--ink-2);
  }
`;
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
const Foot = styled.footer`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 52px;
  padding: 0 var(--s-4);
  border-top: 1px solid var(--ink);
  background: var(--surface);
  .grow {
    flex: 1;
  }
  progress {
    width: 140px;
    accent-color: var(--ink);
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
      <Empty title="Rules deal everybody one place">
        In {board.currentData.set.name} a student may be in several groups. Place them on the Board.
      </Empty>
    );
  return <Dealer key={setId} board={board.currentData} roster={roster.data} />;
}

const mostSeeds = 10_000;
const anySeed = () => Math.floor(Math.random() * mostSeeds);
const dealsAtHand = 3;
/** In place of a deal's number. */
const boardNow = 0;

function Dealer({ board, roster }: { readonly board: BoardView; readonly roster: RosterView }) {
  const notice = useNotice();
  const { course, dates } = useCourse();
  const acts = useBoard(board);
  const { rules, whole, change } = useRules(board);
  const kept = useKeptDeals(board.set.id, course.enrolmentId);
  const [pins, setPins] = useState<ReadonlyMap<EnrolmentId, GroupId>>(new Map());
  const [whom, setWhom] = useState<Whom>(
    () =>
      kept.deals.at(-1)?.whom ??
      (board.set.unplaced > 0 && board.set.unplaced < board.students.length ? 'unplaced' : 'all'),
  );
  const [viewed, setViewed] = useState<number>(kept.deals.at(-1)?.number ?? boardNow);
  const [beside, setBeside] = useState<number | null>(null);
  const [shown, setShown] = useState<ReadonlySet<EnrolmentId>>(new Set());
  const [clash, setClash] = useState<Clash | null>(null);
  const [why, setWhy] = useState<{ readonly rule: number; readonly answer: Why | null } | null>(null);
  const { going, start, stop } = useDeal(course.id, {
    onDealt: ({ seed }, dealt, isStopped) => {
      setClash(dealt.ok ? null : dealt.clash);
      if (!dealt.ok) return;
      look(kept.add({ seed, whom, isStopped, seats: [...dealt.deal.seats] }));
    },
    onWhy: (answer) => setWhy({ rule: answer.rule, answer }),
    onGivenUp: (detail) => notice(detail),
  });
  const look = (number: number) => {
    setViewed(number);
    setShown(new Set());
    setWhy(null);
    setClash(null);
    if (number === beside) setBeside(null);
  };

  const deal = kept.deals.find((each) => each.number === viewed) ?? null;
  const problem = useMemo(
    () => problemOf({ board, roster, rules: whole, whom, pins, seed: 0 }),
    [board, roster, whole, whom, pins],
  );
  const { seats, worth, outcomes } = useJudged(
    problem,
    useMemo(() => (deal ? seatsOf(board, deal) : seatsNow(board)), [board, deal]),
  );
  const other = useJudged(
    problem,
    useMemo(() => {
      if (beside === null) return null;
      const found = kept.deals.find((each) => each.number === beside);
      return found ? seatsOf(board, found) : seatsNow(board);
    }, [board, beside, kept.deals]),
  );
  const nameOf = (number: number) => (number === boardNow ? 'the Board now' : `Deal ${number}`);
  const moves = useMemo(() => (deal && seats ? movesOf(board, seats) : []), [board, deal, seats]);

  const dealBy = (by: readonly DealRule[], seed = anySeed(), stay = { whom, pins }) =>
    start({ kind: 'deal', problem: problemOf({ board, roster, rules: by.filter(isWhole), seed, ...stay }) });
  const dealOtherwise = (next: readonly DealRule[], says: string) => {
    change(next);
    dealBy(next);
    notice(says, { label: 'Undo', do: () => change(rules) });
  };
  const takeRules = (theirs: readonly DealRule[], setName: string) => {
    const known = new Set(rules.map((rule) => JSON.stringify(rule)));
    // A set's own teammates are no earlier ones.
    const fitting = theirs
      .map((rule) =>
        rule.kind === 'fresh' ? { ...rule, setIds: rule.setIds.filter((id) => id !== board.set.id) } : rule,
      )
      .filter(
        (rule) => (rule.kind !== 'fresh' || rule.setIds.length > 0) && !known.has(JSON.stringify(rule)),
      );
    if (fitting.length === 0)
      return notice(
        theirs.length === 0 ? `${setName} has no rules.` : `All rules of ${setName} are here already.`,
      );
    change([...rules, ...fitting]);
    return notice(`${counted(fitting.length, 'rule')} taken over from ${setName}`, {
      label: 'Undo',
      do: () => change(rules),
    });
  };
  const accept = () => {
    if (!deal) return;
    acts.carry(
      { moves },
      `${counted(moves.length, 'student')} dealt by ${whole.length} rules, seed ${deal.seed}`,
    );
    look(boardNow);
  };
  const discard = () => {
    kept.discard(viewed);
    look(kept.deals.filter((each) => each.number !== viewed).at(-1)?.number ?? boardNow);
  };
  const pin = (student: EnrolmentId, groupId: GroupId) =>
    setPins((before) => {
      const next = new Map(before);
      if (next.get(student) === groupId) next.delete(student);
      else next.set(student, groupId);
      return next;
    });
  const askWhy = (rule: number) => {
    setWhy({ rule, answer: null });
    start({ kind: 'why', problem, deal: worth!, rule });
  };
  const count = whom === 'unplaced' ? board.set.unplaced : board.students.length;
  const isDealing = going?.question.kind === 'deal';
  const views = [boardNow, ...kept.deals.slice(-dealsAtHand).map((each) => each.number)];
  const isPlain = whole.length === rules.length; // each rule has its outcome, in their order
  return (
    <Frame>
      <Bar>
        <h1>Deal {board.set.name}</h1>
        <Small>A deal is a proposal. Nobody moves until you accept it.</Small>
        <span className="grow" />
        <ButtonLink kind="quiet" to={`../groups/${board.set.id}`}>
          Back to the Board
        </ButtonLink>
        <RulesOfOthers board={board} roster={roster} onTake={takeRules} />
        <AddRule board={board} roster={roster} onAdd={(rule) => change([...rules, rule])} />
      </Bar>
      <Work>
        <Left aria-label="What it is to bring about">
          <header>
            <Segments
              label="Who is dealt"
              value={whom}
              choices={[
                { id: 'unplaced', label: `The ${board.set.unplaced} unplaced` },
                { id: 'all', label: `All ${board.students.length} anew` },
              ]}
              onChange={setWhom}
            />
            <Small>The first wish weighs most</Small>
          </header>
          {rules.length === 0 ? (
            <p>
              No rule yet: places would be dealt at random. Add what matters, such as an attribute to be
              spread evenly, or two who are to be kept apart.
            </p>
          ) : (
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
              onWhy={deal && beside === null && !going ? askWhy : null}
              renderWhy={(rule) =>
                why?.rule === rule && (
                  <WhyShort
                    board={board}
                    rule={rule}
                    isHard={(at) => !isWish(problem.rules[at]!)}
                    why={why.answer}
                    part={going?.part ?? 0}
                    onRaise={(above) =>
                      dealOtherwise(
                        moved(rules, rule, above),
                        `Rule ${rule + 1} put above ${above + 1}, and dealt again`,
                      )
                    }
                    onTakeAway={(at) =>
                      dealOtherwise(
                        rules.filter((_, index) => index !== at),
                        `Rule ${at + 1} taken away, and dealt again`,
                      )
                    }
                    onUnpin={() => {
                      setPins(new Map());
                      setWhom('all');
                      dealBy(rules, undefined, { whom: 'all', pins: new Map() });
                    }}
                    onClose={() => {
                      if (going?.question.kind === 'why') stop();
                      setWhy(null);
                    }}
                  />
                )
              }
              onChange={(next) => {
                setWhy(null);
                change(next);
              }}
              onShow={(who) => {
                setBeside(null);
                setShown(new Set(who));
              }}
            />
          )}
        </Left>
        <Right aria-label="The groups">
          <header>
            {kept.deals.length === 0 ? (
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
            {kept.deals.length > dealsAtHand && (
              <EarlierDeals deals={kept.deals.slice(0, -dealsAtHand)} when={dates.dateTime} onLook={look} />
            )}
            {kept.deals.length > 0 && (
              <Choice
                label="Hold it against"
                isLabelHidden
                value={beside === null ? 'none' : String(beside)}
                choices={[
                  { id: 'none', label: 'Compare with…' },
                  ...[boardNow, ...kept.deals.map((each) => each.number)]
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
                <Small title="A press on a name keeps it where it is">
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
            seats && <DealCards board={board} seats={seats} pins={pins} shown={shown} onPin={pin} />
          )}
        </Right>
      </Work>
      {acts.pending && <MoveSheet board={board} pending={acts.pending} />}
      <Foot>
        {isDealing ? (
          <>
            <progress value={going.part} aria-label="How far the deal is" />
            <Small role="status">Looking for a better deal…</Small>
            <span className="grow" />
            <Button isDisabled={!going.best} onPress={stop}>
              Take the best so far
            </Button>
          </>
        ) : (
          <>
            <span role="status">{deal && worth ? sayQuality(worth, deal.isStopped, deal.seed) : ''}</span>
            <span className="grow" />
            {acts.canUndo && (
              <Button kind="quiet" onPress={acts.undo} aria-label={`Undo: ${acts.canUndo.says}`}>
                <Undo2 size={15} aria-hidden="true" />
                Undo
              </Button>
            )}
            {deal && (
              <Button kind="quiet" onPress={discard}>
                Discard Deal {viewed}
              </Button>
            )}
            <SeedButton
              isDisabled={board.groups.length === 0 || count === 0}
              onDeal={(seed) => dealBy(rules, seed)}
            />
            <Button
              kind={deal ? 'plain' : 'main'}
              isDisabled={board.groups.length === 0 || count === 0}
              onPress={() => dealBy(rules)}
            >
              <Shuffle size={15} aria-hidden="true" />
              {kept.deals.length === 0
                ? `Deal ${count}`
                : pins.size > 0
                  ? `Deal again, keeps ${pins.size} pinned`
                  : 'Deal again'}
            </Button>
            {deal && (
              <Button kind="main" isDisabled={moves.length === 0 || acts.isSaving} onPress={accept}>
                {moves.length === 0 ? 'Nobody would move' : `Accept for ${moves.length}`}
              </Button>
            )}
          </>
        )}
      </Foot>
    </Frame>
  );
}

/** "12 groups of 4", and how many find no place. */
function saySizes(board: BoardView, seats: Seats): string {
  const sizes = board.groups.map((group) => membersIn(board, seats, group.id).length).sort((a, b) => b - a);
  const unseated = board.students.length - sizes.reduce((sum, size) => sum + size, 0);
  return `${sayForecast(sizes)}${unseated === 0 ? '' : `; ${unseated} without a place`}`;
}

/** A seating held against the rules as they are; null: there is none. */
function useJudged(problem: DealProblem, seats: Seats | null) {
  return useMemo(() => {
    if (!seats) return { seats: null, worth: null, outcomes: null };
    const worth = judge(problem, seats);
    return { seats, worth, outcomes: outcomesOf(problem, worth) };
  }, [problem, seats]);
}

const moved = (rules: readonly DealRule[], rule: number, above: number): readonly DealRule[] => {
  const next = rules.filter((_, at) => at !== rule);
  next.splice(above, 0, rules[rule]!);
  return next;
};

/** "Better on 3 rules, worse on none" */
function sayHeld(outcomes: readonly Outcome[], others: readonly Outcome[]): string {
  const count = (of: (one: Outcome, other: Outcome) => boolean) =>
    outcomes.filter((one, at) => others[at] && of(one, others[at])).length;
  const [better, worse] = [
    count((one, other) => one.part > other.part),
    count((one, other) => one.part < other.part),
  ];
  if (better + worse === 0) return 'Alike on every rule';
  return `Better on ${counted(better, 'rule')}, worse on ${worse === 0 ? 'none' : worse}`;
}

/** What is known of how good it is. */
function sayQuality({ objective, bound, reached }: Deal, isStopped: boolean, seed: number): string {
  const end = `Seed ${seed}.`;
  if (reached.length === 0) return `No wish to meet: dealt at random. ${end}`;
  const short = isStopped ? 'Stopped early. ' : '';
  if (objective <= bound + 1e-6) return `${short}Proven best: no deal meets these wishes better. ${end}`;
  // Chance costs about 1 more than the bound; so much of that is left.
  const left = Math.round(Math.min(1, objective - bound) * 100);
  return `${short}Best found: ${100 - left} % of the way from chance to what is proven to be the limit. ${end}`;
}
