import { useMemo, useState } from 'react';
import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import type { RosterView } from '@jigsaw/contract/roster';
import type { Clash, DealProblem, Outcome, Why } from '@jigsaw/core/dealing';
import { isWish, judge, outcomesOf } from '@jigsaw/core/dealing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { counted } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { useNotice } from '../look/index.js';
import { useBoard } from '../placing/index.js';
import { isWhole, movesOf, problemOf, seatsNow, seatsOf } from './dealProblem.js';
import type { Seats } from './dealProblem.js';
import { useKeptDeals } from './keptDeals.js';
import type { Who } from './keptDeals.js';
import { useDeal } from './useDeal.js';
import { useLookOn } from './useLookOn.js';
import { useRules } from './useRules.js';

const mostSeeds = 10_000;
const anySeed = () => Math.floor(Math.random() * mostSeeds);
export const dealsAtHand = 3;
/** In place of a deal's number. */
export const boardNow = 0;

export type Dealing = ReturnType<typeof useDealer>;

/** What is dealt, what is looked at and held against what, and what can be done about it. */
export function useDealer(board: BoardView, roster: RosterView) {
  const notice = useNotice();
  const { course } = useCourse();
  const acts = useBoard(board);
  const { rules, whole, change } = useRules(board);
  const kept = useKeptDeals(board.set.id, course.enrolmentId);
  const [pins, setPins] = useState<ReadonlyMap<EnrolmentId, GroupId>>(new Map());
  const [who, setWho] = useState<Who>(
    () =>
      kept.deals.at(-1)?.who ??
      (board.set.unplaced > 0 && board.set.unplaced < board.students.length ? 'unplaced' : 'all'),
  );
  const [viewed, setViewed] = useState<number>(kept.deals.at(-1)?.number ?? boardNow);
  const [beside, setBeside] = useState<number | null>(null);
  const [shown, setShown] = useState<ReadonlySet<EnrolmentId>>(new Set());
  const [clash, setClash] = useState<Clash | null>(null);
  const [why, setWhy] = useState<{ readonly rule: number; readonly answer: Why | null } | null>(null);
  const further = useLookOn();
  const { going, start, stop } = useDeal(course.id, {
    onDealt: (asked, dealt, isStopped) => {
      setClash(dealt.ok ? null : dealt.clash);
      if (!dealt.ok) return;
      look(kept.add({ seed: asked.seed, who, isStopped, seats: [...dealt.deal.seats] }));
      if (!isStopped) further.begin(asked, dealt.deal);
    },
    onWhy: (answer) => setWhy({ rule: answer.rule, answer }),
    onGivenUp: (detail) => notice(detail),
  });
  const look = (number: number) => {
    further.end(); // what is looked at now is another deal
    setViewed(number);
    setShown(new Set());
    setWhy(null);
    setClash(null);
    if (number === beside) setBeside(null);
  };

  const deal = kept.deals.find((each) => each.number === viewed) ?? null;
  const problem = useMemo(
    () => problemOf({ board, roster, rules: whole, who, pins, seed: 0 }),
    [board, roster, whole, who, pins],
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

  const dealBy = (by: readonly DealRule[], seed = anySeed(), stay = { who, pins }) =>
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
    return notice(`${counted(fitting.length, 'rule')} copied from ${setName}`, {
      label: 'Undo',
      do: () => change(rules),
    });
  };
  const accept = () => {
    if (!deal) return;
    acts.carry(
      { moves },
      `${counted(moves.length, 'student')} dealt ${whole.length === 0 ? 'at random' : `by ${counted(whole.length, 'rule')}`}, seed ${deal.seed}`,
    );
    look(boardNow);
  };
  const discard = () => {
    kept.discard(viewed);
    look(kept.deals.filter((each) => each.number !== viewed).at(-1)?.number ?? boardNow);
  };
  const pin = (student: EnrolmentId, groupId: GroupId) => {
    further.end();
    setPins((before) => {
      const next = new Map(before);
      if (next.get(student) === groupId) next.delete(student);
      else next.set(student, groupId);
      return next;
    });
  };
  const askWhy = (rule: number) => {
    setWhy({ rule, answer: null });
    start({ kind: 'why', problem, deal: sure(worth), rule });
  };
  return {
    acts,
    rules,
    /** As they are written down; what was asked of the old ones is no answer to these. */
    changeRules: (next: readonly DealRule[]) => {
      setWhy(null);
      further.end();
      change(next);
    },
    addRule: (rule: DealRule) => {
      further.end();
      change([...rules, rule]);
    },
    takeRules,
    deals: kept.deals,
    pins,
    pin,
    who,
    setWho,
    /** How many would be dealt a place. */
    count: who === 'unplaced' ? board.set.unplaced : board.students.length,
    viewed,
    look,
    /** The deal in view; null: the Board as it is. */
    deal,
    nameOf,
    moves,
    seats,
    worth,
    outcomes,
    /** Each rule has its outcome, in their order. */
    isPlain: whole.length === rules.length,
    beside,
    setBeside,
    other,
    shown,
    show: (who: readonly EnrolmentId[]) => {
      setBeside(null);
      setShown(new Set(who));
    },
    clash,
    /** Why the deal in view cannot be taken; null: it can. */
    hindrance: deal ? hindranceOf(problem.rules, outcomes, clash) : null,
    going,
    /** What is looked for beyond the deal in view; null: nothing is. */
    looking: further.looking,
    showBetter: () => {
      const { problem: asked, better } = sure(further.looking);
      look(kept.add({ seed: asked.seed, who, isStopped: false, seats: [...sure(better).seats] }));
    },
    isDealing: going?.question.kind === 'deal',
    stop,
    dealBy,
    accept,
    discard,
    why,
    /** null: nothing can be asked now. */
    askWhy: deal && beside === null && !going ? askWhy : null,
    leaveWhy: () => {
      if (going?.question.kind === 'why') stop();
      setWhy(null);
    },
    isHard: (rule: number) => !isWish(sure(problem.rules[rule])),
    raise: (rule: number, above: number) =>
      dealOtherwise(moved(rules, rule, above), `Rule ${rule + 1} put above ${above + 1} and dealt again`),
    takeAway: (these: readonly number[]) =>
      dealOtherwise(
        rules.filter((_, index) => !these.includes(index)),
        `${these.length === 1 ? 'Rule' : 'Rules'} ${these.map((each) => each + 1).join(' and ')} removed and dealt again`,
      ),
    unpin: () => {
      setPins(new Map());
      setWho('all');
      dealBy(rules, undefined, { who: 'all', pins: new Map() });
    },
  };
}

/** Rules that hold without exception hold in what is taken, also where they came after it was dealt. */
function hindranceOf(
  rules: DealProblem['rules'],
  outcomes: readonly Outcome[] | null,
  clash: Clash | null,
): string | null {
  if (clash) return 'The rules contradict each other. Change them, and deal again.';
  const broken = outcomes?.findIndex(({ met, of }, at) => !isWish(sure(rules[at])) && met < of) ?? -1;
  return broken < 0 ? null : `This deal breaks rule ${broken + 1}. Deal again.`;
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
  next.splice(above, 0, sure(rules[rule]));
  return next;
};
