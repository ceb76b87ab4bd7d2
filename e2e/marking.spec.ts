import type { Page } from '@playwright/test';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anAssignmentFor, api, bringIn, browsersOf } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** Two markers at one sheet: what is pressed is about what is on the screen. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let tomas: Page;
let courseId = '';
const markOf = (page: Page) => page.getByLabel('Group mark');

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  courseId = (
    await aCourseOf(instructor, 'FER 330', 'Sour Milk', [
      'Ada Moss <ada.sour@quillmere.example>',
      'Callum Reith <callum.sour@quillmere.example>',
    ])
  ).id;
  await bringIn(instructor, courseId, ['Tomas Vey <tomas.sour@quillmere.example>'], 'assistant');
  const set = await api<GroupSetView>(instructor, 'POST', `courses/${courseId}/sets`, {
    name: 'Vats',
    shape: { by: 'count', groups: 1 },
    capacity: null,
    pattern: '',
    names: ['Crock'],
  });
  const { groups, students } = await api<BoardView>(instructor, 'GET', `sets/${set.id}/board`);
  await api(instructor, 'POST', `sets/${set.id}/place`, {
    moves: students.map(({ enrolmentId }) => ({ student: enrolmentId, from: null, to: sure(groups[0]).id })),
  });
  await anAssignmentFor(instructor, courseId, set.id, 'Yoghurt report', '40');
  tomas = sure((await browsersOf(browser, instructor, courseId, ['Tomas'])).get('Tomas'));
});

test('an idle sheet follows the other marker and names them', async () => {
  for (const page of [instructor, tomas]) {
    await page.goto(`/c/${courseId}/marks`);
    await expect(markOf(page)).toBeVisible();
  }
  await markOf(instructor).fill('38');
  await expect(markOf(tomas)).toHaveValue('38');
  await expect(tomas.getByRole('status').filter({ hasText: /marked this meanwhile/ })).toBeVisible();
});

test('what was changed elsewhere is not released: both marks are shown, and one is chosen', async () => {
  // Tomas does not hear of anything for a while, as on a bad line.
  await tomas.route(/\/changes\?/, (route) => route.abort());
  await tomas.reload();
  await expect(markOf(tomas)).toHaveValue('38');
  await markOf(instructor).fill('9.5');
  await expect(instructor.getByRole('status').filter({ hasText: /^Saved \d/ })).toBeVisible();

  await tomas.getByRole('button', { name: 'Release to 2 students' }).click();
  await expect(tomas.getByText(/they gave 9.5, you 38/)).toBeVisible();
  await expectAccessible(tomas);
  await expect(markOf(tomas)).toHaveValue('38');
  await tomas.getByRole('button', { name: 'Take theirs' }).click();
  await expect(markOf(tomas)).toHaveValue('9.5');
  await tomas.getByRole('button', { name: 'Release to 2 students' }).click();
  await expect(tomas.getByRole('status').filter({ hasText: 'Released to 2 students' })).toBeVisible();
});

test('a mark that cannot be meant is a fault beside its field, and releases nothing', async () => {
  await instructor.getByRole('button', { name: /How Ada Moss’s mark differs/ }).click();
  await instructor.getByRole('option', { name: 'A mark of their own' }).click();
  const own = instructor.getByLabel('Ada Moss’s own mark');
  await own.fill('350');
  await expect(instructor.getByText('From 0 to 40.')).toBeVisible();
  await expect(instructor.getByText('Give Ada Moss a mark, or let them have the group’s.')).toBeVisible();
  await expect(instructor.getByRole('button', { name: 'Release to 2 students' })).toBeDisabled();
  await expectAccessible(instructor);
  await own.fill('35,5');
  await expect(instructor.getByText('From 0 to 40.')).toBeHidden();
  await expect(instructor.getByRole('button', { name: 'Release to 2 students' })).toBeEnabled();
});
