import { useMemo, useState } from 'react';
import { styled } from 'styled-components';
import type { Gradebook, GradebookCell } from '@jigsaw/contract/gradebook';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { counted } from '@jigsaw/core/text';
import { apiAddress, ProblemStrip, unshown } from '../api/index.js';
import { Bar, Choice, Empty, Muted, Page, Waiting, FootBar, DownloadLink } from '../look/index.js';
import { useAudienceFilter } from '../audiences/index.js';
import { useCourse } from '../course/index.js';
import { WriteButton } from '../messages/index.js';
import { GradebookGrid } from './GradebookGrid.js';
import { useReadGradebookQuery } from './marksApi.js';
import { MarksViews } from './MarksViews.js';

const Frame = styled(Page)`
  grid-template-rows: auto minmax(0, 1fr) 32px;
`;

const everyone = 'everyone';

export function GradebookPage() {
  const { course } = useCourse();
  const book = useReadGradebookQuery(course.id);
  const [chosen, choose] = useState(everyone);
  const groups = useMemo(() => groupsIn(book.data), [book.data]);
  const released = useMemo(() => countReleased(book.data), [book.data]);
  const audience = useAudienceFilter(course.id, chosen);
  const { people, isChosen } = audience;
  // A group or an audience that is gone meanwhile narrows nothing.
  const group = isChosen || groups.some((each) => each.id === chosen) ? chosen : everyone;
  const shown = useMemo(
    () => (isChosen ? ofPeople(book.data, people) : shownOf(book.data, group)),
    [book.data, group, isChosen, people],
  );
  if (unshown(book) !== undefined)
    return <ProblemStrip of={book.error} onRetry={() => void book.refetch()} />;
  if (!book.data) return <Waiting what="the gradebook" rows={12} />;
  const { activities, students } = book.data;
  return (
    <Frame>
      <Bar>
        <MarksViews />
        <div style={{ minWidth: 190 }}>
          <Choice
            label="Show"
            isLabelHidden
            value={group}
            choices={[
              { id: everyone, label: `All ${students.length} students` },
              ...audience.choices,
              ...groups,
            ]}
            onChange={choose}
          />
        </div>
        <span className="grow" />
        <Muted>{counted(released, 'mark')} released</Muted>
        <DownloadLink href={apiAddress(`courses/${course.id}/gradebook.csv`)} name="gradebook.csv">
          Released marks as CSV
        </DownloadLink>
      </Bar>
      {audience.error !== undefined && <ProblemStrip of={audience.error} />}
      {activities.length === 0 ? (
        <Empty title="Nothing to mark yet">
          Each assignment that is released becomes a column here, named by its title as it is now.
        </Empty>
      ) : isChosen && people === null && audience.error === undefined ? (
        <Waiting what="the people of this audience" rows={12} />
      ) : (
        <GradebookGrid activities={activities} students={shown} key={group} />
      )}
      <FootBar>
        <span>{counted(shown.length, 'student')}</span>
        <WriteButton
          label={`Write to ${shown.length === 1 ? sure(shown[0]).name : `these ${shown.length} students`}…`}
          people={shown}
        />
        <span>Grey: draft, hidden from students. Dot: late. Dotted underline: changed since release.</span>
      </FootBar>
    </Frame>
  );
}

const isGiven = (cell: GradebookCell) => cell.state === 'released' || cell.state === 'excused';
function countReleased(book: Gradebook | undefined): number {
  let count = 0;
  for (const { cells } of book?.students ?? []) for (const own of cells) count += own.filter(isGiven).length;
  return count;
}

const shownOf = (book: Gradebook | undefined, group: string): Gradebook['students'] =>
  group === everyone
    ? (book?.students ?? [])
    : (book?.students ?? []).filter((student) => student.groups.some((each) => each.groupId === group));

/** @param people null: they are being asked for. */
const ofPeople = (
  book: Gradebook | undefined,
  people: ReadonlySet<EnrolmentId> | null,
): Gradebook['students'] => (book?.students ?? []).filter((student) => people?.has(student.enrolmentId));

/** The groups to filter by, set by set. */
function groupsIn(book: Gradebook | undefined): { id: string; label: string }[] {
  const found = new Map<string, { label: string; order: string }>();
  for (const student of book?.students ?? []) {
    for (const group of student.groups)
      found.set(group.groupId, {
        label: group.name,
        order: `${group.setId} ${String(group.number).padStart(4, '0')}`,
      });
  }
  return [...found]
    .sort(([, a], [, b]) => a.order.localeCompare(b.order))
    .map(([id, { label }]) => ({ id, label }));
}
