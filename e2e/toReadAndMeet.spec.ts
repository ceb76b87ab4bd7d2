import type { Page } from '@playwright/test';
import ICAL from 'ical.js';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, api, aSetOf, browsersOf, place } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** What is to be read and what takes place: written once, in rooms, and in people's own calendars. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
let setId = '';
let feed = '';
const ada = () => sure(students.get('Ada'));
const bo = () => sure(students.get('Bo'));

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  courseId = (
    await aCourseOf(instructor, 'FER 191', 'Vinegar', [
      'Ada Vale <ada.v191@quillmere.example>',
      'Bo Vale <bo.v191@quillmere.example>',
    ])
  ).id;
  setId = (await aSetOf(instructor, courseId, 'Bench teams', ['Crock', 'Carboy'])).id;
  await place(instructor, setId, 'Ada', 'Crock');
  await place(instructor, setId, 'Bo', 'Carboy');
  students = await browsersOf(browser, instructor, courseId);
});

async function write(kind: string, title: string, text: string): Promise<void> {
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('button', { name: 'New activity' }).first().click();
  await instructor.getByRole('menuitem', { name: new RegExp(`^${kind}`) }).click();
  await instructor.getByRole('textbox', { name: 'Title' }).fill(title);
  await instructor.getByRole('textbox', { name: 'Brief' }).click();
  await instructor.keyboard.type(text);
}

async function typeDate(name: string, parts: readonly (readonly [string, string])[]): Promise<void> {
  const field = instructor.getByRole('group', { name, exact: true });
  for (const [part, digits] of parts)
    await field.getByRole('spinbutton', { name: new RegExp(`^${part}`) }).pressSequentially(digits);
}

/** Read without a session by a parser that did not write it. */
async function readFeed() {
  const text = await (await fetch(feed)).text();
  const calendar = new ICAL.Component(ICAL.parse(text) as never[]);
  return calendar.getAllSubcomponents('vevent').map((each) => new ICAL.Event(each));
}

test('an event is written with its times and goes to each bench', async () => {
  await write('Event', 'Bench talk', 'Bring your log.');
  await expect(instructor.getByText('Choose when it starts.')).toBeVisible();
  await typeDate('Starts', [['day', '12'], ['month', '11'], ['year', '2030'], ['hour', '10'], ['minute', '30']]); // prettier-ignore
  await expect(instructor.getByRole('group', { name: 'Ends', exact: true })).toContainText('11:30');
  await instructor.getByRole('textbox', { name: 'Place' }).fill('Lab 2; by the door');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Release to 2 groups' }).click();
  await expect(instructor.getByText(/^Released to 2 groups/)).toBeVisible();
});

test('it comes up for its members, who take it into their own calendar', async () => {
  await ada().goto(`/c/${courseId}/due`);
  await ada()
    .getByRole('link', { name: /Bench talk.*Tue 12 Nov, 10:30–11:30/ })
    .click();
  await expect(ada().getByRole('heading', { name: 'Tue 12 Nov, 10:30–11:30' })).toBeVisible();
  await expectAccessible(ada());
  const file = ada().waitForEvent('download');
  await ada().getByRole('link', { name: 'Add to calendar' }).click();
  expect((await file).suggestedFilename()).toBe('event.ics');

  await ada().getByRole('button', { name: 'Keep my calendar up to date' }).click();
  const sheet = ada().getByRole('dialog', { name: 'Your calendar' });
  await sheet.getByLabel('Which calendar is it for?').fill('Phone');
  await sheet.getByRole('button', { name: 'Make an address' }).click();
  feed = sure(await sheet.getByText(/\/api\/calendars\//).textContent());
  await expectAccessible(ada());
  const [event] = await readFeed();
  expect(event?.summary).toBe('Bench talk (FER 191, Crock)');
  expect(event?.location).toBe('Lab 2; by the door');
  expect(event?.startDate.toString()).toBe('2030-11-12T10:30:00');
});

test('a new name of the group, and that it is cancelled, come into page and calendar by themselves', async () => {
  await ada().goto(`/c/${courseId}/room`);
  await ada()
    .getByRole('link', { name: /^Bench talk/ })
    .click();
  const { groups } = await api<BoardView>(instructor, 'GET', `sets/${setId}/board`);
  const crock = sure(groups.find((group) => group.name === 'Crock'));
  const renamed = { name: 'Demijohn', capacity: null, isLocked: false, version: crock.version };
  await api(instructor, 'PATCH', `groups/${crock.id}`, renamed);
  await expect(ada().getByRole('link', { name: 'Demijohn' })).toBeVisible();
  expect((await readFeed())[0]?.summary).toBe('Bench talk (FER 191, Demijohn)');

  await instructor.getByRole('checkbox', { name: 'It is cancelled' }).check();
  await instructor.getByRole('button', { name: /^Publish changes/ }).click();
  await expect(ada().getByText('Cancelled', { exact: true })).toBeVisible();
  const [event] = await readFeed();
  expect(event?.component.getFirstPropertyValue('status')).toBe('CANCELLED');
});

test('someone who moves to another group has that group’s, and an address that was removed reads nothing', async () => {
  await api(instructor, 'POST', `sets/${setId}/place`, await moveOfAda());
  await expect.poll(async () => (await readFeed()).map((each) => each.summary)).toEqual(['Cancelled: Bench talk (FER 191, Carboy)']); // prettier-ignore
  await ada().goto(`/c/${courseId}/due`);
  await ada()
    .getByRole('button', { name: /your account/ })
    .click();
  await ada().getByRole('menuitem', { name: 'Your calendar' }).click();
  await ada().getByRole('button', { name: 'Remove the address for Phone' }).click();
  await expect(ada().getByText('You have no address yet.')).toBeVisible();
  expect((await fetch(feed)).status).toBe(404);
});

async function moveOfAda() {
  const { groups, students: all } = await api<BoardView>(instructor, 'GET', `sets/${setId}/board`);
  const student = sure(all.find((each) => each.name === 'Ada Vale'));
  const to = sure(groups.find((group) => group.name === 'Carboy')).id;
  return { moves: [{ student: student.enrolmentId, from: sure(student.seats[0]).groupId, to }] };
}

test('a notice appears as new in an open room, is read, and answered among those who share it', async () => {
  await bo().goto(`/c/${courseId}/room`);
  await expect(bo().getByRole('heading', { name: 'Carboy' })).toBeVisible();
  await write('Notice', 'The cold room is closed', 'Take your jars out on Wednesday.');
  await expect(instructor.getByRole('heading', { name: 'Marking' })).toBeHidden();
  await instructor.getByRole('button', { name: 'Release to 2 groups' }).click();
  await expect(instructor.getByText(/^Released to 2 groups/)).toBeVisible();
  await bo()
    .getByRole('link', { name: /^The cold room is closed.*1 new/ })
    .click();
  await expect(bo().getByRole('article', { name: 'Notice' })).toContainText('Take your jars out');
  await expectAccessible(bo());
  await bo().getByRole('textbox', { name: 'New reply' }).click();
  await bo().keyboard.type('We do it at six.');
  await bo().getByRole('button', { name: 'Reply to Carboy' }).click();
  await expect(bo().getByText('Posted')).toBeVisible();
  await ada().goto(`/c/${courseId}/room`);
  await ada()
    .getByRole('link', { name: /^The cold room is closed/ })
    .click();
  await expect(ada().getByText('We do it at six.')).toBeVisible();
  await bo().goto(`/c/${courseId}/room`);
  await expect(bo().getByRole('link', { name: /^The cold room is closed/ })).toBeVisible();
  await expect(bo().getByRole('link', { name: /^The cold room is closed.*new/ })).toBeHidden();
});

test('a bench meets in its standing call: one steps in, the other sees it, and one who moves is out', async () => {
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('button', { name: 'New activity' }).first().click();
  await instructor.getByRole('menuitem', { name: /^Standing call/ }).click();
  await instructor.getByRole('textbox', { name: 'Title' }).fill('Bench call');
  await instructor.getByRole('button', { name: 'Release to 2 groups' }).click();
  await expect(instructor.getByText(/^Released to 2 groups/)).toBeVisible();
  for (const student of [ada(), bo()]) {
    await student.goto(`/c/${courseId}/room`);
    await student.getByRole('link', { name: /^Bench call/ }).click();
    await expect(student.getByRole('heading', { name: 'No one is in' })).toBeVisible();
  }
  await ada().getByRole('button', { name: 'Step in' }).click();
  await expect(ada().getByRole('heading', { name: 'You are in' })).toBeVisible();
  await expect(bo().getByRole('heading', { name: 'Ada Vale is in' })).toBeVisible();
  await expectAccessible(bo());
  await bo().getByRole('button', { name: 'Where does the door lead?' }).click();
  await bo().getByLabel('Address of your call').fill('https://meet.quillmere.example/carboy');
  await bo().getByRole('button', { name: 'Save' }).click();
  await expect(ada().getByRole('link', { name: 'Open the call' })).toBeVisible();
  const { groups, students: all } = await api<BoardView>(instructor, 'GET', `sets/${setId}/board`);
  const { enrolmentId: student } = sure(all.find((each) => each.name === 'Ada Vale'));
  const [from, to] = ['Carboy', 'Demijohn'].map(
    (name) => sure(groups.find((group) => group.name === name)).id,
  );
  await api(instructor, 'POST', `sets/${setId}/place`, { moves: [{ student, from, to }] });
  await expect(bo().getByRole('heading', { name: 'No one is in' })).toBeVisible();
  await expect(ada().getByText('There is nothing at this address, or you cannot see it.')).toBeVisible();
});

test('a page with a link and a file is read by those who have it', async () => {
  await write('Resource', 'Salt tables', 'By volume.');
  const chooser = instructor.waitForEvent('filechooser');
  await instructor.getByRole('button', { name: 'Attach files…' }).click();
  await (
    await chooser
  ).setFiles({ name: 'salt.csv', mimeType: 'text/csv', buffer: Buffer.from('l,g\n1,20\n') });
  await expect(instructor.getByRole('button', { name: 'Remove salt.csv' })).toBeVisible();
  await instructor.getByRole('textbox', { name: 'Link', exact: true }).fill('https://quillmere.example/salt');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Release to 2 groups' }).click();
  await expect(instructor.getByText(/^Released to 2 groups/)).toBeVisible();
  await bo().goto(`/c/${courseId}/room`);
  await bo()
    .getByRole('link', { name: /^Salt tables/ })
    .click();
  await expect(bo().getByRole('link', { name: 'https://quillmere.example/salt' })).toBeVisible();
  const file = bo().waitForEvent('download');
  await bo()
    .getByRole('link', { name: /salt\.csv/ })
    .click();
  expect((await file).suggestedFilename()).toBe('salt.csv');
  await expectAccessible(bo());
});
