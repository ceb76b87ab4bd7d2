import { randomUUID } from 'node:crypto';
import type { Page } from '@playwright/test';
import type { RoomView, RoomLines } from '@jigsaw/contract/rooms';
import type { RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anActivityFor, api, aSetOf, browsersOf, place } from './support/course.js';
import { rowCounts } from './support/database.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** The course as one student sees it: the real pages, nothing that is kept of it, and a strip that says so. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
let talk = '';
const student = (name: string) => sure(students.get(name));
const strip = (page: Page) => page.getByRole('region', { name: 'Sitting in' });
const says = (words: string) => ({ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }] }); // prettier-ignore
const post = (by: string, words: string) =>
  api(student(by), 'POST', `copies/${talk}/posts`, { id: randomUUID(), parentId: null, text: says(words) });

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const people = ['Ada', 'Bo', 'Cho'].map((name) => `${name} Reed <${name.toLowerCase()}.r195@quillmere.example>`); // prettier-ignore
  courseId = (await aCourseOf(instructor, 'FER 195', 'Miso', people)).id;
  const setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun'])).id;
  for (const [name, group] of [['Ada', 'Crock'], ['Bo', 'Crock'], ['Cho', 'Tun']] as const) await place(instructor, setId, name, group); // prettier-ignore
  await anActivityFor(instructor, courseId, setId, { kind: 'discussion', title: 'Smells' });
  await anActivityFor(instructor, courseId, setId, { kind: 'assignment', title: 'Report', points: '10', due: '2030-11-12T17:00:00.000Z' }); // prettier-ignore
  students = await browsersOf(browser, instructor, courseId);
  const { lines } = await api<RoomLines>(instructor, 'GET', `courses/${courseId}/room-lines`);
  const crock = sure(lines.find(({ group }) => group.name === 'Crock')).group.id;
  const { items } = await api<RoomView>(instructor, 'GET', `groups/${crock}/room`);
  talk = sure(items.find(({ title }) => title === 'Smells')).copyId;
  await post('Bo', 'Like old rope');
});

test('someone sits in as a student from the roster, looks everywhere, and nothing is kept of it', async () => {
  await instructor.goto(`/c/${courseId}/people`);
  const before = await rowCounts();
  await instructor.getByRole('checkbox', { name: /Ada Reed/ }).click();
  await instructor.getByRole('link', { name: 'Sit in as Ada Reed' }).click();
  await expect(strip(instructor)).toContainText('Sitting in as Ada Reed.');
  await expect(instructor.getByRole('heading', { name: 'Due' })).toBeVisible();
  await expect(instructor.getByRole('navigation', { name: 'Stations' }).getByRole('link')).toHaveText([/^Due/, /^Room/, /^Marks/]); // prettier-ignore
  await expectAccessible(instructor);
  await instructor.getByRole('link', { name: /^Room/ }).click();
  await instructor.getByRole('link', { name: /^Smells/ }).click();
  await expect(instructor.getByText('Like old rope').first()).toBeVisible();
  await instructor.waitForTimeout(2500); // long enough for a reader's own page to tell that it was seen
  await instructor.getByRole('textbox', { name: /post/i }).fill('I should not be here');
  await instructor.getByRole('button', { name: 'Post to Crock' }).click();
  await expect(instructor.getByText('You are sitting in: the student could do this.')).toBeVisible();
  await instructor.goBack();
  await instructor.getByRole('link', { name: /^Report/ }).click();
  await instructor.getByRole('textbox').first().fill('Typed, and not kept');
  await expect(instructor.getByText('Not kept while you sit in')).toBeVisible();
  await instructor.getByRole('link', { name: /^Marks/ }).click();
  await expect(instructor.getByRole('heading', { name: /marks/i }).first()).toBeVisible();
  await strip(instructor).getByRole('link', { name: 'Leave' }).click();
  await expect(instructor.getByRole('heading', { name: 'Roster' })).toBeVisible();
  expect(await rowCounts()).toEqual(before);
  await student('Ada').goto(`/c/${courseId}/room`);
  await expect(student('Ada').getByRole('link', { name: /^Smells/ })).toContainText('1'); // still new to her
});

test('the same page stands beside at the width of a phone, and both follow what students do', async () => {
  const { entries } = await api<RosterView>(instructor, 'GET', `courses/${courseId}/roster`);
  const ada = sure(entries.find(({ name }) => name === 'Ada Reed')).enrolmentId;
  await instructor.goto(`/sit-in/${ada}/c/${courseId}/copies/${talk}`);
  await instructor.getByRole('radio', { name: 'With a phone beside it' }).click();
  const phone = instructor.frameLocator('iframe');
  await expect(phone.getByText('Like old rope').first()).toBeVisible();
  await expect(phone.getByText('Sitting in as')).toHaveCount(0); // the strip around it says so
  await expectAccessible(instructor);
  await post('Bo', 'Now like pears');
  await expect(instructor.getByText('Now like pears')).toBeVisible();
  await expect(phone.getByText('Now like pears')).toBeVisible();
  await instructor.getByRole('link', { name: /^Due/ }).click();
  await expect(phone.getByRole('heading', { name: 'Due' })).toBeVisible();
  await instructor.reload();
  await expect(strip(instructor)).toContainText('Ada Reed');
  await expect(phone.getByRole('heading', { name: 'Due' })).toBeVisible();
  await instructor.getByRole('radio', { name: 'Page' }).click();
  await expect(instructor.locator('iframe')).toHaveCount(0);
});

test('from a cell of the sightlines it opens where the student finds it, or finds nothing', async () => {
  await instructor.goto(`/c/${courseId}/release/sightlines`);
  const cell = instructor.getByRole('gridcell', { name: /Smells/ }).first();
  await cell.click();
  await instructor.getByRole('link', { name: 'Sit in as Bo Reed' }).click();
  await expect(strip(instructor)).toContainText('Bo Reed');
  await expect(instructor.getByRole('heading', { name: 'Smells' })).toBeVisible();
  await strip(instructor).getByRole('link', { name: 'Leave' }).click();
  await expect(instructor.getByRole('heading', { name: 'Sightlines' })).toBeVisible();
});

test('it is over when the student leaves the course, and when the reader is signed out', async () => {
  const { entries } = await api<RosterView>(instructor, 'GET', `courses/${courseId}/roster`);
  const cho = sure(entries.find(({ name }) => name === 'Cho Reed')).enrolmentId;
  await instructor.goto(`/sit-in/${cho}/c/${courseId}/due`);
  await expect(strip(instructor)).toContainText('Cho Reed');
  await api(instructor, 'POST', `courses/${courseId}/roster/changes`, { act: 'drop', enrolmentIds: [cho] });
  await instructor.reload();
  await expect(instructor.getByRole('heading', { name: 'You are not sitting in' })).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('link', { name: 'Go to your courses' }).click();
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const bo = sure(entries.find(({ name }) => name === 'Bo Reed')).enrolmentId;
  await instructor.goto(`/sit-in/${bo}/c/${courseId}/due`);
  await expect(strip(instructor)).toContainText('Bo Reed');
  await instructor.request.delete('/api/session');
  await instructor.getByRole('link', { name: /^Room/ }).click();
  await expect(instructor.getByText('You are signed out. Sign in, then start again.')).toBeVisible();
});
