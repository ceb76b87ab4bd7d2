import type { Page } from '@playwright/test';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anAssignmentFor, api, importPeople, browsersOf } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';
import { squeezed } from './support/squeezed.js';

/** Windows that are small, or enlarged to twice the size, and a colleague who works on the same Board. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let courseId = '';
let setId = '';
let activityId = '';
let groupId = '';
let expertsId = '';
const given = ['Ada', 'Bo', 'Cho', 'Dia', 'Eva', 'Fay'];

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  courseId = (
    await aCourseOf(
      instructor,
      'FER 640',
      'Fermentation at small scale',
      given.map((name) => `${name} Achterberg-Nwosu <${name.toLowerCase()}.s@quillmere.example>`),
    )
  ).id;
  const set = await api<{ id: string }>(instructor, 'POST', `courses/${courseId}/sets`, {
    name: 'Bench teams',
    shape: { by: 'count', groups: 3 },
    capacity: 2,
    pattern: '',
    names: ['Crock', 'Carboy', 'Tun'],
  });
  setId = set.id;
  expertsId = (
    await api<{ id: string }>(instructor, 'POST', `sets/${setId}/experts`, {
      name: 'Expert tables',
      topics: ['Salt and brine', 'Temperature', 'Packaging', 'Gas', 'Sugars', 'Starter cultures'],
      most: 4,
      seed: 7,
    })
  ).id;
  await anAssignmentFor(instructor, courseId, setId, 'Starter log', '10');
  const { activities } = await api<{ activities: { id: string }[] }>(
    instructor,
    'GET',
    `courses/${courseId}/activities`,
  );
  activityId = sure(activities[0]).id;
  const { groups } = await api<BoardView>(instructor, 'GET', `sets/${setId}/board`);
  groupId = sure(groups[0]).id;
});

const pages: readonly [path: string, work: string][] = [
  ['people', 'Roster'],
  ['people/import', 'Import people'],
  ['outbox', 'Outbox'],
  ['messages', 'Messages'],
  ['audit', 'Audit trail'],
  ['groups/new', 'New group set'],
  ['groups/:set', 'Bench teams'],
  ['groups/:experts', 'Home groups'],
  ['course', 'Course settings'],
  ['groups/:set/deal', 'Deal Bench teams'],
  ['groups/:set/lists', 'Lists of Bench teams'],
  ['release', 'Release'],
  ['release/week', 'Week'],
  ['release/sightlines', 'Sightlines'],
  ['release/checks', 'To check'],
  ['outline', 'Outline'],
  ['audiences/new', 'In it'],
  ['release/:activity', 'Starter log'],
  ['rooms', 'Rooms'],
  ['room/:group', 'Lately'],
  ['marks', 'Marking desk'],
  ['marks/gradebook', 'Gradebook'],
];

for (const size of [
  { width: 1024, height: 700 },
  { width: 640, height: 400 },
])
  test(`every page of the staff can be read at ${size.width} by ${size.height}`, async () => {
    await instructor.setViewportSize(size);
    for (const [path, work] of pages) {
      await instructor.goto(
        `/c/${courseId}/${path.replace(':set', setId).replace(':experts', expertsId).replace(':activity', activityId).replace(':group', groupId)}`,
      );
      await expect(instructor.getByText(work).first(), path).toBeVisible();
      expect(await squeezed(instructor), path).toEqual([]);
      expect(await instructor.evaluate(() => document.documentElement.scrollWidth), path).toBe(size.width);
      await expectAccessible(instructor);
    }
  });

test('an assistant’s move is seen at once, said with its name, and told in the history', async ({
  browser,
}) => {
  await instructor.setViewportSize({ width: 1280, height: 800 });
  await importPeople(instructor, courseId, ['Jo Vale <jo.v@quillmere.example>'], 'assistant');
  const jo = sure((await browsersOf(browser, instructor, courseId, ['Jo'])).get('Jo'));
  const board = `/c/${courseId}/groups/${setId}`;
  await instructor.goto(board);
  const group = (page: Page, name: string) => page.getByRole('grid', { name: new RegExp(`^${name}, group`) });
  await expect(group(instructor, 'Tun')).toBeVisible();
  await jo.goto(board);
  await jo.getByRole('grid', { name: 'Unplaced students' }).getByRole('row', { name: /^Ada/ }).click();
  await jo.keyboard.press('3');

  await expect(group(instructor, 'Tun').getByText('Ada Achterberg-Nwosu')).toBeVisible();
  await expect(instructor.getByText(/^Jo Vale placed Ada Achterberg-Nwosu in Tun, \d\d:\d\d$/)).toBeVisible();
  await instructor.getByRole('button', { name: 'Moves…' }).click();
  const moves = instructor.getByRole('dialog', { name: 'Moves in Bench teams' });
  await expect(moves.getByText('Jo Vale placed Ada Achterberg-Nwosu in Tun')).toBeVisible();
  await expectAccessible(instructor);
  await instructor.keyboard.press('Escape');
});

test('a group that is full can be let hold more, and a locked one takes no one in until it is unlocked', async () => {
  const tray = instructor.getByRole('grid', { name: 'Unplaced students' });
  for (const name of ['Bo', 'Cho']) {
    await tray.getByRole('row', { name: new RegExp(`^${name}`) }).click();
    await instructor.keyboard.press('3');
  }
  await instructor.getByRole('button', { name: 'Let Tun hold 3' }).click();
  await expect(instructor.getByText('Tun may hold 3')).toBeVisible();
  await expect(instructor.getByRole('button', { name: 'Let Tun hold 3' })).toHaveCount(0);

  await instructor.getByRole('button', { name: 'More of Crock' }).click();
  await instructor.getByRole('menuitem', { name: /^Lock/ }).click();
  await expect(instructor.getByText('Locked', { exact: true })).toBeVisible();
  await tray.getByRole('row', { name: /^Dia/ }).click();
  await instructor.keyboard.press('1');
  await expect(instructor.getByText('Crock is locked: no one joins or leaves.')).toBeVisible();
  const seatOfDia = async () => {
    const { students } = await api<BoardView>(instructor, 'GET', `sets/${setId}/board`);
    return sure(students.find((student) => student.name.startsWith('Dia'))).seats.length;
  };
  expect(await seatOfDia()).toBe(0);
  await instructor.getByRole('button', { name: 'Unlock and move' }).click();
  await expect.poll(seatOfDia).toBe(1);
});

test('groups of another size are made where they are dealt', async () => {
  await instructor.goto(`/c/${courseId}/groups/${setId}/deal`);
  await instructor.getByRole('button', { name: '3 groups of 2…' }).click();
  await instructor.getByRole('textbox', { name: 'Students per group' }).fill('1');
  await expect(instructor.getByText('6 groups of 1. 3 groups are added.')).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Use groups of 1' }).click();
  await expect(instructor.getByRole('button', { name: '6 groups of 1…' })).toBeVisible();
  await instructor.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(instructor.getByRole('button', { name: '3 groups of 2…' })).toBeVisible();
});

test('what was copied from a mail is read, and any of it can be skipped', async () => {
  await instructor.goto(`/c/${courseId}/people/import`);
  await instructor.getByRole('tab', { name: 'From a pasted list' }).click();
  await instructor
    .getByRole('textbox', { name: /^Emails, with names/ })
    .fill(
      'Hello,\n1. "Gus Field" <gus.f@quillmere.example>\n• Hal Ito (hal.i@quillmere.example)\n-- \nThe Registry',
    );
  await instructor.getByRole('button', { name: 'Show what would change' }).click();
  await expect(instructor.getByRole('button', { name: '3 lines skipped…' })).toBeVisible();
  await instructor.getByRole('button', { name: 'Skip line 3' }).click();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Import 1 row' }).click();
  await expect(instructor.getByText('1 added, 0 changed')).toBeVisible();
});
