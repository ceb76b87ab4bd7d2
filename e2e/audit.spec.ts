import type { Page } from '@playwright/test';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** What is done in a course is told to its instructors, while the trail stays open. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let ada: Page;
let courseId = '';
const day = (page: Page) => page.getByRole('group', { name: 'Acts' }).getByRole('listitem');

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  courseId = (await aCourseOf(instructor, 'FER 207', 'Miso', ['Ada Voss <ada.a207@quillmere.example>', 'Ben Voss <ben.a207@quillmere.example>'])).id; // prettier-ignore
  const setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun'])).id;
  await place(instructor, setId, 'Ada', 'Crock');
  ada = sure((await browsersOf(browser, instructor, courseId, ['Ada'])).get('Ada'));
});

test('an act appears in the open trail, without the words that were typed, and leads to where it is seen', async () => {
  await instructor.goto(`/c/${courseId}/course`);
  await instructor.getByRole('link', { name: 'Audit trail' }).click();
  await expect(day(instructor).first()).toContainText('You placed 1 student');
  await ada.goto(`/c/${courseId}/room`);
  await ada.getByRole('button', { name: 'Write to your group…' }).click();
  const sheet = ada.getByRole('dialog');
  await sheet.getByRole('textbox', { name: 'Subject' }).fill('Barley');
  await sheet.getByRole('textbox', { name: 'Message' }).fill('Rinse it twice.');
  await sheet.getByRole('button', { name: 'Send to Crock' }).click();
  await expect(day(instructor).first()).toContainText('Ada Voss sent a message');
  await expect(instructor.locator('main')).not.toContainText('Barley');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: /Group/ }).click();
  await instructor.getByRole('option', { name: 'Tun' }).click();
  await expect(instructor.getByText('No act is like that')).toBeVisible();
  await instructor.getByRole('button', { name: /Group/ }).click();
  await instructor.getByRole('option', { name: 'Crock' }).click();
  await expect(day(instructor)).toHaveCount(2);
  const download = instructor.waitForEvent('download');
  await instructor.getByRole('link', { name: 'Export as CSV' }).click();
  const csv = (await (await (await download).createReadStream()).toArray()).join('');
  expect(csv).toContain('sent a message');
  expect(csv).not.toContain('Rinse');
  await day(instructor)
    .filter({ hasText: 'placed 1 student' })
    .getByRole('link', { name: 'To the Board' })
    .click();
  await expect(instructor.getByText('Bench teams').first()).toBeVisible();
});
