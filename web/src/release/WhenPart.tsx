import { skipToken } from '@reduxjs/toolkit/query';
import { useState } from 'react';
import { styled } from 'styled-components';
import type { ActivityDraft, ActivityView, ReachView } from '@jigsaw/contract/release';
import type { GroupId } from '@jigsaw/core/ids';
import { ProblemStrip } from '../api/index.js';
import {
  Button,
  Choice,
  DateTimeField,
  Emblem,
  Field,
  Part,
  Sheet,
  Small,
  useNotice,
} from '../look/index.js';
import { useCourse } from '../course/index.js';
import { MarksForeseen } from './MarksForeseen.js';
import { useExtendMutation, useForeseeMarksQuery } from './releaseApi.js';

const Chip = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  padding: 2px 4px 2px 6px;
  border: var(--hair);
  border-radius: var(--r-2);
  background: var(--surface);
  font: var(--t-12);
`;

interface WhenPartProps {
  readonly activity: ActivityView;
  readonly draft: ActivityDraft;
  readonly groups: ReachView['groups'];
  readonly goesLiveAt: string | null;
  readonly isOut: boolean;
  readonly onSchedule: (schedule: ActivityDraft['schedule']) => void;
  readonly onGoesLive: (at: string | null) => void;
}

/** The dates of all, and which groups have longer and why. */
export function WhenPart({
  activity,
  draft,
  groups,
  goesLiveAt,
  isOut,
  onSchedule,
  onGoesLive,
}: WhenPartProps) {
  const { course, dates } = useCourse();
  const notice = useNotice();
  const [extend, { error }] = useExtendMutation();
  const [isGiving, setIsGiving] = useState(false);
  const { schedule } = draft;
  const takeBack = async (extension: ActivityView['extensions'][number]) => {
    const { groupId, due, closes, reason, name } = extension;
    const answer = await extend({ activityId: activity.id, groupId, grant: null });
    if ('data' in answer && answer.data)
      notice(`${name} has no extension now`, {
        label: 'Undo',
        do: () => void extend({ activityId: activity.id, groupId, grant: { due, closes, reason } }),
      });
  };
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
          {(['opens', 'due', 'closes'] as const).map((which) => (
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
          {schedule.closes ? 'After it closes they can read, but no longer work in it.' : 'It never closes.'}
        </Small>
        {error && <ProblemStrip of={error} />}
        <div className="row">
          {activity.extensions.length > 0 && <Small>Different for</Small>}
          {activity.extensions.map((extension) => (
            <Chip key={extension.groupId}>
              <Emblem number={extension.number} size={22} />
              <span>
                <b>{extension.name}</b>, due {dates.dateTime(extension.due)}
                {extension.closes && `, closes ${dates.dateTime(extension.closes)}`}: {extension.reason}
              </span>
              <Button
                kind="quiet"
                isSmall
                onPress={() => void takeBack(extension)}
                aria-label={`Remove extension of ${extension.name}`}
              >
                Remove
              </Button>
            </Chip>
          ))}
          {groups.length > 0 && (
            <Button kind="quiet" isSmall onPress={() => setIsGiving(true)}>
              Extend for a group…
            </Button>
          )}
        </div>
        {isGiving && (
          <GiveLonger
            activity={activity}
            groups={groups}
            due={schedule.due}
            onClose={() => setIsGiving(false)}
          />
        )}
      </div>
    </Part>
  );
}

interface GiveLongerProps {
  readonly activity: ActivityView;
  readonly groups: ReachView['groups'];
  readonly due: string | null;
  readonly onClose: () => void;
}

function GiveLonger({ activity, groups, due, onClose }: GiveLongerProps) {
  const { course, dates } = useCourse();
  const notice = useNotice();
  const [groupId, setGroupId] = useState<GroupId | null>(null);
  const [until, setUntil] = useState<string | null>(due);
  const [closes, setCloses] = useState<string | null>(null);
  const [reason, setReason] = useState('');
  const [extend, { error, isLoading }] = useExtendMutation();
  const name = groups.find((group) => group.groupId === groupId)?.name;
  const isForeseen = activity.release !== null && activity.points !== null;
  const marks = useForeseeMarksQuery(
    groupId === null || until === null || !isForeseen
      ? skipToken
      : { activityId: activity.id, version: activity.version, extension: { groupId, due: until } },
  );
  const isShorter = until !== null && due !== null && Date.parse(until) < Date.parse(due);
  const missing =
    groupId === null
      ? 'Choose a group'
      : until === null
        ? 'Choose a time'
        : reason.trim() === ''
          ? 'Give the reason'
          : null;
  const submit = async () => {
    if (groupId === null || until === null) return;
    const answer = await extend({ activityId: activity.id, groupId, grant: { due: until, closes, reason } });
    if (!('data' in answer) || !answer.data) return;
    notice(`${name} has until ${dates.dateTime(until)}`, {
      label: 'Undo',
      do: () => void extend({ activityId: activity.id, groupId, grant: null }),
    });
    onClose();
  };
  return (
    <Sheet title="Extend for a group" onClose={onClose}>
      <div style={{ display: 'grid', gap: 12 }}>
        {error && <ProblemStrip of={error} />}
        <Choice
          label="Group"
          value={groupId}
          placeholder="Which group"
          choices={groups.map((group) => ({ id: group.groupId, label: group.name }))}
          onChange={setGroupId}
        />
        <DateTimeField
          label="Due for this group"
          value={until}
          timeZone={course.timeZone}
          onChange={setUntil}
        />
        {activity.schedule.closes !== null && (
          <DateTimeField
            label="Closes for this group (optional)"
            value={closes}
            timeZone={course.timeZone}
            onChange={setCloses}
          />
        )}
        <Field
          label="Reason, shown to the group"
          value={reason}
          onChange={setReason}
          placeholder="Their crock cracked on day 9"
        />
        {isShorter && (
          <Small role="alert">
            This is earlier than the due date for everyone ({dates.dateTime(due)}). {name ?? 'The group'}{' '}
            would have less time.
          </Small>
        )}
        {marks.currentData && marks.currentData.changes.length > 0 && (
          <MarksForeseen foreseen={marks.currentData} />
        )}
      </div>
      <footer>
        {missing && <Small>{missing}</Small>}
        <Button kind="main" isDisabled={missing !== null || isLoading} onPress={() => void submit()}>
          {name ? `Extend for ${name}` : 'Extend'}
        </Button>
      </footer>
    </Sheet>
  );
}
