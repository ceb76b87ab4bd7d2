import { createBrowserRouter, Navigate, Outlet } from 'react-router';
import type { RouteObject } from 'react-router';
import { Broken, Waiting } from './look/index.js';
import { RequireSession } from './identity/index.js';
import { CourseShell } from './track/index.js';

/** Pages come when they are first opened; the frame around them is there at once. */
const pages: RouteObject[] = [
  {
    path: '/welcome',
    lazy: async () => ({ Component: (await import('./identity/WelcomePage.js')).WelcomePage }),
  },
  {
    element: <RequireSession />,
    children: [
      { path: '/', lazy: async () => ({ Component: (await import('./roster/CoursesPage.js')).CoursesPage }) },
      {
        path: '/c/:courseId',
        element: <CourseShell />,
        children: [
          { index: true, lazy: async () => ({ Component: (await import('./track/index.js')).FirstStation }) },
          {
            path: 'people',
            lazy: async () => ({ Component: (await import('./roster/RosterPage.js')).RosterPage }),
          },
          {
            path: 'people/bring-in',
            lazy: async () => ({ Component: (await import('./roster/BringInPage.js')).BringInPage }),
          },
          {
            path: 'outbox',
            lazy: async () => ({ Component: (await import('./mail/OutboxPage.js')).OutboxPage }),
          },
          {
            path: 'groups',
            lazy: async () => ({ Component: (await import('./groups/SetsPage.js')).SetsPage }),
          },
          {
            path: 'groups/new',
            lazy: async () => ({ Component: (await import('./groups/NewSetPage.js')).NewSetPage }),
          },
          {
            path: 'groups/:setId',
            lazy: async () => ({ Component: (await import('./groups/BoardPage.js')).BoardPage }),
          },
          {
            path: 'groups/:setId/deal',
            lazy: async () => ({ Component: (await import('./groups/DealPage.js')).DealPage }),
          },
          {
            path: 'groups/:setId/ready',
            lazy: async () => ({ Component: (await import('./groups/SetReadyPage.js')).SetReadyPage }),
          },
          {
            path: 'groups/:setId/lists',
            lazy: async () => ({ Component: (await import('./groups/ListsPage.js')).ListsPage }),
          },
          {
            path: 'release',
            lazy: async () => ({ Component: (await import('./release/ActivitiesPage.js')).ActivitiesPage }),
          },
          {
            path: 'release/:activityId',
            lazy: async () => ({ Component: (await import('./release/ComposerPage.js')).ComposerPage }),
          },
          {
            path: 'rooms',
            lazy: async () => ({ Component: (await import('./rooms/RoomsPage.js')).RoomsPage }),
          },
          {
            path: 'marks',
            lazy: async () => ({ Component: (await import('./marks/DeskListPage.js')).DeskListPage }),
          },
          {
            path: 'marks/gradebook',
            lazy: async () => ({ Component: (await import('./marks/GradebookPage.js')).GradebookPage }),
          },
          {
            path: 'marks/:releaseId',
            lazy: async () => ({ Component: (await import('./marks/DeskPage.js')).DeskPage }),
          },
          {
            path: 'marks/:releaseId/:copyId/:unit',
            lazy: async () => ({ Component: (await import('./marks/DeskPage.js')).DeskPage }),
          },
          { path: 'due', lazy: async () => ({ Component: (await import('./rooms/DuePage.js')).DuePage }) },
          {
            path: 'choose/:setId',
            lazy: async () => ({ Component: (await import('./groups/SignUpPage.js')).SignUpPage }),
          },
          { path: 'room', lazy: async () => ({ Component: (await import('./rooms/RoomPage.js')).RoomPage }) },
          {
            path: 'room/:groupId',
            lazy: async () => ({ Component: (await import('./rooms/RoomPage.js')).RoomPage }),
          },
          {
            path: 'copies/:copyId',
            lazy: async () => ({ Component: (await import('./rooms/CopyPage.js')).CopyPage }),
          },
          {
            path: 'my-marks',
            lazy: async () => ({ Component: (await import('./marks/MyMarksPage.js')).MyMarksPage }),
          },
          { path: '*', element: <Navigate to="." replace /> },
        ],
      },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
];

export const routes: RouteObject[] = [
  {
    element: <Outlet />,
    errorElement: <Broken />,
    HydrateFallback: () => <Waiting what="Jigsaw Room" />,
    children: pages,
  },
];

export const makeRouter = () => createBrowserRouter(routes);
