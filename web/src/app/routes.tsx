import type { ComponentType } from 'react';
import { createBrowserRouter, Navigate, Outlet } from 'react-router';
import type { RouteObject } from 'react-router';
import { useKeptFocus } from '../page/index.js';
import { Broken, Waiting } from '../look/index.js';
import { sitInBase } from '../api/index.js';
import { RequireSession } from '../identity/index.js';
import { CourseShell, FirstStation } from '../track/index.js';

type LoadPage = () => Promise<ComponentType>;
const page = (load: LoadPage) => async () => ({ Component: await load() });
/** Pages that show activities need to know which kinds there are. */
const pageWithKinds = (load: LoadPage) =>
  page(async () => {
    await import('./registerKinds.js');
    return load();
  });

/** Pages come when they are first opened; the frame around them is there at once. */
const pages: RouteObject[] = [
  {
    path: '/welcome',
    lazy: page(async () => (await import('../identity/WelcomePage.js')).WelcomePage),
  },
  {
    element: <RequireSession />,
    children: [
      {
        path: '/',
        lazy: page(async () => (await import('../track/HomePage.js')).HomePage),
      },
      {
        path: '/c/:courseId',
        element: <CourseShell />,
        children: [
          {
            index: true,
            Component: FirstStation,
          },
          {
            path: 'people',
            lazy: page(async () => (await import('../roster/RosterPage.js')).RosterPage),
          },
          {
            path: 'people/import',
            lazy: page(async () => (await import('../roster/ImportPage.js')).ImportPage),
          },
          {
            path: 'messages',
            lazy: page(async () => (await import('../messages/MessagesPage.js')).MessagesPage),
            children: [
              {
                index: true,
                lazy: page(async () => (await import('../messages/MessagesPage.js')).NothingOpen),
              },
              {
                path: ':threadId',
                lazy: page(async () => (await import('../messages/ThreadPanel.js')).ThreadPanel),
              },
              {
                path: 'sent/:sendingId',
                lazy: page(async () => (await import('../messages/SendingPanel.js')).SendingPanel),
              },
            ],
          },
          {
            path: 'audit',
            lazy: page(async () => (await import('../audit/AuditPage.js')).AuditPage),
          },
          {
            path: 'outbox',
            lazy: page(async () => (await import('../mail/OutboxPage.js')).OutboxPage),
          },
          {
            path: 'groups',
            lazy: page(async () => (await import('../sets/SetsPage.js')).SetsPage),
          },
          {
            path: 'groups/new',
            lazy: pageWithKinds(async () => (await import('../release/NewSetPage.js')).NewSetPage),
          },
          {
            path: 'groups/:setId',
            lazy: page(async () => (await import('../placing/BoardPage.js')).BoardPage),
          },
          {
            path: 'course',
            lazy: page(async () => (await import('../sets/CoursePage.js')).CoursePage),
          },
          {
            path: 'groups/:setId/deal',
            lazy: page(async () => (await import('../dealing/DealPage.js')).DealPage),
          },
          {
            path: 'groups/:setId/ready',
            lazy: pageWithKinds(async () => (await import('../release/SetReadyPage.js')).SetReadyPage),
          },
          {
            path: 'groups/:setId/lists',
            lazy: page(async () => (await import('../placing/ListsPage.js')).ListsPage),
          },
          ...['audiences', 'audiences/:audienceId'].map((path) => ({
            path,
            lazy: page(async () => (await import('../audiences/AudiencesPage.js')).AudiencesPage),
          })),
          {
            path: 'release',
            lazy: pageWithKinds(async () => (await import('../release/ActivitiesPage.js')).ActivitiesPage),
          },
          {
            path: 'release/week',
            lazy: pageWithKinds(async () => (await import('../release/WeekPage.js')).WeekPage),
          },
          {
            path: 'release/sightlines',
            lazy: pageWithKinds(async () => (await import('../sightlines/SightlinesPage.js')).SightlinesPage),
          },
          {
            path: 'release/checks',
            lazy: page(async () => (await import('../release/ChecksPage.js')).ChecksPage),
          },
          {
            path: 'release/:activityId',
            lazy: pageWithKinds(async () => (await import('../release/ComposerPage.js')).ComposerPage),
          },
          {
            path: 'outline',
            lazy: pageWithKinds(async () => (await import('../outline/OutlinePage.js')).OutlinePage),
          },
          {
            path: 'go/activity/:activityId',
            lazy: page(async () => (await import('../rooms/GoPages.js')).GoToActivity),
          },
          {
            path: 'go/set/:setId',
            lazy: page(async () => (await import('../rooms/GoPages.js')).GoToSet),
          },
          {
            path: 'rooms',
            lazy: pageWithKinds(async () => (await import('../rooms/RoomsPage.js')).RoomsPage),
          },
          {
            path: 'marks',
            lazy: pageWithKinds(async () => (await import('../marks/DeskListPage.js')).DeskListPage),
          },
          {
            path: 'marks/gradebook',
            lazy: pageWithKinds(async () => (await import('../marks/GradebookPage.js')).GradebookPage),
          },
          {
            path: 'marks/:releaseId',
            lazy: pageWithKinds(async () => (await import('../marks/DeskPage.js')).DeskPage),
          },
          {
            path: 'marks/:releaseId/:copyId/:unit',
            lazy: pageWithKinds(async () => (await import('../marks/DeskPage.js')).DeskPage),
          },
          { path: 'due', lazy: pageWithKinds(async () => (await import('../rooms/DuePage.js')).DuePage) },
          {
            path: 'choose/:setId',
            lazy: page(async () => (await import('../placing/SignUpPage.js')).SignUpPage),
          },
          {
            path: 'room',
            lazy: pageWithKinds(async () => (await import('../rooms/RoomPage.js')).RoomPage),
          },
          {
            path: 'room/:groupId',
            lazy: pageWithKinds(async () => (await import('../rooms/RoomPage.js')).RoomPage),
          },
          {
            path: 'copies/:copyId',
            lazy: pageWithKinds(async () => (await import('../rooms/CopyPage.js')).CopyPage),
          },
          {
            path: 'my-marks',
            lazy: pageWithKinds(async () => (await import('../marks/MyMarksPage.js')).MyMarksPage),
          },
          { path: '*', element: <Navigate to="." replace /> },
        ],
      },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
];

/** Around every page there is. */
function Frame() {
  useKeptFocus();
  return <Outlet />;
}

export const routes: RouteObject[] = [
  {
    element: <Frame />,
    errorElement: <Broken />,
    HydrateFallback: () => <Waiting what="Jigsaw Room" />,
    children: pages,
  },
];

/** The pages are the same for those who sit in, below where they do. */
export const makeRouter = () => createBrowserRouter(routes, { basename: sitInBase() || '/' });
