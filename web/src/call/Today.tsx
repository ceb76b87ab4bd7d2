import { styled } from 'styled-components';
import type { CallView } from '@jigsaw/contract/call';
import { endOf } from '@jigsaw/core/call';
import { useCourse } from '../course/index.js';
import { PersonName, Small } from '../look/index.js';

const Table = styled.section`
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
  overflow: hidden;
  > header,
  li {
    display: grid;
    grid-template-columns: 200px minmax(0, 1fr);
  }
  > header {
    border-bottom: 1px solid var(--ink);
    align-items: center;
    min-height: 44px;
  }
  h2 {
    font: var(--h-17);
    padding-left: 20px;
  }
  li {
    min-height: 60px;
    border-bottom: var(--hair);
  }
  li:last-child {
    border-bottom: 0;
  }
  .who {
    display: grid;
    align-content: center;
    padding: 6px 8px 6px 20px;
    font-weight: 600;
  }
  .who small {
    font-weight: 400;
  }
  .line {
    position: relative;
    margin: 0 20px 0 8px;
  }
  .line span {
    position: absolute;
    transform: translateX(-50%);
    font: var(--t-12);
    color: var(--ink-2);
  }
  .line i {
    position: absolute;
    top: 32%;
    bottom: 32%;
    min-width: 3px;
    border-radius: 2px;
    background: var(--hue, var(--ink));
  }
  .line b {
    position: absolute;
    top: 0;
    bottom: 0;
    width: 2px;
    background: var(--ink);
  }
  @media (max-width: 700px) {
    > header,
    li {
      grid-template-columns: 116px minmax(0, 1fr);
    }
    .who,
    h2 {
      padding-left: 14px;
    }
    .line span:nth-child(even) {
      display: none;
    }
  }
`;

/** Who was here when today, each on a line of their own. */
export function Today({ view, now }: { readonly view: CallView; readonly now: number }) {
  const { course, dates } = useCourse();
  const isToday = (iso: string) => dates.day(iso) === dates.day(new Date(now).toISOString());
  const visits = view.visits.filter(({ from }) => isToday(from));
  const hour = hoursIn(course.timeZone);
  const ends = (visit: (typeof visits)[number]) => endOf(millis(visit), now) ?? now;
  const from = Math.min(8, ...visits.map((visit) => Math.floor(hour(Date.parse(visit.from)))));
  const to = Math.max(22, Math.ceil(hour(now)));
  const place = (at: number) =>
    `${(Math.min(1, Math.max(0, (hour(at) - from) / (to - from))) * 100).toFixed(2)}%`;
  const marks = Array.from({ length: Math.floor((to - from) / 2) + 1 }, (_each, at) => from + at * 2);
  return (
    <Table aria-label="Today">
      <header>
        <h2>Today</h2>
        <div className="line" style={{ height: 18 }} aria-hidden="true">
          {marks.map((mark) => (
            <span key={mark} style={{ left: `${((mark - from) / (to - from)) * 100}%` }}>
              {mark}
            </span>
          ))}
        </div>
      </header>
      <ul>
        {view.members.map((member) => {
          const own = visits.filter((visit) => visit.enrolmentId === member.enrolmentId);
          const here = view.inNow.find((each) => each.member.enrolmentId === member.enrolmentId);
          const last = view.visits.findLast((visit) => visit.enrolmentId === member.enrolmentId);
          return (
            <li key={member.enrolmentId}>
              <span className="who">
                <PersonName name={member.isYou ? 'You' : member.name} />
                <Small>
                  {here
                    ? `in since ${dates.time(here.since)}`
                    : last
                      ? `left ${isToday(last.from) ? dates.time(new Date(ends(last)).toISOString()) : dates.day(last.from)}`
                      : 'not here yet'}
                </Small>
              </span>
              <span className="line" aria-hidden="true">
                {own.map((visit) => (
                  <i
                    key={visit.from}
                    style={{
                      left: place(Date.parse(visit.from)),
                      width: `calc(${place(ends(visit))} - ${place(Date.parse(visit.from))})`,
                    }}
                  />
                ))}
                <b style={{ left: place(now) }} />
              </span>
            </li>
          );
        })}
      </ul>
    </Table>
  );
}

export const millis = ({ from, seen, left, name }: CallView['visits'][number]) => ({
  name,
  from: Date.parse(from),
  seen: Date.parse(seen),
  left: left === null ? null : Date.parse(left),
});

/** The hour of a moment as clocks there show it, with its part: 10.5. */
function hoursIn(timeZone: string): (at: number) => number {
  const clock = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    hour: 'numeric',
    minute: 'numeric',
    hourCycle: 'h23',
  });
  return (at) => {
    const [hours = 0, minutes = 0] = clock.format(at).split(':').map(Number);
    return hours + minutes / 60;
  };
}
