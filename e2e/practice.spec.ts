import type { Page } from '@playwright/test';
import { sure } from '@jigsaw/core/lists';
import type { RoomLines } from '@jigsaw/contract/rooms';
import { aCourseOf, anActivityFor, api, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** What a member of a group can do is tried out as no one: nothing of it meets a student or counts, and it is cleared in one act. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
let crock = '';
const ada = () => sure(students.get('Ada'));
const strip = () => instructor.getByRole('region', { name: 'Practising' });
const station = (name: RegExp) => instructor.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name }); // prettier-ignore

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  courseId = (await aCourseOf(instructor, 'FER 197', 'Natto', ['Ada Voss <ada.p197@quillmere.example>'])).id;
  const setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun'])).id;
  await place(instructor, setId, 'Ada', 'Crock');
  await anActivityFor(instructor, courseId, setId, { kind: 'discussion', title: 'Smells' });
  await anActivityFor(instructor, courseId, setId, { kind: 'assignment', title: 'Report', points: '10', due: '2030-11-12T17:00:00.000Z' }); // prettier-ignore
  const { lines } = await api<RoomLines>(instructor, 'GET', `courses/${courseId}/room-lines`);
  crock = sure(lines.find(({ group }) => group.name === 'Crock')).group.id;
  students = await browsersOf(browser, instructor, courseId);
});

test('an instructor posts and hands in as a member of a group, and no one else meets it', async () => {
  const everyones = async () => [
    await api(instructor, 'GET', `courses/${courseId}/figures`),
    await api(instructor, 'GET', `courses/${courseId}/room-lines`),
    await api(instructor, 'GET', `courses/${courseId}/gradebook`),
    await api(ada(), 'GET', `courses/${courseId}/rooms`),
  ];
  const before = await everyones();
  await instructor.goto(`/c/${courseId}/room/${crock}`);
  await instructor.getByRole('button', { name: 'Practise in Crock' }).click();
  await expect(strip()).toContainText('Practising as a member of Crock.');
  await expectAccessible(instructor);
  await instructor.getByRole('link', { name: /^Smells/ }).click();
  await instructor.getByRole('textbox', { name: /post/i }).fill('Does this go to everyone?');
  await instructor.getByRole('button', { name: 'Post to Crock' }).click();
  await expect(instructor.getByText('Does this go to everyone?')).toBeVisible();
  await station(/^Room/).click();
  await instructor.getByRole('link', { name: /^Report/ }).click();
  await instructor.getByRole('textbox').first().fill('Boiled and inoculated');
  await instructor.getByRole('button', { name: /^Hand in/ }).click();
  await expect(instructor.getByText(/Handed in/).first()).toBeVisible();
  expect(await everyones()).toEqual(before);
  await ada().goto(`/c/${courseId}/room`);
  await ada()
    .getByRole('link', { name: /^Smells/ })
    .click();
  await expect(ada().getByText('Does this go to everyone?')).toHaveCount(0);
});

test('what was practised is cleared in one act, with the way back', async () => {
  const posts = instructor.getByText('Does this go to everyone?');
  await strip().getByRole('button', { name: 'Clear what was practised' }).click();
  await expect(instructor.getByText('What was practised in this course is cleared')).toBeVisible();
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(instructor.getByText('What was practised is back')).toBeVisible();
  await instructor.getByRole('link', { name: /^Smells/ }).click();
  await expect(posts).toBeVisible();
  await strip().getByRole('button', { name: 'Clear what was practised' }).click();
  await expect(instructor.getByRole('heading', { name: 'Crock' })).toBeVisible();
  await instructor.getByRole('link', { name: /^Smells/ }).click();
  await expect(instructor.getByRole('heading', { name: 'Smells' })).toBeVisible();
  await expect(posts).toHaveCount(0);
  await strip().getByRole('link', { name: 'Leave' }).click();
  await expect(instructor.getByRole('button', { name: 'Practise in Crock' })).toBeVisible();
});
