import type { Page } from '@playwright/test';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anActivityFor, aSetOf, browsersOf, place } from './support/course.js';
import { rowCounts } from './support/database.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** What a move, a withdrawal or other readers would change is read before it is done, and is what it does. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
let setId = '';
const student = (name: string) => sure(students.get(name));
const sheetOf = (name: string) => instructor.getByRole('dialog', { name });
const changes = () => instructor.getByRole('list', { name: 'What would change' }).getByRole('listitem');

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const people = ['Ada', 'Bo', 'Cho'].map((name) => `${name} Lind <${name.toLowerCase()}.l196@quillmere.example>`); // prettier-ignore
  courseId = (await aCourseOf(instructor, 'FER 196', 'Tempeh', people)).id;
  setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun'])).id;
  for (const [name, group] of [['Ada', 'Crock'], ['Bo', 'Crock'], ['Cho', 'Tun']] as const) await place(instructor, setId, name, group); // prettier-ignore
  await anActivityFor(instructor, courseId, setId, { kind: 'discussion', title: 'Smells' });
  students = await browsersOf(browser, instructor, courseId);
});

test('a move is looked at for one group after the other, changes nothing, and is done from there', async () => {
  await student('Ada').goto(`/c/${courseId}/room`);
  await expect(student('Ada').getByRole('heading', { name: 'Crock' })).toBeVisible();
  await instructor.goto(`/c/${courseId}/groups/${setId}`);
  const before = await rowCounts();
  await instructor.getByRole('row', { name: /^Ada Lind/ }).click({ button: 'right' });
  await instructor.getByRole('menuitem', { name: 'Show what a move changes…' }).click();
  const sheet = sheetOf('If Ada Lind moved');
  await sheet.getByRole('button', { name: /^To|Choose a group/ }).click();
  await instructor.getByRole('option', { name: 'Tun' }).click();
  await expect(changes()).toHaveText(['Ada Lind goes from Crock’s copy to Tun’s copySmells']);
  await expectAccessible(instructor);
  expect(await rowCounts()).toEqual(before);
  await sheet.getByRole('button', { name: 'Move to Tun' }).click();
  await expect(instructor.getByRole('grid', { name: /^Tun, group/ }).getByRole('row', { name: /^Ada Lind/ })).toBeVisible(); // prettier-ignore
  await student('Ada').goto(`/c/${courseId}/room`);
  await expect(student('Ada').getByRole('heading', { name: 'Tun' })).toBeVisible();
});

test('a withdrawal, and other readers, are looked at in the composer', async () => {
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('link', { name: 'Smells' }).first().click();
  await instructor.getByRole('button', { name: 'Show what changes…' }).click();
  await expect(changes()).toHaveText([
    'Ada Lind and Cho Lind lose Tun’s copySmells',
    'Bo Lind loses Crock’s copySmells',
  ]);
  await sheetOf('Withdraw: what changes').getByRole('button', { name: 'Withdraw' }).click();
  await expect(instructor.getByText('Smells withdrawn. What was done in it stays.')).toBeVisible();
});
