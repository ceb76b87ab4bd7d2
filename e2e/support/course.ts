import type { Browser, Page } from '@playwright/test';
import type { SignInLinks } from '@jigsaw/contract/identity';
import type { CourseView } from '@jigsaw/contract/course';
import type { ImportPreview } from '@jigsaw/contract/import';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { newPerson } from './fixtures.js';

export const coursePassword = 'salt, water, time';

/** Asks the API as the person whose page it is; for what a test needs and does not test. */
export async function api<Answer>(
  page: Page,
  method: 'GET' | 'POST' | 'PUT' | 'PATCH',
  path: string,
  data?: unknown,
): Promise<Answer> {
  const answer = await page.request.fetch(`/api/${path}`, {
    method,
    ...(data === undefined ? {} : { data }),
  });
  if (!answer.ok()) throw new Error(`${method} ${path}: ${answer.status()} ${await answer.text()}`);
  return (await answer.json()) as Answer;
}

/** A course with these people in it, by pasted lines. */
export async function aCourseOf(
  instructor: Page,
  code: string,
  title: string,
  lines: readonly string[],
): Promise<CourseView> {
  const course = await api<CourseView>(instructor, 'POST', 'courses', {
    code,
    title,
    term: 'Autumn 2026',
    timeZone: 'Europe/Lisbon',
  });
  await importPeople(instructor, course.id, lines, 'student');
  return course;
}

/** More people in a course, by pasted lines. */
export async function importPeople(
  instructor: Page,
  courseId: string,
  lines: readonly string[],
  role: 'student' | 'assistant',
): Promise<void> {
  const source = { kind: 'paste', text: lines.join('\n') };
  const preview = await api<ImportPreview>(instructor, 'POST', `courses/${courseId}/roster/preview`, {
    source,
    role,
    meanings: null,
  });
  const meanings = preview.columns.map((column) => column.meaning);
  await api(instructor, 'POST', `courses/${courseId}/roster/import`, {
    source,
    role,
    meanings,
    leaveOutLines: [],
    fingerprint: preview.fingerprint,
  });
}

/** Everyone's own browser, signed in, by first name; of these people only, where they are named. */
export async function browsersOf(
  browser: Browser,
  instructor: Page,
  courseId: string,
  only?: readonly string[],
): Promise<Map<string, Page>> {
  const pages = new Map<string, Page>();
  const { links } = await api<SignInLinks>(instructor, 'POST', `courses/${courseId}/roster/sign-in-links`);
  for (const link of links) {
    const name = sure(link.name.split(' ')[0]);
    if (only && !only.includes(name)) continue;
    const page = await newPerson(browser);
    await api(page, 'POST', 'session/password', { token: link.url.split('#')[1], password: coursePassword });
    pages.set(name, page);
  }
  return pages;
}

/** A group set with groups of these names. */
export const aSetOf = (
  instructor: Page,
  courseId: string,
  name: string,
  names: readonly string[],
  capacity: number | null = null,
): Promise<GroupSetView> =>
  api(instructor, 'POST', `courses/${courseId}/sets`, {
    name,
    shape: { by: 'count', groups: names.length },
    capacity,
    pattern: '',
    names,
  });

/** Puts someone into a group of a set, from where they are. */
export async function place(instructor: Page, setId: string, name: string, group: string): Promise<void> {
  const { groups, students } = await api<BoardView>(instructor, 'GET', `sets/${setId}/board`);
  const student = sure(students.find((each) => each.name.startsWith(name)));
  const to = sure(groups.find((each) => each.name === group)).id;
  const moves = [{ student: student.enrolmentId, from: student.seats[0]?.groupId ?? null, to }];
  await api(instructor, 'POST', `sets/${setId}/place`, { moves });
}

/** An assignment without dates, released to a set with a copy for each group. */
export const anAssignmentFor = (
  instructor: Page,
  courseId: string,
  setId: string,
  title: string,
  points: string | null = null,
): Promise<void> => anActivityFor(instructor, courseId, setId, { kind: 'assignment', title, points });

/** The same of any kind. */
export async function anActivityFor(
  instructor: Page,
  courseId: string,
  setId: string,
  {
    kind,
    title,
    points = null,
    due = null,
    closes = null,
    goesLiveAt = null,
  }: {
    readonly kind: string;
    readonly title: string;
    readonly points?: string | null;
    readonly due?: string | null;
    readonly closes?: Date | null;
    readonly goesLiveAt?: Date | null;
  },
): Promise<void> {
  const draft = await api<{ id: string; version: number }>(
    instructor,
    'POST',
    `courses/${courseId}/activities`,
    {
      kind,
      title,
      brief: { type: 'doc', content: [] },
      points,
      rubric: null,
      settings: {},
      schedule: { opens: null, due, closes },
      latePolicy: { graceMinutes: 0, stepPercent: 0, periodMinutes: 1440, capPercent: 0 },
    },
  );
  const to = { include: [{ kind: 'set', setId }], exclude: [] };
  await api(instructor, 'POST', `activities/${draft.id}/release`, {
    to,
    mode: 'own',
    outsiders: 'hidden',
    goesLiveAt,
    version: draft.version,
  });
}
