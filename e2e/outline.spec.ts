import type { Page } from '@playwright/test';
import type { ActivityList } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anActivityFor, api, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** A course is put in order while a student has it open. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let ada: Page;
let bo: Page;
let cho: Page;
let courseId = '';
let setId = '';
let logId = '';

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const people = ['Ada', 'Bo', 'Cho'].map((name) => `${name} Vale <${name.toLowerCase()}.o@quillmere.example>`);
  courseId = (await aCourseOf(instructor, 'FER 191', 'Order', people)).id;
  setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun'])).id;
  await place(instructor, setId, 'Ada', 'Crock');
  await place(instructor, setId, 'Bo', 'Tun');
  await anActivityFor(instructor, courseId, setId, { kind: 'wiki', title: 'Starter log' });
  for (const title of ['Salt trial', 'Shelf memo'])
    await anActivityFor(instructor, courseId, setId, { kind: 'discussion', title });
  const { activities } = await api<ActivityList>(instructor, 'GET', `courses/${courseId}/activities`);
  logId = sure(activities.find(({ title }) => title === 'Starter log')).id;
  const pages = await browsersOf(browser, instructor, courseId);
  [ada, bo, cho] = ['Ada', 'Bo', 'Cho'].map((name) => sure(pages.get(name))) as [Page, Page, Page];
}); // prettier-ignore

const rows = (page: Page, heading: string) =>
  page.getByRole('region', { name: heading }).getByRole('row').locator('b');
const things = (page: Page, heading: string) =>
  page.getByRole('region', { name: heading }).getByRole('link').locator('b');

test('headings are added, and activities come under them by mouse, by keyboard and by menu', async () => {
  await ada.goto(`/c/${courseId}/outline`);
  await expect(ada.getByRole('region', { name: 'Activities' }).getByRole('link')).toHaveCount(3);

  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('link', { name: 'Outline' }).click();
  for (const title of ['Milk', 'Salt']) {
    await instructor.getByRole('button', { name: 'New heading' }).click();
    await instructor.keyboard.type(title);
    await instructor.keyboard.press('Enter');
    await expect(instructor.getByRole('heading', { name: title })).toBeVisible();
  }
  const row = (title: string) => instructor.getByRole('row', { name: title });
  await row('Starter log').dragTo(instructor.getByRole('grid', { name: 'Milk' }));
  await expect(rows(instructor, 'Milk')).toHaveText(['Starter log']);

  await instructor.getByRole('button', { name: 'More for Salt trial' }).click();
  await instructor.getByRole('menuitem', { name: 'Move under “Milk”' }).click();
  await expect(rows(instructor, 'Milk')).toHaveText(['Starter log', 'Salt trial']);

  // Taken up by the keyboard, and put down in front of the first.
  await row('Salt trial').focus();
  await instructor.keyboard.press('ArrowRight'); // the handle
  await instructor.keyboard.press('Enter');
  await instructor.keyboard.press('ArrowUp');
  await instructor.keyboard.press('ArrowUp');
  await instructor.keyboard.press('Enter');
  await expect(rows(instructor, 'Milk')).toHaveText(['Salt trial', 'Starter log']);
  await expectAccessible(instructor);

  // The page that was open has followed, without a heading under which it sees nothing.
  await expect(things(ada, 'Milk')).toHaveText(['Salt trial', 'Starter log']);
  await expect(things(ada, 'Everything else')).toHaveText(['Shelf memo']);
  await expect(ada.getByRole('heading', { name: 'Salt' })).toHaveCount(0);
  await expectAccessible(ada);
});

test('a heading goes elsewhere with what is under it, is deleted, and comes back', async () => {
  await instructor.getByRole('button', { name: 'Move Milk down' }).click();
  await expect(instructor.getByRole('heading', { level: 2 })).toHaveText(['Salt', 'Milk', 'Everything else']);
  await instructor.getByRole('button', { name: 'Delete Milk' }).click();
  await expect(rows(instructor, 'Everything else')).toHaveCount(3);
  await expect(ada.getByRole('heading', { name: 'Milk' })).toHaveCount(0);
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(rows(instructor, 'Milk')).toHaveText(['Salt trial', 'Starter log']);
  await instructor.reload();
  await expect(instructor.getByRole('heading', { level: 2 })).toHaveText(['Salt', 'Milk', 'Everything else']);
  await expect(things(ada, 'Milk')).toHaveText(['Salt trial', 'Starter log']);
});

test('a link leads each to their own group, and others nowhere', async () => {
  const link = `/c/${courseId}/go/activity/${logId}`;
  for (const [page, group] of [
    [ada, 'Crock'],
    [bo, 'Tun'],
  ] as const) {
    await page.goto(link);
    await expect(page).toHaveURL(/\/copies\//);
    await expect(page.getByText(group).first()).toBeVisible();
    await page.goto(`/c/${courseId}/go/set/${setId}`);
    await expect(page).toHaveURL(/\/room\//);
    await expect(page.getByRole('heading', { name: group })).toBeVisible();
  }
  await cho.goto(link);
  await expect(cho.getByRole('heading', { name: 'Nothing here' })).toBeVisible();
  await cho.goto(`/c/${courseId}/go/set/${setId}`);
  await expect(cho.getByRole('heading', { name: 'Nothing here' })).toBeVisible();
  await instructor.goto(link);
  await expect(instructor.getByRole('textbox', { name: 'Title', exact: true })).toHaveValue('Starter log');
});

test('what was written in another course is copied as drafts', async () => {
  const next = await api<{ id: string }>(instructor, 'POST', 'courses', { code: 'FER 192', title: 'Order again', term: '', timeZone: 'UTC' }); // prettier-ignore
  await instructor.goto(`/c/${next.id}/release`);
  await instructor.getByRole('button', { name: 'New activity' }).first().click();
  await instructor.getByRole('menuitem', { name: /^Copy from another course/ }).click();
  const sheet = instructor.getByRole('dialog', { name: 'Copy from another course' });
  await sheet.getByRole('button', { name: 'Course' }).click();
  await instructor.getByRole('option', { name: /FER 191/ }).click();
  await sheet.getByRole('button', { name: 'Select all 3' }).click();
  await expectAccessible(instructor);
  await sheet.getByRole('button', { name: 'Copy 3 activities' }).click();
  await expect(instructor.getByRole('link', { name: /Starter log/ })).toBeVisible();
  await expect(instructor.getByRole('region', { name: /^Drafts/ }).getByRole('listitem')).toHaveCount(3);
});
