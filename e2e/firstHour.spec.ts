import path from 'node:path';
import type { Page } from '@playwright/test';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, api } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** A teacher's first hour: from the registry's workbook to groups that were dealt by rules. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let courseId = '';
/** How often something was pressed. */
let presses = 0;
const press = async (role: 'button' | 'link' | 'menuitem', name: string | RegExp) => {
  presses += 1;
  await instructor.getByRole(role, { name }).first().click();
};

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  courseId = (await aCourseOf(instructor, 'FER 700', 'Koji', ['Jo Mere <jo.hour@quillmere.example>'])).id;
});

test('the class is found in a workbook behind a cover sheet, under titles and merged bands', async () => {
  await instructor.goto(`/c/${courseId}/people/import`);
  presses += 1; // choosing the file
  await instructor
    .locator('input[type=file]')
    .setInputFiles(path.join(import.meta.dirname, 'support/class.xlsx'));
  await expect(instructor.getByRole('button', { name: /Sheet Class list/ })).toBeVisible();
  await expect(instructor.getByRole('button', { name: /Headings in line 4/ })).toBeVisible();
  await expect(instructor.getByText('New group set “Tutorial”')).toBeVisible();
  await expect(instructor.getByRole('row', { name: /Ada Holm/ })).toContainText('00000700');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: '3 rows skipped…' }).click();
  await expect(instructor.getByText(/Line 14: Total · 9/)).toBeVisible();
  await instructor.keyboard.press('Escape');
  await press('button', 'Skip line 13');
  await press('button', 'Import 8 rows');
  await expect(instructor.getByText(/8 added, 0 changed/)).toBeVisible();
});

test('the import page fits small windows without a sideways scroll of the page', async () => {
  for (const size of [
    { width: 1280, height: 800 },
    { width: 1024, height: 700 },
    { width: 640, height: 400 },
  ]) {
    await instructor.setViewportSize(size);
    await instructor.goto(`/c/${courseId}/people/import`);
    await instructor
      .locator('input[type=file]')
      .setInputFiles(path.join(import.meta.dirname, 'support/class.xlsx'));
    await expect(instructor.getByRole('button', { name: 'Cancel import' })).toBeVisible();
    // Names what sticks out, so that a failure says where to look.
    const sticksOut = await instructor.evaluate(() => {
      const { scrollWidth, clientWidth } = document.documentElement;
      if (scrollWidth <= clientWidth) return [];
      const isClipped = (each: Element): boolean =>
        each.parentElement !== null &&
        (getComputedStyle(each.parentElement).overflowX !== 'visible' || isClipped(each.parentElement));
      return [...document.querySelectorAll('body *')]
        .filter((each) => each.getBoundingClientRect().right > clientWidth + 1 && !isClipped(each))
        .map((each) => `${each.tagName} ${each.className} ${(each.textContent ?? '').slice(0, 40)}`)
        .slice(0, 12);
    });
    expect(sticksOut, `at ${size.width} wide`).toEqual([]);
    expect(await instructor.evaluate(() => document.documentElement.scrollWidth)).toBe(size.width);
  }
  await instructor.setViewportSize({ width: 1280, height: 800 });
});

test('groups are made and dealt by rules in a few presses', async () => {
  await instructor.goto(`/c/${courseId}/people`);
  await press('link', /^Groups/);
  await press('link', 'New group set');
  await instructor.getByLabel('Name of the set').fill('Koji teams');
  await instructor.getByLabel('Members in a group').fill('3');
  await press('button', 'Create 3 groups');
  await press('button', 'Add a rule');
  await press('menuitem', /^Spread an attribute evenly/);
  await press('button', 'Deal 9 students');
  await expect(instructor.getByText('3 of 3 groups mixed')).toBeVisible();
  await expectAccessible(instructor);
  await press('button', 'Proof…');
  await expect(instructor.getByText(/^Proven|random deal/).first()).toBeVisible();
  await expectAccessible(instructor);
  await instructor.keyboard.press('Escape');
  await press('button', 'Accept for 9 students');
  await expect(instructor.getByText(/9 students dealt by 1 rule/).first()).toBeVisible();
  expect(presses).toBeLessThanOrEqual(14);
});

test('a search on the Board finds who is in a group, and the next key places them', async () => {
  const sets = await api<{ sets: { id: string; name: string }[] }>(
    instructor,
    'GET',
    `courses/${courseId}/sets`,
  );
  const { id } = sure(sets.sets.find((set) => set.name === 'Koji teams'));
  await instructor.goto(`/c/${courseId}/groups/${id}`);
  const groupOf = async () => {
    const board = await api<BoardView>(instructor, 'GET', `sets/${id}/board`);
    return board.groups.find(
      (group) => group.id === board.students.find((each) => each.name === 'Gus Field')?.seats[0]?.groupId,
    )?.number;
  };
  const to = (sure(await groupOf()) % 3) + 1;
  await instructor.getByRole('region', { name: 'Unplaced' }).waitFor();
  await instructor.keyboard.press('/');
  await instructor.keyboard.type('gus');
  await expect(instructor.getByRole('region', { name: 'Found in groups' })).toContainText('Gus Field');
  await expectAccessible(instructor);
  await instructor.keyboard.press('Enter');
  await expect(instructor.getByText('1 selected.')).toBeVisible();
  await expect(instructor.getByRole('row', { name: 'Gus Field' })).toBeFocused();
  await instructor.keyboard.press(String(to));
  await expect.poll(groupOf).toBe(to);
});
