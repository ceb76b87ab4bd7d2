import type { Page } from '@playwright/test';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** What people of a course write to one another reaches those it is for while their pages stay open, and no one else. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
const by = (name: string) => sure(students.get(name));
const link = (page: Page, name: string) => page.getByRole('link', { name, exact: true });
const thread = (page: Page, subject: string) => page.getByRole('region', { name: subject });

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  courseId = (await aCourseOf(instructor, 'FER 206', 'Vinegar', ['Ada', 'Ben', 'Cleo'].map((name) => `${name} Voss <${name.toLowerCase()}.m206@quillmere.example>`))).id; // prettier-ignore
  const setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Tun'])).id;
  await place(instructor, setId, 'Ada', 'Crock');
  await place(instructor, setId, 'Ben', 'Crock');
  await place(instructor, setId, 'Cleo', 'Tun');
  students = await browsersOf(browser, instructor, courseId);
  for (const page of students.values()) await page.goto(`/c/${courseId}/messages`);
  await instructor.goto(`/c/${courseId}/people`);
});

async function write(page: Page, subject: string, text: string) {
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('textbox', { name: 'Subject' }).fill(subject);
  await sheet.getByRole('textbox', { name: 'Message' }).fill(text);
  return sheet;
}

test('a student asks, the instructor is told on whatever page, replies, and the student is told', async () => {
  await by('Ada').getByRole('button', { name: 'New message' }).click();
  const sheet = await write(by('Ada'), 'The scale', 'It drifts. <b>What now?</b>');
  await sheet.getByRole('button', { name: /Choose who to write to/ }).click();
  await by('Ada').getByRole('option', { name: 'Staff' }).click();
  await expectAccessible(by('Ada'));
  await sheet.getByRole('button', { name: 'Send to staff' }).click();
  await expect(thread(by('Ada'), 'The scale')).toContainText('<b>What now?</b>');
  await link(instructor, 'Messages, 1 new').click();
  await instructor.getByRole('link', { name: /Ada Voss.*The scale/ }).click();
  await expect(thread(instructor, 'The scale')).toContainText('<b>What now?</b>');
  await expectAccessible(instructor);
  // Read, once it has stood there for a moment.
  await expect(link(instructor, 'Messages')).toBeVisible();
  await thread(instructor, 'The scale')
    .getByRole('textbox', { name: 'Reply' })
    .fill('Take the one on shelf 3.');
  await thread(instructor, 'The scale').getByRole('button', { name: 'Send reply' }).click();
  await expect(thread(by('Ada'), 'The scale')).toContainText('Take the one on shelf 3.');
  for (const name of ['Ben', 'Cleo'])
    await expect(by(name).getByText('No messages yet. Write the first one.')).toBeVisible();
  const address = new URL(by('Ada').url()).pathname;
  await by('Ben').goto(address);
  await expect(by('Ben').getByText('This message was removed, or it is not yours to read.')).toBeVisible();
});

test('what is typed and not sent stays through a reload', async () => {
  const reply = thread(by('Ada'), 'The scale').getByRole('textbox', { name: 'Reply' });
  await reply.fill('Thank you, I ');
  await by('Ada').reload();
  await expect(reply).toHaveValue('Thank you, I ');
});

test('one letter to every student is a thread with each; Undo takes it out of all of them', async () => {
  await by('Ben').goto(`/c/${courseId}/messages`);
  await instructor.getByRole('button', { name: 'New message' }).click();
  const sheet = await write(instructor, 'Tasting day', 'Hello {first name} of {group}');
  await sheet.getByRole('button', { name: /Choose who to write to/ }).click();
  await instructor.getByRole('option', { name: 'Every student, 3 people' }).click();
  await sheet.getByRole('button', { name: 'Send to 3 students' }).click();
  await by('Ben')
    .getByRole('link', { name: /Tasting day/ })
    .click();
  await expect(thread(by('Ben'), 'Tasting day')).toContainText('Hello Ben of Crock');
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(by('Ben').getByText('This message was removed, or it is not yours to read.')).toBeVisible();
  await expect(by('Cleo').getByText('No messages yet. Write the first one.')).toBeVisible();
});

test('a group is written to from its room; a teammate replies, another group never learns of it', async () => {
  await by('Ada').goto(`/c/${courseId}/room`);
  await by('Ada').getByRole('button', { name: 'Write to your group…' }).click();
  const sheet = await write(by('Ada'), 'Thursday', 'Who brings the jar?');
  await sheet.getByRole('button', { name: 'Send to Crock' }).click();
  await expect(thread(by('Ada'), 'Thursday')).toContainText(
    'Crock: Ada Voss, Ben Voss. Staff read this too.',
  );
  await by('Ben')
    .getByRole('link', { name: /Thursday/ })
    .click();
  await thread(by('Ben'), 'Thursday').getByRole('textbox', { name: 'Reply' }).fill('I do.');
  await thread(by('Ben'), 'Thursday').getByRole('button', { name: 'Send reply' }).click();
  await expect(thread(by('Ada'), 'Thursday')).toContainText('I do.');
  await expect(by('Cleo').getByText('No messages yet. Write the first one.')).toBeVisible();
  await instructor.goto(`/c/${courseId}/rooms`);
  await instructor.getByRole('button', { name: 'Write to these 2 groups…' }).click();
  await expect(instructor.getByRole('dialog', { name: 'Write to 2 groups' })).toBeVisible();
  await expectAccessible(instructor);
});
