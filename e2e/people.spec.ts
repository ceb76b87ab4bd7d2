import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import type { SessionView, SignInLinks } from '@jigsaw/contract/identity';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anAssignmentFor, api, browsersOf } from './support/course.js';
import {
  expect,
  expectAccessible,
  mailedLink,
  newPerson,
  registrar,
  signIn,
  test,
} from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** The roster: put right in place, edited, removed and restored, and never changed without the way back. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let courseId = '';
const row = (name: string) => instructor.getByRole('row', { name: new RegExp(name) });
const toRoster = () => instructor.goto(`/c/${courseId}/people`);

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const lines = ['Ada', 'Bo', 'Cho', 'Dia'].map(
    (given) => `${given} Lund <${given.toLowerCase()}.l@quillmere.example>`,
  );
  courseId = (await aCourseOf(instructor, 'FER 400', 'Cider', lines)).id;
});

test('a file with five different faults is put right line by line in the page', async () => {
  const file = [
    'Number;Name;E-Mail;Role;Lab',
    'n1;Eva Ruiz;eva.ruiz(at)quillmere.example;student;some', // no address
    'n2;;fay.l@quillmere.example;student;some', // no name
    'n3;Gus Ode;gus.l@quillmere.example;wizard;none', // no role
    'n4;=Hal;hal.l@quillmere.example;student;none', // like a formula
    'n4;Ida Moe;ida.l@quillmere.example;student;none', // a number twice
    'n6;Ada Lund;ada.l@quillmere.example;student;plenty', // known, and new in two fields
  ].join('\n');
  await instructor.goto(`/c/${courseId}/people/import`);
  await instructor
    .locator('input[type=file]')
    .setInputFiles({ name: 'week-9.csv', mimeType: 'text/csv', buffer: Buffer.from(file) });
  await expect(instructor.getByText('5 rows need you', { exact: true })).toBeVisible();
  await expectAccessible(instructor);
  const correct = async (line: number, column: string, value: string) => {
    await instructor.getByRole('button', { name: `Correct line ${line}` }).click();
    const form = instructor.getByRole('form', { name: `Line ${line}` });
    await form.getByLabel(column).fill(value);
    if (line === 2) await expectAccessible(instructor);
    await instructor.keyboard.press('Enter');
    await expect(form).toHaveCount(0);
  };
  await correct(2, 'E-Mail', 'eva.l@quillmere.example');
  await expect(row('Eva Ruiz')).toContainText('as corrected');
  await correct(3, 'Name', 'Fay Kunz');
  await correct(4, 'Role', 'tutor');
  await correct(5, 'Name', 'Hal Prior');
  await correct(6, 'Number', 'n5');
  await expect(instructor.getByText('5 new · 1 changed · 0 unchanged · 3 not in the file')).toBeVisible();
  await expect(row('Ada Lund')).toContainText('Number: nothing → n6');
  await instructor.getByRole('button', { name: 'Remove Dia Lund' }).click();
  await instructor.getByRole('button', { name: 'Import 6 rows, remove 1' }).click();
  await expect(instructor.getByText('5 added, 1 changed, 1 removed')).toBeVisible();
  await expect(instructor.getByRole('radio', { name: 'Students 7' })).toBeVisible(); // four less Dia, and four of the five
  await expect(instructor.getByRole('radio', { name: 'Left 1' })).toBeVisible();
  await expectAccessible(instructor);
});

test('all of it is taken back with one press, and again from the list of changes after a reload', async () => {
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(instructor.getByText('Undone')).toBeVisible();
  await expect(instructor.getByRole('radio', { name: 'Students 4' })).toBeVisible();
  await instructor.reload();
  await instructor.getByRole('button', { name: 'Changes of the roster' }).click();
  const changes = instructor.getByRole('dialog', { name: 'Changes of the roster' });
  await expect(changes.getByRole('listitem').first()).toContainText('Undone');
  await expectAccessible(instructor);
  await changes.getByRole('button', { name: /^Undo: Undone/ }).click(); // the file is in again
  await instructor.keyboard.press('Escape');
  await expect(instructor.getByRole('radio', { name: 'Students 7' })).toBeVisible();
});

test('someone whose number is known stays the same person under a new address', async () => {
  const bringUna = async (address: string) => {
    await instructor.goto(`/c/${courseId}/people/import`);
    await instructor.locator('input[type=file]').setInputFiles({
      name: 'week-10.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`Number;Name;E-Mail\nn77;Una Moe;${address}\n`),
    });
  };
  await bringUna('una.moe@new.example');
  await instructor.getByRole('button', { name: 'Import 1 row' }).click();
  await expect(row('Una Moe')).toContainText('una.moe@new.example');
  await bringUna('una.moe@newer.example');
  await expect(instructor.getByText('n77 is the number of Una Moe, who has another address.')).toBeVisible();
  await instructor.getByRole('button', { name: 'Line 2 is Una Moe, with a new address' }).click();
  await expect(instructor.getByText('Email: una.moe@new.example → una.moe@newer.example')).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Import 1 row' }).click();
  await expect(row('Una Moe')).toContainText('una.moe@newer.example');
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(row('Una Moe')).toContainText('una.moe@new.example');
  await row('Una Moe').getByRole('checkbox').press('Space');
  await instructor.getByRole('button', { name: 'Remove from course' }).click();
  await expect(row('Una Moe')).toHaveCount(0);
});

test('200 pasted lines come in at once', async () => {
  await instructor.goto(`/c/${courseId}/people/import`);
  await instructor.getByRole('tab', { name: 'From a pasted list' }).click();
  await instructor
    .getByRole('textbox', { name: /^Emails, with names/ })
    .fill(
      Array.from(
        { length: 200 },
        (_, at) => `Person ${String(at).padStart(3, '0')} <p${at}.l@quillmere.example>`,
      ).join('\n'),
    );
  await instructor.getByRole('button', { name: 'Show what would change' }).click();
  await instructor.getByRole('button', { name: 'Import 200 rows' }).click();
  await expect(instructor.getByText('200 added, 0 changed')).toBeVisible();
  await instructor.getByPlaceholder(/Find a name/).fill('person 19');
  await expect(instructor.getByText(/^12 of 2/)).toBeVisible();
});

test('one person is added, corrected and given a role by keyboard', async () => {
  await toRoster();
  await instructor.getByRole('button', { name: 'Add a person…' }).click();
  const dialog = instructor.getByRole('dialog');
  await dialog.getByLabel('Name', { exact: true }).fill('Zed Abel');
  await dialog.getByLabel('Email').fill('zed.l@quillmere.example');
  await expectAccessible(instructor);
  await instructor.keyboard.press('Enter');
  await expect(instructor.getByText('Zed Abel added')).toBeVisible();
  await instructor.getByPlaceholder(/Find a name/).fill('zed');
  await row('Zed Abel').press('Enter');
  await dialog.getByLabel('Number').fill('n9');
  await instructor.keyboard.press('Enter');
  await expect(instructor.getByText('Zed Abel changed')).toBeVisible();
  await row('Zed Abel').getByRole('checkbox').press('Space');
  await instructor.getByRole('button', { name: 'Role…' }).press('Enter');
  await instructor.getByRole('menuitem', { name: 'Assistant' }).press('Enter');
  await expect(row('Zed Abel')).toContainText('Assistant');
  await row('Zed Abel').getByRole('checkbox').press('Space');
  await instructor.getByRole('button', { name: 'Set an attribute…' }).click();
  await instructor.getByRole('textbox', { name: 'Attribute' }).fill('Timetable');
  await instructor.getByRole('textbox', { name: 'Value' }).fill('evening');
  await instructor.getByRole('button', { name: 'Set value' }).click();
  await expect(row('Zed Abel')).toContainText('evening');
});

test('whoever is taken out loses sight of everything at once and has it again when they are back, work and all', async ({
  browser,
}) => {
  const set = await api<GroupSetView>(instructor, 'POST', `courses/${courseId}/sets`, {
    name: 'Cider teams',
    shape: { by: 'count', groups: 1 },
    capacity: null,
    pattern: 'Team {n}',
    names: ['Bottle'],
  });
  const board = await api<BoardView>(instructor, 'GET', `sets/${set.id}/board`);
  const student = sure(board.students.find((each) => each.name === 'Ada Lund')).enrolmentId;
  await api(instructor, 'POST', `sets/${set.id}/place`, {
    moves: [{ student, from: null, to: sure(board.groups[0]).id }],
  });
  await anAssignmentFor(instructor, courseId, set.id, 'Press notes');
  const ada = sure((await browsersOf(browser, instructor, courseId, ['Ada'])).get('Ada'));
  await ada.goto(`/c/${courseId}/room`);
  await ada.getByRole('link', { name: /^Press notes/ }).click();
  await ada.getByRole('textbox', { name: 'Your part of the text' }).click();
  await ada.keyboard.type('Seven turns, no more.');
  await expect(ada.getByText(/^Saved \d\d:\d\d$/)).toBeVisible();

  await toRoster();
  await instructor.getByPlaceholder(/Find a name/).fill('ada lund');
  await instructor.getByRole('rowheader', { name: 'Ada Lund' }).click();
  await instructor.getByRole('dialog').getByRole('button', { name: 'Remove from course' }).click();
  await expect(
    instructor.getByText('Ada Lund removed from the course. Work and marks are kept.'),
  ).toBeVisible();
  await ada.reload();
  await expect(ada.locator('body')).not.toContainText('Seven turns');
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(instructor.getByText('Undone')).toBeVisible();
  await ada.reload();
  await expect(ada.getByRole('textbox', { name: 'Your part of the text' })).toContainText(
    'Seven turns, no more.',
  );
});

test('people are invited by mail, each with a link that lets them in once', async ({ browser }) => {
  await toRoster();
  await instructor.getByRole('button', { name: 'Invite…' }).click();
  await instructor.getByRole('menuitem', { name: /^Invite the .+ not signed in yet…$/ }).click();
  const sheet = instructor.getByRole('dialog', { name: /^Invite \d+ people$/ });
  await expect(sheet.getByRole('list', { name: 'Recipients' })).toContainText('Bo Lund');
  await expectAccessible(instructor);
  await sheet.getByRole('button', { name: /^Send \d+ invitations$/ }).click();
  await instructor.getByRole('button', { name: 'Outbox' }).click();
  await instructor.getByPlaceholder('Find a person or words').fill('bo lund');
  const letter = instructor.getByRole('article', { name: 'Your place in Cider' });
  await expect(letter).toContainText('Hello Bo Lund,');
  await expectAccessible(instructor);
  await expect(letter).toContainText('Only Bo Lund receives this link.');
  const bo = await newPerson(browser);
  await bo.goto(await mailedLink('bo.l@quillmere.example'));
  await bo.getByLabel('New password').fill('press and barrel');
  await bo.getByRole('button', { name: 'Save password and sign in' }).click();
  await expect(bo.getByRole('link', { name: /Cider/ }).first()).toBeVisible();
  await toRoster();
});

test('a link handed out in one course lets in to no other, and mail to the address takes the account back', async ({
  browser,
}) => {
  const address = 'gil.ode@quillmere.example';
  const own = await aCourseOf(instructor, 'FER 402', 'Mead', [`Gil Ode <${address}>`]);
  const other = await aCourseOf(instructor, 'FER 401', 'Perry', [`Gil Ode <${address}>`]);
  const { links } = await api<SignInLinks>(instructor, 'POST', `courses/${other.id}/roster/sign-in-links`);
  const stranger = await newPerson(browser);
  await stranger.goto(sure(links[0]).url);
  await stranger.getByLabel('New password').fill('not at all Gil');
  await stranger.getByRole('button', { name: 'Save password and sign in' }).click();
  await expect(stranger.getByRole('link', { name: /Perry/ }).first()).toBeVisible();
  await expect(stranger.getByText('only courses whose links you opened are listed')).toBeVisible();
  await expect(stranger.getByRole('link', { name: /Mead/ })).toHaveCount(0);
  await expectAccessible(stranger);
  await stranger.goto(`/c/${own.id}`);
  await expect(stranger.getByText('There is no course at this address')).toBeVisible();

  const gil = await newPerson(browser);
  await gil.goto(await mailedLink(address));
  await expect(gil.getByText(address)).toBeVisible();
  await expectAccessible(gil);
  await gil.getByLabel('New password').fill('pears in a row');
  await gil.getByRole('button', { name: 'Save password and sign in' }).click();
  await expect(gil.getByRole('link', { name: /Mead/ }).first()).toBeVisible();
  await expect(gil.getByRole('link', { name: /Perry/ }).first()).toBeVisible();
  // What one course calls someone is its own business: not the other's, and not the account's.
  await instructor.goto(`/c/${other.id}/people/import`);
  await instructor.getByRole('tab', { name: 'From a pasted list' }).click();
  await instructor.getByRole('textbox', { name: /^Emails, with names/ }).fill(`Someone Else <${address}>`);
  await instructor.getByRole('button', { name: 'Show what would change' }).click();
  await instructor.getByRole('button', { name: 'Import 1 row' }).click();
  await expect(row('Someone Else')).toBeVisible();
  await instructor.goto(`/c/${own.id}/people`);
  await expect(row('Gil Ode')).toBeVisible();
  expect((await api<SessionView>(gil, 'GET', 'session')).person.name).toBe('Gil Ode');

  await stranger.goto('/');
  await expect(stranger.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await stranger.getByLabel('Email').fill(address);
  await stranger.getByLabel('Password').fill('not at all Gil');
  await stranger.getByRole('button', { name: 'Sign in' }).click();
  await expect(stranger.getByRole('alert')).toContainText('do not match');
  await toRoster();
});

test('the roster goes out as CSV and as a bundle', async () => {
  for (const [item, name] of [
    ['As CSV, with everyone’s groups', 'roster.csv'],
    ['As a OneRoster bundle', 'roster.zip'],
  ] as const) {
    await instructor.getByRole('button', { name: 'Export roster' }).click();
    const [download] = await Promise.all([
      instructor.waitForEvent('download'),
      instructor.getByRole('menuitem', { name: item }).click(),
    ]);
    expect(download.suggestedFilename()).toBe(name);
    const content = await readFile(sure(await download.path()));
    if (name === 'roster.csv') expect(content.toString('utf8')).toContain('Ada Lund');
    else expect(content.subarray(0, 2).toString()).toBe('PK');
  }
});

test('columns are chosen, and stay chosen', async () => {
  await instructor.getByRole('button', { name: 'Columns' }).click();
  await instructor.getByRole('checkbox', { name: 'Address' }).uncheck();
  await instructor.keyboard.press('Escape');
  await expect(instructor.getByRole('columnheader', { name: /Address/ })).toHaveCount(0);
  await instructor.reload();
  await expect(instructor.getByRole('columnheader', { name: /Number/ })).toBeVisible();
  await expect(instructor.getByRole('columnheader', { name: /Address/ })).toHaveCount(0);
});

test('attributes are given cell by cell, and are what someone says', async () => {
  await instructor.getByRole('button', { name: 'Columns' }).click();
  await instructor.getByRole('button', { name: 'Add an attribute…' }).click();
  await instructor.getByRole('textbox', { name: 'Its name' }).fill('Free');
  await instructor.getByRole('button', { name: /What its values are/ }).click();
  await instructor.getByRole('option', { name: 'Free half-days' }).click();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Add', exact: true }).click();
  await instructor.getByRole('checkbox', { name: 'Free' }).check();
  await instructor.keyboard.press('Escape');
  await instructor.getByPlaceholder(/Find a name/).fill('lund');
  await row('Ada Lund').press('F2');
  await instructor.keyboard.press('Tab');
  await instructor.keyboard.press('Tab');
  const box = instructor.getByRole('dialog', { name: 'Free of Ada Lund' });
  await box.getByRole('button', { name: 'Mon am' }).click();
  await expectAccessible(instructor);
  await instructor.keyboard.press('Escape');
  await expect(instructor.getByText('Free of Ada Lund: nothing → Mon am')).toBeVisible();
  await expect(row('Ada Lund').getByRole('img', { name: 'Mon am' })).toBeVisible();
  await expect(row('Ada Lund')).toBeFocused();
});

test('someone who stands in the roster twice is made one, work and all, and parted again', async ({
  browser,
}) => {
  const twin = 'A. Lund <a.lund.l@quillmere.example>';
  await instructor.goto(`/c/${courseId}/people/import`);
  await instructor.getByRole('tab', { name: 'From a pasted list' }).click();
  await instructor.getByRole('textbox', { name: /^Emails, with names/ }).fill(twin);
  await instructor.getByRole('button', { name: 'Show what would change' }).click();
  await instructor.getByRole('button', { name: 'Import 1 row' }).click();
  await instructor.getByPlaceholder(/Find a name/).fill('a lund');
  await row('A. Lund').getByRole('checkbox').click();
  await row('Ada Lund').getByRole('checkbox').click();
  await instructor.getByRole('button', { name: 'Merge entries…' }).click();
  await instructor.getByRole('dialog').getByText('a.lund.l@quillmere.example', { exact: true }).click();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Merge entries', exact: true }).click();
  await expect(row('Ada Lund')).toHaveCount(0);
  await expect(row('A. Lund')).toContainText('Bottle');
  const alias = sure((await browsersOf(browser, instructor, courseId, ['A.'])).get('A.'));
  await alias.goto(`/c/${courseId}/room`);
  await alias.getByRole('link', { name: /Press notes/ }).click();
  await expect(alias.getByRole('textbox', { name: 'Your part of the text' })).toContainText(
    'Seven turns, no more.',
  );
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(row('Ada Lund')).toContainText('Bottle');
});

test('the registrar is followed: who joins, who leaves and who changes sections is shown before it happens', async () => {
  const enrolled = (given: string, section: string, role = 'student') => ({
    name: `${given} Lund`,
    email: `${given.toLowerCase()}.l@quillmere.example`,
    section,
    role,
  });
  const sections = [
    { id: 'tue', title: 'Tuesday press' },
    { id: 'thu', title: 'Thursday press' },
  ];
  const ilse = { name: firstInstructor.name, email: firstInstructor.email, role: 'teacher' };
  const people = [ilse, enrolled('Ada', 'tue'), enrolled('Bo', 'tue'), enrolled('Cho', 'thu')];
  await registrar('courses/x', { code: 'FER 400', title: 'Cider', sections, people });
  await instructor.goto(`/c/${courseId}/people/import`);
  await instructor.getByRole('tab', { name: 'From the registrar' }).click();
  await instructor.getByRole('textbox', { name: /set of its sections/ }).fill('Press days');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Show what would change' }).click();
  await expect(
    instructor.getByText(/New, a group for each section: Tuesday press, Thursday press\./),
  ).toBeVisible();
  await instructor.getByRole('button', { name: 'Import 3 rows' }).click();
  await expect(instructor.getByText('0 added, 3 changed')).toBeVisible();

  await registrar('courses/FER%20400/drop', { email: 'bo.l@quillmere.example' });
  await registrar('courses/FER%20400/seat', { email: 'cho.l@quillmere.example', section: 'tue' });
  await registrar('courses/FER%20400/enrol', enrolled('Eli', 'thu'));
  await instructor.getByRole('link', { name: 'Sync…' }).click();
  await expect(row('Cho Lund')).toContainText('Section: Thursday press → Tuesday press');
  await expect(row('Bo Lund')).toContainText('Not listed, leaves');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Import 2 rows, remove 1' }).click();
  await expect(instructor.getByText('1 added, 1 changed, 1 removed')).toBeVisible();
  await instructor.getByPlaceholder(/Find a name/).fill('lund');
  await expect(row('Cho Lund')).toContainText('Tuesday press');
  await expect(row('Eli Lund')).toContainText('Thursday press');
  await expect(row('Bo Lund')).toHaveCount(0);
});

test('a registrar that is gone or answers nonsense is told of, and changes nothing', async () => {
  for (const [mood, sentence] of [
    ['away', /answered with an error \(503\)/],
    ['nonsense', /answered with something that is not a roster/],
  ] as const) {
    await registrar('mood', { mood });
    await instructor.goto(`/c/${courseId}/people/import?from=registrar`);
    await expect(instructor.getByRole('alert')).toContainText(sentence);
  }
  await registrar('mood', { mood: 'well' });
  await instructor.getByRole('button', { name: 'Try again' }).click();
  await expect(instructor.getByText('Nothing differs from the roster')).toBeVisible();
});
