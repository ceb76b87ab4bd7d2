import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { sure } from '@jigsaw/core/lists';
import type { RoomLines, RoomView } from '@jigsaw/contract/rooms';
import { aCourseOf, api, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** Questions written once, answered by each, read together. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
const student = (name: string) => sure(students.get(name));
const names = ['Ada', 'Bo', 'Cleo', 'Dora'] as const;

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const listed = names.map((name) => `${name} Vale <${name.toLowerCase()}.v192@quillmere.example>`);
  courseId = (await aCourseOf(instructor, 'FER 192', 'Pickles', listed)).id;
  const setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Carboy'])).id;
  for (const [at, name] of names.entries()) await place(instructor, setId, name, at < 2 ? 'Crock' : 'Carboy');
  students = await browsersOf(browser, instructor, courseId);
});

async function begin(title: string): Promise<void> {
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('button', { name: 'New activity' }).first().click();
  await instructor.getByRole('menuitem', { name: /^Questionnaire/ }).click();
  await instructor.getByRole('textbox', { name: 'Title' }).fill(title);
}
const question = (number: number) => instructor.getByRole('listitem', { name: `Question ${number}` });
const open = async (page: Page, title: string) => {
  await page.goto(`/c/${courseId}/due`);
  await page.getByRole('link', { name: new RegExp(title) }).click();
};

/** Crock's copy, or the one for all. */
const openAsStaff = async (title: string) => {
  const { lines, common } = await api<RoomLines>(instructor, 'GET', `courses/${courseId}/room-lines`);
  const crock = sure(lines.find(({ group }) => group.name === 'Crock')).group.id;
  const { items } = await api<RoomView>(instructor, 'GET', `groups/${crock}/room`);
  const { copyId } = sure([...items, ...common].find((item) => item.title === title));
  await instructor.goto(`/c/${courseId}/copies/${copyId}`);
};

test('questions are written one by one, and go to each bench', async () => {
  await begin('How are your jars?');
  await expect(instructor.getByText('Add a question.')).toBeVisible();
  await instructor.getByRole('button', { name: 'Choice', exact: true }).click();
  await instructor.keyboard.type('What does it smell of?');
  await question(1).getByRole('textbox', { name: 'Choice 1' }).fill('Sour');
  await question(1).getByRole('textbox', { name: 'Choice 2' }).fill('Sulphur');
  await question(1).getByRole('checkbox', { name: 'Has to be answered' }).check();
  await instructor.getByRole('button', { name: 'Scale', exact: true }).click();
  await instructor.keyboard.type('How sour is it?');
  await instructor.getByRole('button', { name: 'Long text', exact: true }).click();
  await instructor.keyboard.type('Next time?');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Release to 2 groups' }).click();
  await expect(instructor.getByText(/^Released to 2 groups/)).toBeVisible();
});

test('a student answers with the keyboard alone, and changes an answer', async () => {
  const ada = student('Ada');
  await open(ada, 'How are your jars');
  await expect(ada.getByText(/Staff see your answers with your name/)).toBeVisible();
  await expectAccessible(ada);
  await ada.getByRole('radio', { name: 'Sour', exact: true }).focus();
  await ada.keyboard.press('Space');
  await ada.keyboard.press('Tab'); // clears
  await ada.keyboard.press('Tab');
  await ada.keyboard.press('Space');
  await ada.keyboard.press('ArrowRight');
  await expect(ada.getByRole('radio', { name: '2' })).toBeChecked();
  await ada.getByRole('textbox', { name: 'Next time?' }).fill('Weigh twice');
  await ada.keyboard.press('Tab');
  await ada.keyboard.press('Enter');
  await expect(ada.getByText(/^You answered/)).toBeVisible();
  await ada.getByRole('radio', { name: '3' }).check();
  await ada.getByRole('button', { name: 'Send changed answers' }).click();
  await expect(ada.getByRole('button', { name: 'Send changed answers' })).toBeDisabled();
  await ada.goto(`/c/${courseId}/due`);
  await expect(ada.getByRole('link', { name: /How are your jars/ })).toBeHidden();
});

test('staff see them come in, bench by bench and together, as bars and as a file', async () => {
  await openAsStaff('How are your jars?');
  await expect(instructor.getByText('1 of 2 have answered.')).toBeVisible();
  await expect(instructor.getByText('Waiting for Bo Vale.')).toBeVisible();
  await expect(
    instructor.getByRole('region', { name: 'Question 1' }).locator('svg .apexcharts-bar-area').first(),
  ).toBeVisible();
  const bo = student('Bo');
  await open(bo, 'How are your jars');
  await bo.getByRole('radio', { name: 'Sulphur' }).check();
  await bo.getByRole('button', { name: 'Send answers' }).click();
  await expect(instructor.getByText('2 of 2 have answered.')).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByText('All 2 groups').click();
  await expect(instructor.getByText('2 of 4 have answered.')).toBeVisible();
  const download = instructor.waitForEvent('download');
  await instructor.getByRole('link', { name: /CSV/ }).click();
  const file = await readFile(await (await download).path(), 'utf8');
  expect(file).toContain('Crock,Ada Vale,Sour,3,Weigh twice');
});

test('once there are answers, a question that was answered stays', async () => {
  await instructor.goto(`/c/${courseId}/release`);
  await instructor
    .getByRole('link', { name: /How are your jars/ })
    .first()
    .click();
  await instructor.getByRole('button', { name: 'Remove question 2' }).click();
  await expect(
    instructor.getByText(/People have answered already, so question 2 stays/).first(),
  ).toBeVisible();
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(question(3)).toBeVisible();
});

test('an anonymous one is held back until three have answered, and then tells no one whose answers are whose', async () => {
  await begin('How is it going?');
  await instructor.getByText('Anonymous', { exact: true }).click();
  await instructor.getByRole('button', { name: 'Short text', exact: true }).click();
  await instructor.keyboard.type('One thing to keep');
  await instructor.getByText('The whole class', { exact: true }).click();
  await instructor.getByRole('button', { name: /^Release to/ }).click();
  await expect(instructor.getByText(/^Released to/)).toBeVisible();
  const answer = async (name: (typeof names)[number]) => {
    const page = student(name);
    await open(page, 'How is it going');
    await page.getByRole('textbox', { name: 'One thing to keep' }).fill(`Fridays, ${name.length}`);
    await page.getByRole('button', { name: 'Send answers' }).click();
    await expect(page.getByText('You have answered. Thank you.')).toBeVisible();
  };
  await answer('Ada');
  await answer('Bo');
  await openAsStaff('How is it going?');
  await expect(instructor.getByText(/Answers are shown once 3 have answered/)).toBeVisible();
  await answer('Cleo');
  await expect(instructor.getByText('Fridays, 4')).toBeVisible();
  await expect(instructor.getByRole('main').getByText(/Vale/)).toHaveCount(0);
  await expectAccessible(instructor);
});
