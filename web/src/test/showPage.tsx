import { render } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { Provider } from 'react-redux';
import { createMemoryRouter, RouterProvider } from 'react-router';
import type { CourseView } from '@jigsaw/contract/course';
import { makeStore } from '../api/index.js';
import { routes } from '../app/routes.js';
import { aCourse, courseId, id } from './data.js';

export interface Asked {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** What the server answers at `METHOD path` (below /api/): a value, or what is made of the request's body and what stands behind its `?`. */
export type Answers = Readonly<Record<string, unknown>>;

/** A refusal as the server sends it. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly type: string,
    readonly detail: string,
    readonly more: object = {},
  ) {}
}

export const staffFigures = {
  kind: 'staff',
  enrolled: 5,
  unplaced: 1,
  choosing: 0,
  live: 1,
  scheduled: 0,
  closed: 0,
  drafts: 0,
  rooms: 2,
  unread: 0,
  toMark: 1,
};
export const studentFigures = { kind: 'student', due: 1, rooms: 1, unread: 0, newMarks: 0 };

/** Opens a page of the product on answers given by the test; everything between address and answers is the real thing. */
export function showPage(path: string, answers: Answers, role: CourseView['role'] = 'instructor') {
  const asked: Asked[] = [];
  const all: Record<string, unknown> = {
    'GET session': {
      person: { id: id('ilse'), name: 'Dr. Ilse Marrow', reading: null, email: 'ilse@quillmere.example' },
      mayCreateCourses: true,
      isProven: true,
      sitsIn: null,
    },
    'GET session/front-door': { demoPeople: [] },
    'GET courses': { courses: [aCourse(role)] },
    'GET home': { courses: [], due: [] },
    [`GET courses/${courseId}/audiences`]: { audiences: [] },
    [`GET courses/${courseId}/figures`]: role === 'student' ? studentFigures : staffFigures,
    [`GET courses/${courseId}/checks`]: {
      checks: [],
      activities: [],
      groups: [],
      sets: [],
      people: [],
      audiences: [],
    },
    [`GET courses/${courseId}/checks/count`]: { toCheck: 0 },
    [`GET courses/${courseId}/messages/count`]: { unread: 0 },
    ...answers,
  };
  globalThis.fetch = async (input, init) => {
    const request = new Request(
      typeof input === 'string' ? new URL(input, window.location.origin) : input,
      init,
    );
    const { pathname, searchParams } = new URL(request.url);
    const at = pathname.replace(/^(\/(sit-in|practise)\/[^/]+)?\/api\//, '');
    const sent = await request.text();
    const body: unknown = sent === '' ? undefined : JSON.parse(sent);
    asked.push({ method: request.method, path: at, body });
    const found = all[`${request.method} ${at}`] ?? inEveryRoom(request.method, at);
    const answer: unknown =
      typeof found === 'function'
        ? await (found as (body: unknown, search: URLSearchParams) => unknown)(body, searchParams)
        : found;
    if (answer === undefined)
      return refuse(new Refusal(404, 'not-found', 'There is nothing at this address, or you cannot see it.'));
    if (answer instanceof Response) return answer.clone();
    return answer instanceof Refusal
      ? refuse(answer)
      : new Response(JSON.stringify(answer), {
          status: 200,
          headers: { 'Content-Type': 'application/json' },
        });
  };
  const router = createMemoryRouter(routes, { initialEntries: [path] });
  const store = makeStore();
  const { unmount } = render(
    <Provider store={store}>
      <RouterProvider router={router} />
    </Provider>,
  );
  return {
    unmount,
    user: userEvent.setup(),
    router,
    store,
    /** Writes that reached the server, in order. */
    writes: () => asked.filter((each) => each.method !== 'GET'),
    asked,
    set: (key: string, answer: unknown) => {
      all[key] = answer;
    },
  };
}

/** What no test has to answer that is not about it. */
const inEveryRoom = (method: string, at: string): unknown =>
  method === 'GET' && /^groups\/[^/]+\/shelf$/.test(at)
    ? { files: [], removed: [], mayPut: false, bytes: 0 }
    : undefined;

function refuse({ status, type, detail, more }: Refusal): Response {
  const problem = { type: `/problems/${type}`, title: 'No', status, detail, ...more };
  return new Response(JSON.stringify(problem), {
    status,
    headers: { 'Content-Type': 'application/problem+json' },
  });
}

export const inCourse = (path: string) => `/c/${courseId}/${path}`;
