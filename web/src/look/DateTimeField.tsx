import { parseAbsolute } from '@internationalized/date';
import type { ZonedDateTime } from '@internationalized/date';
import { Calendar as CalendarIcon, ChevronLeft, ChevronRight, X } from 'lucide-react';
import {
  Button,
  Calendar,
  CalendarCell,
  CalendarGrid,
  DateInput,
  DatePicker,
  DateSegment,
  Dialog,
  Group,
  Heading,
  I18nProvider,
  Label,
  Popover,
} from 'react-aria-components';
import { useRef, useState } from 'react';
import { styled } from 'styled-components';
import { FieldFault } from './controls.js';

const Frame = styled(DatePicker<ZonedDateTime>)`
  /* The field shows where the focus is, and none of what is around and in it. */
  &[data-focus-visible],
  > [role='group'] > [data-focus-visible] {
    outline: none;
  }
  display: grid;
  gap: 4px;
  min-width: 0;
  > label {
    font: 600 12px/16px var(--font-text);
    color: var(--ink-2);
  }
  > [role='group'] {
    display: flex;
    align-items: center;
    height: var(--ctl);
    padding-left: 4px;
    border: 1px solid var(--edge);
    border-radius: var(--r-2);
    background: var(--surface);
  }
  > [role='group'][data-focus-within] {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
  &[data-invalid] > [role='group'] {
    border-color: var(--attn-line);
    box-shadow: inset 0 0 0 1px var(--attn-line);
  }
  [role='spinbutton'] {
    min-width: 24px;
    height: 24px;
    line-height: 24px;
    text-align: center;
    border-radius: 2px;
    outline: 0;
  }
  [role='spinbutton'][data-placeholder] {
    color: var(--ink-3);
  }
  [role='spinbutton'][data-focused] {
    background: var(--ink);
    color: var(--on-ink);
  }
  .dates {
    flex: 1;
    display: flex;
    white-space: pre;
    overflow: hidden;
    line-height: 24px;
    font: 13px/24px var(--font-text);
  }
  button {
    display: grid;
    place-items: center;
    width: 25px;
    height: 30px;
    padding: 0;
    border: 0;
    background: none;
    cursor: pointer;
    color: var(--ink-2);
    flex: none;
  }
`;
const Sheet = styled(Popover)`
  background: var(--surface);
  border: 1px solid var(--ink);
  border-radius: var(--r-2);
  box-shadow: var(--lift);
  padding: 12px;
  header {
    display: flex;
    align-items: center;
    justify-content: space-between;
    margin-bottom: 6px;
  }
  h2 {
    font: var(--h-14);
  }
  header button {
    width: 28px;
    height: 28px;
    border: 0;
    background: none;
    cursor: pointer;
    display: grid;
    place-items: center;
  }
  th {
    width: 32px;
    text-align: center;
  }
  td div {
    width: 32px;
    height: 30px;
    display: grid;
    place-items: center;
    border-radius: var(--r-1);
    cursor: pointer;
  }
  td div[data-hovered] {
    background: var(--wash-2);
  }
  td div[data-selected] {
    background: var(--ink);
    color: var(--on-ink);
  }
  td div[data-outside-month] {
    visibility: hidden;
  }
`;

interface DateTimeFieldProps {
  readonly label: string;
  /** ISO 8601, UTC. */
  readonly value: string | null;
  readonly onChange: (value: string | null) => void;
  /** IANA name: what is typed is read in it. */
  readonly timeZone: string;
}

/** A moment, typed or picked, in the course's time zone. Empty is allowed. */
export function DateTimeField({ label, value, onChange, timeZone }: DateTimeFieldProps) {
  const zoned = value === null ? null : parseAbsolute(value, timeZone);
  const frame = useRef<HTMLDivElement>(null);
  const [fault, setFault] = useState<string | null>(null);
  const change = (next: ZonedDateTime | null) => {
    setFault(null);
    onChange(next === null ? null : next.toDate().toISOString());
  };
  return (
    <I18nProvider locale="en-GB">
      <Frame
        ref={frame}
        value={zoned}
        onChange={change}
        isInvalid={fault !== null}
        onFocusChange={(isHere) => setFault(isHere ? null : halfTyped(frame.current))}
        granularity="minute"
        hideTimeZone
        hourCycle={24}
        shouldForceLeadingZeros
        placeholderValue={parseAbsolute(defaultMoment(), timeZone)}
      >
        <Label>{label}</Label>
        <Group>
          <DateInput className="dates">{(segment) => <DateSegment segment={segment} />}</DateInput>
          {value !== null && (
            <Button
              slot={null}
              aria-label={`No date for ${label.toLowerCase()}`}
              onPress={() => onChange(null)}
            >
              <X size={14} aria-hidden="true" />
            </Button>
          )}
          <Button aria-label={`Pick a day for ${label.toLowerCase()}`}>
            <CalendarIcon size={15} aria-hidden="true" />
          </Button>
        </Group>
        {fault !== null && <FieldFault>{fault}</FieldFault>}
        <Sheet>
          <Dialog aria-label={label}>
            <Calendar>
              <header>
                <Button slot="previous">
                  <ChevronLeft size={16} aria-hidden="true" />
                </Button>
                <Heading level={2} />
                <Button slot="next">
                  <ChevronRight size={16} aria-hidden="true" />
                </Button>
              </header>
              <CalendarGrid>{(date) => <CalendarCell date={date} />}</CalendarGrid>
            </Calendar>
          </Dialog>
        </Sheet>
      </Frame>
    </I18nProvider>
  );
}

/** A field that is filled in part is no moment yet, and must not pass for an empty one. */
function halfTyped(frame: Element | null): string | null {
  const parts = [...(frame?.querySelectorAll('[role=spinbutton]') ?? [])];
  const empty = parts.filter((part) => part.hasAttribute('data-placeholder'));
  if (empty.length === 0 || empty.length === parts.length) return null;
  const isTime = empty.every((part) => ['hour', 'minute'].includes(part.getAttribute('data-type') ?? ''));
  return isTime ? 'Add a time.' : 'Complete the date or clear it.';
}

/** Five in the afternoon, today: where a new date starts from. */
function defaultMoment(): string {
  const now = new Date();
  now.setHours(17, 0, 0, 0);
  return now.toISOString();
}
