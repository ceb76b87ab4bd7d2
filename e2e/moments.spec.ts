import { sure } from '@jigsaw/core/lists';
import { aCourseOf, anActivityFor, aSetOf, browsersOf, place } from './support/course.js';
import { expect, newPerson, signIn, test } from './support/fixtures.js';
import { firstInstructor } from './support/people.js';

/** What happens at its minute, with nobody doing anything. */
const minuteMs = 60_000;
/** A minute that is still to come once everything is open. */
const nextMinute = (inMs: number) => new Date(Math.ceil((Date.now() + inMs) / minuteMs) * minuteMs);

test('what was scheduled comes up in pages that are open, and what closes closes there', async ({
  browser,
}) => {
  const instructor = await newPerson(browser);
  await signIn(instructor, firstInstructor.email, firstInstructor.password);
  await expect(instructor.getByRole('heading', { name: 'Your courses' })).toBeVisible();
  const course = await aCourseOf(instructor, 'FER 193', 'Vinegars', [
    'Ada Vale <ada.v193@quillmere.example>',
  ]);
  const set = await aSetOf(instructor, course.id, 'Bench teams', ['Crock']);
  await place(instructor, set.id, 'Ada', 'Crock');
  const ada = sure((await browsersOf(browser, instructor, course.id)).get('Ada'));
  const at = nextMinute(45_000);
  const talk = (title: string, more: object) => anActivityFor(instructor, course.id, set.id, { kind: 'discussion', title, ...more }); // prettier-ignore
  await talk('Comes by itself', { goesLiveAt: at });
  await talk('Closes by itself', { closes: at });

  await ada.goto(`/c/${course.id}/room`);
  await expect(ada.getByRole('link', { name: /^Closes by itself/ }).first()).toBeVisible();
  await expect(ada.getByText('Comes by itself')).toHaveCount(0);
  await ada
    .getByRole('link', { name: /^Closes by itself/ })
    .first()
    .click();
  await expect(ada.getByRole('button', { name: 'Post' })).toBeVisible();
  const home = await ada.context().newPage();
  await home.goto(`/c/${course.id}/room`);
  await instructor.goto(`/c/${course.id}/release`);
  const listed = (state: string) =>
    instructor.getByRole('link', { name: new RegExp(`Comes by itself.*${state}`) });
  await expect(listed('Scheduled')).toBeVisible();

  expect(Date.now()).toBeLessThan(at.getTime());
  const patience = { timeout: at.getTime() - Date.now() + 20_000 };
  await expect(home.getByRole('link', { name: /Comes by itself/ }).first()).toBeVisible(patience);
  await expect(listed('Live')).toBeVisible(patience);
  await expect(ada.getByRole('button', { name: 'Post' })).toHaveCount(0, patience);
  expect(Date.now()).toBeGreaterThanOrEqual(at.getTime());
});
