import type { Page } from '@playwright/test';
import type { RoomLines } from '@jigsaw/contract/rooms';
import type { MarkSeenOnShelf, ShelfView } from '@jigsaw/contract/shelf';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, api, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** What one member puts on the shelf of a group is there for the others and for staff, and for no one else. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
const by = (name: string) => sure(students.get(name));
const shelf = (page: Page) => page.getByRole('region', { name: 'Shelf' });
const file = (name: string, content: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(content) }); // prettier-ignore

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  courseId = (await aCourseOf(instructor, 'FER 205', 'Kvass', ['Ada', 'Ben', 'Cleo'].map((name) => `${name} Voss <${name.toLowerCase()}.s205@quillmere.example>`))).id; // prettier-ignore
  const setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun'])).id;
  await place(instructor, setId, 'Ada', 'Crock');
  await place(instructor, setId, 'Ben', 'Crock');
  await place(instructor, setId, 'Cleo', 'Tun');
  students = await browsersOf(browser, instructor, courseId);
  for (const page of students.values()) await page.goto(`/c/${courseId}/room`);
});

test('a file that one member adds is there for the other, whose page stays open, and not for another group', async () => {
  await expect(shelf(by('Ben'))).toContainText('Add files');
  await shelf(by('Ada')).locator('input[type=file]').setInputFiles([file('plan.txt', 'Salt first'), file('map.txt', 'Cellar')]); // prettier-ignore
  await expect(shelf(by('Ada')).getByText('2 files', { exact: false })).toBeVisible();
  await expect(shelf(by('Ben')).getByText('new', { exact: true })).toHaveCount(2);
  await expectAccessible(by('Ben'));
  await expect(shelf(by('Cleo')).getByText('plan.txt')).toHaveCount(0);
});

test('a version on top of it, the earlier one again, and the file removed and restored', async () => {
  const ben = shelf(by('Ben'));
  const plan = ben.getByRole('listitem').filter({ has: by('Ben').getByText('plan.txt', { exact: true }) });
  await plan.locator('input[type=file]').setInputFiles(file('plan.txt', 'Starch first'));
  await expect(shelf(by('Ada')).getByText(/^Version 2, Ben Voss/)).toBeVisible();
  await plan.getByRole('button', { name: 'Earlier versions of plan.txt' }).click();
  await plan.getByRole('button', { name: 'Restore Version 1 of plan.txt' }).click();
  await expect(shelf(by('Ada')).getByText(/^Version 3, version 1 again, Ben Voss/)).toBeVisible();
  const download = by('Ada').waitForEvent('download');
  await shelf(by('Ada')).getByRole('link', { name: 'Download Version 3 of plan.txt' }).click();
  const content = await (await download).createReadStream();
  expect((await content.toArray()).join('')).toBe('Salt first');
  await shelf(by('Ada')).getByRole('button', { name: 'Remove map.txt' }).click();
  await expect(ben.getByText('map.txt')).toHaveCount(0);
  await by('Ada').getByRole('button', { name: 'Undo' }).click();
  await expect(ben.getByText('map.txt')).toBeVisible();
});

test('a shelf that is longer than the window scrolls in its place, and the page does not', async () => {
  const many = Array.from({ length: 14 }, (_each, at) => file(`page ${at}.txt`, `${at}`));
  await shelf(by('Ada')).locator('input[type=file][multiple]').setInputFiles(many);
  await expect(shelf(by('Ada')).getByText('16 files', { exact: false })).toBeVisible();
  const scrolled = await by('Ada').evaluate(() => document.documentElement.scrollHeight - innerHeight);
  expect(scrolled).toBe(0);
});

test('what was seen is new no more, and staff read what lies there', async () => {
  const ben = by('Ben');
  // What came before it may be seen only now: its own mark is the one that names its time.
  const put = by('Ada').waitForResponse((answer) => answer.url().endsWith('/shelf'));
  const marks = new Set<string>();
  ben.on('response', (answer) => {
    if (answer.url().endsWith('/shelf/seen') && answer.status() === 200)
      marks.add((answer.request().postDataJSON() as MarkSeenOnShelf).upTo);
  });
  await shelf(by('Ada')).locator('input[type=file][multiple]').setInputFiles(file('late.txt', 'Late'));
  const { files } = (await (await put).json()) as ShelfView;
  const at = sure(files.find(({ versions }) => versions[0]?.name === 'late.txt')?.versions[0]?.at);
  await shelf(ben).getByText('late.txt').scrollIntoViewIfNeeded();
  await expect.poll(() => [...marks]).toContain(at);
  await ben.reload();
  await expect(shelf(ben).getByText('late.txt')).toBeVisible();
  await expect(shelf(ben).getByText('new', { exact: true })).toHaveCount(0);
  const { lines } = await api<RoomLines>(instructor, 'GET', `courses/${courseId}/room-lines`);
  const crock = sure(lines.find(({ group }) => group.name === 'Crock')).group.id;
  await instructor.goto(`/c/${courseId}/room/${crock}`);
  await expect(shelf(instructor).getByText('late.txt')).toBeVisible();
  await expect(shelf(instructor).locator('input[type=file]')).toHaveCount(0);
  await expectAccessible(instructor);
});
