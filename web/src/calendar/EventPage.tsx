import { CalendarPlus, MapPin } from 'lucide-react';
import { styled } from 'styled-components';
import { EventSettings } from '@jigsaw/contract/calendar';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { happeningOf } from '@jigsaw/core/calendar';
import { apiAddress } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Small, Tag } from '../look/index.js';
import { useNow } from '../page/index.js';
import { sayTimes } from '../kinds/index.js';
import { Brief, CopyFrame, useSeenHere } from '../rooms/index.js';
import { CalendarSheetButton } from './CalendarSheetButton.js';

const Room = styled.div`
  overflow: auto;
  padding: 20px 32px 32px;
  > div {
    max-width: 860px;
    display: grid;
    gap: 16px;
  }
  @media (max-width: 700px) {
    padding: 16px;
  }
`;
const When = styled.section`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  align-items: center;
  gap: 14px 22px;
  padding: 18px 22px;
  background: var(--surface);
  border: 1px solid var(--ink);
  border-radius: var(--r-3);
  .day {
    display: grid;
    justify-items: center;
    min-width: 76px;
    padding: 8px 10px;
    border-radius: var(--r-2);
    background: var(--hue-tint, var(--sunk));
    color: var(--hue-ink, var(--ink));
    font: 600 13px/16px var(--font-text);
  }
  .day b {
    font: var(--h-32);
    color: var(--ink);
  }
  h2 {
    font: var(--h-22);
  }
  p {
    margin-top: 2px;
    color: var(--ink-2);
    overflow-wrap: anywhere;
  }
  p svg {
    vertical-align: -2px;
    margin-right: 5px;
  }
  &[data-cancelled] h2 {
    text-decoration: line-through;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  @media (max-width: 700px) {
    grid-template-columns: auto minmax(0, 1fr);
    padding: 14px 16px;
    h2 {
      font: var(--h-17);
    }
    .acts > * {
      min-height: 44px;
    }
    .acts {
      grid-column: 1 / -1;
    }
  }
`;
const File = styled.a`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  height: var(--ctl);
  padding: 0 11px;
  border: 1px solid var(--ink);
  border-radius: var(--r-2);
  background: var(--ink);
  color: var(--on-ink);
  font: 620 13px/1 var(--font-text);
  text-decoration: none;
  white-space: nowrap;
`;
const Sheet = styled.article`
  font: var(--t-15);
  overflow-wrap: anywhere;
`;

/** When and where it is, and how it gets into one's own calendar. */
export default function EventPage({ head }: { readonly head: CopyHead }) {
  const { course, dates } = useCourse();
  const happens = happeningOf(EventSettings.parse(head.settings));
  const now = useNow(happens?.starts ?? null, happens?.ends ?? null);
  const seen = useSeenHere(head);
  return (
    <CopyFrame head={head}>
      <Room>
        <div>
          {happens && (
            <When aria-label="When and where" data-cancelled={happens.isCancelled || undefined} ref={seen}>
              <Day iso={happens.starts} timeZone={course.timeZone} />
              <div>
                <h2>{sayTimes(happens.starts, happens.ends, dates)}</h2>
                <p>
                  {happens.isCancelled ? (
                    <Tag $look="needs">Cancelled</Tag>
                  ) : (
                    sayHowFar(happens, now, dates.fromNow)
                  )}
                  <Small> Times in {course.timeZone}</Small>
                </p>
                {happens.place !== '' && (
                  <p>
                    <MapPin size={15} aria-hidden="true" />
                    <Place place={happens.place} />
                  </p>
                )}
              </div>
              <span className="acts">
                <File href={apiAddress(`copies/${head.id}/event.ics`)} download>
                  <CalendarPlus size={16} aria-hidden="true" />
                  Add to calendar
                </File>
                <CalendarSheetButton />
              </span>
            </When>
          )}
          <Sheet aria-label="About it">
            <Brief head={head} />
          </Sheet>
        </div>
      </Room>
    </CopyFrame>
  );
}

function Day({ iso, timeZone }: { readonly iso: string; readonly timeZone: string }) {
  const part = (options: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat('en-GB', { timeZone, ...options }).format(new Date(iso));
  return (
    <span className="day" aria-hidden="true">
      {part({ weekday: 'short' })}
      <b>{part({ day: 'numeric' })}</b>
      {part({ month: 'short' })}
    </span>
  );
}

/** An address is a link; only such as browsers open as pages. */
function Place({ place }: { readonly place: string }) {
  return /^https?:\/\/\S+$/i.test(place) ? (
    <a href={place} target="_blank" rel="noopener noreferrer">
      {place}
    </a>
  ) : (
    place
  );
}

function sayHowFar(
  { starts, ends }: { readonly starts: string; readonly ends: string },
  now: number,
  fromNow: (iso: string, now: number) => string,
): string {
  if (Date.parse(starts) > now) return `Starts ${fromNow(starts, now)}.`;
  return Date.parse(ends) > now ? `Under way, ends ${fromNow(ends, now)}.` : `It was ${fromNow(ends, now)}.`;
}
