import { Navigate } from 'react-router';
import { styled } from 'styled-components';
import type { CourseSettings } from '@jigsaw/contract/course';
import { may } from '@jigsaw/core/course';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Bar, ButtonLink, Page, Part, Scroll, Small, Waiting } from '../look/index.js';
import { CourseNames } from './CourseNames.js';
import { SetOrderList } from './SetOrderList.js';
import { StaffSight } from './StaffSight.js';
import { useReadCourseSettingsQuery } from './setsApi.js';

const Parts = styled.main`
  max-width: 1040px;
  background: var(--surface);
  border-right: var(--hair);
  min-height: 100%;
  > section > div {
    max-width: 760px;
  }
`;

/** One place for what holds in the whole course: its names, what assistants see, and the order of its sets. */
export function CoursePage() {
  const { course } = useCourse();
  const isStaff = course.role !== 'student';
  const settings = useReadCourseSettingsQuery(course.id, { skip: !isStaff });
  if (!isStaff) return <Navigate to={`/c/${course.id}/due`} replace />;
  if (unshown(settings) !== undefined)
    return <ProblemStrip of={settings.error} onRetry={() => void settings.refetch()} />;
  if (!settings.data) return <Waiting what="the course" />;
  return <Settings settings={settings.data} />;
}

function Settings({ settings }: { readonly settings: CourseSettings }) {
  const { course } = useCourse();
  const mayChange = course.role === 'instructor';
  return (
    <Page>
      <Bar>
        <h1>Course settings</h1>
        {!mayChange && <Small>Only instructors can change them.</Small>}
        <span className="grow" />
        {may(course.role, 'read-audit') && <ButtonLink to="../audit">Audit trail</ButtonLink>}
      </Bar>
      <Scroll>
        <Parts>
          <Part aria-label="Names">
            <header>
              <h2>Names</h2>
              <p>Shown to everyone in the course</p>
            </header>
            <div>
              <CourseNames settings={settings} mayChange={mayChange} />
            </div>
          </Part>
          <Part aria-label="Staff">
            <header>
              <h2>Staff</h2>
              <p>Who sees what</p>
            </header>
            <StaffSight key={settings.assistantsSee} settings={settings} mayChange={mayChange} />
          </Part>
          <Part aria-label="Group sets">
            <header>
              <h2>Group sets</h2>
              <p>Their order, and archived ones</p>
            </header>
            <SetOrderList mayChange={mayChange} />
          </Part>
        </Parts>
      </Scroll>
    </Page>
  );
}
