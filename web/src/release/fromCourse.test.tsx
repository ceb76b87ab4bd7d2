import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { CourseView } from '@jigsaw/contract/course';
import { aCourse, anActivity, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const last: CourseView = {
  ...aCourse('instructor'),
  id: id('last'),
  code: 'FER 219',
  title: 'Brewing',
  timeZone: 'UTC',
};
const taught: CourseView = { ...last, id: id('taught'), code: 'FER 100', title: 'Basics' };
const assisted: CourseView = { ...last, id: id('assisted'), role: 'assistant', title: 'Helped' };
const report = anActivity({ id: id('report'), title: 'Report', schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes: null } }); // prettier-ignore
const memo = anActivity({
  id: id('memo'),
  title: 'Memo',
  schedule: { opens: null, due: null, closes: null },
});
const post = `POST courses/${courseId}/activities/from-course`;
const show = (courses: readonly CourseView[], more: object = {}) =>
  showPage(inCourse('release'), {
    'GET courses': { courses: [aCourse('instructor'), ...courses] },
    [`GET courses/${courseId}/activities`]: { activities: [] },
    [`GET courses/${last.id}/activities`]: { activities: [report, memo] },
    [`GET courses/${taught.id}/activities`]: { activities: [] },
    ...more,
  });
const open = async ({ user }: ReturnType<typeof show>) => {
  await user.click((await screen.findAllByRole('button', { name: 'New activity' }))[0] as HTMLElement);
  await user.click(await screen.findByRole('menuitem', { name: /^Copy from another course/ }));
  return within(await screen.findByRole('dialog', { name: /^Copy from another course/ }));
};

describe('copying from another course', () => {
  it('is offered to those who release in another one', async () => {
    const { user } = show([assisted]);
    await user.click((await screen.findAllByRole('button', { name: 'New activity' }))[0] as HTMLElement);
    expect(await screen.findByRole('menuitem', { name: /^Notice/ })).toBeInTheDocument();
    expect(screen.queryByRole('menuitem', { name: /^Copy from/ })).toBeNull();
  });

  it('copies what was chosen, and can be taken back', async () => {
    const copies = [anActivity({ id: id('copy'), title: 'Report', version: 1 })];
    const page = show([last, taught], {
      [post]: { activities: copies, deleted: [] },
      [`POST courses/${courseId}/activities/many`]: {
        activities: [],
        deleted: [{ id: id('copy'), version: 1 }],
      },
    });
    const sheet = await open(page);
    expect(await sheet.findByText('due Thu 12 Nov, 17:00')).toBeInTheDocument();
    expect(sheet.getByRole('button', { name: 'Copy' })).toBeDisabled();
    await page.user.click(sheet.getByRole('checkbox', { name: /Report/ }));
    await page.user.click(sheet.getByRole('checkbox', { name: /^Keep when/ }));
    await page.user.click(sheet.getByRole('button', { name: 'Copy 1 activity' }));
    expect(await screen.findByText('1 activity copied as drafts')).toBeInTheDocument();
    await page.user.click(screen.getByRole('button', { name: 'Undo' }));
    expect(await screen.findByText('The copies were deleted')).toBeInTheDocument();
    expect(page.writes().map(({ body }) => body)).toEqual([
      { activityIds: [report.id], keepsDates: true },
      { activities: [{ id: id('copy'), version: 1 }], act: { kind: 'delete' } },
    ]);
  });

  it('copies all in one press, and keeps the choice when that is refused', async () => {
    const page = show([last], { [post]: new Refusal(503, 'busy', 'The server is busy. Try again.') });
    const sheet = await open(page);
    await page.user.click(await sheet.findByRole('button', { name: 'Select all 2' }));
    await page.user.click(sheet.getByRole('button', { name: 'Copy 2 activities' }));
    expect(await sheet.findByRole('alert')).toHaveTextContent('The server is busy');
    expect(sheet.getByRole('checkbox', { name: /Memo/ })).toBeChecked();
    expect(page.writes().map(({ body }) => body)).toEqual([
      { activityIds: [memo.id, report.id], keepsDates: false },
    ]);
  });

  it('forgets the choice with the course', async () => {
    const page = show([last, taught]);
    const sheet = await open(page);
    await page.user.click(await sheet.findByRole('checkbox', { name: /Memo/ }));
    await page.user.click(sheet.getByRole('button', { name: /FER 219/ }));
    await page.user.click(await screen.findByRole('option', { name: /FER 100/ }));
    await waitFor(() =>
      expect(sheet.getByText(/There are no activities in this course/)).toBeInTheDocument(),
    );
    expect(sheet.getByRole('button', { name: 'Copy' })).toBeDisabled();
  });
});
