import type { Page } from '@playwright/test';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupSetView } from '@jigsaw/contract/sets';
import type { RoomList } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anAssignmentFor, api, importPeople, browsersOf } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** Sets filled by dealing, by the students and by keyboard, and what happens when someone moves after work began. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let courseId = '';
let students: Map<string, Page>;
const given = ['Ada', 'Bo', 'Cho', 'Dia', 'Eva', 'Fay', 'Gus', 'Hal', 'Ida', 'Jon'];
const card = (page: Page, name: string) => page.getByRole('listitem', { name });
const group = (name: string) => instructor.getByRole('grid', { name: new RegExp(`^${name}, group`) });
const unplaced = () => instructor.getByText(/^\d+ of 10 unplaced$/);

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  courseId = (
    await aCourseOf(
      instructor,
      'FER 500',
      'Cheese',
      given.map((name) => `${name} Moss <${name.toLowerCase()}.m@quillmere.example>`),
    )
  ).id;
  students = await browsersOf(browser, instructor, courseId, ['Ada', 'Bo', 'Cho']);
});

async function newSet(
  name: string,
  groups: string,
  places: string,
  names: string,
  how: RegExp,
): Promise<void> {
  await instructor.goto(`/c/${courseId}/groups/new`);
  await instructor.getByLabel('Name of the set').fill(name);
  await instructor.getByText('A fixed number of groups').click();
  await instructor.getByRole('textbox', { name: 'Number of groups' }).fill(groups);
  await instructor.getByLabel(/^Places in each group/).fill(places);
  await instructor.getByLabel('Or paste names, one per line').fill(names);
  await instructor.getByText(how).click();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: /^Create \d+ groups$/ }).click();
}

test('students choose their places until a group is full, and see each other choose', async () => {
  await newSet('Panels', '2', '2', 'Sour\nMalt', /^Sign-up/);
  await expect(
    instructor.getByText(/Students are choosing until you freeze the set\. 0 of 10 have a place/),
  ).toBeVisible();
  const [ada, bo, cho] = ['Ada', 'Bo', 'Cho'].map((name) => sure(students.get(name))) as [Page, Page, Page];
  for (const page of [ada, bo, cho]) {
    await page.goto(`/c/${courseId}/due`);
    await page.getByRole('link', { name: /Choose your group in Panels/ }).click();
  }
  await expectAccessible(ada);
  await ada.getByRole('button', { name: 'Join Sour' }).click();
  await expect(ada.getByText('You are in Sour')).toBeVisible();
  await expect(card(cho, 'Sour')).toContainText('place left'); // without a reload
  await bo.getByRole('button', { name: 'Join Sour' }).click();
  await expect(card(cho, 'Sour')).toContainText('Full');
  await expect(cho.getByRole('button', { name: 'Join Sour' })).toHaveCount(0);
  // Anyone who asks all the same is told what is left.
  const setId = sure(cho.url().split('/').at(-1));
  const board = await api<BoardView>(instructor, 'GET', `sets/${setId}/board`);
  const late = await cho.request.post(`/api/sets/${setId}/sign-up`, {
    data: { groupId: sure(board.groups[0]).id },
  });
  expect([late.status(), ((await late.json()) as { detail: string }).detail]).toEqual([
    409,
    'Sour is full now. 2 places are left in other groups.',
  ]);
  await ada.getByRole('button', { name: 'Move to Malt' }).click();
  await expect(card(cho, 'Sour')).toContainText('1place left');
  await cho.setViewportSize({ width: 390, height: 844 });
  await expectAccessible(cho);
  await cho.getByRole('button', { name: 'Join Sour' }).click();
  await expect(cho.getByRole('heading', { name: 'Panels: Sour' })).toBeVisible();
  await expect(instructor.getByText('7 of 10 unplaced')).toBeVisible();
});

test('once the set is frozen students stay where they are, and the instructor may still move them', async () => {
  await instructor.getByRole('button', { name: 'Set', exact: true }).click();
  await instructor.getByRole('menuitem', { name: /^Freeze/ }).click();
  await expect(instructor.getByText('Panels frozen: students stay where they are')).toBeVisible();
  const ada = sure(students.get('Ada'));
  await expect(ada.getByText('by your instructor')).toBeVisible();
  await expect(ada.getByRole('button', { name: /Move to|Leave this group/ })).toHaveCount(0);
  await group('Malt').getByRole('row', { name: 'Ada Moss' }).click();
  await instructor.keyboard.press('1');
  await expect(instructor.getByText(/Sour has 3 of 2/).first()).toBeVisible();
  await expect(ada.getByRole('heading', { name: 'Panels: Sour' })).toBeVisible();
});

test('a set is dealt with its groups in view before they stand, and taken back after a reload', async () => {
  await newSet('Vats', '3', '', 'Vat\nTub\nTun', /^By hand/);
  await instructor.getByRole('button', { name: 'Set', exact: true }).click();
  await instructor.getByRole('menuitem', { name: /^Deal at random/ }).click();
  const sheet = instructor.getByRole('dialog', { name: 'Deal places' });
  await expect(sheet.getByText('3 groups: 1 of 4, 2 of 3')).toBeVisible();
  await sheet.getByRole('textbox', { name: 'Seed' }).fill('4127');
  await expectAccessible(instructor);
  await sheet.getByRole('button', { name: 'Deal 10 students' }).click();
  await expect(unplaced()).toHaveText('0 of 10 unplaced');
  await instructor.reload();
  await expect(unplaced()).toHaveText('0 of 10 unplaced');
  await instructor.getByRole('button', { name: 'Undo: 10 students dealt at random, seed 4127' }).click();
  await expect(unplaced()).toHaveText('10 of 10 unplaced');
});

test('ten students are placed by keyboard alone, in five strokes for two', async () => {
  await newSet('Pairs', '5', '2', 'P\nQ\nR\nS\nT', /By hand on the Board/);
  await expect(unplaced()).toHaveText('10 of 10 unplaced');
  let strokes = 0;
  const press = async (...keys: string[]) => {
    for (const key of keys) {
      await instructor.keyboard.press(key);
      strokes += 1;
    }
  };
  for (const number of ['1', '2', '3', '4', '5']) {
    await press('/', 'Tab', 'Space', 'Shift+ArrowDown', number);
    await expect(unplaced()).toHaveText(`${10 - Number(number) * 2} of 10 unplaced`);
  }
  for (const name of ['P', 'Q', 'R', 'S', 'T']) await expect(group(name).getByRole('row')).toHaveCount(2);
  expect(strokes).toBeLessThanOrEqual(25);
});

test('moving someone who has handed in says first what happens to the work, and their credit stays', async () => {
  const set = await api<GroupSetView>(instructor, 'POST', `courses/${courseId}/sets`, {
    name: 'Caves',
    shape: { by: 'count', groups: 2 },
    capacity: null,
    pattern: '',
    names: ['Rind', 'Curd'],
  });
  const { groups, students: all } = await api<BoardView>(instructor, 'GET', `sets/${set.id}/board`);
  const ada = sure(all.find((each) => each.name === 'Ada Moss')).enrolmentId;
  await api(instructor, 'POST', `sets/${set.id}/place`, {
    moves: [{ student: ada, from: null, to: sure(groups[0]).id }],
  });
  await anAssignmentFor(instructor, courseId, set.id, 'Ripening notes');
  const page = sure(students.get('Ada'));
  const { rooms } = await api<RoomList>(page, 'GET', `courses/${courseId}/rooms`);
  const { copyId } = sure(
    rooms.flatMap((room) => room.items).find((item) => item.title === 'Ripening notes'),
  );
  const text = {
    type: 'doc',
    content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Nine weeks at twelve degrees.' }] }],
  };
  await page.request.put(`/api/copies/${copyId}/part`, { data: { text, version: 0 } });
  await api(page, 'POST', `copies/${copyId}/hand-in`, { attempt: 1 });

  await instructor.goto(`/c/${courseId}/groups/${set.id}`);
  await group('Rind').getByRole('row', { name: 'Ada Moss' }).click();
  await instructor.keyboard.press('2');
  const sheet = instructor.getByRole('dialog', { name: 'Ada Moss has handed in' });
  await expect(sheet).toContainText('1 hand-in of Rind stays credited to them');
  await sheet.getByLabel(/^Reason/).fill('Timetable clash');
  await expectAccessible(instructor);
  await sheet.getByRole('button', { name: 'Move, credit stays' }).click();
  await expect(group('Curd').getByRole('row', { name: 'Ada Moss' })).toBeVisible();
  expect((await page.request.get(`/api/copies/${copyId}/work`)).status()).toBe(404); // access follows at once
  await instructor.goto(`/c/${courseId}/people`);
  await instructor.getByPlaceholder(/Find a name/).fill('ada moss');
  await instructor.getByRole('rowheader', { name: 'Ada Moss' }).click();
  await instructor.getByText('Where Ada Moss has been').click();
  await expect(
    instructor
      .getByRole('dialog')
      .getByText(/Caves, .* to .*; placed by Dr\. Ilse Marrow.*Left because: Timetable clash/),
  ).toBeVisible();
  await expectAccessible(instructor);
});

test('a set whose students may be in several groups, led, spread and told by the menus alone', async () => {
  const set = await api<GroupSetView>(instructor, 'POST', `courses/${courseId}/sets`, {
    name: 'Circles',
    shape: { by: 'count', groups: 3 },
    isExclusive: false,
    capacity: 4,
    pattern: '',
    names: ['Rye', 'Oat', 'Malt'],
  });
  await instructor.goto(`/c/${courseId}/groups/${set.id}`);
  const everyone = instructor.getByRole('grid', { name: 'All students' });
  for (const number of ['1', '2']) {
    await everyone.getByRole('row', { name: 'Ada Moss' }).click();
    await instructor.keyboard.press(number);
  }
  for (const name of ['Rye', 'Oat'])
    await expect(group(name).getByRole('row', { name: 'Ada Moss' })).toBeVisible();
  await expect(instructor.getByText('9 of 10 in no group')).toBeVisible();

  // The rest is spread over two of the groups.
  await everyone.getByRole('row', { name: 'Bo Moss' }).click();
  await everyone.getByRole('row', { name: 'Gus Moss' }).click({ modifiers: ['Shift'] });
  await instructor.keyboard.press('d');
  const deal = instructor.getByRole('dialog', { name: 'Deal places' });
  await deal.getByRole('button', { name: 'Malt' }).click();
  await expect(deal.getByText('3 groups: 2 of 4, 1 of 0')).toBeVisible();
  await expectAccessible(instructor);
  await deal.getByRole('button', { name: 'Deal 6 students' }).click();
  await expect(group('Rye').getByRole('row')).toHaveCount(4);
  await expect(group('Malt').getByText('4 free places')).toBeVisible();

  // Its settings allow leaders; the menu names one.
  await instructor.getByRole('button', { name: 'Set', exact: true }).click();
  await instructor.getByRole('menuitem', { name: 'Set settings…' }).click();
  await instructor.getByText('Groups have a leader among their students').click();
  await instructor.getByText('Members name their own group and give it a motto').click();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Save' }).click();
  await expect(instructor.getByText('Circles saved')).toBeVisible();
  await group('Rye').getByRole('row', { name: 'Ada Moss' }).click({ button: 'right' });
  await expectAccessible(instructor);
  await instructor.getByRole('menuitem', { name: /^Make leader of Rye/ }).click();
  await expect(
    group('Rye').getByRole('row', { name: 'Ada Moss' }).getByLabel('leads the group'),
  ).toBeVisible();
  await instructor.keyboard.press('z');
  await expect(group('Rye').getByLabel('leads the group')).toHaveCount(0);
  await group('Rye').getByRole('row', { name: 'Ada Moss' }).click();
  await instructor.keyboard.press('l');
  await expect(group('Rye').getByLabel('leads the group')).toBeVisible();

  // By the menu key, to another group and out of it.
  await group('Oat').getByRole('row', { name: 'Ada Moss' }).click();
  await instructor.keyboard.press('ContextMenu');
  await instructor.getByRole('menuitem', { name: 'Move to' }).press('ArrowRight');
  await instructor.getByRole('menuitem', { name: 'Malt' }).press('Enter');
  await expect(group('Malt').getByRole('row', { name: 'Ada Moss' })).toBeVisible();
  await expect(group('Oat').getByRole('row', { name: 'Ada Moss' })).toHaveCount(0);
});

test('members name their group, and the new name is everywhere at once', async () => {
  const ada = sure(students.get('Ada'));
  await ada.goto(`/c/${courseId}/room`);
  await ada.getByRole('link', { name: /Rye/ }).click();
  await expect(ada.getByLabel('Members').getByText('Ada Moss')).toBeVisible();
  await ada.getByRole('button', { name: 'Name and motto of your group' }).click();
  await ada.getByRole('textbox', { name: 'Name' }).fill('Sourdough');
  await ada.getByRole('textbox', { name: 'Motto' }).fill('Slow is fast enough');
  await expectAccessible(ada);
  await ada.getByRole('button', { name: 'Save' }).click();
  await expect(ada.getByRole('heading', { name: 'Sourdough' })).toBeVisible();
  await expect(instructor.getByRole('heading', { name: 'Sourdough' })).toBeVisible(); // live
  await expect(instructor.getByText('Slow is fast enough')).toBeVisible();
});

test('groups are named and added at once, and an assistant sees the work of those they look after alone', async ({
  browser,
}) => {
  await instructor.getByRole('button', { name: 'Set', exact: true }).click();
  await instructor.getByRole('menuitem', { name: 'Edit groups…' }).click();
  const sheet = instructor.getByRole('dialog', { name: 'Groups of Circles' });
  await sheet.getByRole('textbox', { name: 'Name all by pattern' }).fill('Circle {A}');
  await sheet.getByRole('button', { name: 'Name all' }).click();
  await sheet.getByRole('button', { name: 'Add a group' }).click();
  await sheet.getByRole('textbox', { name: 'Name of group 4' }).fill('Circle D');
  await expectAccessible(instructor);
  await sheet.getByRole('button', { name: 'Save' }).click();
  for (const letter of ['A', 'B', 'C', 'D'])
    await expect(instructor.getByRole('heading', { name: `Circle ${letter}` })).toBeVisible();

  await importPeople(instructor, courseId, ['Tomas Vey <tomas.cheese@quillmere.example>'], 'assistant');
  const tomas = sure((await browsersOf(browser, instructor, courseId, ['Tomas'])).get('Tomas'));
  await instructor.reload();
  await instructor.getByRole('button', { name: 'Set', exact: true }).click();
  await instructor.getByRole('menuitem', { name: 'Who leads which group…' }).click();
  await instructor.getByRole('checkbox', { name: 'Tomas Vey leads Circle A' }).check();
  await expect(instructor.getByText(/Every assistant sees the work of every group/)).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Save' }).click();
  await expect(instructor.getByText('1 group is led as you chose')).toBeVisible();
  await expect(instructor.getByRole('region', { name: 'Group 1, Circle A' })).toContainText('Tomas Vey');

  await instructor.goto(`/c/${courseId}/course`);
  await instructor.getByText('Assistants see only the groups they lead').click();
  await expect(instructor.getByText(/1 assistant would lose sight of groups: Tomas Vey/)).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(instructor.getByText('Assistants see only the groups they lead').last()).toBeVisible();
  await expect(instructor.getByRole('row', { name: /^Tomas Vey/ })).toContainText('1 of');

  await tomas.goto(`/c/${courseId}/rooms`);
  await expect(tomas.getByText('Circle A').first()).toBeVisible();
  await expect(tomas.getByText('Circle B')).toHaveCount(0);
  await expect(tomas.getByText('Rind')).toHaveCount(0);
});

test('rules make a proposal, which keeps who is pinned, is accepted in one step and taken back', async () => {
  const set = await api<GroupSetView>(instructor, 'POST', `courses/${courseId}/sets`, {
    name: 'Rounds',
    shape: { by: 'count', groups: 2 },
    capacity: 5,
    pattern: '',
    names: ['Gouda', 'Brie'],
  });
  await instructor.goto(`/c/${courseId}/groups/${set.id}`);
  await instructor.getByRole('button', { name: 'Set', exact: true }).click();
  await instructor.getByRole('menuitem', { name: /^Deal by rules/ }).click();
  const add = async (rule: string) => {
    await instructor.getByRole('button', { name: 'Add a rule' }).click();
    await instructor.getByRole('menuitem', { name: rule }).click();
  };
  const name = async (who: string) => {
    await instructor.getByRole('combobox', { name: 'Someone more' }).last().fill(who);
    await instructor.getByRole('option', { name: new RegExp(who) }).click();
  };
  await add('Not with earlier teammates');
  await add('Keep people apart');
  for (const who of ['Ada', 'Bo', 'Cho']) await name(who);
  await instructor.getByRole('button', { name: 'Deal 10 students' }).click();
  // Three who are to be apart, and two groups.
  await expect(
    instructor.getByText(/each of these 3 must be apart from all the others, and there are 2 groups/),
  ).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Without Cho Moss' }).click();
  await instructor.getByRole('button', { name: 'Deal 10 students' }).click();
  await expect(instructor.getByText('10 moved')).toBeVisible();
  await expectAccessible(instructor);
  const place = (who: string) =>
    instructor
      .getByRole('region', { name: /^Group \d/ })
      .filter({ has: instructor.getByRole('button', { name: new RegExp(`^${who} Moss`) }) });
  const adas = sure(await place('Ada').getAttribute('aria-label'));
  await instructor.getByRole('button', { name: /^Ada Moss/ }).click();
  await instructor.getByRole('button', { name: 'Deal again, keeps 1 pinned' }).click();
  await expect(instructor.getByRole('radio', { name: 'Deal 2' })).toBeVisible();
  await expect(place('Ada')).toHaveAttribute('aria-label', adas);
  await expect(place('Bo')).not.toHaveAttribute('aria-label', adas);
  // The deals are there after a reload, and two of them side by side.
  await instructor.reload();
  await expect(instructor.getByRole('radio', { name: 'Deal 2' })).toBeChecked();
  await instructor.getByRole('button', { name: /Compare with another deal/ }).click();
  await instructor.getByRole('option', { name: 'beside Deal 1' }).click();
  await expect(instructor.getByRole('region', { name: 'Deal 2 beside Deal 1' })).toBeVisible();
  await expect(instructor.getByText(/ in Deal 1$/).first()).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: /Compare with another deal/ }).click();
  await instructor.getByRole('option', { name: 'Compare with…' }).click();
  await instructor.getByRole('button', { name: 'Accept for 10 students' }).click();
  await expect(instructor.getByText(/10 students dealt by 2 rules, seed/).first()).toBeVisible();
  const placed = await api<BoardView>(instructor, 'GET', `sets/${set.id}/board`);
  expect([placed.set.unplaced, placed.rules.map((rule) => rule.kind)]).toEqual([0, ['fresh', 'apart']]);
  await instructor.getByRole('link', { name: 'Back to the Board' }).click();
  await instructor.getByRole('button', { name: /^Undo: 10 students dealt by 2 rules/ }).click();
  await expect(unplaced()).toHaveText('10 of 10 unplaced');

  // Ada and Bo were a pair before. Kept together they meet again, and leave no room to part another pair; the page says by which rule.
  await instructor.goto(`/c/${courseId}/groups/${set.id}/deal`);
  await instructor.getByRole('button', { name: 'Remove rule 2' }).click();
  await add('Keep people together');
  for (const who of ['Ada', 'Bo']) await name(who);
  await instructor.getByRole('button', { name: 'Deal again' }).click();
  await expect(instructor.getByText('18 of 20 pairs are new')).toBeVisible();
  await instructor.getByRole('button', { name: 'Why rule 1 is not fully met' }).click();
  await expect(
    instructor.getByText(
      /is in its way: without it, all 20 pairs are new\. That would help Ada Moss, Bo Moss, /,
    ),
  ).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Deal without rule 2' }).click();
  await expect(instructor.getByText('all 20 pairs are new')).toBeVisible();
});

test('expert tables take someone of every group, told before they are made and shown with the home of each', async () => {
  await instructor.goto(`/c/${courseId}/groups/new`);
  await instructor.getByLabel('Name of the set').fill('Experts');
  await instructor.getByText(/^Expert tables/).click();
  await instructor.getByRole('button', { name: /Home groups/ }).click();
  await instructor.getByRole('option', { name: 'Pairs' }).click();
  await instructor.getByLabel('Topics, one per line').fill('Milk\nMould\nSalt');
  await expect(instructor.getByRole('heading', { name: '3 tables' })).toBeVisible();
  await expect(
    instructor.getByText(/5 groups are smaller than the number of topics: P has no one for/),
  ).toBeVisible();
  await instructor.getByLabel('Topics, one per line').fill('Milk\nMould');
  await expect(instructor.getByText('Everyone in a group of Pairs has a topic.')).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Create group set' }).click();
  for (const topic of ['Milk', 'Mould']) {
    await expect(group(topic).getByRole('row')).toHaveCount(5);
    for (const home of ['P', 'Q', 'R', 'S', 'T'])
      await expect(group(topic).getByRole('img', { name: `from ${home}`, exact: true })).toHaveCount(1);
  }
  await expectAccessible(instructor);

  // Someone who goes to the other table leaves a gap behind, which one press closes.
  await group('Milk').getByRole('row').first().click();
  await instructor.keyboard.press('2');
  await expect(instructor.getByText('1 gap', { exact: true }).first()).toBeVisible();
  await expect(instructor.getByText(/No one from [PQRST]$/)).toBeVisible();
  await instructor.getByRole('option').first().click();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Rebalance' }).click();
  await expect(instructor.getByText('1 student moved to even out the tables')).toBeVisible();
  await expect(instructor.getByText('no gaps')).toBeVisible();
  for (const topic of ['Milk', 'Mould']) await expect(group(topic).getByRole('row')).toHaveCount(5);

  await instructor.getByRole('button', { name: 'Set', exact: true }).click();
  await instructor.getByRole('menuitem', { name: 'Topics and tables…' }).click();
  await instructor.getByLabel('Name of topic A').fill('Milk and cream');
  await instructor.getByLabel('What topic A is about').fill('Fat and acid');
  await instructor.getByLabel('Tables of topic B').fill('2');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Save topics' }).click();
  await expect(group('Milk and cream').getByRole('row')).toHaveCount(5);
  await expect(instructor.getByText('Fat and acid')).toBeVisible();
  await instructor.getByRole('button', { name: 'Rebalance' }).click();
  await expect(group('Mould 2').getByRole('row')).not.toHaveCount(0);
});

test('a set is made with what each group gets, and only its members find it', async () => {
  await instructor.goto(`/c/${courseId}/groups/new`);
  await instructor.getByLabel('Name of the set').fill('Stands');
  await instructor.getByText(/^Copy of another set/).click();
  await instructor.getByRole('button', { name: /Which set/ }).click();
  await instructor.getByRole('option', { name: 'Pairs' }).click();
  await instructor.getByRole('button', { name: 'Add: Discussion' }).click();
  await instructor.keyboard.type('Planning the stand');
  await instructor.getByRole('button', { name: 'Add: Assignment' }).click();
  await instructor.keyboard.type('Poster');
  await expect(instructor.getByText('5 copies, live')).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Create group set' }).click();
  await expect(instructor.getByRole('heading', { name: 'Stands is set up' })).toBeVisible();
  await expect(instructor.getByText('All 10 students have a place.')).toBeVisible();
  await expectAccessible(instructor);
  const ada = sure(students.get('Ada'));
  const { rooms } = await api<RoomList>(ada, 'GET', `courses/${courseId}/rooms`);
  const titles = rooms.flatMap((room) => room.items.map((item) => item.title));
  expect([titles.includes('Planning the stand'), titles.includes('Poster')]).toEqual([true, false]);
  // The draft is meant for this set.
  await instructor.getByRole('link', { name: 'Poster' }).click();
  await expect(instructor.getByRole('button', { name: /^Release to 5 groups/ })).toBeVisible();
});

test('the server deals a class that is too large for a page, and stops when no one listens', async () => {
  const answer = await instructor.evaluate(async (course) => {
    const students = Array.from({ length: 3_000 }, (_, at) => ({
      id: crypto.randomUUID(),
      name: `S${at}`,
      attributes: { Lab: ['none', 'some', 'plenty'][at % 3] },
      fixedIn: null,
    }));
    const groups = Array.from({ length: 600 }, (_, at) => ({
      id: crypto.randomUUID(),
      name: `G${at}`,
      capacity: 5,
      isLocked: false,
    }));
    const ask = (signal: AbortSignal | null = null) =>
      fetch(`/api/courses/${course}/deals`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({
          students,
          groups,
          rules: [{ kind: 'spread', attribute: 'Lab', as: 'category' }],
          seed: 4127,
        }),
        signal,
      });
    // Someone who goes away leaves the turn to the next, who stands in line by then.
    const gone = new AbortController();
    const first = ask(gone.signal);
    const next = ask();
    await (await first).body?.getReader().read();
    gone.abort();
    const lines = (await (await next).text()).trim().split('\n');
    const last = JSON.parse(lines.at(-1) ?? '') as { kind: string; deal: { seats: number[] } };
    const sizes = groups.map((_, at) => last.deal.seats.filter((seat) => seat === at).length);
    return {
      kinds: [...new Set(lines.map((line) => (JSON.parse(line) as { kind: string }).kind))],
      largest: Math.max(...sizes),
      smallest: Math.min(...sizes),
    };
  }, courseId);
  expect(answer).toEqual({ kinds: ['going', 'dealt'], largest: 5, smallest: 5 });
});

test('lists go on paper whole and without what is around them', async () => {
  const { sets } = await api<{ sets: GroupSetView[] }>(instructor, 'GET', `courses/${courseId}/sets`);
  await instructor.goto(`/c/${courseId}/groups/${sure(sets.find((set) => set.name === 'Pairs')).id}/lists`);
  await instructor.getByText('By student').click();
  await expect(instructor.getByRole('table')).toBeVisible();
  await instructor.setViewportSize({ width: 800, height: 300 }); // a page that holds a few of the rows
  await instructor.emulateMedia({ media: 'print' });
  await expect(instructor.getByRole('banner')).toBeHidden();
  await expect(instructor.getByRole('button', { name: 'Print' })).toBeHidden();
  const [table, paper] = await instructor.evaluate(() => [
    document.querySelector('table')?.getBoundingClientRect().bottom,
    document.documentElement.scrollHeight,
  ]);
  expect(table).toBeGreaterThan(300);
  expect(paper).toBeGreaterThanOrEqual(Math.floor(sure(table)));
  await instructor.emulateMedia({ media: null });
  await instructor.setViewportSize({ width: 1280, height: 800 });
});
