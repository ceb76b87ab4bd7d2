import { useState } from 'react';
import { styled } from 'styled-components';
import type { ActivityView } from '@jigsaw/contract/release';
import { daysLater } from '@jigsaw/core/release';
import { counted } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { Button, Field, Sheet, Small } from '../look/index.js';
import { isOut } from './activityList.js';

const Form = styled.div`
  display: grid;
  gap: 12px;
  .days {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: 8px;
  }
  .days input {
    width: 72px;
  }
  ul {
    max-height: 240px;
    overflow: auto;
    border-top: var(--hair);
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 12px;
    padding: 6px 0;
    border-bottom: var(--hair);
    font: var(--t-13);
  }
  li b {
    overflow-wrap: anywhere;
  }
`;
const usual = [
  { days: -7, says: '1 week earlier' },
  { days: -1, says: '1 day earlier' },
  { days: 1, says: '1 day later' },
  { days: 7, says: '1 week later' },
] as const;

interface MoveSheetProps {
  readonly activities: readonly ActivityView[];
  readonly isBusy: boolean;
  readonly onMove: (days: number) => Promise<void>;
  readonly onClose: () => void;
}

/** All dates of some activities, so many days later or earlier; each is shown before it moves. */
export function MoveSheet({ activities, isBusy, onMove, onClose }: MoveSheetProps) {
  const { course, dates } = useCourse();
  const [typed, setTyped] = useState('7');
  const days = /^-?\d{1,3}$/.test(typed.trim()) ? Number(typed) : null;
  const fault =
    days === null || Math.abs(days) > 730
      ? 'Write a whole number of days, at most 730; with a minus they are earlier.'
      : days === 0
        ? 'Choose a number of days other than 0.'
        : undefined;
  const later = (at: string) =>
    dates.dateTime(new Date(daysLater(Date.parse(at), days ?? 0, course.timeZone)).toISOString());
  const withGroups = activities.filter(isOut).length;
  return (
    <Sheet
      title={`Move the dates of ${counted(activities.length, 'activity', 'activities')}`}
      onClose={onClose}
    >
      <Form>
        <div className="days">
          <Field label="Days later" value={typed} onChange={setTyped} fault={fault} inputMode="numeric" />
          {usual.map(({ days: each, says }) => (
            <Button key={each} isSmall onPress={() => setTyped(String(each))}>
              {says}
            </Button>
          ))}
        </div>
        <Small>
          Opens, due, closes and the dates of exceptions move together and keep their time of day.
          {withGroups > 0 &&
            ` ${withGroups === 1 ? 'One of these is' : `${withGroups} of these are`} released: their groups see the new dates at once. Marks that students have stay as they are.`}
        </Small>
        {fault === undefined && (
          <ul aria-label="Dates as they would be" tabIndex={0}>
            {activities.map(({ id, title, schedule }) => {
              const at = schedule.due ?? schedule.opens ?? schedule.closes;
              const which = schedule.due ? 'due' : schedule.opens ? 'opens' : 'closes';
              return (
                <li key={id}>
                  <b>
                    <bdi>{title}</bdi>
                  </b>
                  {at && (
                    <span>
                      {which} {dates.dateTime(at)} → {later(at)}
                    </span>
                  )}
                </li>
              );
            })}
          </ul>
        )}
      </Form>
      <footer>
        <Button kind="main" isDisabled={fault !== undefined || isBusy} onPress={() => void onMove(days ?? 0)}>
          {days === null || fault !== undefined
            ? 'Move'
            : `Move by ${counted(Math.abs(days), 'day')}${days < 0 ? ', earlier' : ''}`}
        </Button>
      </footer>
    </Sheet>
  );
}
