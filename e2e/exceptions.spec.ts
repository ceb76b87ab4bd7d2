import type { Page } from '@playwright/test';
import type { ActivityList } from '@jigsaw/contract/release';
import type { RoomView } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anActivityFor, api, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** One activity for twelve groups: a line that two of them read, another date for one group, and one for a student. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
let setId = '';
const groups = ['Crock', 'Carboy', 'Amphora', 'Tun', 'Kettle', 'Barrel', 'Firkin', 'Churn', 'Vat', 'Onggi', 'Jar', 'Cask']; // prettier-ignore
const seats = [['Ada', 'Amphora'], ['Bo', 'Onggi'], ['Cho', 'Firkin'], ['Dia', 'Crock'], ['Eva', 'Crock']] as const; // prettier-ignore
const secret = 'You changed the salt on day 9.';
const page = (name: string) => sure(students.get(name));

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const people = seats.map(([name]) => `${name} Vale <${name.toLowerCase()}.vale@quillmere.example>`);
  courseId = (await aCourseOf(instructor, 'FER 190', 'Brine', people)).id;
  setId = (await aSetOf(instructor, courseId, 'Bench teams', groups)).id;
  for (const [name, group] of seats) await place(instructor, setId, name, group);
  students = await browsersOf(browser, instructor, courseId);
});

/** A date far ahead, typed into a field of dates. */
async function typeDate(field: ReturnType<Page['getByRole']>, year: string): Promise<void> {
  for (const [part, digits] of [
    ['day', '18'],
    ['month', '11'],
    ['year', year],
    ['hour', '17'],
    ['minute', '00'],
  ] as const)
    // prettier-ignore
    await field.getByRole('spinbutton', { name: new RegExp(`^${part}`) }).pressSequentially(digits);
}

test('a line for two groups is written where it stands, and seen beside it for each group', async () => {
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('button', { name: 'New activity' }).first().click();
  await instructor.getByRole('menuitem', { name: /^Discussion/ }).click();
  await instructor.getByRole('textbox', { name: 'Title' }).fill('Tasting critique');
  const brief = instructor.getByRole('textbox', { name: 'Brief' });
  await brief.click();
  await instructor.keyboard.type('Taste it in order.');
  await instructor.keyboard.press('Enter');
  await instructor.getByRole('button', { name: 'Line for some groups' }).click();
  await instructor.keyboard.type(secret);
  await expect(instructor.getByText('No one sees this line yet.')).toBeVisible();
  for (const group of ['Amphora', 'Onggi']) {
    await brief.getByRole('button', { name: /Add a group that reads this line/ }).click();
    await instructor.getByRole('option', { name: group }).click();
  }
  await expect(instructor.getByText('The other 10 groups do not see this line.')).toBeVisible();
  await expectAccessible(instructor);
  const preview = instructor.getByRole('complementary', { name: 'What a group will see' });
  await expect(preview).not.toContainText(secret);
  await preview.getByRole('button', { name: 'Amphora' }).click();
  await expect(preview).toContainText(secret);
});

test('one group and one student have another date before it is released', async () => {
  await typeDate(instructor.getByRole('group', { name: 'Due', exact: true }), '2030');
  for (const [name, who, year] of [
    ['Firkin', 'group', '2031'],
    ['Dia Vale, Crock', 'student', '2032'],
  ] as const) {
    await instructor.getByRole('button', { name: 'Extend for a group or student…' }).click();
    const sheet = instructor.getByRole('dialog');
    await sheet.getByRole('combobox', { name: 'Group or student' }).fill(name.slice(0, 6));
    await instructor.getByRole('option', { name, exact: true }).click();
    await sheet
      .getByRole('group', { name: `Due for this ${who}` })
      .getByRole('spinbutton', { name: /^year/ })
      .pressSequentially(year);
    await sheet.getByLabel(/^Reason/).fill(`Because of ${who}`);
    await sheet.getByRole('button', { name: /^Extend for/ }).click();
    await expect(sheet).toBeHidden();
  }
  await expect(instructor.getByRole('list', { name: 'Different for' }).getByRole('listitem')).toHaveCount(2);
  await instructor.getByRole('button', { name: /^Release to 12 groups/ }).click();
  await expect(instructor.getByText('Live', { exact: true })).toBeVisible();
});

test('each student reads what is theirs, and no answer holds what is not', async () => {
  const seen = new Map<string, string>();
  for (const [name] of seats) {
    const { rooms } = await api<{ rooms: RoomView[] }>(page(name), 'GET', `courses/${courseId}/rooms`);
    const copyId = sure(rooms[0]?.items[0]).copyId;
    seen.set(name, JSON.stringify(await api(page(name), 'GET', `copies/${copyId}`)));
    await page(name).goto(`/c/${courseId}/copies/${copyId}`);
    await expect(page(name).getByText('Taste it in order.')).toBeVisible();
    await expect(page(name).getByText(secret)).toHaveCount(name === 'Ada' || name === 'Bo' ? 1 : 0);
    await expect(page(name).getByText('extended for you')).toHaveCount(name === 'Dia' ? 1 : 0);
    await expect(page(name).getByText(/^extended/)).toHaveCount(name === 'Cho' || name === 'Dia' ? 1 : 0); // prettier-ignore
  }
  const holding = (words: string) =>
    [...seen].flatMap(([name, text]) => (text.includes(words) ? [name] : []));
  expect(holding(secret)).toEqual(['Ada', 'Bo']);
  expect(holding('onlyFor')).toEqual([]);
  expect(holding('Because of student')).toEqual(['Dia']);
  expect(holding('Because of group')).toEqual(['Cho']);
  await expectAccessible(page('Ada'));
});

test('dates of several move with one press, at once for everyone who has them open, and come back', async () => {
  await page('Ada').goto(`/c/${courseId}/due`);
  const due = page('Ada').getByRole('link', { name: /^Tasting critique/ });
  await expect(due).toContainText('18 Nov');
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('checkbox', { name: 'Select Tasting critique' }).check();
  await instructor.getByRole('button', { name: 'Copy 1' }).click();
  await expect(instructor.getByRole('link', { name: /Tasting critique \(copy\)/ })).toBeVisible();
  for (const title of ['Tasting critique', 'Tasting critique (copy)'])
    await instructor.getByRole('checkbox', { name: `Select ${title}`, exact: true }).check();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Move dates of 2…' }).click();
  await expect(instructor.getByRole('dialog').getByRole('listitem')).toHaveCount(2);
  await expectAccessible(instructor);
  await instructor.getByRole('dialog').getByRole('button', { name: 'Move by 7 days' }).click();
  await expect(due).toContainText('25 Nov');
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(due).toContainText('18 Nov');
  await instructor.getByRole('searchbox', { name: 'Find an activity' }).fill('copy');
  await expect(instructor.getByText('1 of 2')).toBeVisible();
  await instructor.getByRole('checkbox').check();
  await instructor.getByRole('button', { name: 'Delete 1 draft' }).click();
  await expect(instructor.getByText('Nothing is like that')).toBeVisible();
});

test('the week shows what falls due for whom, and those with several things on one day', async () => {
  const { activities } = await api<ActivityList>(instructor, 'GET', `courses/${courseId}/activities`);
  const { due } = sure(activities.find(({ title }) => title === 'Tasting critique')).schedule;
  const day = sure(due?.slice(0, 10));
  await instructor.goto(`/c/${courseId}/release/week`);
  await instructor.getByRole('button', { name: 'Go to' }).click(); // nothing falls in this week
  const day18 = instructor.getByRole('listitem').filter({ has: instructor.getByRole('heading', { name: /18 Nov/ }) }); // prettier-ignore
  await expect(day18.getByRole('link', { name: /Tasting critique/ })).toBeVisible();
  await anActivityFor(instructor, courseId, setId, { kind: 'discussion', title: 'Salt talk', due: `${day}T09:00:00.000Z` }); // prettier-ignore
  await expect(day18.getByText(/have 2 things due: .*“Salt talk”/)).toBeVisible();
  // Cho’s group and Dia have it later, each in a week of their own.
  await expect(day18.getByText(/^Ada Vale, Bo Vale and Eva Vale have 2 things due/)).toBeVisible();
  await expectAccessible(instructor);
  await day18.getByRole('link', { name: /Salt talk/ }).click();
  await expect(instructor.getByRole('textbox', { name: 'Title' })).toHaveValue('Salt talk');
  await instructor.goto(`/c/${courseId}/release/week?from=2031-11-18`);
  await expect(instructor.getByText('only for Firkin')).toBeVisible();
});
