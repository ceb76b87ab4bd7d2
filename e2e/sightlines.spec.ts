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
