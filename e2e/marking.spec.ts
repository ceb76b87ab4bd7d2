import type { Page } from '@playwright/test';
import type { BoardView } from '@jigsaw/contract/placing';
import { draftOf } from '@jigsaw/contract/release';
import type { ActivityView } from '@jigsaw/contract/release';
import type { CopyHead, RoomList } from '@jigsaw/contract/rooms';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anAssignmentFor, api, importPeople, browsersOf } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** Two markers at one sheet: what is pressed is about what is on the screen. */
test.describe.configure({ mode: 'serial' });

let instructor: Page;
let tomas: Page;
let ada: Page;
let callum: Page;
let courseId = '';
const markOf = (page: Page) => page.getByLabel('Group mark');

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  courseId = (
    await aCourseOf(instructor, 'FER 330', 'Sour Milk', [
      'Ada Moss <ada.sour@quillmere.example>',
      'Callum Reith <callum.sour@quillmere.example>',
    ])
  ).id;
  await importPeople(instructor, courseId, ['Tomas Vey <tomas.sour@quillmere.example>'], 'assistant');
  const set = await api<GroupSetView>(instructor, 'POST', `courses/${courseId}/sets`, {
    name: 'Vats',
    shape: { by: 'count', groups: 1 },
    capacity: null,
    pattern: '',
    names: ['Crock'],
  });
  const { groups, students } = await api<BoardView>(instructor, 'GET', `sets/${set.id}/board`);
  await api(instructor, 'POST', `sets/${set.id}/place`, {
    moves: students.map(({ enrolmentId }) => ({ student: enrolmentId, from: null, to: sure(groups[0]).id })),
  });
  await anAssignmentFor(instructor, courseId, set.id, 'Yoghurt report', '40');
  const pages = await browsersOf(browser, instructor, courseId, ['Tomas', 'Ada', 'Callum']);
  tomas = sure(pages.get('Tomas'));
  ada = sure(pages.get('Ada'));
  callum = sure(pages.get('Callum'));
});

test('an idle sheet follows the other marker and names them', async () => {
  for (const page of [instructor, tomas]) {
    await page.goto(`/c/${courseId}/marks`);
    await expect(markOf(page)).toBeVisible();
  }
  await markOf(instructor).fill('38');
  await expect(markOf(tomas)).toHaveValue('38');
  await expect(tomas.getByRole('status').filter({ hasText: /marked this meanwhile/ })).toBeVisible();
});

test('what was changed elsewhere is not released: both marks are shown, and one is chosen', async () => {
  // Tomas does not hear of anything for a while, as on a bad line.
  await tomas.route(/\/changes\?/, (route) => route.abort());
  await tomas.reload();
  await expect(markOf(tomas)).toHaveValue('38');
  await markOf(instructor).fill('9.5');
  await expect(instructor.getByRole('status').filter({ hasText: /^Saved \d/ })).toBeVisible();

  await tomas.getByRole('button', { name: 'Release to 2 students' }).click();
  await expect(tomas.getByText(/they gave 9.5, you 38/)).toBeVisible();
  await expectAccessible(tomas);
  await expect(markOf(tomas)).toHaveValue('38');
  await tomas.getByRole('button', { name: 'Use theirs' }).click();
  await expect(markOf(tomas)).toHaveValue('9.5');
  await tomas.getByRole('button', { name: 'Release to 2 students' }).click();
  await expect(tomas.getByRole('status').filter({ hasText: 'Released to 2 students' })).toBeVisible();
});

test('a mark that cannot be meant is a fault beside its field, and releases nothing', async () => {
  await instructor.getByRole('button', { name: /Adjustment for Ada Moss/ }).click();
  await instructor.getByRole('option', { name: 'Separate mark' }).click();
  const own = instructor.getByLabel('Ada Moss’s own mark');
  await own.fill('350');
  await expect(instructor.getByText('From 0 to 40.')).toBeVisible();
  await expect(instructor.getByText('Give Ada Moss a mark, or let them have the group’s.')).toBeVisible();
  await expect(instructor.getByRole('button', { name: 'Release to 2 students' })).toBeDisabled();
  await expectAccessible(instructor);
  await own.fill('35,5');
  await expect(instructor.getByText('From 0 to 40.')).toBeHidden();
  await expect(instructor.getByRole('button', { name: 'Release to 2 students' })).toBeEnabled();
});

test('what the server could not take is there again after a click elsewhere and a reload, and is saved once it is back', async () => {
  const feedback = () => tomas.getByLabel('Feedback to all 2');
  await tomas.unroute(/\/changes\?/);
  await tomas.goto(`/c/${courseId}/marks`);
  await expect(feedback()).toBeVisible();
  await tomas.route(/\/marks\/group$/, (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await feedback().fill('Clear curve, and the control is argued.');
  await expect(tomas.getByText(/The server does not answer. What you typed is still here/)).toBeVisible();
  await tomas.getByRole('link', { name: 'Gradebook' }).click();
  await expect(tomas.getByRole('grid', { name: 'Gradebook' })).toBeVisible();
  await tomas.getByRole('link', { name: 'Marking desk' }).click();
  await expect(feedback()).toHaveValue('Clear curve, and the control is argued.');
  await tomas.reload();
  await expect(feedback()).toHaveValue('Clear curve, and the control is argued.');
  await tomas.unroute(/\/marks\/group$/);
  await expect(tomas.getByText(/^Saved \d\d:\d\d$/)).toBeVisible();
  await expect(tomas.getByText(/does not answer/)).toBeHidden();
});

test('a page shows what it had while the server is away, says so, and follows again by itself', async () => {
  await tomas.goto(`/c/${courseId}/marks/gradebook`);
  await expect(tomas.getByRole('grid', { name: 'Gradebook' })).toBeVisible();
  await tomas.route(/\/api\//, (route) => route.abort());
  await instructor.getByLabel('Feedback to all 2').fill('Argued well.');
  await expect(tomas.getByText(/You see the last known version/)).toBeVisible();
  await expect(tomas.getByRole('grid', { name: 'Gradebook' })).toBeVisible();
  await expectAccessible(tomas);
  await tomas.unroute(/\/api\//);
  await expect(tomas.getByText(/You see the last known version/)).toBeHidden();
});

test('what groups have changes with one press, which says what, for whom and whose marks', async () => {
  const pointsForAda = async () => {
    const { rooms } = await api<RoomList>(ada, 'GET', `courses/${courseId}/rooms`);
    return sure(rooms[0]?.items[0]).points;
  };
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('link', { name: /Yoghurt report/ }).click();
  await instructor.getByLabel('Points').fill('50');
  const strip = instructor.getByRole('region', { name: 'Changes that groups do not see yet' });
  await expect(strip.getByText('40 points → 50 points')).toBeVisible();
  await expect(strip.getByText(/9.5 of 40 → /).first()).toBeVisible();
  await expectAccessible(instructor);
  expect(await pointsForAda()).toBe('40');
  await strip.getByRole('button', { name: 'Publish changes to 1 group, 2 students' }).click();
  await expect(strip).toBeHidden();
  expect(await pointsForAda()).toBe('50');
  await instructor.goto(`/c/${courseId}/marks/gradebook`);
  await expect(
    instructor.getByRole('link', { name: /9.5 of 40 changed since release/ }).first(),
  ).toBeVisible();
});

test('an open page warns, turns late at the moment and says what that costs before the press', async () => {
  const inMinutes = (minutes: number) => new Date(Date.now() + minutes * 60_000).toISOString();
  const { rooms } = await api<RoomList>(ada, 'GET', `courses/${courseId}/rooms`);
  const { copyId } = sure(rooms[0]?.items[0]);
  const { activityId } = await api<CopyHead>(ada, 'GET', `copies/${copyId}`);
  const activity = await api<ActivityView>(instructor, 'GET', `activities/${activityId}`);
  const schedule = { opens: null, due: inMinutes(70), closes: inMinutes(24 * 60) };
  const { version } = await api<ActivityView>(instructor, 'PUT', `activities/${activityId}`, {
    ...draftOf(activity),
    schedule,
    latePolicy: { graceMinutes: 15, stepPercent: 10, periodMinutes: 1440, capPercent: 50 },
    version: activity.version,
  });
  await api(instructor, 'POST', `activities/${activityId}/publish`, { version });

  await ada.clock.install();
  await ada.goto(`/c/${courseId}/copies/${copyId}`);
  await expect(ada.getByText(/^Closes /)).toBeVisible();
  await expect(ada.getByText(/late costs nothing. After that, late work loses/)).toBeVisible();
  await expect(ada.getByText(/^due in/)).toBeHidden();
  await ada.clock.fastForward('20:00');
  await expect(ada.getByText(/^due in 4\d min$/)).toBeVisible();
  await expectAccessible(ada);
  await ada.clock.fastForward('55:00');
  await expect(ada.getByText(/^past due, no penalty until/)).toBeVisible();
  await ada.clock.fastForward('30:00');
  await expect(ada.getByText('late: −5 points')).toBeVisible();
  await expect(ada.getByText(/^late \d+ min, −5 points$/)).toBeVisible();
});

test('a group that was given longer has its own date in every place, with the reason, and is late by it alone', async () => {
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('link', { name: /Yoghurt report/ }).click();
  await instructor.getByRole('button', { name: 'Extend for a group or student…' }).click();
  const sheet = instructor.getByRole('dialog', { name: 'Extend for a group or student' });
  await sheet.getByRole('combobox', { name: 'Group or student' }).fill('crock');
  await instructor.getByRole('option', { name: 'Crock', exact: true }).click();
  await sheet
    .getByRole('group', { name: 'Due for this group' })
    .getByRole('spinbutton', { name: /year/ })
    .press('ArrowUp');
  await sheet.getByLabel('Reason, shown to the group').fill('The incubator failed');
  await expectAccessible(instructor);
  await sheet.getByRole('button', { name: 'Extend for Crock' }).click();
  await expect(instructor.getByText(/^Crock, due .*: The incubator failed$/)).toBeVisible();

  // The page is late by the class's date, and on time by the group's own.
  await ada.goto(`/c/${courseId}/due`);
  await expect(ada.getByRole('main')).toContainText('Yoghurt report');
  await expect(ada.getByRole('main')).toContainText(/longer|extended/i);
  await ada.getByRole('link', { name: /^Yoghurt report/ }).click();
  await expect(ada.getByText(/^late/)).toHaveCount(0);
  await expect(ada.getByRole('main')).toContainText('The incubator failed');
  await expectAccessible(ada);
});

test('a student with longer of their own is told so, and no one beside them', async () => {
  await instructor.goto(`/c/${courseId}/release`);
  await instructor.getByRole('link', { name: /Yoghurt report/ }).click();
  await instructor.getByRole('button', { name: 'Extend for a group or student…' }).click();
  const sheet = instructor.getByRole('dialog', { name: 'Extend for a group or student' });
  await sheet.getByRole('combobox', { name: 'Group or student' }).fill('ada');
  await instructor.getByRole('option', { name: /^Ada/ }).click();
  const due = sheet.getByRole('group', { name: 'Due for this student' });
  for (let years = 0; years < 2; years += 1)
    await due.getByRole('spinbutton', { name: /year/ }).press('ArrowUp');
  await sheet.getByLabel('Reason, shown to this student alone').fill('In hospital');
  await expectAccessible(instructor);
  await sheet.getByRole('button', { name: /^Extend for Ada/ }).click();
  const line = instructor.getByRole('list', { name: 'Different for' }).getByRole('listitem');
  await expect(line.filter({ hasText: 'In hospital' })).toBeVisible();

  await expect(ada.getByText('extended for you')).toBeVisible(); // without a reload
  await expect(ada.getByRole('main')).toContainText('In hospital');
  await callum.goto(`/c/${courseId}/due`);
  await callum
    .getByRole('link', { name: /Yoghurt report/ })
    .first()
    .click();
  await expect(callum.getByRole('heading', { name: 'Yoghurt report' })).toBeVisible();
  await expect(callum.getByRole('main')).not.toContainText('hospital');
  await expect(callum.getByText('extended for you')).toHaveCount(0);

  await line
    .filter({ hasText: 'In hospital' })
    .getByRole('button', { name: /^Remove/ })
    .click();
  await expect(ada.getByText('extended for you')).toHaveCount(0);
  await instructor.getByRole('button', { name: 'Undo' }).click();
  await expect(ada.getByText('extended for you')).toBeVisible();
});
