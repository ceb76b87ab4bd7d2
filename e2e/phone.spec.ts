import type { Page } from '@playwright/test';
import type { Outbox } from '@jigsaw/contract/mail';
import type { BoardView, SignUpList } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anActivityFor, anAssignmentFor, api, browsersOf } from './support/course.js';
import { expect, expectAccessible, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';
import { squeezed } from './support/squeezed.js';

/** What students see on a phone when everything has the longest name there is, from right to left too; and the choice of a group. */
test.describe.configure({ mode: 'serial' });

const long = 'Wolfeschlegelsteinhausenbergerdorffwelchevoralternwarengewis'; // 60 letters and no place to break
const rightToLeft = 'ليلى بنت عبد الرحمن الحموي التكريتي البغدادي المصري القاهري';
const phone = { width: 390, height: 844 };

let instructor: Page;
let students: Map<string, Page>;
let courseId = '';
let panelsId = '';

test.beforeAll(async ({ browser }) => {
  instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const people = [`Ada ${long}`, `Bo ${rightToLeft}`, 'Cho Min', 'Dia Ek'];
  courseId = (
    await aCourseOf(
      instructor,
      'FER 390',
      long,
      people.map((name, at) => `${name} <p${at}@quillmere.example>`),
    )
  ).id;
  const aSet = (name: string, names: readonly string[], more: object = {}) =>
    api<{ id: string }>(instructor, 'POST', `courses/${courseId}/sets`, {
      name,
      shape: { by: 'count', groups: names.length },
      capacity: 2,
      pattern: '',
      names,
      ...more,
    });
  const set = await aSet(long, [long, rightToLeft]);
  const { groups, students: all } = await api<BoardView>(instructor, 'GET', `sets/${set.id}/board`);
  const moves = all.map((student, at) => ({
    student: student.enrolmentId,
    from: null,
    to: sure(groups[Math.floor(at / 2)]).id,
  }));
  await api(instructor, 'POST', `sets/${set.id}/place`, { moves });
  await anAssignmentFor(instructor, courseId, set.id, long, '10');
  await anActivityFor(instructor, courseId, set.id, { kind: 'discussion', title: `Talk ${rightToLeft}` });
  await anActivityFor(instructor, courseId, set.id, { kind: 'wiki', title: `Wiki ${long}` });
  const signUp = { opens: null, closes: null, showsNames: true };
  panelsId = (await aSet(`Panels ${long}`, [long, 'Malt'], { signUp, capacity: 1 })).id;
  students = await browsersOf(browser, instructor, courseId);
});

const student = (name: string) => sure(students.get(name));

/** What stands out of the page to the right; only what holds text or is pressed. */
const sticksOut = (page: Page) =>
  page.evaluate(
    (width) =>
      document.documentElement.scrollWidth === width
        ? []
        : [...document.querySelectorAll('body *')]
            .filter((each) => each.getBoundingClientRect().right > width + 1)
            .map((each) => `${each.tagName} “${(each.textContent ?? '').slice(0, 30)}”`),
    phone.width,
  );

async function expectToFit(page: Page, where: string) {
  expect.soft(await sticksOut(page), where).toEqual([]);
  expect.soft(await squeezed(page), where).toEqual([]);
  await expectAccessible(page);
}

for (const name of ['Ada', 'Bo'])
  test(`every page of a student fits a phone, whatever things are called (${name})`, async () => {
    const page = student(name);
    await page.setViewportSize(phone);
    for (const path of ['due', 'outline', 'room', 'my-marks', 'messages', `choose/${panelsId}`]) {
      await page.goto(`/c/${courseId}/${path}`);
      await expect(page.locator('h1, h2').first(), path).toBeVisible();
      await expectToFit(page, path);
    }
    for (const kind of [/^Wolfe/, /^Talk/, /^Wiki/]) {
      await page.goto(`/c/${courseId}/room`);
      await page.getByRole('main').getByRole('link', { name: kind }).first().click();
      await expect(page).toHaveURL(/\/copies\//);
      await expect(page.locator('h1').first()).toBeVisible();
      await expectToFit(page, String(kind));
    }
  });

test('a full group is waited for, and its free place is mailed once', async () => {
  await instructor.setViewportSize({ width: 1280, height: 800 });
  await instructor.goto(`/c/${courseId}/groups/${panelsId}`);
  await instructor.getByRole('button', { name: 'More of Malt' }).click();
  await instructor.getByRole('menuitem', { name: 'Edit group…' }).click();
  await instructor.getByLabel('Time', { exact: true }).fill('Thu 16:30');
  await instructor.getByLabel('Place', { exact: true }).fill('Pilot hall');
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Save group' }).click();

  const [ada, cho] = [student('Ada'), student('Cho')];
  await ada.goto(`/c/${courseId}/choose/${panelsId}`);
  const malt = (page: Page) => page.getByRole('listitem', { name: 'Malt' });
  await expect(malt(ada).getByText('Thu 16:30 · Pilot hall')).toBeVisible();
  await ada.getByRole('button', { name: 'Join Malt' }).click();
  await expect(malt(ada)).toContainText('Yours');

  await cho.goto(`/c/${courseId}/choose/${panelsId}`);
  await malt(cho).getByRole('button', { name: 'Email me when a place is free' }).click();
  await expect(malt(cho).getByRole('button', { name: 'Do not email me' })).toBeVisible();
  await expect(malt(ada)).toContainText('1 waiting for a place'); // without a reload
  await expect(cho.getByRole('region', { name: 'Just now' })).toContainText('taken in Malt');
  await expectAccessible(cho);

  // Asked for as Malt, and written of as it is called by then.
  const { groups } = await api<BoardView>(instructor, 'GET', `sets/${panelsId}/board`);
  const { id, version, capacity } = sure(groups.find(({ name }) => name === 'Malt'));
  await api(instructor, 'PATCH', `groups/${id}`, { name: 'Kiln', capacity, isLocked: false, version });
  await ada.getByRole('button', { name: 'Leave this group' }).click();
  await expect(cho.getByRole('listitem', { name: 'Kiln' }).getByRole('button', { name: 'Join Kiln' })).toBeVisible(); // prettier-ignore
  const told = async () => {
    const { mails } = await api<Outbox>(instructor, 'GET', `courses/${courseId}/outbox`);
    return mails.filter((mail) => mail.subject === 'A place in Kiln is free').map((mail) => mail.toAddress);
  };
  await expect.poll(told, { timeout: 60_000 }).toEqual(['p2@quillmere.example']);
  await instructor.goto(`/c/${courseId}/outbox`);
  await expect(instructor.getByText('A place in Kiln is free').first()).toBeVisible();
  const { signUps } = await api<SignUpList>(cho, 'GET', `courses/${courseId}/sign-ups`);
  expect(sure(signUps[0]).yours).toBeNull(); // a mail reserves nothing
});

test('the course is renamed where its rules are, and everyone sees it at once', async () => {
  const ada = student('Ada');
  await ada.setViewportSize({ width: 1280, height: 800 });
  await ada.goto(`/c/${courseId}/due`);
  await instructor.getByRole('button', { name: /: your account$/ }).click();
  await instructor.getByRole('menuitem', { name: 'Course settings' }).click();
  await instructor.getByRole('textbox', { name: 'Title' }).fill('Ferments');
  await instructor.getByRole('button', { name: 'Save course' }).click();
  await expect(ada.getByRole('link', { name: /Ferments/ })).toBeVisible();
  await instructor.getByText('Assistants see only the groups they lead').click();
  await expect(instructor.getByText('No one would lose sight of a group.')).toBeVisible();
  await expectAccessible(instructor);
  await instructor.getByRole('button', { name: 'Cancel' }).click();
  await ada.goto(`/c/${courseId}/course`);
  await expect(ada).toHaveURL(/\/due$/);
});
