import { lazy, Suspense } from 'react';
import { Link, Navigate, Outlet, useLocation, useOutletContext, useParams } from 'react-router';
import { styled } from 'styled-components';
import type { SessionView } from '@jigsaw/contract/identity';
import { may } from '@jigsaw/core/course';
import { ServerAway, useLiveChanges } from '../live/index.js';
import { ProblemStrip, unshown } from '../api/index.js';
import { Empty, ProductMark, Waiting } from '../look/index.js';
import { useListCoursesQuery, useCourse, useCountChecksQuery, useReadFiguresQuery } from '../course/index.js';
import { MessagesLink } from './MessagesLink.js';
import { sideOf, stationOf } from './stations.js';
import { Track } from './Track.js';

/** Fetched by those who sit in. */
const SittingIn = lazy(async () => ({ default: (await import('./SittingIn.js')).SittingIn }));

/** Its menu is looked into after the page is there. */
const PersonMenu = lazy(async () => ({ default: (await import('./PersonMenu.js')).PersonMenu }));

/** For staff, whose rounds go from page to page. */
const RoundStrip = lazy(async () => ({ default: (await import('../rounds/index.js')).RoundStrip }));

const Frame = styled.div`
  height: 100%;
  display: grid;
  grid-template: var(--masthead) minmax(0, 1fr) / minmax(0, 1fr);
  /* Parts of the page scroll, the page does not: what is hidden in them for screen readers must not stretch it. */
  position: relative;
  overflow: clip;
  &[data-student] {
    font: var(--t-15);
  }
  &:has(> [data-sitting-in]),
  &:has(> [data-round]) {
    grid-template-rows: var(--masthead) auto minmax(0, 1fr);
  }
  @media (max-width: 700px) {
    &[data-student] {
      display: block;
      height: auto;
      min-height: 100%;
      overflow: visible;
      /* A name of 60 letters breaks before it pushes the page aside. */
      overflow-wrap: anywhere;
      padding-bottom: 62px;
    }
    &[data-student] main button {
      min-height: 44px;
      max-width: 100%;
      height: auto;
      white-space: normal;
    }
  }
  @media print {
    display: block;
    overflow: visible;
    height: auto;
  }
`;
const Masthead = styled.header`
  display: flex;
  height: var(--masthead);
  background: var(--surface);
  border-bottom: 1px solid var(--ink);
  position: relative;
  z-index: var(--z-track);
  @media (max-width: 700px) {
    [data-student] > & {
      height: 48px;
    }
  }
  @media print {
    display: none;
  }
`;
const Brand = styled(Link)`
  display: flex;
  align-items: center;
  gap: 10px;
  width: 236px;
  padding: 0 var(--s-2) 0 var(--s-4);
  text-decoration: none;
  flex: none;
  min-width: 0;
  > span {
    min-width: 0;
  }
  b {
    display: block;
    font: var(--h-14);
    font-size: 15px;
    letter-spacing: -0.01em;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    display: block;
    font: var(--t-11);
    color: var(--ink-3);
  }
  /* In a small or enlarged window the stations need the room; its name stays for those who hear it. */
  @media (max-width: 900px) {
    :not([data-student]) > header > & {
      width: 62px;
    }
    :not([data-student]) > header > & > span {
      position: absolute;
      width: 1px;
      height: 1px;
      overflow: hidden;
      clip-path: inset(50%);
    }
  }
  @media (max-width: 700px) {
    [data-student] & {
      width: auto;
      flex: 1;
    }
  }
`;

/** Kept while the menu comes, so that nothing moves. */
const PlaceOfMenu = styled.div`
  flex: none;
  width: 60px;
`;

/** For the keyboard: past the masthead, into the page. Seen only while it has the focus. */
const Skip = styled.button`
  position: absolute;
  left: 8px;
  top: -60px;
  z-index: var(--z-notice);
  height: 40px;
  padding: 0 14px;
  border: 0;
  border-radius: var(--r-2);
  background: var(--ink);
  color: var(--on-ink);
  &:focus {
    top: 8px;
  }
`;

function skipToWork(): void {
  const work = document.querySelector('main');
  work?.setAttribute('tabindex', '-1');
  work?.focus();
}

/** Pages that stand at no station. */
const besides: Readonly<Record<string, string>> = { messages: 'Messages', audit: 'Audit trail' };
const firstOf = (pathname: string, base: string) => pathname.slice(base.length + 1).split('/')[0] ?? '';

/** The frame of every page of a course: masthead, track, live changes. */
export function CourseShell() {
  const { courseId = '' } = useParams();
  const session = useOutletContext<SessionView>();
  const { pathname } = useLocation();
  const courses = useListCoursesQuery();
  const course = courses.data?.courses.find((each) => each.id === courseId);
  const figures = useReadFiguresQuery(courseId, { skip: !course });
  const checks = useCountChecksQuery(courseId, { skip: !course || !may(course.role, 'release') });
  useLiveChanges(course ? courseId : null);

  if (unshown(courses) !== undefined)
    return <ProblemStrip of={courses.error} onRetry={() => void courses.refetch()} />;
  if (!courses.data) return <Waiting what="the course" />;
  if (!course) {
    return (
      <Empty title="Nothing here" action={<Link to="/">Go to your courses</Link>}>
        There is no course at this address, or you cannot see it.
      </Empty>
    );
  }
  const base = `/c/${courseId}`;
  const side = sideOf(course.role);
  const settings = course.role === 'student' ? null : `${base}/course`;
  const here = stationOf(pathname.slice(base.length + 1), side);
  return (
    <Frame data-student={course.role === 'student' || undefined}>
      <title>{`${here?.label ?? besides[firstOf(pathname, base)] ?? 'Course settings'} · ${course.title} · Jigsaw Room`}</title>
      <Skip type="button" onClick={skipToWork}>
        Skip to content
      </Skip>
      <Masthead>
        <Brand to={settings ?? base} title={settings === null ? undefined : 'Course settings'}>
          <ProductMark size={30} />
          <span>
            <b>{course.title}</b>
            <small>{[course.code, course.term].filter(Boolean).join(' · ')}</small>
          </span>
        </Brand>
        <Track base={base} side={side} figures={figures.data} toCheck={checks.data?.toCheck} />
        <MessagesLink courseId={courseId} />
        <Suspense fallback={<PlaceOfMenu />}>
          <PersonMenu session={session} settings={settings} />
        </Suspense>
      </Masthead>
      {side === 'staff' && (
        <Suspense>
          <RoundStrip course={course} />
        </Suspense>
      )}
      <Suspense fallback={<Waiting what="the page" />}>
        {session.sitsIn ? (
          <SittingIn session={session}>
            <Outlet context={course} />
          </SittingIn>
        ) : (
          <Outlet context={course} />
        )}
      </Suspense>
      <ServerAway />
    </Frame>
  );
}

/** Staff start with the people, students with what is due. */
export function FirstStation() {
  const { course } = useCourse();
  return <Navigate to={course.role === 'student' ? 'due' : 'people'} replace />;
}
