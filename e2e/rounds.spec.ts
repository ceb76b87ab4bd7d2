import type { Page } from '@playwright/test';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anActivityFor, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** A question brings its room to the top while the page is open; the round leads to it, and an answer settles it. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
const by = (name: string) => sure(students.get(name));
const rooms = () => instructor.getByRole('rowheader');
const round = () => instructor.getByRole('region', { name: 'Your round' });

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  courseId = (await aCourseOf(instructor, 'FER 203', 'Tempeh', ['Ada Voss <ada.r203@quillmere.example>', 'Ben Ruiz <ben.r203@quillmere.example>'])).id; // prettier-ignore
  const setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun'])).id;
  await place(instructor, setId, 'Ada', 'Crock');
  await place(instructor, setId, 'Ben', 'Tun');
  await anActivityFor(instructor, courseId, setId, { kind: 'discussion', title: 'Smells' });
  students = await browsersOf(browser, instructor, courseId);
});

async function ask(name: string, words: string): Promise<void> {
  const page = by(name);
  await page.goto(`/c/${courseId}/room`);
  await page.getByRole('link', { name: /^Smells/ }).click();
  await page.getByRole('textbox', { name: 'New post' }).fill(words);
  await page.getByRole('button', { name: /^Post to/ }).click();
  await expect(page.getByText(words)).toBeVisible();
}

test('a question brings its room to the top of a page that is open', async () => {
  await instructor.goto(`/c/${courseId}/rooms`);
  await expect(rooms().first()).toContainText('Crock');
  await expect(instructor.getByRole('button', { name: /^Begin/ })).toHaveCount(0); // no one needs anyone
  await ask('Ben', 'The salt is in since Monday. Is it warm enough?');
  await expect(rooms().first()).toContainText('Tun');
  await expect(instructor.getByRole('region', { name: 'Where to go first' })).toContainText('Is it warm enough?'); // prettier-ignore
  await expectAccessible(instructor);
});

test('a round leads to the question, and the answer settles it', async () => {
  await ask('Ada', 'How long does it take?');
  await expect(instructor.getByText('2 stops, about 4 min')).toBeVisible();
  await instructor.keyboard.press('s');
  await expect(round()).toContainText('Stop 1 of 2: Tun');
  await expect(instructor.getByRole('textbox', { name: 'Your reply to Ben' })).toBeFocused();
  await expectAccessible(instructor);
  await instructor.keyboard.type('Two degrees more. s');
  await instructor.getByRole('button', { name: 'Reply to Ben', exact: true }).click();
  await expect(round()).toContainText('settled');
  await expect(by('Ben').getByText('Two degrees more. s')).toBeVisible();
  await instructor.keyboard.press('s');
  await expect(round()).toContainText('Stop 2 of 2: Crock');
  await instructor.reload(); // the round outlasts it
  await round().getByRole('button', { name: 'Not needed' }).click();
  await expect(instructor).toHaveURL(/\/rooms$/);
  await expect(round()).toContainText('Your round is over');
  await expect(round()).toContainText('1 settled, 1 not needed');
  await round().getByRole('button', { name: 'Close' }).click();
  await expect(instructor.getByRole('button', { name: /^Begin/ })).toHaveCount(0);
});

test('what is not needed stays so until something new is asked, and is opened again by hand', async () => {
  await instructor.getByRole('button', { name: 'Show', exact: true }).click();
  await instructor.getByRole('button', { name: 'Open again: Crock, 1 question' }).click();
  await expect(instructor.getByText('1 stop, about 2 min')).toBeVisible();
  await instructor.keyboard.press('s');
  await round().getByRole('button', { name: 'Done' }).click();
  await round().getByRole('button', { name: 'Close' }).click();
  await ask('Ada', 'And at which temperature?');
  await expect(instructor.getByText('1 stop, about 2 min')).toBeVisible();
});

test('what staff note about a group stands beside its room for them, and nowhere for a student', async () => {
  await instructor.goto(`/c/${courseId}/rooms`);
  await rooms().filter({ hasText: 'Crock' }).click();
  await instructor.getByRole('textbox', { name: 'New note' }).fill('Ada asks before she reads.');
  await instructor.getByRole('button', { name: /About the group/ }).click();
  await instructor.getByRole('option', { name: 'Ada Voss' }).click();
  await instructor.getByRole('button', { name: 'Add note' }).click();
  const notes = instructor.getByRole('region', { name: 'Notes' });
  await expect(notes.getByRole('listitem')).toContainText('about Ada VossAda asks before she reads.');
  await expect(instructor.getByRole('table', { name: 'Lately' })).toContainText('Ada Voss');
  await expectAccessible(instructor);
  await notes.getByRole('heading', { name: 'Notes' }).click(); // out of the text
  await instructor.keyboard.press('n');
  await expect(instructor.getByRole('heading', { name: 'Tun', level: 1 })).toBeVisible();
  await instructor.keyboard.press('p');
  await expect(notes.getByRole('listitem')).toContainText('Ada asks before she reads.');

  const heard: string[] = [];
  by('Ada').on('response', (response) => void response.text().then((text) => heard.push(text), () => undefined)); // prettier-ignore
  for (const path of ['due', 'room', 'outline', 'my-marks']) {
    await by('Ada').goto(`/c/${courseId}/${path}`);
    await by('Ada').waitForLoadState('networkidle');
  }
  await by('Ada').goto(new URL(instructor.url()).pathname);
  await expect(by('Ada').getByRole('heading', { name: 'Crock', level: 1 })).toBeVisible();
  expect(heard.length).toBeGreaterThan(5);
  expect(heard.join(' ')).not.toContain('asks before');
  await expect(by('Ada').getByText('Notes')).toHaveCount(0);
});
