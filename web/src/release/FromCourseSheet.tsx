import { useState } from 'react';
import { styled } from 'styled-components';
import type { CourseView } from '@jigsaw/contract/course';
import type { ManyChanged } from '@jigsaw/contract/release';
import type { ActivityId } from '@jigsaw/core/ids';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { kindOf } from '../kinds/index.js';
import { Button, Choice, datesIn, Sheet, Small, Waiting } from '../look/index.js';
import { useAct } from '../page/index.js';
import { KindIcon } from './KindIcon.js';
import { useChangeManyMutation, useCopyFromCourseMutation, useListActivitiesQuery } from './releaseApi.js';

const Form = styled.div`
  display: grid;
  gap: 12px;
  ul {
    max-height: 300px;
    overflow: auto;
    border-block: var(--hair);
  }
  li + li {
    border-top: var(--hair);
  }
  label {
    display: grid;
    grid-template-columns: 20px 20px minmax(0, 1fr) auto;
    gap: 2px 10px;
    align-items: center;
    min-height: 40px;
    padding: 4px 8px;
    cursor: pointer;
  }
  li label:hover {
    background: var(--wash);
  }
  b {
    font: var(--h-14);
    overflow-wrap: anywhere;
  }
  label.dates {
    grid-template-columns: 20px minmax(0, 1fr);
  }
  .line {
    display: flex;
    justify-content: space-between;
    align-items: end;
    gap: 8px;
  }
`;
const none: ReadonlySet<ActivityId> = new Set();

interface FromCourseSheetProps {
  /** Others in which the person releases. */
  readonly courses: readonly CourseView[];
  readonly onClose: () => void;
}

/** Activities of another course, copied as drafts of this one. */
export function FromCourseSheet({ courses, onClose }: FromCourseSheetProps) {
  const { course } = useCourse();
  const [from, setFrom] = useState(courses[0]);
  const [chosen, setChosen] = useState(none);
  const [keepsDates, setKeepsDates] = useState(false);
  const remove = useAct(useChangeManyMutation(), { says: () => 'The copies were deleted' });
  const copy = useAct(useCopyFromCourseMutation(), {
    says: ({ activities }) => `${counting(activities.length)} copied as drafts`,
    undo: (answer) => () =>
      remove({ courseId: course.id, activities: versionsOf(answer), act: { kind: 'delete' } }),
    isRefusalShown: true,
  });
  const list = useListActivitiesQuery(from?.id ?? '', { skip: !from });
  if (!from) return null;
  const dates = datesIn(from.timeZone);
  const activities = (list.currentData?.activities ?? []).toSorted((a, b) => a.title.localeCompare(b.title));
  const isAll = activities.length > 0 && activities.every(({ id }) => chosen.has(id));
  const toggle = (id: ActivityId) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  const doIt = async () => {
    const activityIds = activities.flatMap(({ id }) => (chosen.has(id) ? id : []));
    if (await copy({ courseId: course.id, body: { activityIds, keepsDates } })) onClose();
  };
  return (
    <Sheet title="Copy from another course" onClose={onClose}>
      <Form>
        <div className="line">
          <Choice
            label="Course"
            value={from.id}
            choices={courses.map(({ id, code, title, term }) => ({
              id,
              label: [code, title, term].filter(Boolean).join(' · '),
            }))}
            onChange={(id) => {
              setFrom(courses.find((each) => each.id === id));
              setChosen(none);
            }}
          />
          {activities.length > 1 && (
            <Button isSmall onPress={() => setChosen(isAll ? none : new Set(activities.map(({ id }) => id)))}>
              {isAll ? 'Select none' : `Select all ${activities.length}`}
            </Button>
          )}
        </div>
        {unshown(list) !== undefined ? (
          <ProblemStrip of={list.error} onRetry={() => void list.refetch()} />
        ) : !list.currentData ? (
          <Waiting what="its activities" rows={4} />
        ) : activities.length === 0 ? (
          <p>There are no activities in this course. Choose another one.</p>
        ) : (
          <ul aria-label={`Activities of ${from.title}`}>
            {activities.map(({ id, kind, title, schedule: { due } }) => (
              <li key={id}>
                <label>
                  <input type="checkbox" checked={chosen.has(id)} onChange={() => toggle(id)} />
                  <KindIcon kind={kind} />
                  <b>{title}</b>
                  <Small>{due ? `due ${dates.dateTime(due)}` : kindOf(kind)?.word}</Small>
                </label>
              </li>
            ))}
          </ul>
        )}
        <label className="dates">
          <input
            type="checkbox"
            checked={keepsDates}
            onChange={(event) => setKeepsDates(event.target.checked)}
          />
          <span>Keep when they open, are due and close</span>
        </label>
        <Small>
          Text, files, rubrics and settings are copied. Groups are not: a line for some groups is no one’s
          until you say whose it is here.
        </Small>
        {copy.error !== undefined && <ProblemStrip of={copy.error} />}
      </Form>
      <footer>
        <Button kind="main" isDisabled={chosen.size === 0 || copy.isBusy} onPress={() => void doIt()}>
          {chosen.size === 0 ? 'Copy' : `Copy ${counting(chosen.size)}`}
        </Button>
      </footer>
    </Sheet>
  );
}

const counting = (count: number) => counted(count, 'activity', 'activities');
const versionsOf = ({ activities }: ManyChanged) => activities.map(({ id, version }) => ({ id, version }));
