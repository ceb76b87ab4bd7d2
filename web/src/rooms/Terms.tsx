import { useEffect } from 'react';
import { useDispatch } from 'react-redux';
import { styled } from 'styled-components';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { lateness, sayLatePolicy, sayMinutes } from '@jigsaw/core/handin';
import { api } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { kindOf } from '../kinds/index.js';
import { Tag } from '../look/index.js';
import { useNow } from '../page/index.js';

const Line = styled.p`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  padding: 6px 32px 6px 26px;
  border-bottom: var(--hair);
  background: var(--surface);
  font: var(--t-12);
  color: var(--ink-2);
  @media (max-width: 700px) {
    padding: 6px 16px;
  }
`;
const soonMs = 60 * 60_000;

/** When a copy closes and what being late costs; it warns before, and turns at the moment, also on a page that was left open. */
export function Terms({ head }: { readonly head: CopyHead }) {
  const { dates } = useCourse();
  const dispatch = useDispatch();
  const { due, closes } = head.schedule;
  const now = useNow(due, closes);
  const isClosed = closes !== null && now >= Date.parse(closes);
  const isToTurn = isClosed && head.part === 'member' && head.access === 'open';
  useEffect(() => {
    if (isToTurn) dispatch(api.util.invalidateTags(['Copy', 'Room', 'Figures']));
  }, [isToTurn, dispatch]);
  const kind = kindOf(head.kind);
  const isMarked = head.points !== null && due !== null;
  const afterDue = !isMarked
    ? null
    : kind?.isHandedIn
      ? sayLatePolicy(head.latePolicy)
      : (kind?.afterDue ?? null);
  if (closes === null && afterDue === null) return <span />;
  const isOver = head.access !== 'open' || isClosed;
  const warning =
    head.part === 'member' && !isOver ? sayWarning(head, now, dates.time, kind?.isHandedIn ?? false) : null;
  return (
    <Line role="status">
      {warning && <Tag $look="needs">{warning}</Tag>}
      {closes !== null && (
        <b>
          {isClosed
            ? `Closed on ${dates.dateTime(closes)}. You can read it but no longer change it.`
            : `Closes ${dates.dateTime(closes)}.`}
        </b>
      )}
      {afterDue !== null && !isOver && <span>{afterDue}</span>}
    </Line>
  );
}

/** What is about to happen to people still at work. */
function sayWarning(
  { schedule: { due, closes }, latePolicy, points }: CopyHead,
  now: number,
  time: (at: string) => string,
  isHandedIn: boolean,
): string | null {
  const left = (at: string) => Date.parse(at) - now;
  if (closes !== null && left(closes) <= soonMs) return `closes in ${inMinutes(left(closes))}`;
  if (due === null) return null;
  if (left(due) > 0) return left(due) <= soonMs ? `due in ${inMinutes(left(due))}` : null;
  if (!isHandedIn) return 'past due';
  const { minutes, deduction } = lateness(now, Date.parse(due), latePolicy, points ?? '0');
  if (minutes === 0)
    return `past due, no penalty until ${time(new Date(Date.parse(due) + latePolicy.graceMinutes * 60_000).toISOString())}`;
  return deduction === '0' ? null : `late: −${deduction} points`;
}

const inMinutes = (ms: number) => (ms < 60_000 ? 'less than a minute' : sayMinutes(Math.floor(ms / 60_000)));
