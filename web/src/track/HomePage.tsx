import { ArrowRight } from 'lucide-react';
import { lazy, Suspense } from 'react';
import { Link, Navigate, useLocation, useOutletContext } from 'react-router';
import { styled } from 'styled-components';
import type { CourseView } from '@jigsaw/contract/course';
import type { SessionView } from '@jigsaw/contract/identity';
import type { Home } from '@jigsaw/contract/track';
import { ProblemStrip, unshown } from '../api/index.js';
import { NewCourse, useListCoursesQuery } from '../course/index.js';
import { MailLinkButton } from '../identity/index.js';
import { Empty, ProductMark, Tag, Waiting } from '../look/index.js';
import { DueLines } from './DueLines.js';
import { useReadHomeQuery } from './homeApi.js';
import { callingAt, sideOf } from './stations.js';

/** Fetched where there is something to keep up with. */
const CalendarSheetButton = lazy(async () => ({
  default: (await import('../calendar/index.js')).CalendarSheetButton,
}));

const Frame = styled.main`
  max-width: 760px;
  margin: 0 auto;
  padding: 48px var(--s-4);
  font: var(--t-15);
  h1 {
    font: var(--h-32);
    display: flex;
    gap: 14px;
    align-items: center;
    margin-bottom: 20px;
  }
  > h2 {
    margin: 28px 0 10px;
  }
`;
const Row = styled.li`
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 18px;
  gap: 4px 16px;
  align-items: center;
  padding: 14px 16px;
  background: var(--surface);
  &:not(:last-child) {
    border-bottom: var(--hair);
  }
  &:hover {
    background: var(--sunk);
  }
  a.course {
    font: var(--h-17);
    text-decoration: none;
  }
  /* All of the row leads into the course, but for what in it leads further. */
  a.course::after {
    content: '';
    position: absolute;
    inset: 0;
  }
  small {
    display: block;
    font: var(--t-13);
    color: var(--ink-2);
  }
  ul {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-top: 4px;
  }
  ul a {
    position: relative;
    z-index: 1;
    display: inline-block;
    padding: 3px 0;
    text-decoration: none;
  }
  ul a:hover {
    text-decoration: underline;
  }
`;
const List = styled.ul`
  border: var(--hair);
  border-radius: var(--r-2);
  overflow: hidden;
`;
const More = styled.section`
  margin-top: 20px;
  display: grid;
  gap: 8px;
  justify-items: start;
  font: var(--t-13);
  color: var(--ink-2);
`;
const roleWords = {
  instructor: 'You teach',
  assistant: 'You assist',
  student: 'You study',
  observer: 'You observe',
} as const;

/** Where someone begins: their courses, what needs them in each, and what they owe in all of them. Who has one course and makes none is in it at once. */
export function HomePage() {
  const session = useOutletContext<SessionView>();
  const { key } = useLocation();
  const courses = useListCoursesQuery();
  if (unshown(courses) !== undefined)
    return <ProblemStrip of={courses.error} onRetry={() => void courses.refetch()} />;
  if (!courses.data) return <Waiting what="your courses" />;
  const list = courses.data.courses;
  const [only, ...others] = list;
  // Someone who came here by a link inside wants the list, and who signed in by a link from one course may have more of them.
  if (only && others.length === 0 && key === 'default' && session.isProven && !session.mayCreateCourses)
    return <Navigate to={`/c/${only.id}`} replace />;
  return (
    <Frame>
      <title>Your courses · Jigsaw Room</title>
      <h1>
        <ProductMark size={40} />
        Your courses
      </h1>
      {list.length > 0 && <Courses courses={list} />}
      {list.length === 0 && !session.mayCreateCourses && (
        <Empty title="No courses yet">Your courses appear here when an instructor adds you.</Empty>
      )}
      {!session.isProven && (
        <More>
          <p>
            You signed in with a link from a course, so only courses whose links you opened are listed. A link
            by email shows all your courses and lets you choose a new password.
          </p>
          <MailLinkButton email={session.person.email} />
        </More>
      )}
      {session.mayCreateCourses && <NewCourse isFirst={list.length === 0} />}
    </Frame>
  );
}

/** The list is there at once; what needs one in each comes when it is counted. */
function Courses({ courses }: { readonly courses: readonly CourseView[] }) {
  const home = useReadHomeQuery();
  const needsOf = new Map(home.data?.courses.map((needs) => [needs.courseId, needs]));
  return (
    <>
      {unshown(home) !== undefined && (
        <ProblemStrip of={home.error} onRetry={() => void home.refetch()}>
          What needs you could not be counted.
        </ProblemStrip>
      )}
      <List aria-label="Courses">
        {courses.map((course) => (
          <Row key={course.id}>
            <span>
              <Link className="course" to={`/c/${course.id}`}>
                {course.title}
              </Link>
              <small>{[course.code, course.term].filter(Boolean).join(' · ')}</small>
            </span>
            <small>{roleWords[course.role]}</small>
            <ArrowRight size={18} aria-hidden="true" />
            <Needs course={course} needs={needsOf.get(course.id)} />
          </Row>
        ))}
      </List>
      {home.data && home.data.due.length > 0 && <DueLines due={home.data.due} courses={courses} />}
      {courses.some(({ role }) => role === 'student') && (
        <More>
          <p>One calendar address carries what takes place and is due in all your courses.</p>
          <Suspense>
            <CalendarSheetButton />
          </Suspense>
        </More>
      )}
    </>
  );
}

interface NeedsProps {
  readonly course: CourseView;
  /** undefined: not counted. */
  readonly needs: Home['courses'][number] | undefined;
}

/** Each leads to the station that it is counted at. */
function Needs({ course, needs }: NeedsProps) {
  if (!needs) return null;
  const { figures, messages } = needs;
  const stations = callingAt(sideOf(course.role), figures);
  if (stations.length === 0 && messages === 0) return null;
  return (
    <ul aria-label={`What needs you in ${course.title}`}>
      {messages > 0 && (
        <li>
          <Link to={`/c/${course.id}/messages`}>
            <Tag $look="needs">{`Messages: ${messages} new`}</Tag>
          </Link>
        </li>
      )}
      {stations.map(({ path, label, figure, needs: isNeeded }) => (
        <li key={path}>
          <Link to={`/c/${course.id}/${path}`}>
            <Tag $look={isNeeded ? 'needs' : 'plain'}>{`${label}: ${figure}`}</Tag>
          </Link>
        </li>
      ))}
    </ul>
  );
}
