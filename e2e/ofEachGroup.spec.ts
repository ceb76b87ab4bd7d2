import type { Page } from '@playwright/test';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, api, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** One activity, written once, and what each group has of its own in it: a time, a file, and what was recorded for all. */
test.describe.configure({ mode: 'serial' });
test.use({
  launchOptions: {
    executablePath: '/usr/bin/chromium',
    // A microphone and a camera that no machine needs to have.
    args: ['--no-sandbox', '--disable-gpu', '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'], // prettier-ignore
  },
});

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
let setId = '';
const by = (name: string) => sure(students.get(name));

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const people = ['Ada', 'Bo', 'Cho'].map(
    (name) => `${name} Rask <${name.toLowerCase()}.r192@quillmere.example>`,
  );
  courseId = (await aCourseOf(instructor, 'FER 192', 'Miso', people)).id;
  setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun'])).id;
  for (const [name, group] of [['Ada', 'Crock'], ['Cho', 'Crock'], ['Bo', 'Tun']] as const) await place(instructor, setId, name, group); // prettier-ignore
  students = await browsersOf(browser, instructor, courseId);
});

async function write(kind: string, title: string): Promise<void> {
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('button', { name: 'New activity' }).first().click();
  await instructor.getByRole('menuitem', { name: new RegExp(`^${kind}`) }).click();
  await instructor.getByRole('textbox', { name: 'Title' }).fill(title);
}
async function releaseIt(): Promise<void> {
  await instructor.getByRole('button', { name: 'Release to 2 groups' }).click();
  await expect(instructor.getByText(/^Released to 2 groups/)).toBeVisible();
}

test('groups come one after another, and each sees its own time alone', async () => {
  await write('Event', 'Talk');
  const starts = instructor.getByRole('group', { name: 'Starts', exact: true });
  for (const [part, digits] of [
    ['day', '12'],
    ['month', '11'],
    ['year', '2030'],
    ['hour', '10'],
    ['minute', '00'],
  ])
    // prettier-ignore
    await starts.getByRole('spinbutton', { name: new RegExp(`^${part}`) }).pressSequentially(sure(digits));
  await instructor.getByRole('button', { name: 'One group after another…' }).click();
  const sheet = instructor.getByRole('dialog', { name: 'One group after another' });
  await expect(sheet.getByRole('textbox', { name: 'Minutes for each group' })).toHaveValue('30');
  await sheet.getByRole('textbox', { name: 'Minutes between groups' }).fill('10');
  await sheet.getByRole('textbox', { name: 'Minutes between groups' }).press('Enter');
  await expect(sheet.getByText('The last group is done Tue 12 Nov, 11:10, after the end for all at 11:00.')).toBeVisible(); // prettier-ignore
  await expectAccessible(instructor);
  await sheet.getByRole('button', { name: 'Set 2 times' }).click();
  await instructor.getByRole('button', { name: 'Edit time of Tun' }).click();
  const tun = instructor.getByRole('dialog', { name: 'When Tun comes' });
  await tun.getByLabel('Place for this group').fill('Cellar');
  await expectAccessible(instructor);
  await tun.getByRole('button', { name: 'Set for Tun' }).click();
  await releaseIt();
  await by('Ada').goto(`/c/${courseId}/due`);
  await by('Ada').getByRole('link', { name: /^Talk.*10:00–10:30/ }).click(); // prettier-ignore
  await expect(by('Ada').getByRole('heading', { name: 'Tue 12 Nov, 10:00–10:30' })).toBeVisible();
  await expect(by('Ada').getByText('Cellar')).toBeHidden();
  await by('Bo').goto(`/c/${courseId}/due`);
  await by('Bo').getByRole('link', { name: /^Talk.*10:40–11:10.*Cellar/ }).click(); // prettier-ignore
  await expect(by('Bo').getByRole('heading', { name: 'Tue 12 Nov, 10:40–11:10' })).toBeVisible();
});

test('each group changes its own copy of a file; teammates see it at once, others never', async () => {
  await write('Resource', 'Log sheet');
  await instructor.getByRole('region', { name: 'Attached files' }).locator('input[type=file]').setInputFiles({ name: 'sheet.csv', mimeType: 'text/csv', buffer: Buffer.from('day,pH') }); // prettier-ignore
  await instructor.getByRole('button', { name: /Use of sheet\.csv/ }).click();
  await instructor.getByRole('option', { name: 'Each group changes its own' }).click();
  await expect(instructor.getByText('Crock has its own')).toBeVisible();
  await expectAccessible(instructor);
  await releaseIt();
  for (const name of ['Ada', 'Bo', 'Cho']) {
    await by(name).goto(`/c/${courseId}/room`);
    await by(name).getByRole('link', { name: /^Log sheet/ }).click(); // prettier-ignore
    await expect(by(name).getByText(/^The file as attached/)).toBeVisible();
  }
  await by('Ada').getByRole('region', { name: 'Files to work in' }).locator('input[type=file]').setInputFiles({ name: 'sheet.csv', mimeType: 'text/csv', buffer: Buffer.from('day,pH\n1,5.9') }); // prettier-ignore
  await expect(by('Ada').getByText(/^Version 1, you/)).toBeVisible();
  await expect(by('Cho').getByText(/^Version 1, Ada Rask/)).toBeVisible();
  const file = by('Cho').waitForEvent('download');
  await by('Cho').getByRole('link', { name: 'Download Version 1 of sheet.csv' }).click();
  expect((await file).suggestedFilename()).toBe('sheet.csv');
  await by('Cho').getByRole('button', { name: 'Earlier versions of sheet.csv' }).click();
  await by('Cho').getByRole('button', { name: /^Restore The file as attached/ }).click(); // prettier-ignore
  await expect(by('Ada').getByText(/^Version 2, the file as attached again, Cho Rask/)).toBeVisible();
  await expectAccessible(by('Cho'));
  await by('Bo').reload();
  await expect(by('Bo').getByText(/^The file as attached/)).toBeVisible();
});

test('what is recorded here is heard there', async () => {
  await write('Notice', 'Listen');
  for (const what of ['sound', 'video']) {
    await instructor.getByRole('button', { name: `Record ${what}…` }).click();
    const sheet = instructor.getByRole('dialog', { name: `Record ${what}` });
    await sheet.getByRole('button', { name: 'Start recording' }).click();
    await expect(sheet.getByRole('timer')).toHaveText('0:01');
    await expectAccessible(instructor);
    await sheet.getByRole('button', { name: 'Stop' }).click();
    await sheet.getByRole('textbox', { name: 'Name of the file' }).fill(`How it ${what === 'sound' ? 'sounds' : 'looks'}`); // prettier-ignore
    await sheet.getByRole('button', { name: 'Attach' }).click();
  }
  await expect(instructor.getByRole('region', { name: 'Attached files' }).getByLabel('Play How it looks.webm')).toBeVisible(); // prettier-ignore
  await releaseIt();
  await by('Ada').goto(`/c/${courseId}/room`);
  await by('Ada').getByRole('link', { name: /^Listen/ }).click(); // prettier-ignore
  for (const name of ['How it sounds.webm', 'How it looks.webm']) {
    const played = by('Ada').getByLabel(`Play ${name}`);
    await played.evaluate(async (media: HTMLMediaElement) => {
      media.muted = true;
      await media.play();
    });
    await expect.poll(() => played.evaluate((media: HTMLMediaElement) => media.currentTime)).toBeGreaterThan(0); // prettier-ignore
  }
  await expectAccessible(by('Ada'));
});

test('a new name of a group is in its room, on the desk, in the gradebook and in the composer, where they are open', async () => {
  await write('Assignment', 'Rice report');
  await releaseIt();
  const composer = instructor.url();
  const { release } = await api<{ release: { id: string } }>(
    instructor,
    'GET',
    `activities/${composer.split('/').at(-1)}`,
  );
  const opened = async (path: string) => {
    const page = await instructor.context().newPage();
    await page.goto(`/c/${courseId}/${path}`);
    return page;
  };
  const [rooms, gradebook, desk] = [
    await opened('rooms'),
    await opened('marks/gradebook'),
    await opened(`marks/${release.id}`),
  ];
  await by('Ada').goto(`/c/${courseId}/room`);
  const { groups } = await api<BoardView>(instructor, 'GET', `sets/${setId}/board`);
  const { id, version } = sure(groups.find(({ name }) => name === 'Crock'));
  await api(instructor, 'PATCH', `groups/${id}`, { name: 'Kioke', capacity: null, isLocked: false, version });
  for (const page of [rooms, gradebook, desk, by('Ada')])
    await expect(page.getByText('Kioke').filter({ visible: true }).first()).toBeVisible();
  await instructor.goto(composer);
  await expect(instructor.getByRole('heading', { name: 'What Kioke will see' })).toBeVisible();
  for (const page of [rooms, gradebook, desk]) await page.close();
});
