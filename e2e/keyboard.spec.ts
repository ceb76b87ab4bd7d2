import path from 'node:path';
import type { Page } from '@playwright/test';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anActivityFor, anAssignmentFor, api, browsersOf } from './support/course.js';
import { expect, newPerson, signIn, test } from './support/fixtures.js';
import { brightOn } from './support/bright.js';
import { expectFocusKept, openedAll, tabTo, walkedThrough } from './support/keys.js';
import { firstInstructor } from './support/people.js';

/** Every station without a mouse: Tab reaches all that there is, and nothing that is pressed loses the focus. */
test.describe.configure({ mode: 'default' });

let instructor: Page;
let student: Page;
let courseId = '';
const addresses = new Map<string, string>();

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const given = ['Ada', 'Bo', 'Cho', 'Dia'];
  const people = given.map((name) => `${name} Lund <${name.toLowerCase()}.keys@quillmere.example>`);
  courseId = (await aCourseOf(instructor, 'FER 104', 'Rye', people)).id;
  const set = await api<{ id: string }>(instructor, 'POST', `courses/${courseId}/sets`, {
    name: 'Bench teams',
    shape: { by: 'count', groups: 2 },
    capacity: 2,
    pattern: '',
    names: ['Crock', 'Tun'],
  });
  const board = await api<BoardView>(instructor, 'GET', `sets/${set.id}/board`);
  const moves = board.students.slice(0, 3).map((each, at) => ({
    student: each.enrolmentId,
    from: null,
    to: sure(board.groups[at % 2]).id,
  }));
  await api(instructor, 'POST', `sets/${set.id}/place`, { moves });
  const experts = await api<{ id: string }>(instructor, 'POST', `sets/${set.id}/experts`, {
    name: 'Expert tables',
    topics: ['Salt', 'Gas'],
    most: 2,
    seed: 7,
  });
  const panels = await api<{ id: string }>(instructor, 'POST', `courses/${courseId}/sets`, {
    name: 'Panels',
    shape: { by: 'count', groups: 2 },
    capacity: 2,
    pattern: '',
    names: ['Malt', 'Hops'],
    signUp: { opens: null, closes: null, showsNames: true },
  });
  await anAssignmentFor(instructor, courseId, set.id, 'Starter log', '10');
  await anActivityFor(instructor, courseId, set.id, { kind: 'discussion', title: 'Smells' });
  await anActivityFor(instructor, courseId, set.id, { kind: 'wiki', title: 'Notes' });
  const { activities } = await api<{ activities: { id: string; title: string }[] }>(
    instructor,
    'GET',
    `courses/${courseId}/activities`,
  );
  addresses
    .set(':set', set.id)
    .set(':group', sure(board.groups[0]).id)
    .set(':experts', experts.id)
    .set(':panels', panels.id)
    .set(':activity', sure(activities.find((each) => each.title === 'Starter log')).id);
  student = sure((await browsersOf(browser, instructor, courseId, ['Ada'])).get('Ada'));
});

const addressOf = (path: string) =>
  `/c/${courseId}/${[...addresses].reduce((made, [name, id]) => made.replace(name, id), path)}`;

const stations: readonly [path: string, shows: string, reaches: RegExp][] = [
  ['people', 'Ada Lund', /Import people/],
  ['people/import', 'Import people', /From a file/],
  ['outbox', 'Outbox', /Find mail/],
  ['messages', 'Messages', /New message/],
  ['audit', 'Audit trail', /Export as CSV/],
  ['groups/new', 'New group set', /Members in a group/],
  ['groups/:set', 'Bench teams', /Deal 1 student/],
  ['groups/:experts', 'Home groups', /Rebalance/],
  ['course', 'Course settings', /Save course|Title/],
  ['groups/:set/deal', 'Deal Bench teams', /Add a rule/],
  ['groups/:set/lists', 'Lists of Bench teams', /Print/],
  ['release', 'Starter log', /New activity/],
  ['audiences/new', 'In it', /Add to “Except”/],
  ['release/:activity', 'Starter log', /Withdraw|Edit/],
  ['rooms', 'Rooms', /Crock/],
  ['room/:group', 'Lately', /New note/],
  ['marks', 'Marking desk', /Starter log/],
  ['marks/gradebook', 'Gradebook', /as CSV/],
];

for (const [path, shows, reaches] of stations)
  test(`Tab walks through ${path} without a trap and reaches what is done there`, async () => {
    await instructor.goto(addressOf(path));
    await expect(instructor.getByText(shows).first()).toBeVisible();
    const stops = await walkedThrough(instructor, path);
    expect(stops.join('\n')).toMatch(reaches);
  });

/** Another page, a field in its place, or the browser's own choice of files. */
const leadsAway = /^(Deal by rules|Deal 1 student|Print lists|Exclude someone|Attach files)…$/;
const layers: readonly [path: string, opens: readonly string[]][] = [
  ['people', ['Invite the 3 who have not signed in yet…', 'Create sign-in links…', 'Add a person…']],
  [
    'groups/:set',
    ['Set settings…', 'Edit groups…', 'Deal at random or in order…', 'Write to them…', 'Moves…'],
  ],
  ['groups/:experts', ['Topics and tables…', 'Copy set…', 'More of Salt']],
  ['groups/:set/deal', ['Copy rules…', '2 groups of 2…', 'Seed…']],
  ['release/:activity', ['Copy activity…', 'Extend for a group or student…']],
];
for (const [path, opens] of layers)
  test(`what opens on ${path} is accessible and gives the focus back`, async () => {
    await instructor.goto(addressOf(path));
    await instructor.getByRole('main').getByRole('button', { name: /…$/ }).first().waitFor();
    expect(await openedAll(instructor, path, leadsAway)).toEqual(expect.arrayContaining([...opens]));
  });

test('the bright colour is for what has to be done now, once per group of figures', async () => {
  const needs = new Map([
    ['groups/:set', ['1 of 4 unplaced']],
    ['groups/:set/deal', ['1']], // beside “Unplaced”
    ['release/:activity', ['1 see nothing']],
  ]);
  for (const [path, shows] of stations) {
    await instructor.goto(addressOf(path));
    await expect(instructor.getByText(shows).first()).toBeVisible();
    // The figures of the track come last.
    await expect(instructor.getByRole('link', { name: /1 unplaced/ })).toBeVisible();
    await expect(instructor.getByRole('link', { name: /^Release \d+ to check$/ })).toBeVisible();
    const { words, most } = await brightOn(instructor);
    expect.soft(words, path).toEqual(['1 unplaced', expect.stringMatching(/^\d+ to check$/), ...(needs.get(path) ?? [])]); // prettier-ignore
    expect.soft(most, path).toBe(1);
  }
});

test('Tab walks through every page of a student', async () => {
  for (const path of ['due', 'room', 'my-marks', 'messages', 'choose/:panels']) {
    await student.goto(addressOf(path));
    await expect(student.locator('h1, h2').first(), path).toBeVisible();
    expect((await walkedThrough(student, path)).length, path).toBeGreaterThan(4);
  }
  for (const title of ['Starter log', 'Smells', 'Notes']) {
    await student.goto(addressOf('room'));
    await student.getByRole('main').getByRole('link', { name: title }).first().click();
    await expect(student.locator('h1').first()).toContainText(title);
    const stops = await walkedThrough(student, title);
    expect(stops.length, title).toBeGreaterThan(4);
  }
});

/** Leads the focus there by Tab and presses it; the focus must be on something afterwards. */
async function press(role: 'button' | 'link', name: string | RegExp, key = 'Enter'): Promise<void> {
  await tabTo(instructor, instructor.getByRole(role, { name }).first());
  await instructor.keyboard.press(key);
  await expectFocusKept(instructor, String(name));
}

test('a workbook with a cover sheet becomes dealt groups by keys alone', async () => {
  const own = await aCourseOf(instructor, 'FER 105', 'Koji by keys', ['Jo Mere <jo.keys@quillmere.example>']);
  await instructor.goto(`/c/${own.id}/people`);
  await press('link', 'Import people');
  const chooser = instructor.waitForEvent('filechooser');
  await tabTo(instructor, instructor.getByRole('button', { name: /^Choose a file/ }));
  await instructor.keyboard.press('Enter');
  await (await chooser).setFiles(path.join(import.meta.dirname, 'support/class.xlsx'));
  await expect(instructor.getByRole('button', { name: /Sheet Class list/ })).toBeVisible();
  await expectFocusKept(instructor, 'choosing a file');
  await press('button', 'Skip line 13');
  await press('button', 'Import 8 rows');
  await expect(instructor.getByText(/8 added, 0 changed/)).toBeVisible();
  await press('link', /^Groups/);
  await press('link', /^New group set|Create the first one/);
  await tabTo(instructor, instructor.getByLabel('Name of the set'));
  await instructor.keyboard.type('Koji teams');
  await tabTo(instructor, instructor.getByLabel('Members in a group'));
  await instructor.keyboard.press('ControlOrMeta+a');
  await instructor.keyboard.type('3');
  await press('button', 'Create 3 groups');
  await press('button', 'Add a rule');
  await instructor.keyboard.type('Spread');
  await expect(instructor.getByRole('menuitem', { name: /^Spread an attribute evenly/ })).toBeFocused();
  await instructor.keyboard.press('Enter');
  await expectFocusKept(instructor, 'adding a rule');
  await press('button', 'Deal 9 students');
  await expect(instructor.getByText('3 of 3 groups mixed')).toBeVisible();
  await press('button', 'Accept for 9 students');
  await expect(instructor.getByText(/9 students dealt by 1 rule/).first()).toBeVisible();
  const { sets } = await api<{ sets: { id: string; name: string }[] }>(
    instructor,
    'GET',
    `courses/${own.id}/sets`,
  );
  const { students } = await api<BoardView>(
    instructor,
    'GET',
    `sets/${sure(sets.find((set) => set.name === 'Koji teams')).id}/board`,
  );
  expect(students.map((each) => each.seats.length)).toEqual(Array.from({ length: 9 }, () => 1));
});

test('one of 640 students is found among 160 groups, and moved, by keys alone', async () => {
  const lines = Array.from(
    { length: 640 },
    (_, at) => `Nia Brewer${at + 1} <b${at + 1}.keys@quillmere.example>`,
  );
  const large = await aCourseOf(instructor, 'FER 106', 'A large class', lines);
  const { id } = await api<{ id: string }>(instructor, 'POST', `courses/${large.id}/sets`, {
    name: 'Benches',
    shape: { by: 'count', groups: 160 },
    capacity: 5,
    pattern: 'Bench {n}',
    names: [],
  });
  const { groups, students } = await api<BoardView>(instructor, 'GET', `sets/${id}/board`);
  const moves = students.map((each, at) => ({
    student: each.enrolmentId,
    from: null,
    to: sure(groups[at % 160]).id,
  }));
  await api(instructor, 'POST', `sets/${id}/place`, { moves });
  await instructor.goto(`/c/${large.id}/groups/${id}`);
  await expect(instructor.getByRole('status').getByText('0 of 640 unplaced')).toBeVisible();
  await instructor.keyboard.press('/');
  await instructor.keyboard.type('brewer517');
  await expect(instructor.getByRole('region', { name: 'Found in groups' })).toContainText('Nia Brewer517');
  await instructor.keyboard.press('Enter');
  const row = instructor.getByRole('row', { name: 'Nia Brewer517' });
  await expect(row).toBeFocused();
  await expect(row).toBeInViewport();
  await instructor.keyboard.type('160');
  const benchOf = async () => {
    const board = await api<BoardView>(instructor, 'GET', `sets/${id}/board`);
    const seat = board.students.find((each) => each.name === 'Nia Brewer517')?.seats[0];
    return board.groups.find((group) => group.id === seat?.groupId)?.number;
  };
  await expect.poll(benchOf).toBe(160);
  await expectFocusKept(instructor, 'moving to a group that is not in view');
});
