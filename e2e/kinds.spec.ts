import type { Page } from '@playwright/test';
import type { BoardView } from '@jigsaw/contract/placing';
import type { DeskList, DeskView, MarkView } from '@jigsaw/contract/marks';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, api, browsersOf } from './support/course.js';
import { baseUrl, expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** A talk, a wiki and a folder that each of two groups has for itself, and a third group that learns nothing of them. */
test.describe.configure({ mode: 'serial' });

const members = {
  Crock: ['Ada', 'Callum'],
  Carboy: ['Noor', 'Jorge'],
  Onggi: ['Yara'],
} as const;
const addressOf = (given: string) => `${given.toLowerCase()}.k@quillmere.example`;

let instructor: Page;
let courseId = '';
let pages = new Map<string, Page>();
const of = (given: string) => sure(pages.get(given));
const copyOf = new Map<string, string>();

const station = (page: Page, name: RegExp) =>
  page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name });

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const lines = Object.values(members).flatMap((group) =>
    group.map((given) => `${given} Kay <${addressOf(given)}>`),
  );
  courseId = (await aCourseOf(instructor, 'FER 310', 'Koji and Friends', lines)).id;
  const set = await api<GroupSetView>(instructor, 'POST', `courses/${courseId}/sets`, {
    name: 'Koji teams',
    shape: { by: 'count', groups: 3 },
    capacity: null,
    pattern: 'Team {n}',
    names: Object.keys(members),
  });
  const board = await api<BoardView>(instructor, 'GET', `sets/${set.id}/board`);
  const moves = Object.entries(members).flatMap(([group, given]) =>
    given.map((name) => ({
      student: sure(board.students.find((each) => each.name.startsWith(name))).enrolmentId,
      from: null,
      to: sure(board.groups.find((each) => each.name === group)).id,
    })),
  );
  await api(instructor, 'POST', `sets/${set.id}/place`, { moves });
  pages = await browsersOf(browser, instructor, courseId);
  await instructor.goto(`/c/${courseId}/release`);
});

/** From the Write menu to the composer, with a title, and without the third group. */
async function begin(kind: string, title: string): Promise<void> {
  await station(instructor, /Release/).click();
  await instructor.getByRole('button', { name: 'New activity' }).click();
  await instructor.getByRole('menuitem', { name: kind }).click();
  await instructor.getByLabel('Title', { exact: true }).fill(title);
  await instructor
    .getByRole('group', { name: 'Groups it is released to' })
    .getByRole('button', { name: 'Onggi' })
    .click();
  await expect(instructor.getByText('1 see nothing')).toBeVisible();
}

async function release(title: string): Promise<void> {
  await expect(instructor.getByText(/^Saved \d\d:\d\d$/)).toBeVisible();
  await instructor.getByRole('button', { name: 'Release to 2 groups' }).click();
  await expect(
    instructor.getByRole('status').filter({ hasText: 'Released to 2 groups, 4 students' }),
  ).toBeVisible();
  await of('Ada').goto(`/c/${courseId}/room`);
  await of('Ada').getByRole('link', { name: title }).click();
  await expect(of('Ada').getByRole('heading', { name: title, level: 1 })).toBeVisible();
  copyOf.set(title, new URL(of('Ada').url()).pathname);
}

test('a discussion is written from the menu of kinds and released to two of three groups', async () => {
  await begin('Discussion', 'Second tasting');
  await instructor.getByRole('textbox', { name: 'Brief' }).click();
  await instructor.keyboard.type('Say what you notice.');
  await instructor.getByLabel('Posts required').fill('1');
  await instructor.getByLabel('Words of a post').fill('5');
  await expectAccessible(instructor);
  await release('Second tasting');
});

test('members talk: a thread, an answer with a live count of words, and what is new', async () => {
  const ada = of('Ada');
  await ada.getByRole('textbox', { name: 'New post' }).click();
  await ada.keyboard.type('Sour first, then walnut, then salt.');
  await expect(ada.getByRole('status').filter({ hasText: '6 of 5 words' })).toBeVisible();
  await expectAccessible(ada);
  await ada.getByRole('button', { name: 'Post to Crock' }).dblclick(); // one post, however often it is pressed
  await expect(ada.getByRole('article', { name: /Ada/ })).toHaveCount(1);
  await expect(ada.getByRole('article', { name: /Ada/ })).toContainText('Sour first');

  const callum = of('Callum');
  await callum.goto(`/c/${courseId}/room`);
  await expect(callum.getByRole('link', { name: /^Second tasting/ })).toContainText('1 new');
  await callum.getByRole('link', { name: /^Second tasting/ }).click();
  await callum.getByRole('button', { name: 'Reply to Ada Kay' }).click();
  await expect(callum.getByRole('textbox', { name: 'Your reply to Ada Kay' })).toBeFocused();
  await callum.keyboard.type('Mine was ');
  await callum.keyboard.press('Control+b');
  await callum.keyboard.type('toast');
  await callum.getByRole('button', { name: 'Reply to Ada', exact: true }).click();
  await expect(ada.getByRole('article', { name: /Callum/ })).toContainText('Mine was toast'); // without a reload
  await expect(ada.locator('article').locator('b, strong').getByText('toast', { exact: true })).toBeVisible();
  await expect(station(callum, /Room/)).not.toContainText('new'); // seen by being looked at

  await ada.getByRole('article', { name: /Ada/ }).getByRole('button', { name: 'Edit' }).click();
  await expect(ada.getByRole('textbox', { name: 'Your post' })).toBeFocused();
  await ada.keyboard.type(' And fizz.');
  await ada.getByRole('button', { name: 'Save' }).click();
  await expect(ada.getByRole('article', { name: /Ada/ })).toContainText('And fizz.');
});

test('staff go from group to group and take part', async () => {
  await instructor.goto(`/c/${courseId}/rooms`);
  await expect(instructor.getByText('2 unread in 1 room')).toBeVisible();
  await expectAccessible(instructor);
  await instructor.goto(sure(copyOf.get('Second tasting')));
  await instructor.getByRole('button', { name: 'Mark all as read' }).click();
  const copies = instructor.getByRole('navigation', { name: 'The groups’ copies' });
  await expect(copies).toContainText('All read');
  await copies.getByRole('link', { name: /Carboy/ }).click();
  await expect(instructor.getByText('No posts yet. Write the first one.')).toBeVisible();
  await instructor.getByRole('textbox', { name: 'New post' }).click();
  await instructor.keyboard.type('No one here yet? The jar is waiting.');
  await instructor.getByRole('button', { name: 'Post to Carboy' }).click();
  await expect(instructor.getByRole('article', { name: /Ilse/ })).toContainText('The jar is waiting.');
  await expectAccessible(instructor);
  await of('Noor').goto(`/c/${courseId}/room`);
  await expect(of('Noor').getByRole('link', { name: /^Second tasting/ })).toContainText('1 new');
});

test('a wiki begins with the same page in every group, its blank filled in for each', async () => {
  await begin('Wiki', 'Koji log');
  await instructor.getByLabel('Title of the first page').fill('Who reads when');
  await instructor.getByRole('textbox', { name: 'First page', exact: true }).click();
  await instructor.keyboard.type('The log of ');
  await instructor.getByRole('button', { name: 'group’s name' }).last().click();
  await instructor.keyboard.type('.');
  await release('Koji log');
  await expect(of('Ada').getByRole('article', { name: 'Who reads when' })).toContainText('The log of Crock.');
});

test('two members write one page: both texts are shown, nothing is lost, and versions compare by words', async () => {
  const [ada, callum] = [of('Ada'), of('Callum')];
  await callum.goto(sure(copyOf.get('Koji log')));
  for (const page of [ada, callum]) {
    await page.getByRole('button', { name: 'Edit', exact: true }).click();
    await expect(page.getByRole('textbox', { name: 'Text of the page' })).toBeFocused();
  }
  await ada.keyboard.type(' Ada reads at noon.');
  await callum.keyboard.type(' Callum reads at nine.');
  await ada.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(ada.getByRole('article', { name: 'Who reads when' })).toContainText('Ada reads at noon.');
  await expect(callum.getByText(/Ada Kay saved version 2/)).toBeVisible(); // told before anybody presses
  await expect(callum.getByRole('textbox', { name: 'Text of the page' })).toContainText(
    'Callum reads at nine.',
  );
  await expectAccessible(callum);
  await callum.getByRole('button', { name: 'Save mine' }).click();
  await expect(callum.getByRole('complementary', { name: 'History' }).getByRole('listitem')).toHaveCount(3);
  await callum.getByRole('button', { name: 'Version 3 as B' }).click();
  await expect(callum.getByRole('region', { name: 'What changed' }).locator('ins')).toHaveText([
    'Callum',
    'nine',
  ]);
  await expect(callum.getByRole('region', { name: 'What changed' }).locator('del')).toHaveText([
    'Ada',
    'noon',
  ]);
  await expectAccessible(callum);
  await callum.getByRole('button', { name: 'Restore version 2' }).click();
  await expect(
    callum.getByRole('status').filter({ hasText: 'Version 2 restored as version 4' }),
  ).toBeVisible();
});

test('a page is added, linked from another one, and the other group’s wiki has none of it', async () => {
  const ada = of('Ada');
  await ada.goto(sure(copyOf.get('Koji log')));
  await ada.getByRole('button', { name: 'New page' }).click();
  await ada.getByRole('dialog').getByRole('textbox', { name: 'Title' }).fill('The salt mistake');
  await ada.keyboard.press('Enter');
  await expect(ada.getByRole('heading', { name: 'The salt mistake' })).toBeVisible();
  await ada.getByRole('link', { name: /^Who reads when/ }).click();
  await ada.getByRole('button', { name: 'Edit', exact: true }).click();
  await ada.keyboard.press('Control+a');
  await ada.getByRole('button', { name: /Link to a page/ }).click();
  await ada.getByRole('option', { name: 'The salt mistake' }).click();
  await ada.getByRole('button', { name: /^Save as version/ }).click();
  await ada.getByRole('article').getByRole('link').first().click();
  await expect(ada.getByRole('heading', { name: 'The salt mistake' })).toBeVisible();
  const noor = of('Noor');
  await noor.goto(`/c/${courseId}/room`);
  await noor.getByRole('link', { name: /^Koji log/ }).click();
  await expect(noor.getByRole('article', { name: 'Who reads when' })).toContainText('The log of Carboy.');
  await expect(noor.locator('body')).not.toContainText('The salt mistake');
});

test('a folder with a rubric takes what it asks for and says what it does not take', async () => {
  await begin('Submission folder', 'Koji report');
  await instructor.getByLabel('Types of file').fill('csv, pdf');
  await instructor.getByRole('button', { name: 'Add rubric' }).click();
  await instructor.getByLabel('Criterion 1', { exact: true }).fill('Method');
  await expectAccessible(instructor);
  await release('Koji report');
  const ada = of('Ada');
  await ada.getByText('How it will be marked').click();
  await expect(ada.getByRole('table')).toContainText('Method');
  const put = (name: string, content: string) =>
    ada
      .locator('input[type=file]')
      .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(content) });
  await put('notes.txt', 'no');
  await expect(ada.getByRole('alert')).toContainText('notes.txt');
  await put('scan.pdf', 'this is no pdf');
  await expect(ada.getByRole('alert')).toContainText('scan.pdf');
  await put('readings.csv', 'hour;pH\n0;6,3\n');
  await ada.getByRole('button', { name: 'Read readings.csv' }).click();
  await expect(ada.getByRole('region', { name: 'readings.csv' }).getByRole('row').nth(1)).toContainText(
    '6,3',
  );
  await expectAccessible(ada);
  await ada.getByRole('button', { name: 'Hand in for all 2' }).dblclick();
  await expect(ada.getByRole('heading', { name: 'Handed in' })).toBeVisible();
  await expect(ada.getByRole('list', { name: 'Hand-ins' }).getByRole('listitem')).toHaveCount(1);
});

test('it is marked by the rubric from the keyboard, and each member reads what was picked', async () => {
  await instructor.goto(`/c/${courseId}/marks`);
  await instructor.getByRole('button', { name: /Activity/ }).click();
  await instructor.getByRole('option', { name: 'Koji report' }).click();
  await expect(instructor.getByRole('region', { name: 'Crock’s work' })).toContainText('6,3'); // it lies open
  const grid = instructor.getByRole('grid', { name: 'Rubric' });
  const rows = await grid.getByRole('row').count();
  await grid.getByRole('gridcell').first().focus();
  for (let row = 0; row < rows; row += 1) await instructor.keyboard.press('2');
  await expect(grid.locator('[aria-selected=true]')).toHaveCount(rows);
  await instructor.keyboard.press('Tab');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Release to 2 students' }).focus();
  await instructor.keyboard.press('Enter');
  await expect(instructor.getByRole('status').filter({ hasText: 'Released to 2 students' })).toBeVisible();
  for (const given of ['Ada', 'Callum']) {
    await of(given).goto(`/c/${courseId}/my-marks`);
    await expect(of(given).getByRole('region', { name: 'Koji report' })).toContainText('How it was marked');
    await expect(of(given).locator('td[aria-current=true]')).toHaveCount(rows);
  }
  await expectAccessible(of('Ada'));
  await of('Noor').goto(`/c/${courseId}/my-marks`);
  await expect(of('Noor').getByRole('heading', { name: 'No marks yet' })).toBeVisible();
});

test('the third group and the other one see nothing of it, in any list or at any address', async () => {
  const yara = of('Yara');
  for (const page of ['due', 'room', 'my-marks']) {
    await yara.goto(`/c/${courseId}/${page}`);
    await expect(station(yara, /Due/)).toBeVisible();
    await expect(yara.locator('body')).not.toContainText(/Second tasting|Koji log|Koji report/);
  }
  const inside = {
    'Second tasting': ['discussion'],
    'Koji log': ['wiki'],
    'Koji report': ['work', 'marks/group'],
  };
  for (const [title, paths] of Object.entries(inside)) {
    const copyId = sure(sure(copyOf.get(title)).split('/').at(-1));
    const unknown = copyId.replace(/.{4}$/, '0000');
    for (const given of ['Yara', 'Noor']) {
      await of(given).goto(sure(copyOf.get(title)));
      await expect(of(given).getByRole('heading', { name: 'Nothing here' })).toBeVisible();
      for (const path of ['', ...paths.map((each) => `/${each}`)]) {
        const asked = await of(given).request.get(`${baseUrl()}/api/copies/${copyId}${path}`);
        const absent = await of(given).request.get(`${baseUrl()}/api/copies/${unknown}${path}`);
        expect([asked.status(), await asked.text()]).toEqual([404, await absent.text()]);
      }
    }
  }
});

test('a student’s activities work at phone width', async () => {
  const ada = of('Ada');
  await ada.setViewportSize({ width: 390, height: 844 });
  for (const path of copyOf.values()) {
    await ada.goto(path);
    await expect(ada.getByRole('heading', { level: 1 })).toBeVisible();
    await ada.waitForLoadState('networkidle').catch(() => undefined);
    expect(await ada.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await expectAccessible(ada);
  }
});

test('one discussion goes to two sets, without someone who is left out, and takes in another set later', async () => {
  const set = await api<GroupSetView>(instructor, 'POST', `courses/${courseId}/sets`, {
    name: 'Tasters',
    shape: { by: 'count', groups: 1 },
    capacity: null,
    pattern: 'Taster {n}',
    names: ['Palate'],
  });
  const board = await api<BoardView>(instructor, 'GET', `sets/${set.id}/board`);
  const idOf = (name: string) => sure(board.students.find((each) => each.name.startsWith(name))).enrolmentId;
  await api(instructor, 'POST', `sets/${set.id}/place`, {
    moves: ['Yara', 'Ada'].map((name) => ({ student: idOf(name), from: null, to: sure(board.groups[0]).id })),
  });
  await station(instructor, /Release/).click();
  await instructor.getByRole('button', { name: 'New activity' }).click();
  await instructor.getByRole('menuitem', { name: 'Discussion' }).click();
  await instructor.getByRole('textbox', { name: 'Title' }).fill('Across the sets');
  await instructor.getByText('Koji teams', { exact: true }).click();
  await expect(instructor.getByRole('button', { name: 'Release to 3 groups' })).toBeEnabled();
  await instructor.getByText('Tasters', { exact: true }).click();
  await instructor.getByRole('button', { name: 'Exclude someone…' }).click();
  await instructor.getByRole('combobox', { name: 'Someone more' }).fill('jorge');
  await instructor.getByRole('option', { name: 'Jorge Kay' }).click();
  await expect(instructor.getByRole('button', { name: 'Without Jorge Kay' })).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Release to 4 groups' }).click();
  await expect(
    instructor.getByRole('status').filter({ hasText: 'Released to 4 groups, 4 students' }),
  ).toBeVisible();
  await station(instructor, /Release/).click();
  await expect(instructor.getByRole('link', { name: /Across the sets/ })).toContainText(
    'Koji teams and Tasters: 4 groups, except 1 student',
  );

  const linksOf = async (name: string) => {
    await of(name).goto(`/c/${courseId}/room`);
    await expect(of(name).getByRole('main')).toBeVisible();
    return of(name).getByRole('link', { name: /^Across the sets/ });
  };
  await expect(await linksOf('Noor')).toHaveCount(1);
  await expect(await linksOf('Jorge')).toHaveCount(0);
});

test('who is in two groups gets two copies, which the composer says before, and two marks, which the gradebook shows', async () => {
  await station(instructor, /Release/).click();
  await instructor.getByRole('button', { name: 'New activity' }).click();
  await instructor.getByRole('menuitem', { name: 'Assignment' }).click();
  await instructor.getByRole('textbox', { name: 'Title' }).fill('Twice');
  await instructor.getByText('Koji teams', { exact: true }).click();
  await instructor.getByText('Tasters', { exact: true }).click();
  await expect(instructor.getByText('2 students will get more than one copy')).toBeVisible();
  await instructor.getByText('Who gets more than one copy').click();
  await expect(instructor.getByText(/A copy and a mark in each: .*Palate/).first()).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Release to 4 groups' }).click();
  await expect(instructor.getByRole('status').filter({ hasText: 'Released to 4 groups' })).toBeVisible();
  const { activities } = await api<DeskList>(instructor, 'GET', `courses/${courseId}/desk`);
  const { releaseId } = sure(activities.find((each) => each.title === 'Twice'));
  const { rows } = await api<DeskView>(instructor, 'GET', `releases/${releaseId}/desk`);
  for (const [at, { copyId }] of rows.entries()) {
    const sheet = await api<MarkView>(instructor, 'GET', `copies/${copyId}/marks/group`);
    const { version } = await api<MarkView>(instructor, 'PUT', `copies/${copyId}/marks/group`, {
      typedMark: String(30 + at),
      overrideReason: '',
      picks: {},
      feedback: '',
      adjustments: [],
      version: sheet.version,
    });
    await api(instructor, 'POST', `copies/${copyId}/marks/group/release`, { version });
  }
  await instructor.goto(`/c/${courseId}/marks/gradebook`);
  const row = instructor.getByRole('row', { name: /Ada/ });
  // Group by group, set by set: Crock 30, Carboy 31, Onggi 32, Palate 33.
  await expect(row.getByRole('link', { name: 'Palate 33' })).toBeVisible();
  await of('Ada').goto(`/c/${courseId}/my-marks`);
  await expect(of('Ada').getByRole('button', { name: /Twice/ })).toHaveCount(2);
  await row.getByRole('link', { name: 'Palate 33' }).click();
  await expect(instructor.getByRole('link', { name: 'Palate Released 33', exact: true })).toHaveAttribute(
    'aria-current',
    'page',
  );
});
