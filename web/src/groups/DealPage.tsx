import { Pin, Shuffle, Undo2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { styled } from 'styled-components';
import type { BoardStudent, BoardView, DealRule } from '@jigsaw/contract/groups';
import type { RosterView } from '@jigsaw/contract/roster';
import type { Deal } from '@jigsaw/core/dealing';
import { outcomesOf, sayClash } from '@jigsaw/core/dealing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { problemOf as problemIn, ProblemStrip } from '../api/index.js';
import { Bar, Button, ButtonLink, Emblem, Empty, hueOfGroup, Page, PersonName, Segments, Small, Tag, useNotice, Waiting } from '../look/index.js';
import { useReadRosterQuery } from '../roster/index.js';
import { useCourse } from '../track/index.js';
import { movesOf, problemOf } from './dealProblem.js';
import type { Whom } from './dealProblem.js';
import { useChangeRulesMutation, useReadBoardQuery } from './groupsApi.js';
import { MoveSheet } from './MoveSheet.js';
import { AddRule, RuleList } from './RuleList.js';
import { useBoard } from './useBoard.js';
import { useDeal } from './useDeal.js';

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
const Cards = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  grid-auto-rows: max-content;
  gap: 8px;
  padding: 10px 12px;
  overflow: auto;
  align-content: start;
`;
const Card = styled.section`
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  padding: 4px;
  content-visibility: auto;
  contain-intrinsic-size: auto 160px;
  header {
    display: flex;
    align-items: center;
    gap: 6px;
    padding: 2px 4px 4px;
  }
  h3 {
    flex: 1;
    font: var(--h-14);
    font-size: 15px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;
const Seat = styled.button`
  display: flex;
  align-items: center;
  gap: 6px;
  width: 100%;
  min-height: 26px;
  padding: 2px 6px;
  border: 0;
  border-radius: var(--r-1);
  background: none;
  color: var(--ink-2);
  font: var(--t-13);
  text-align: left;
  cursor: pointer;
  outline-offset: -2px;
  > span:first-child {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &:hover {
    background: var(--wash);
  }
  &[data-moved] {
    background: var(--wash-2);
    color: var(--ink);
    font-weight: 620;
  }
  &[aria-pressed='true'] {
    color: var(--ink);
  }
  &[data-shown] {
    box-shadow: inset 0 0 0 2px var(--attn);
    background: var(--attn-tint);
    color: var(--ink);
  }
  small {
    display: flex;
    align-items: center;
    gap: 2px;
    color: var(--ink-2);
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
    return <Empty title="Rules deal everybody one place">In {board.currentData.set.name} a student may be in several groups. Place them on the Board.</Empty>;
  return <Dealer key={setId} board={board.currentData} roster={roster.data} />;
}

const mostSeeds = 10_000;
const isWhole = (rule: DealRule) => !('students' in rule) || rule.students.length > 1;

function Dealer({ board, roster }: { readonly board: BoardView; readonly roster: RosterView }) {
  const notice = useNotice();
  const { course } = useCourse();
  const acts = useBoard(board);
  const { deals, going, start, stop, forget } = useDeal();
  const [rules, setRules] = useState<readonly DealRule[]>(board.rules);
  const [pins, setPins] = useState<ReadonlyMap<EnrolmentId, GroupId>>(new Map());
  const [whom, setWhom] = useState<Whom>(board.set.unplaced > 0 && board.set.unplaced < board.students.length ? 'unplaced' : 'all');
  const [view, setView] = useState<string>('board');
  const [shown, setShown] = useState<ReadonlySet<EnrolmentId>>(new Set());
  const [saveRules] = useChangeRulesMutation();
  const isInstructor = course.role === 'instructor';

  // The newest deal is in view as soon as it is there.
  const [seenDeals, setSeenDeals] = useState(0);
  if (seenDeals !== deals.length) {
    setSeenDeals(deals.length);
    setView(deals.length === 0 ? 'board' : String(deals.length));
    setShown(new Set());
  }
  const made = view === 'board' ? null : deals[Number(view) - 1];
  const deal = made?.dealt.ok ? made.dealt.deal : null;
  const outcomes = useMemo(() => (made?.dealt.ok ? outcomesOf(made.problem, made.dealt.deal) : null), [made]);
  const isSameRules = made && made.problem.rules.length === rules.filter(isWhole).length;
  const moves = useMemo(() => (deal ? movesOf(board, deal) : []), [board, deal]);
  const moved = useMemo(() => new Set(moves.map((move) => move.student)), [moves]);

  const change = async (next: readonly DealRule[]) => {
    setRules(next);
    if (!isInstructor) return; // an assistant may try rules and deal by them; they stay the set's own
    const answer = await saveRules({ setId: board.set.id, body: { rules: next.filter(isWhole), version: board.set.version } });
    if ('error' in answer) notice(problemIn(answer.error).detail);
  };
  const dealNow = () => start(problemOf({ board, roster, rules: rules.filter(isWhole), whom, pins, seed: Math.floor(Math.random() * mostSeeds) }));
  const accept = () => {
    if (!made) return;
    acts.carry(
      { moves },
      `${moves.length} ${moves.length === 1 ? 'student' : 'students'} dealt by ${made.problem.rules.length} rules, seed ${made.problem.seed}`,
    );
    setView('board');
  };
  const pin = (student: EnrolmentId, groupId: GroupId) =>
    setPins((before) => {
      const next = new Map(before);
      if (next.get(student) === groupId) next.delete(student);
      else next.set(student, groupId);
      return next;
    });
  const count = whom === 'unplaced' ? board.set.unplaced : board.students.length;
  return (
    <Frame>
      <Bar>
        <h1>Deal {board.set.name}</h1>
        <Small>A deal is a proposal. Nobody moves until you accept it.</Small>
        <span className="grow" />
        <ButtonLink kind="quiet" to={`../groups/${board.set.id}`}>
          Back to the Board
        </ButtonLink>
        <AddRule board={board} roster={roster} onAdd={(rule) => void change([...rules, rule])} />
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
            <p>No rule yet: places would be dealt at random. Add what matters, such as an attribute to be spread evenly, or two who are to be kept apart.</p>
          ) : (
            <RuleList
              board={board}
              roster={roster}
              rules={rules}
              outcomes={isSameRules ? outcomes : null}
              onChange={(next) => void change(next)}
              onShow={(who) => setShown(new Set(who))}
            />
          )}
        </Left>
        <Right aria-label="The groups">
          <header>
            <Segments
              label="What is shown"
              value={view}
              choices={[{ id: 'board', label: 'Board now' }, ...deals.map((_, at) => ({ id: String(at + 1), label: `Deal ${at + 1}` }))]}
              onChange={setView}
            />
            <span className="grow" />
            {deal && <Small>{moves.length === 0 ? 'as on the Board' : `${moves.length} moved`}</Small>}
            <Small>
              <Pin size={12} aria-hidden="true" /> {pins.size} pinned: a press on a name keeps them where they are
            </Small>
          </header>
          {made && !made.dealt.ok ? (
            <div>
              <ProblemStrip>{sayClash(made.dealt.clash)}</ProblemStrip>
            </div>
          ) : (
            <Cards>
              {board.groups.map((group) => (
                <Card key={group.id} style={hueOfGroup(group.number)} aria-label={`Group ${group.number}, ${group.name}`}>
                  <header>
                    <Emblem number={group.number} size={26} />
                    <h3>{group.name}</h3>
                    {group.isLocked && <Tag>Locked</Tag>}
                  </header>
                  {membersIn(board, deal, group.id).map((student) => (
                    <Seat
                      key={student.enrolmentId}
                      type="button"
                      aria-pressed={pins.get(student.enrolmentId) === group.id}
                      data-moved={moved.has(student.enrolmentId) || undefined}
                      data-shown={shown.has(student.enrolmentId) || undefined}
                      onClick={() => pin(student.enrolmentId, group.id)}
                    >
                      <span>
                        <PersonName name={student.name} reading={student.reading} />
                      </span>
                      {pins.get(student.enrolmentId) === group.id && <Pin size={13} aria-label="pinned" />}
                      {moved.has(student.enrolmentId) && <From board={board} student={student} />}
                    </Seat>
                  ))}
                </Card>
              ))}
            </Cards>
          )}
        </Right>
      </Work>
      {acts.pending && <MoveSheet board={board} pending={acts.pending} />}
      <Foot>
        {going ? (
          <>
            <progress value={going.dealing?.part ?? 0} aria-label="How far the deal is" />
            <Small role="status">Looking for a better deal…</Small>
            <span className="grow" />
            <Button isDisabled={!going.dealing} onPress={stop}>
              Take the best so far
            </Button>
          </>
        ) : (
          <>
            <span role="status">{deal && made ? sayQuality(deal, made.isStopped, made.problem.seed) : ''}</span>
            <span className="grow" />
            {acts.canUndo && (
              <Button kind="quiet" onPress={acts.undo} aria-label={`Undo: ${acts.canUndo.says}`}>
                <Undo2 size={15} aria-hidden="true" />
                Undo
              </Button>
            )}
            {deals.length > 0 && (
              <Button kind="quiet" onPress={forget}>
                Discard
              </Button>
            )}
            <Button kind={deal ? 'plain' : 'main'} isDisabled={board.groups.length === 0 || count === 0} onPress={dealNow}>
              <Shuffle size={15} aria-hidden="true" />
              {deals.length === 0 ? `Deal ${count}` : pins.size > 0 ? `Deal again, keeps ${pins.size} pinned` : 'Deal again'}
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

function membersIn(board: BoardView, deal: Deal | null, groupId: GroupId): readonly BoardStudent[] {
  return board.students.filter((student) => (deal ? deal.seats.get(student.enrolmentId) === groupId : student.seats.some((seat) => seat.groupId === groupId)));
}

function From({ board, student }: { readonly board: BoardView; readonly student: BoardStudent }) {
  const group = board.groups.find((each) => each.id === student.seats[0]?.groupId);
  if (!group) return <small>new</small>;
  return (
    <small title={`from ${group.name}`}>
      <Emblem number={group.number} size={18} />
      {group.number}
    </small>
  );
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
