import type { Page } from '@playwright/test';
import type { BoardView } from '@jigsaw/contract/placing';
import type { ActivityList } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { wholeSet } from '@jigsaw/core/release';
import { aCourseOf, anActivityFor, api, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** A release that leaves a group out is found, mended by one press, and a thing that may stay is dismissed with its reason. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
const toCheck = () => instructor.getByRole('list', { name: 'To check' }).getByRole('listitem');

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const people = ['Ada', 'Bo', 'Cho', 'Dia'].map((name) => `${name} Vos <${name.toLowerCase()}.v194@quillmere.example>`); // prettier-ignore
  courseId = (await aCourseOf(instructor, 'FER 194', 'Vinegar', people)).id;
  const setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun', 'Cask'])).id;
  for (const [name, group] of [['Ada', 'Crock'], ['Bo', 'Tun'], ['Cho', 'Cask']] as const) await place(instructor, setId, name, group); // prettier-ignore
  await anActivityFor(instructor, courseId, setId, { kind: 'discussion', title: 'Smells' });
  const { activities } = await api<ActivityList>(instructor, 'GET', `courses/${courseId}/activities`);
  const { id } = sure(activities[0]);
  const { groups } = await api<BoardView>(instructor, 'GET', `sets/${setId}/board`);
  const two = groups.filter(({ name }) => name !== 'Cask');
  await api(instructor, 'PUT', `activities/${id}/reach`, { to: { include: two.map((group) => ({ kind: 'group', setId, groupId: group.id })), exclude: [] }, outsiders: 'hidden', was: { to: wholeSet(setId), outsiders: 'hidden' } }); // prettier-ignore
  await anActivityFor(instructor, courseId, setId, { kind: 'assignment', title: 'Report', points: '10', due: '2030-11-12T17:00:00.000Z' }); // prettier-ignore
  students = await browsersOf(browser, instructor, courseId);
});

test('a group that was forgotten is found on the release page and let in by one press', async () => {
  const cho = sure(students.get('Cho'));
  await cho.goto(`/c/${courseId}/room`);
  await expect(cho.getByRole('link', { name: /^Report/ })).toBeVisible();
  await expect(cho.getByRole('link', { name: /^Smells/ })).toHaveCount(0);
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('link', { name: '2 to check', exact: true }).click();
  await expect(toCheck()).toHaveCount(2);
  await expectAccessible(instructor);
  const forgotten = toCheck().filter({ hasText: '“Smells” leaves out Cask' });
  await forgotten.getByRole('button', { name: 'Release to Cask too' }).click();
  await expect(instructor.getByText('“Smells” now reaches Cask too')).toBeVisible();
  await expect(toCheck()).toHaveCount(1);
  await expect(cho.getByRole('link', { name: /^Smells/ })).toBeVisible(); // in the open page
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(forgotten).toBeVisible();
  await expect(cho.getByRole('link', { name: /^Smells/ })).toHaveCount(0);
  // The composer says it of its own, and the track counts it.
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('link', { name: 'Smells' }).first().click();
  const here = instructor.getByRole('list', { name: 'To check here' }).getByRole('listitem');
  await expect(here).toHaveCount(1);
  await expectAccessible(instructor);
  const counted = (count: number) => instructor.getByRole('link', { name: `Release ${count} to check`, exact: true }); // prettier-ignore
  await expect(counted(2)).toBeVisible();
  await here.getByRole('button', { name: 'Release to Cask too' }).click();
  await expect(here).toHaveCount(0);
  await expect(counted(1)).toBeVisible();
  await expect(cho.getByRole('link', { name: /^Smells/ })).toBeVisible();
  await instructor.goto(`/c/${courseId}/release/checks`);
});

test('what may stay is dismissed with a reason, and comes up again when it changes', async () => {
  const unplaced = toCheck().filter({ hasText: 'Dia Vos is in no group of Bench teams' });
  await unplaced.getByRole('button', { name: /^Dismiss/ }).click();
  const sheet = instructor.getByRole('dialog', { name: 'Keep it as it is' });
  await expectAccessible(instructor);
  await sheet
    .getByRole('textbox', { name: 'Reason, for others who release here' })
    .fill('Dia joins on Monday');
  await instructor.keyboard.press('Tab');
  await sheet.getByRole('button', { name: 'Dismiss' }).click();
  await expect(instructor.getByRole('heading', { name: 'Nothing to check' })).toBeVisible();
  await instructor.getByRole('button', { name: '1 dismissed' }).click();
  await expect(instructor.getByText('Dia joins on Monday')).toBeVisible();
  await expectAccessible(instructor);
  await anActivityFor(instructor, courseId, sure((await api<{ sets: { id: string }[] }>(instructor, 'GET', `courses/${courseId}/sets`)).sets[0]).id, { kind: 'wiki', title: 'Log' }); // prettier-ignore
  await expect(unplaced).toBeVisible(); // now it is about the log as well
});
