import { readFile } from 'node:fs/promises';
import type { Browser, Page } from '@playwright/test';
import type { RoomList } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { baseUrl, expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { classFile, emailOf, firstInstructor, studentPassword, students } from './support/people.js';

/** The whole job, once, as people do it: each step goes on from the one before. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
const pageOf = new Map<string, Page>();
let linkOf: ReadonlyMap<string, string>;
let copyPath = '';

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
});

test('an instructor signs in; a wrong password is told and what was typed stays', async () => {
  await signIn(instructor, firstInstructor.email, 'wrong');
  await expect(instructor.getByRole('alert')).toContainText('do not match');
  await expect(instructor.getByLabel('Email')).toHaveValue(firstInstructor.email);
  await expectAccessible(instructor);
  await instructor.getByLabel('Password').fill(firstInstructor.password);
  await instructor.keyboard.press('Enter');
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
});

test('makes a course', async () => {
  await instructor.getByLabel('Code').fill('FER 220');
  await instructor.getByRole('textbox', { name: 'Title' }).fill('Applied Fermentation');
  await instructor.getByLabel('Term').fill('Autumn 2026');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Create course' }).click();
  await expect(instructor.getByRole('heading', { name: 'Import people' })).toBeVisible();
});

test('brings in a class file: the faulty line is named, left out on purpose, and the rest comes in', async () => {
  await expectAccessible(instructor);
  await instructor
    .locator('input[type=file]')
    .setInputFiles({ name: 'class.csv', mimeType: 'text/csv', buffer: Buffer.from(classFile) });
  await expect(instructor.getByText('7 rows, 5 columns, UTF-8')).toBeVisible();
  await expect(instructor.getByRole('button', { name: /Column separator/ })).toContainText(
    'Split at semicolons',
  );
  const faulty = instructor.getByRole('row').filter({ hasText: 'not an address' });
  await expect(faulty).toContainText('8');
  await expect(faulty).toContainText('is not an email address');
  await expect(instructor.getByRole('button', { name: 'Import 6 rows' })).toBeDisabled();
  await expectAccessible(instructor);
  await faulty.getByRole('button', { name: /^Skip line/ }).click();
  await instructor.getByRole('button', { name: 'Import 6 rows' }).click();
  await expect(instructor.getByRole('status').filter({ hasText: '6 added' })).toBeVisible();
  await expect(instructor.getByRole('rowheader', { name: 'Zofia Wiśniewska' })).toBeVisible();
});

test('finds people without accents and case, and hands out sign-in links', async () => {
  await instructor.getByPlaceholder('Find a name').fill('WISNIEWSKA');
  await expect(instructor.getByRole('row')).toHaveCount(2); // the heading and Zofia
  await instructor.getByPlaceholder('Find a name').fill('');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Invite…' }).click();
  await instructor.getByRole('menuitem', { name: 'Create sign-in links…' }).click();
  await instructor.getByRole('button', { name: /^Create \d+ links?$/ }).click();
  const text = await instructor.getByRole('textbox', { name: /Name, email and link/ }).inputValue();
  linkOf = new Map(text.split('\n').map((line) => [sure(line.split('\t')[1]), sure(line.split('\t')[2])]));
  expect(linkOf.size).toBe(6);
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Close' }).click();
});

test('makes a group set with its forecast in view', async () => {
  await instructor
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: /Groups/ })
    .click();
  await instructor.getByRole('link', { name: 'Create group set' }).click();
  await instructor.getByLabel('Name of the set').fill('Bench teams');
  await instructor.getByText(/^By hand on the Board/).click();
  await instructor.getByLabel('Members in a group').fill('2');
  await expect(instructor.getByRole('heading', { name: '3 groups of 2' })).toBeVisible();
  await instructor.getByLabel('Places in each group').fill('2');
  await instructor.getByLabel('Or paste names, one per line').fill('Crock\nCarboy');
  await instructor.getByLabel('Pattern').fill('Bench {n}');
  await expect(instructor.getByRole('complementary', { name: 'Forecast' })).toContainText('Bench 3');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Create 3 groups' }).click();
  await expect(tray().getByRole('status')).toHaveText('6 of 6 unplaced');
});

const tray = () => instructor.getByRole('region', { name: 'Unplaced' });
const card = (name: string) => instructor.getByRole('region', { name: new RegExp(`, ${name}$`) });
const inTray = (name: string) =>
  instructor.getByRole('grid', { name: 'Unplaced students' }).getByRole('row', { name });

test('places students by mouse, by dragging several, and by keyboard alone', async () => {
  await expectAccessible(instructor);
  await inTray('Ada Okafor').dragTo(card('Crock').getByRole('grid'));
  await expect(card('Crock').getByRole('row', { name: 'Ada Okafor' })).toBeVisible();
  await expect(tray().getByRole('status')).toHaveText('5 of 6 unplaced');

  await inTray('Callum Reith').click();
  await inTray('Yara Boutros').click({ modifiers: ['Control'] });
  await expect(instructor.getByText('2 selected.')).toBeVisible();
  await inTray('Yara Boutros').dragTo(card('Carboy').getByRole('grid'));
  await expect(card('Carboy').getByRole('row')).toHaveCount(2);
  await expect(tray().getByRole('status')).toHaveText('3 of 6 unplaced');

  await inTray('Noor Haddad-Lindqvist').press('Space');
  await instructor.keyboard.press('1');
  await expect(card('Crock').getByRole('row', { name: 'Noor Haddad-Lindqvist' })).toBeVisible();
  await expect(tray().getByRole('status')).toHaveText('2 of 6 unplaced');
});

test('is told by how many a group is over, and takes it back with one key', async () => {
  await inTray('Jorge Peñaloza').press('Space');
  await instructor.keyboard.press('1');
  await expect(card('Crock')).toContainText('1 over');
  await expect(
    instructor
      .getByRole('status')
      .filter({ hasText: 'Crock has 3 of 2. Move one student, or let Crock hold 3.' }),
  ).toBeVisible();
  await instructor.getByRole('heading', { name: 'Unplaced' }).click();
  await instructor.keyboard.press('z');
  await expect(inTray('Jorge Peñaloza')).toBeVisible();
  await instructor.getByRole('button', { name: /Redo/ }).click();
  await expect(card('Crock')).toContainText('1 over');
  await card('Crock').getByRole('row', { name: 'Jorge Peñaloza' }).press('Space');
  await instructor.keyboard.press('3');
  await expect(card('Bench 3').getByRole('row', { name: 'Jorge Peñaloza' })).toBeVisible();
});

test('swaps two students, moves and pulls out; all of it is there after a reload', async () => {
  await card('Crock').getByRole('row', { name: 'Ada Okafor' }).click();
  await card('Carboy')
    .getByRole('row', { name: 'Callum Reith' })
    .click({ modifiers: ['Control'] });
  await instructor.keyboard.press('s');
  await expect(card('Crock').getByRole('row', { name: 'Callum Reith' })).toBeVisible();
  await expect(card('Carboy').getByRole('row', { name: 'Ada Okafor' })).toBeVisible();
  await card('Bench 3').getByRole('row', { name: 'Jorge Peñaloza' }).click();
  await instructor.keyboard.press('u');
  await expect(tray().getByRole('status')).toHaveText('2 of 6 unplaced');
  await inTray('Jorge Peñaloza').click();
  await instructor.getByRole('button', { name: 'Place in…' }).click();
  await instructor.getByRole('menuitem', { name: 'Bench 3' }).click();
  await expect(card('Bench 3').getByRole('row', { name: 'Jorge Peñaloza' })).toBeVisible();
  await expect(instructor.getByText(/^Saved \d\d:\d\d$/)).toBeVisible();
  await instructor.reload();
  await expect(tray().getByRole('status')).toHaveText('1 of 6 unplaced');
  await expect(card('Crock').getByRole('row')).toHaveCount(2);
  await expectAccessible(instructor);
});

test('writes an assignment with a blank for the group’s name, and releases it to the set', async () => {
  await instructor
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: /Release/ })
    .click();
  await instructor.getByRole('button', { name: 'New activity' }).click();
  await instructor.getByRole('menuitem', { name: 'Assignment' }).click();
  await instructor.getByRole('textbox', { name: 'Title' }).fill('Ferment report');
  const brief = instructor.getByRole('textbox', { name: 'Brief' });
  await brief.click();
  await instructor.keyboard.type('Write up what ');
  await instructor.getByRole('button', { name: 'group’s name' }).click();
  await instructor.keyboard.type(' fermented.');
  await instructor.getByLabel('Points').fill('40');
  const due = instructor.getByRole('group', { name: 'Due' });
  await due.getByRole('spinbutton').first().click();
  await instructor.keyboard.type('010120991700');
  await expect(instructor.getByRole('complementary', { name: 'What a group will see' })).toContainText(
    'Write up what Crock fermented.',
  );
  await expect(instructor.getByText('1 see nothing')).toBeVisible();
  await expect(instructor.getByText(/^Saved \d\d:\d\d$/)).toBeVisible();
  await expectAccessible(instructor);

  const callum = await student(sure(instructor.context().browser()), 'Callum');
  await expect(callum.getByRole('heading', { name: 'Nothing is due' })).toBeVisible(); // still a draft

  await instructor.getByRole('button', { name: 'Release to 3 groups' }).click();
  await expect(
    instructor.getByRole('status').filter({ hasText: 'Released to 3 groups, 5 students' }),
  ).toBeVisible();
  await expect(callum.getByRole('link', { name: /^Ferment report/ })).toBeVisible(); // without a reload
});

/** Opens a student's link, chooses a password and comes in; the page stays open for the rest of the job. */
async function student(browser: Browser, given: string): Promise<Page> {
  const known = pageOf.get(given);
  if (known) return known;
  const page = await newPerson(browser);
  await page.goto(sure(linkOf.get(emailOf(given))));
  await page.getByLabel('New password').fill(studentPassword);
  await page.getByRole('button', { name: 'Save password and sign in' }).click();
  await page
    .getByRole('link', { name: /Applied Fermentation/ })
    .first()
    .click();
  pageOf.set(given, page);
  return page;
}

test('a member sees their room and teammates, writes, adds a file and hands in for the group', async ({
  browser,
}) => {
  const callum = await student(browser, 'Callum');
  await expectAccessible(callum);
  await callum.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: /^Room/ }).click();
  await expect(callum.getByRole('heading', { name: 'Crock', level: 1 })).toBeVisible();
  await expect(callum.getByRole('list', { name: 'Members' })).toContainText('Noor Haddad-Lindqvist');
  await expect(callum.locator('body')).not.toContainText('Carboy');
  await expectAccessible(callum);
  await callum.getByRole('link', { name: /^Ferment report/ }).click();
  await expect(callum.getByRole('region', { name: 'Brief' })).toHaveText('Write up what Crock fermented.');
  copyPath = new URL(callum.url()).pathname;
  await callum.getByRole('textbox', { name: 'Your part of the text' }).click();
  await callum.keyboard.type('We ended at pH 4.4.');
  await expect(callum.getByText(/^Saved \d\d:\d\d$/)).toBeVisible();
  await callum
    .locator('input[type=file]')
    .setInputFiles({ name: 'readings.csv', mimeType: 'text/csv', buffer: Buffer.from('hour,pH\n0,6.3\n') });
  await expect(callum.getByRole('link', { name: 'Download readings.csv' })).toBeVisible();
  await expectAccessible(callum);
  await callum.getByRole('button', { name: 'Hand in for all 2' }).click();
  await expect(callum.getByRole('heading', { name: 'Handed in' })).toBeVisible();
  await expect(callum.getByText(/on time\. It counts for/)).toBeVisible();
});

test('a teammate sees it and adds to it without deleting anything', async ({ browser }) => {
  const noor = await student(browser, 'Noor');
  await noor.goto(copyPath);
  await expect(noor.getByRole('region', { name: 'What the others wrote' })).toContainText(
    'We ended at pH 4.4.',
  );
  await expect(noor.getByRole('button', { name: /Delete readings.csv/ })).toHaveCount(0);
  const [download] = await Promise.all([
    noor.waitForEvent('download'),
    noor.getByRole('link', { name: 'Download readings.csv' }).click(),
  ]);
  expect(await readFile(sure(await download.path()), 'utf8')).toBe('hour,pH\n0,6.3\n');
  await noor.getByRole('textbox', { name: 'Your part of the text' }).click();
  await noor.keyboard.type('The panel found green apple.');
  await expect(noor.getByRole('heading', { name: 'Handed in, changed since' })).toBeVisible();
  await noor.getByRole('button', { name: 'Hand in again for all 2' }).click();
  await expect(noor.getByRole('heading', { name: 'Handed in', exact: true })).toBeVisible();
  const callum = sure(pageOf.get('Callum'));
  await expect(callum.getByText(/No\. 2/)).toBeVisible(); // live, without a reload
});

test('another group’s member and an outsider see none of it, in the page or by asking for the ids', async ({
  browser,
}) => {
  const copyId = sure(copyPath.split('/').at(-1));
  const unknown = copyId.replace(/.{4}$/, '0000');
  const rooms = (await (
    await sure(pageOf.get('Callum')).request.get(`${apiCourse()}/rooms`)
  ).json()) as RoomList;
  expect(rooms.rooms).toHaveLength(1);
  for (const given of ['Ada', 'Zofia']) {
    const other = await student(browser, given); // Ada is in Carboy, Zofia in no group
    await other.goto(copyPath);
    await expect(other.getByRole('heading', { name: 'Nothing here' })).toBeVisible();
    await expect(other.locator('body')).not.toContainText('Callum');
    for (const path of ['', '/work', '/marks/group', '/files/x']) {
      const asked = await other.request.get(`/api/copies/${copyId}${path}`);
      const absent = await other.request.get(`/api/copies/${unknown}${path}`);
      expect(asked.status()).toBe(404);
      expect(await asked.text()).toBe(await absent.text());
    }
    const mine = JSON.stringify(await (await other.request.get(`${apiCourse()}/rooms`)).json());
    expect(mine).not.toContain('Callum');
    expect(mine).not.toContain(copyId);
  }
});

const apiCourse = () => `${baseUrl()}/api/courses/${copyPath.split('/')[2]}`;

test('marks the group with one adjustment and its reason, and releases it', async () => {
  await instructor.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: /Marks/ }).click();
  await expect(
    instructor.getByRole('navigation', { name: 'Groups to mark' }).getByRole('link', { name: /Crock/ }),
  ).toHaveAttribute('aria-current', 'page');
  await expect(instructor.getByRole('region', { name: 'Crock’s work' })).toContainText(
    'The panel found green apple.',
  );
  await instructor.getByLabel('Group mark').fill('31.5');
  await instructor.getByLabel(/Feedback to all 2/).fill('Good reading of the bend.');
  await instructor.getByRole('button', { name: /Adjustment for Callum Reith/ }).click();
  await instructor.getByRole('option', { name: 'Adjust points' }).click();
  await instructor.getByLabel('Points more or less for Callum Reith').fill('+1.5');
  await instructor.getByRole('button', { name: 'Release to 2 students' }).click();
  await expect(instructor.getByRole('alert').filter({ hasText: 'Say why Callum Reith' })).toBeVisible();
  await instructor.getByLabel('Reason for Callum Reith').fill('Wrote the method alone');
  await expectAccessible(instructor);
  const callum = sure(pageOf.get('Callum'));
  await callum.goto(`/c/${copyPath.split('/')[2]}/my-marks`);
  await expect(callum.getByRole('heading', { name: 'No marks yet' })).toBeVisible();
  await instructor.getByRole('button', { name: 'Release to 2 students' }).click();
  await expect(instructor.getByRole('status').filter({ hasText: 'Released to 2 students' })).toBeVisible();
});

test('each credited member sees the group mark, their own, and how it came about', async () => {
  const callum = sure(pageOf.get('Callum'));
  await expect(callum.getByText('+1.5 for you: Wrote the method alone')).toBeVisible();
  await expect(callum.getByRole('region', { name: 'Ferment report' })).toContainText('33 / 40');
  await expect(callum.getByRole('region', { name: 'Ferment report' })).toContainText(
    'Good reading of the bend.',
  );
  await expectAccessible(callum);
  const noor = sure(pageOf.get('Noor'));
  await noor.goto(`/c/${copyPath.split('/')[2]}/my-marks`);
  await expect(noor.getByRole('region', { name: 'Ferment report' })).toContainText('31.5 / 40');
  await expect(noor.locator('body')).not.toContainText('Wrote the method alone');
  const ada = sure(pageOf.get('Ada'));
  await ada.goto(`/c/${copyPath.split('/')[2]}/my-marks`);
  await expect(ada.getByRole('heading', { name: 'No marks yet' })).toBeVisible();
});

test('the gradebook shows staff every mark, and exports what is released', async () => {
  await instructor
    .getByRole('navigation', { name: 'Marks' })
    .getByRole('link', { name: 'Gradebook' })
    .click();
  await expect(instructor.getByRole('rowheader', { name: 'Callum Reith' })).toBeVisible();
  await expect(instructor.getByRole('gridcell', { name: '33', exact: true })).toBeVisible();
  await expectAccessible(instructor);
  const [download] = await Promise.all([
    instructor.waitForEvent('download'),
    instructor.getByRole('link', { name: 'Released marks as CSV' }).click(),
  ]);
  expect(await readFile(sure(await download.path()), 'utf8')).toContain(
    'fe-0405,Callum Reith,callum@quillmere.example,33',
  );
});

test('a session that ended in the middle of writing loses nothing', async () => {
  const noor = sure(pageOf.get('Noor'));
  await noor.goto(copyPath);
  const text = noor.getByRole('textbox', { name: 'Your part of the text' });
  await expect(text).toContainText('green apple');
  await noor.context().clearCookies();
  await text.click();
  await noor.keyboard.press('End');
  await noor.keyboard.type(' And cellar.');
  await expect(noor.getByRole('dialog', { name: 'Sign in again' })).toBeVisible();
  await expectAccessible(noor);
  await noor.getByRole('dialog').getByLabel('Password').fill(studentPassword);
  await noor.keyboard.press('Enter');
  await expect(noor.getByRole('dialog')).toHaveCount(0);
  await expect(noor.getByText(/^Saved \d\d:\d\d$/)).toBeVisible();
  await noor.reload();
  await expect(noor.getByRole('textbox', { name: 'Your part of the text' })).toContainText(
    'green apple. And cellar.',
  );
});

test('a student’s pages work at phone width', async ({ browser }) => {
  const phone = await newPerson(browser, { width: 390, height: 844 });
  await signIn(phone, emailOf(students[4].given), studentPassword);
  await phone
    .getByRole('link', { name: /Applied Fermentation/ })
    .first()
    .click();
  for (const station of [/Due/, /Room/, /Marks/]) {
    await phone.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: station }).click();
    await expect(
      phone.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: station }),
    ).toHaveAttribute('aria-current', 'page');
    await phone.waitForLoadState('networkidle').catch(() => undefined);
    expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await expectAccessible(phone);
  }
});
