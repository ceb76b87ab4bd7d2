import type { Page } from '@playwright/test';
import { sure } from '@jigsaw/core/lists';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** Two people at one Board, and what a person does with bad files and other sizes of window. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let assistant: Page;
const addresses = Array.from({ length: 8 }, (_, at) => `student-${'abcdefgh'[at]}@quillmere.example`).join(
  '\n',
);

const tray = (page: Page) => page.getByRole('grid', { name: 'Unplaced students' });
const group = (page: Page, name: string) => page.getByRole('grid', { name: new RegExp(`^${name}, group`) });

async function paste(page: Page, text: string, role: string): Promise<void> {
  await page.getByRole('button', { name: /Their role/ }).click();
  await page.getByRole('option', { name: role }).click();
  await page.getByRole('tab', { name: 'From a pasted list' }).click();
  await page.getByRole('textbox', { name: /^Emails, with names/ }).fill(text);
  await page.getByRole('button', { name: 'Show what would change' }).click();
  await page.getByRole('button', { name: /^Import/ }).click();
  await expect(page.getByRole('status').filter({ hasText: 'added' })).toBeVisible();
}

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await instructor.getByLabel('Code').fill('BRW 501');
  await instructor.getByRole('textbox', { name: 'Title' }).fill('Industrial Brewing');
  await instructor.getByRole('button', { name: 'Create course' }).click();
  await paste(instructor, addresses, 'Students');
  await instructor.getByRole('link', { name: 'Import people' }).click();
  await paste(instructor, 'Tomas Vey <tomas.vey@quillmere.example>', 'Assistants');

  await instructor.getByRole('button', { name: 'Invite…' }).click();
  await instructor.getByRole('menuitem', { name: 'Create sign-in links…' }).click();
  await instructor.getByRole('button', { name: /^Create \d+ links?$/ }).click();
  const lines = await instructor.getByRole('textbox', { name: /Name, email and link/ }).inputValue();
  const ofTomas = sure(lines.split('\n').find((line) => line.includes('tomas.vey')));
  const link = sure(ofTomas.split('\t')[2]);
  await instructor.getByRole('button', { name: 'Close' }).click();
  assistant = await newPerson(browser);
  await assistant.goto(link);
  await assistant.getByLabel('New password').fill('hops and barley');
  await assistant.getByRole('button', { name: 'Save password and sign in' }).click();
  await assistant.getByRole('link', { name: /Industrial Brewing/ }).click();
});

test('a set is made with the mouse alone: a press into a figure stays in it', async () => {
  await instructor
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: /Groups/ })
    .click();
  await instructor.getByRole('link', { name: 'Create group set' }).click();
  await instructor.getByLabel('Name of the set').fill('Brew teams');
  await instructor.getByText(/^By hand on the Board/).click();
  await instructor.getByText('A fixed number of groups').click();
  await instructor.getByRole('textbox', { name: 'Number of groups' }).click();
  await instructor.keyboard.press('Control+a');
  await instructor.keyboard.type('3');
  await expect(instructor.getByRole('heading', { name: '3 groups: 2 of 3, 1 of 2' })).toBeVisible();
  await instructor.getByRole('button', { name: 'Create 3 groups' }).click();
  await expect(tray(instructor).getByRole('row')).toHaveCount(8);
});

test('two people at one Board see each other’s moves, and of two moves of one student only one is made', async () => {
  await assistant
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: /Groups/ })
    .click();
  await expect(tray(assistant).getByRole('row')).toHaveCount(8);
  await tray(instructor).getByRole('row', { name: 'Student A' }).press('Space');
  await instructor.keyboard.press('1');
  await expect(group(assistant, 'Group 1').getByRole('row', { name: 'Student A' })).toBeVisible(); // live

  // Both take the same student at the same moment.
  await tray(instructor).getByRole('row', { name: 'Student B' }).press('Space');
  await tray(assistant).getByRole('row', { name: 'Student B' }).press('Space');
  await Promise.all([instructor.keyboard.press('2'), assistant.keyboard.press('3')]);
  for (const page of [instructor, assistant]) {
    await expect(tray(page).getByRole('row')).toHaveCount(6);
    // In both at one look: what was pressed here may just give way to what the other pressed.
    const inEither = page.getByRole('grid', { name: /^Group [23],/ }).getByRole('row', { name: 'Student B' });
    await expect(inEither).toHaveCount(1);
  }
  const told = (page: Page) => page.getByText(/Someone else moved one of these students first/).count();
  await expect.poll(async () => (await told(instructor)) + (await told(assistant))).toBe(1);
});

test('a range is selected with Shift and placed at once, and undone by its button', async () => {
  await tray(instructor).getByRole('row').nth(0).click();
  await tray(instructor)
    .getByRole('row')
    .nth(3)
    .click({ modifiers: ['Shift'] });
  await expect(instructor.getByText('4 selected.')).toBeVisible();
  await instructor.keyboard.press('1');
  await expect(group(instructor, 'Group 1').getByRole('row')).toHaveCount(5);
  await instructor.getByRole('button', { name: /^Undo: 4 students placed/ }).click();
  await expect(tray(instructor).getByRole('row')).toHaveCount(6);
});

test('a student is carried by keyboard alone, as a mouse would drag', async () => {
  const row = tray(instructor).getByRole('row').first();
  const name = sure(await row.getAttribute('aria-label'));
  await row.focus();
  await instructor.keyboard.press('ArrowRight'); // the tick
  await instructor.keyboard.press('ArrowRight'); // the handle
  await instructor.keyboard.press('Enter');
  await instructor.keyboard.press('Tab');
  for (let tries = 0; tries < 6; tries += 1) {
    if (await group(instructor, 'Group 2').evaluate((grid) => grid.contains(document.activeElement))) break;
    await instructor.keyboard.press('Tab');
  }
  await instructor.keyboard.press('Enter');
  await expect(group(instructor, 'Group 2').getByRole('row', { name })).toBeVisible();
});

test('files that are no class list are told apart, each with what to do', async () => {
  await instructor
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: /People/ })
    .click();
  await instructor.getByRole('link', { name: 'Import people' }).click();
  const input = instructor.locator('input[type=file]');
  const files: [string, Buffer, RegExp][] = [
    ['empty.csv', Buffer.from(''), /The file is empty/],
    ['header.csv', Buffer.from('Email,Name\n'), /no people under them/],
    ['book.csv', Buffer.from([0x50, 0x4b, 3, 4, 20, 0, 8, 0]), /damaged/],
    ['sheet.csv', Buffer.from('%PDF-1.7\n'), /This is a PDF/],
    ['noise.csv', Buffer.from(Array.from({ length: 900 }, (_, at) => (at * 73) % 256)), /not a text file/],
    [
      'quote.csv',
      Buffer.from('Email,Name\na@b.example,"Ann\nb@b.example,Ben\n'),
      /opens in line 2 is never closed/,
    ],
  ];
  for (const [name, buffer, says] of files) {
    await input.setInputFiles({ name, mimeType: 'text/csv', buffer });
    await expect(instructor.getByRole('alert')).toHaveText(says);
  }
});

test('5,000 lines are shown at once, only those in view are in the page, and every fault is reached', async () => {
  const lines = Array.from({ length: 5000 }, (_, at) =>
    at % 1000 === 999 ? `broken ${at},Student ${at}` : `s${at}@quillmere.example,Student ${at}`,
  );
  await instructor.locator('input[type=file]').setInputFiles({
    name: 'large.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`Email,Name\n${lines.join('\n')}\n`),
  });
  await expect(instructor.getByText('5,000 rows, 2 columns, UTF-8')).toBeVisible();
  await expect(instructor.getByText('5 rows need you', { exact: true })).toBeVisible();
  expect(await instructor.getByRole('row').count()).toBeLessThan(80);
  await instructor
    .getByRole('region', { name: 'Rows' })
    .evaluate((region) => region.scrollTo(0, region.scrollHeight));
  await expect(instructor.getByRole('row', { name: /Student 4998/ })).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Cancel import' }).click();
  await expect(instructor.getByRole('heading', { name: 'Import people' })).toBeVisible();
});

test('the pages are readable in the dark too', async () => {
  await instructor.getByRole('button', { name: /your account/ }).click();
  await instructor.getByRole('menuitemradio', { name: 'Dark' }).click();
  await instructor.keyboard.press('Escape');
  for (const station of ['People', 'Groups', 'Release', 'Rooms', 'Marks']) {
    await instructor
      .getByRole('navigation', { name: 'Stations' })
      .getByRole('link', { name: new RegExp(`^${station}`) })
      .click();
    await expect(instructor.locator('html')).toHaveAttribute('data-theme', 'dark');
    await instructor.waitForTimeout(300);
    await expectAccessible(instructor);
  }
});

test('someone sees where they are signed in, and signs out elsewhere: that page is closed at once', async ({
  browser,
}) => {
  const elsewhere = await newPerson(browser);
  await signIn(elsewhere, 'tomas.vey@quillmere.example', 'hops and barley');
  await elsewhere.getByRole('link', { name: /Industrial Brewing/ }).click();
  await expect(elsewhere.getByRole('button', { name: /your account/ })).toBeVisible();
  await assistant.getByRole('button', { name: /your account/ }).click();
  await assistant.getByRole('menuitem', { name: 'Where you are signed in' }).click();
  const sheet = assistant.getByRole('dialog', { name: 'Where you are signed in' });
  await expect(sheet.getByText('this browser')).toBeVisible();
  await expectAccessible(assistant);
  await sheet.getByRole('button', { name: /^Sign out Chrome on Linux/ }).click();
  await expect(sheet.getByText('You are signed in nowhere else.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await expect(elsewhere.getByRole('dialog', { name: 'Sign in again' })).toBeVisible();
});

test('signing out leaves nothing behind in the page', async () => {
  await assistant.getByRole('button', { name: /your account/ }).click();
  await assistant.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(assistant.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await assistant.goBack();
  await expect(assistant.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});
