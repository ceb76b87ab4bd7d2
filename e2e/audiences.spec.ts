import type { Page } from '@playwright/test';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, api, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** An audience across two sets without one person, what is released to it, and someone who moves. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
let benchesId = '';
const given = ['Ada', 'Bo', 'Cho', 'Dia', 'Eva'];

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const people = given.map((name) => `${name} Reed <${name.toLowerCase()}.reed@quillmere.example>`);
  courseId = (await aCourseOf(instructor, 'FER 180', 'Dairy', people)).id;
  benchesId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun'], 3)).id;
  const panelsId = (await aSetOf(instructor, courseId, 'Panels', ['Malt', 'Hops'], 3)).id;
  for (const name of ['Ada', 'Bo']) await place(instructor, benchesId, name, 'Crock');
  await place(instructor, benchesId, 'Dia', 'Tun');
  for (const name of ['Cho', 'Eva']) await place(instructor, panelsId, name, 'Malt');
  students = await browsersOf(browser, instructor, courseId);
});

const add = async (side: string, words: string, choice: string) => {
  await instructor.getByRole('combobox', { name: `Add to “${side}”` }).fill(words);
  await instructor.getByRole('option', { name: choice, exact: true }).click();
};
const inIt = () => instructor.getByRole('region', { name: 'Who is in it now' });

test('people of two sets are put together under a name, without one of them', async () => {
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('link', { name: 'Saved audiences' }).click();
  await expectAccessible(instructor);
  await instructor.getByRole('link', { name: 'New audience' }).click();
  await instructor.getByLabel('Name of the audience').fill('Dairy people');
  await add('In it', 'crock', 'Members of Crock (Bench teams)');
  await add('In it', 'malt', 'Members of Malt (Panels)');
  await expect(inIt().getByRole('heading', { name: '4 people now' })).toBeVisible();
  await add('Except', 'bo', 'Bo Reed');
  await expect(inIt().getByRole('heading', { name: '1 person removed' })).toBeVisible();
  await expect(inIt().getByRole('region', { name: 'Members of Malt' })).toContainText('Eva Reed');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Create audience' }).click();
  await expect(instructor.getByText('Dairy people created')).toBeVisible();
  await expect(instructor.getByRole('link', { name: /Dairy people/ })).toContainText('2 groups, 3 people');
});

test('what is released to it reaches its groups, and not the person who is removed', async () => {
  const { id } = await api<{ id: string }>(instructor, 'POST', `courses/${courseId}/activities`, {
    kind: 'assignment',
    title: 'Curd log',
    brief: { type: 'doc', content: [] },
    points: '10',
    rubric: null,
    settings: {},
    schedule: { opens: null, due: null, closes: null },
    latePolicy: { graceMinutes: 0, stepPercent: 0, periodMinutes: 1440, capPercent: 0 },
  });
  await instructor.goto(`/c/${courseId}/release/${id}`);
  await instructor.getByText('Dairy people').click();
  await expect(instructor.getByText('Who is outside, and why')).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Release to 2 groups' }).click();
  await expect(instructor.getByText('Live', { exact: true })).toBeVisible();
  await instructor.goto(`/c/${courseId}/release`);
  await expect(instructor.getByRole('link', { name: /Curd log/ })).toContainText('Dairy people: 2 groups');
  const seen = { Ada: 1, Bo: 0, Cho: 1, Dia: 0, Eva: 1 };
  for (const [name, count] of Object.entries(seen)) {
    const page = sure(students.get(name));
    await page.goto(`/c/${courseId}/room`);
    await expect(page.getByRole('main')).toBeVisible();
    await expect(page.getByRole('main').getByRole('link', { name: /Curd log/ }), name).toHaveCount(count);
  }
});

test('someone who moves gets it and loses it without a reload', async () => {
  const dia = sure(students.get('Dia'));
  const log = dia.getByRole('main').getByRole('link', { name: /^Curd log/ });
  await dia.goto(`/c/${courseId}/due`);
  await expect(dia.getByRole('main')).toBeVisible();
  await place(instructor, benchesId, 'Dia', 'Crock');
  await expect(log).toHaveCount(1);
  await place(instructor, benchesId, 'Dia', 'Tun');
  await expect(log).toHaveCount(0);
});

test('another line reaches another group at once, and the way back takes it away again', async () => {
  const dia = sure(students.get('Dia'));
  const log = dia.getByRole('main').getByRole('link', { name: /^Curd log/ });
  await instructor.goto(`/c/${courseId}/audiences`);
  await instructor.getByRole('link', { name: /Dairy people/ }).click();
  await add('In it', 'tun', 'Members of Tun (Bench teams)');
  await instructor.getByRole('button', { name: 'Save audience' }).click();
  await expect(instructor.getByText('Dairy people saved')).toBeVisible();
  await expect(log).toHaveCount(1);
  await expect(instructor.getByText('Used by Curd log')).toBeVisible();
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(log).toHaveCount(0);
});
