import type { ActivityDraft, ActivityView, ReachView } from '@jigsaw/contract/release';
import { useCourse } from '../course/index.js';
import { DateTimeField, Part, Small } from '../look/index.js';
import { Exceptions } from './Exceptions.js';

interface WhenPartProps {
  readonly activity: ActivityView;
  readonly draft: ActivityDraft;
  readonly groups: ReachView['groups'];
  readonly goesLiveAt: string | null;
  readonly isOut: boolean;
  /** Something is to be done in it, so that it can be due. */
  readonly isWork: boolean;
  readonly onSchedule: (schedule: ActivityDraft['schedule']) => void;
  readonly onGoesLive: (at: string | null) => void;
}

/** The dates of all, and who has others and why. */
export function WhenPart({
  activity,
  draft,
  groups,
  goesLiveAt,
  isOut,
  isWork,
  onSchedule,
  onGoesLive,
}: WhenPartProps) {
  const { course, dates } = useCourse();
  const { schedule } = draft;
  return (
    <Part>
      <header>
        <h2>When</h2>
        <p>Times in {course.timeZone}</p>
      </header>
      <div>
        <div className="when">
          {!isOut && (
            <DateTimeField
              label="Goes live"
              value={goesLiveAt}
              timeZone={course.timeZone}
              onChange={onGoesLive}
            />
          )}
          {(isWork ? (['opens', 'due', 'closes'] as const) : (['opens', 'closes'] as const)).map((which) => (
            <DateTimeField
              key={which}
              label={{ opens: 'Opens to groups', due: 'Due', closes: 'Closes' }[which]}
              value={schedule[which]}
              timeZone={course.timeZone}
              onChange={(value) => onSchedule({ ...schedule, [which]: value })}
            />
          ))}
        </div>
        <Small>
          {!isOut &&
            (goesLiveAt
              ? `It will be released automatically on ${dates.dateTime(goesLiveAt)}. `
              : 'It is released when you press the button. ')}
          {schedule.opens ? `Groups see nothing before ${dates.dateTime(schedule.opens)}. ` : ''}
          {schedule.closes
            ? `After it closes they can read, but no longer ${isWork ? 'work' : 'write'} in it.`
            : 'It never closes.'}
        </Small>
        {isWork && <Exceptions activity={activity} groups={groups} due={schedule.due} />}
      </div>
    </Part>
  );
}
