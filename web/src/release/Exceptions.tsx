import { useState } from 'react';
import type { ActivityView, ReachView } from '@jigsaw/contract/release';
import { ProblemStrip } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Emblem, GroupLines, Small, useNotice } from '../look/index.js';
import { ExtendSheet } from './ExtendSheet.js';
import { useExtendMutation } from './releaseApi.js';
import type { ExtendedTo } from './releaseApi.js';

interface ExceptionsProps {
  readonly activity: ActivityView;
  readonly groups: ReachView['groups'];
  readonly due: string | null;
}

interface Exception {
  readonly to: ExtendedTo;
  /** null: one student’s own. */
  readonly number: number | null;
  readonly name: string;
  readonly due: string;
  readonly closes: string | null;
  readonly reason: string;
}

/** Groups and students with dates of their own, each with its reason and the way back to everyone’s. */
export function Exceptions({ activity, groups, due }: ExceptionsProps) {
  const { dates } = useCourse();
  const notice = useNotice();
  const [extend, { error }] = useExtendMutation();
  const [isGiving, setIsGiving] = useState(false);
  const exceptions: Exception[] = [
    ...activity.extensions.map(({ groupId, ...each }) => ({ to: { groupId }, ...each })),
    ...activity.studentExtensions.map(({ enrolmentId, ...each }) => ({
      to: { enrolmentId },
      ...each,
      number: null,
    })),
  ];
  const takeBack = async ({ to, name, due, closes, reason }: Exception) => {
    const answer = await extend({ activityId: activity.id, to, grant: null });
    if ('data' in answer && answer.data)
      notice(`${name} has no extension now`, {
        label: 'Undo',
        do: () => void extend({ activityId: activity.id, to, grant: { due, closes, reason } }),
      });
  };
  return (
    <>
      {error && <ProblemStrip of={error} />}
      {exceptions.length > 0 && (
        <GroupLines aria-label="Different for">
          {exceptions.map((exception) => (
            <li key={JSON.stringify(exception.to)}>
              {exception.number === null ? <span /> : <Emblem number={exception.number} size={22} />}
              <span>
                <b>
                  <bdi>{exception.name}</bdi>
                </b>
                , due {dates.dateTime(exception.due)}
                {exception.closes && `, closes ${dates.dateTime(exception.closes)}`}:{' '}
                <bdi>{exception.reason}</bdi>
              </span>
              <Button
                kind="quiet"
                isSmall
                onPress={() => void takeBack(exception)}
                aria-label={`Remove extension of ${exception.name}`}
              >
                Remove
              </Button>
            </li>
          ))}
        </GroupLines>
      )}
      <div className="row">
        <Button kind="quiet" isSmall onPress={() => setIsGiving(true)}>
          Extend for a group or student…
        </Button>
        {activity.extensions.length > 0 && activity.studentExtensions.length > 0 && (
          <Small>Of a group’s date and a student’s own, the later one counts.</Small>
        )}
      </div>
      {isGiving && (
        <ExtendSheet activity={activity} groups={groups} due={due} onClose={() => setIsGiving(false)} />
      )}
    </>
  );
}
