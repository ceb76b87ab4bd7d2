import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anActivityFor, api, aSetOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** Who sees what, as one picture that explains itself and follows what others do. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let courseId = '';
let setId = '';
const cell = (name: string | RegExp) => instructor.getByRole('gridcell', { name });

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const people = ['Ada', 'Bo', 'Cho', 'Dia'].map((name) => `${name} Falk <${name.toLowerCase()}.f193@quillmere.example>`); // prettier-ignore
  courseId = (await aCourseOf(instructor, 'FER 193', 'Tempeh', people)).id;
  setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun'])).id;
  for (const [name, group] of [['Ada', 'Crock'], ['Bo', 'Crock'], ['Cho', 'Tun']] as const) await place(instructor, setId, name, group); // prettier-ignore
  await anActivityFor(instructor, courseId, setId, { kind: 'discussion', title: 'Smells', due: '2030-11-12T17:00:00.000Z' }); // prettier-ignore
  await anActivityFor(instructor, courseId, setId, { kind: 'assignment', title: 'Report', points: '10', due: '2030-11-12T17:00:00.000Z', goesLiveAt: new Date('2030-11-01T08:00:00.000Z') }); // prettier-ignore
});

test('each group’s cell says what it sees, with reasons, by keys alone', async () => {
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('link', { name: 'Sightlines' }).click();
  await expect(cell('Crock, Smells: own copy')).toBeVisible();
  await expect(cell('Tun, Report: own copy, from Fri 1 Nov, 08:00')).toBeVisible();
  await expect(cell('No group, Smells: not listed')).toBeVisible();
  await expectAccessible(instructor);
  await cell('Crock, Smells: own copy').focus();
  await instructor.keyboard.press('ArrowRight');
  await expect(cell('Tun, Smells: own copy')).toBeFocused();
  await instructor.keyboard.press('ArrowDown');
  await expect(cell(/^Tun, Report/)).toBeFocused();
  await instructor.keyboard.press('ArrowUp');
  await instructor.keyboard.press('ArrowLeft');
  await instructor.keyboard.press('Enter');
  const panel = instructor.getByRole('complementary', { name: 'What Crock sees' });
  await expect(panel.getByText('It was released to Bench teams.')).toBeVisible();
  await expect(panel.getByRole('list', { name: 'Members' })).toContainText('Ada Falk');
  // There is less room for the columns now, and all of them have some of it.
  await expect(instructor.getByRole('columnheader', { name: 'No group' })).toBeInViewport({ ratio: 1 });
  await expectAccessible(instructor);
});

test('someone who moves is explained in the open page, with what they keep', async () => {
  const { students, groups } = await api<BoardView>(instructor, 'GET', `sets/${setId}/board`);
  const student = sure(students.find(({ name }) => name === 'Bo Falk')).enrolmentId;
  const [from, to] = groups.map(({ id }) => id);
  await api(instructor, 'POST', `sets/${setId}/place`, { moves: [{ student, from, to }] });
  const panel = instructor.getByRole('complementary', { name: 'What Crock sees' });
  const bo = panel.getByRole('listitem').filter({ hasText: 'Bo Falk' });
  await expect(bo).toContainText('left the group');
  await expect(bo).toContainText('is in Tun now');
  await expect(bo).toContainText('Sees nothing of it.');
});

test('the term is looked through change by change, and what is to come is there at its moment', async () => {
  await instructor.getByRole('button', { name: 'The next change' }).click();
  await expect(instructor.getByText('Fri 1 Nov, 08:00', { exact: true })).toBeVisible();
  await expect(cell('Tun, Report: own copy')).toBeVisible();
  const slider = instructor.getByRole('slider', { name: /Moment of the term/ });
  await slider.focus();
  await instructor.keyboard.press('Home');
  await expect(cell(/^Crock, Smells: own copy, from/)).toBeVisible();
  await instructor.getByRole('button', { name: 'Back to now' }).click();
  await expect(cell('Crock, Smells: own copy')).toBeVisible();
});

test('what a cell shows is changed from it, with the way back', async () => {
  await instructor.goto(`/c/${courseId}/release/sightlines`);
  await cell('Crock, Smells: own copy').click();
  await instructor.getByRole('button', { name: 'Withdraw from Crock' }).click();
  await expect(cell('Crock, Smells: not listed')).toBeVisible();
  await expect(instructor.getByText('Withdrawn from Crock. What was done there stays.')).toBeVisible();
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(cell('Crock, Smells: own copy')).toBeVisible();
  await instructor.getByRole('button', { name: 'Extend for Crock…' }).click();
  const sheet = instructor.getByRole('dialog', { name: 'Extend for a group or student' });
  await expect(sheet.getByText('Crock', { exact: true })).toBeVisible();
  await sheet.getByRole('textbox', { name: 'Reason, shown to the group' }).fill('Their incubator failed');
  await sheet.getByRole('group', { name: 'Due for this group' }).getByRole('spinbutton', { name: /^day/ }).pressSequentially('14'); // prettier-ignore
  await sheet.getByRole('button', { name: 'Extend for Crock' }).click();
  await expect(cell('Crock, Smells: own copy, due 2 days later')).toBeVisible();
});

test('students are looked at one by one, and what is shown goes to a file and to paper', async () => {
  await instructor.getByRole('button', { name: /Columns/ }).click();
  await instructor.getByRole('option', { name: 'Students one by one' }).click();
  await expect(cell('Ada Falk, Smells: own copy, due 2 days later')).toBeVisible();
  await expect(cell('Dia Falk, Smells: not listed')).toBeVisible();
  await instructor.getByRole('searchbox', { name: 'Find a student' }).fill('falk ada');
  await expect(cell(/^Dia Falk/)).toHaveCount(0);
  await expectAccessible(instructor);
  const file = instructor.waitForEvent('download');
  await instructor.getByRole('button', { name: 'Export as CSV' }).click();
  const text = await readFile(await (await file).path(), 'utf8');
  expect(text.split('\r\n').slice(0, 2)).toEqual(['\ufeffActivity,Kind,State,Ada Falk', 'Smells,Discussion,Live,"own copy, due 2 days later"']); // prettier-ignore
  await instructor.evaluate(() => (window.print = () => undefined));
  await instructor.getByRole('button', { name: 'Print' }).click();
  await instructor.emulateMedia({ media: 'print' });
  const paper = instructor.locator('table', { hasText: 'FER 193 · Sightlines, now' });
  await expect(paper.getByText('Ada Falk')).toBeVisible();
  await expect(instructor.getByText('Export as CSV')).toBeHidden();
  await instructor.emulateMedia({ media: 'screen' });
  await expect(paper).toBeHidden();
});
