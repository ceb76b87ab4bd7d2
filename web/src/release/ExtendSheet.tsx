import { skipToken } from '@reduxjs/toolkit/query';
import { useMemo, useState } from 'react';
import { styled } from 'styled-components';
import type { ActivityView, ReachView } from '@jigsaw/contract/release';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import { fold } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse, useReadRosterQuery } from '../course/index.js';
import {
  Button,
  Chosen,
  DateTimeField,
  Field,
  Finder,
  Label,
  Sheet,
  Small,
  useNotice,
  Without,
} from '../look/index.js';
import type { Findable } from '../look/index.js';
import { MarksForeseen } from './MarksForeseen.js';
import { useExtendMutation, useForeseeMarksQuery } from './releaseApi.js';
import type { ExtendedTo } from './releaseApi.js';

const Form = styled.div`
  display: grid;
  gap: 12px;
`;

interface ExtendSheetProps {
  readonly activity: ActivityView;
  readonly groups: readonly ExtendableGroup[];
  readonly due: string | null;
  /** Who is extended for; left out: chosen here. */
  readonly meant?: ExtendedTo;
  readonly onClose: () => void;
}

type ExtendableGroup = Pick<ReachView['groups'][number], 'groupId' | 'number' | 'name'>;

interface Extendable extends Findable {
  readonly to: ExtendedTo;
  readonly name: string;
}

/** Another date for one group or for one student, with the reason that they are shown. */
export function ExtendSheet({ activity, groups, due, meant, onClose }: ExtendSheetProps) {
  const { course, dates } = useCourse();
  const notice = useNotice();
  const { choices, problem, retry } = useExtendables(course.id, groups);
  const [picked, setPicked] = useState<Extendable | null | undefined>(undefined);
  const first = meant && choices.find(({ to }) => JSON.stringify(to) === JSON.stringify(meant));
  const chosen = picked === undefined ? (first ?? null) : picked;
  const [until, setUntil] = useState<string | null>(due);
  const [closes, setCloses] = useState<string | null>(null);
  const [reason, setReason] = useState('');
  const [extend, { error, isLoading }] = useExtendMutation();
  const isForeseen = activity.release !== null && activity.points !== null;
  const marks = useForeseeMarksQuery(
    chosen === null || until === null || !isForeseen
      ? skipToken
      : { activityId: activity.id, version: activity.version, extension: { ...chosen.to, due: until } },
  );
  const isStudent = chosen !== null && 'enrolmentId' in chosen.to;
  const earlier = earlierOf(activity, chosen);
  const isShorter = until !== null && due !== null && Date.parse(until) < Date.parse(due);
  const missing =
    chosen === null
      ? 'Choose a group or student'
      : until === null
        ? 'Choose a time'
        : reason.trim() === ''
          ? 'Give the reason'
          : null;
  const submit = async () => {
    if (chosen === null || until === null) return;
    const { to, name } = chosen;
    const answer = await extend({ activityId: activity.id, to, grant: { due: until, closes, reason } });
    if (!('data' in answer) || !answer.data) return;
    notice(`${name} has until ${dates.dateTime(until)}`, {
      label: 'Undo',
      do: () => void extend({ activityId: activity.id, to, grant: earlier }),
    });
    onClose();
  };
  return (
    <Sheet title="Extend for a group or student" onClose={onClose}>
      <Form>
        {error && <ProblemStrip of={error} />}
        {problem !== undefined && <ProblemStrip of={problem} onRetry={retry} />}
        {chosen === null ? (
          <Finder
            label="Group or student"
            placeholder="Name a group or student"
            choices={choices}
            isFocused
            onFind={setPicked}
          />
        ) : (
          <div style={{ display: 'grid', gap: 4, justifyItems: 'start' }}>
            <Label as="span">{isStudent ? 'Student' : 'Group'}</Label>
            <Chosen>
              <bdi>{chosen.says}</bdi>
              <Without what={chosen.name} onPress={() => setPicked(null)} />
            </Chosen>
          </div>
        )}
        {earlier && (
          <Small role="status">
            {chosen?.name} has until {dates.dateTime(earlier.due)} already: {earlier.reason}. This replaces
            it.
          </Small>
        )}
        <DateTimeField
          label={isStudent ? 'Due for this student' : 'Due for this group'}
          value={until}
          timeZone={course.timeZone}
          onChange={setUntil}
        />
        {activity.schedule.closes !== null && (
          <DateTimeField
            label={isStudent ? 'Closes for this student (optional)' : 'Closes for this group (optional)'}
            value={closes}
            timeZone={course.timeZone}
            onChange={setCloses}
          />
        )}
        <Field
          label={isStudent ? 'Reason, shown to this student alone' : 'Reason, shown to the group'}
          value={reason}
          onChange={setReason}
          placeholder={isStudent ? 'Ill from 9 to 12 November' : 'Their crock cracked on day 9'}
        />
        {isStudent && (
          <Small>
            Others in the group keep their date and are told nothing. What the group hands in counts as late
            for each by their own date.
          </Small>
        )}
        {isShorter && (
          <Small role="alert">
            This is earlier than the due date for everyone ({dates.dateTime(due)}). {chosen?.name ?? 'They'}{' '}
            would have less time.
          </Small>
        )}
        {marks.currentData && marks.currentData.changes.length > 0 && (
          <MarksForeseen foreseen={marks.currentData} />
        )}
      </Form>
      <footer>
        {missing && <Small>{missing}</Small>}
        <Button kind="main" isDisabled={missing !== null || isLoading} onPress={() => void submit()}>
          {chosen ? `Extend for ${chosen.name}` : 'Extend'}
        </Button>
      </footer>
    </Sheet>
  );
}

/** What they were granted before; null: nothing. */
function earlierOf(activity: ActivityView, chosen: Extendable | null) {
  const to = chosen?.to;
  if (!to) return null;
  const found =
    'groupId' in to
      ? activity.extensions.find((each) => each.groupId === to.groupId)
      : activity.studentExtensions.find((each) => each.enrolmentId === to.enrolmentId);
  return found ? { due: found.due, closes: found.closes, reason: found.reason } : null;
}

/** The groups that it goes to, then everyone in the course; two of one name are told apart by their number. */
function useExtendables(courseId: string, groups: readonly ExtendableGroup[]) {
  const roster = useReadRosterQuery(courseId);
  const choices = useMemo((): Extendable[] => {
    const students = (roster.data?.entries ?? []).filter(
      (entry) => entry.role === 'student' && entry.leftAt === null,
    );
    const byName = groupedBy(students, (entry) => entry.name);
    const groupById = keyedBy(groups, (group) => group.groupId);
    return [
      ...groups.map(({ groupId, name, number }) => ({
        id: groupId,
        to: { groupId },
        name,
        says: name,
        found: fold(`${name} ${number}`),
      })),
      ...students.map(({ enrolmentId, name, reading, number, groups: seats }) => {
        const own = seats.flatMap(({ groupId }) => groupById.get(groupId)?.name ?? []);
        const twin = (byName.get(name) ?? []).length > 1 ? number : null;
        return {
          id: enrolmentId,
          to: { enrolmentId },
          name,
          says: [[name, reading, twin].filter(Boolean).join(' '), ...own].join(', '),
          found: fold([name, reading, number, ...own].filter(Boolean).join(' ')),
        };
      }),
    ];
  }, [roster.data, groups]);
  return { choices, problem: unshown(roster), retry: () => void roster.refetch() };
}
