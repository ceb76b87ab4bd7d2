import { describe, expect, it } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import type { ActivityView } from '@jigsaw/contract/release';
import { anActivity, aRelease, courseId, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';
import { daysLater, entriesByDay, isDay, mondayOf } from './week.js';

const undated = { opens: null, due: null, closes: null };
const on = (due: string, more: object = {}) => ({ schedule: { ...undated, due, ...more } });
const log = anActivity({ id: id('log'), title: 'Starter log', release: aRelease(), ...on('2026-11-12T17:00:00.000Z') }); // prettier-ignore
const sheet = anActivity({ id: id('sheet'), title: 'Problem sheet', release: aRelease(), ...on('2026-11-12T09:00:00.000Z') }); // prettier-ignore
const memo = anActivity({ id: id('memo'), title: 'Memo', ...on('2026-11-15T23:59:00.000Z') });
const tasting = anActivity({
  id: id('tasting'),
  kind: 'event',
  title: 'Tasting day',
  points: null,
  schedule: undated,
  release: aRelease(),
  happens: [
    { starts: '2026-11-10T14:00:00.000Z', ends: '2026-11-10T17:30:00.000Z', place: 'Kitchen', isCancelled: false, whose: null }, // prettier-ignore
    { starts: '2026-11-11T14:00:00.000Z', ends: '2026-11-11T14:20:00.000Z', place: 'Cellar', isCancelled: false, whose: 'Tun' }, // prettier-ignore
  ],
});

describe('days of a calendar', () => {
  it('have the Monday of their week, over the end of a month and a year', () => {
    expect(mondayOf('2026-11-30')).toBe('2026-11-30');
    expect(mondayOf('2026-12-06')).toBe('2026-11-30');
    expect(mondayOf('2027-01-02')).toBe('2026-12-28');
    expect(daysLater('2026-03-28', 2)).toBe('2026-03-30'); // clocks change in between
  });
  it('are known from what is none', () =>
    expect(
      [null, '', '2026-13-01', '2026-11-9', '2026-11-09', '9'.repeat(4000), '9999-12-31'].map(isDay),
    ).toEqual([false, false, false, false, true, false, false]));
});

describe('what a course’s dates bring about', () => {
  const told = (activity: ActivityView) =>
    [...entriesByDay([activity], 'Europe/Lisbon')].flatMap(([day, entries]) =>
      entries.map(({ what, whose }) => [day, what, whose].filter(Boolean).join(' ')),
    );
  it('stands on its day in the course’s zone, also for those with a date of their own', () => {
    const activity = anActivity({
      release: aRelease({ state: { state: 'scheduled', at: '2026-11-09T08:00:00.000Z' } }),
      schedule: { opens: '2026-11-10T08:00:00.000Z', due: '2026-11-12T17:00:00.000Z', closes: '2026-11-13T17:00:00.000Z' }, // prettier-ignore
      extensions: [{ groupId: id('crock'), number: 1, name: 'Crock', due: '2026-11-16T17:00:00.000Z', closes: '2026-11-16T18:00:00.000Z', reason: 'Ill' }], // prettier-ignore
      studentExtensions: [{ enrolmentId: id('noor'), name: 'Noor', groups: [], due: '2026-11-17T17:00:00.000Z', closes: '2026-11-17T17:00:00.000Z', reason: 'Ill' }], // prettier-ignore
    });
    expect(told(activity)).toEqual([
      '2026-11-09 goes-live',
      '2026-11-10 opens',
      '2026-11-12 due',
      '2026-11-13 closes',
      '2026-11-16 due Crock',
      '2026-11-16 closes Crock',
      '2026-11-17 due Noor',
    ]);
  });
  it('is said once where it closes when it is due, and not at all once it is withdrawn', () => {
    const at = '2026-11-12T17:00:00.000Z';
    expect(told(anActivity(on(at, { closes: at })))).toEqual(['2026-11-12 due']);
    const withdrawn = aRelease({ state: { state: 'withdrawn', at } });
    expect(told(anActivity({ ...on(at), release: withdrawn }))).toEqual([]);
  });
});

describe('the week', () => {
  const show = (from: string, role: 'instructor' | 'assistant' = 'instructor') =>
    showPage(
      inCourse(`release/week${from}`),
      {
        [`GET courses/${courseId}/activities`]: { activities: [log, sheet, memo, tasting] },
        [`GET courses/${courseId}/collisions`]: {
          collisions: [
            { day: '2026-11-12', activityIds: [log.id, sheet.id], students: 44, names: [] },
            { day: '2026-11-12', activityIds: [log.id, memo.id], students: 1, names: ['Noor'] },
          ],
        },
      },
      role,
    );
  const day = async (name: RegExp) => {
    const heading = await screen.findByRole('heading', { name });
    return within(heading.closest('li') as HTMLElement);
  };

  it('shows what falls on each day in its order, and those who have several things due', async () => {
    show('?from=2026-11-11');
    const thursday = await day(/^Thu 12 Nov/);
    expect(thursday.getAllByRole('link').map((link) => link.querySelector('b')?.textContent)).toEqual([
      'Problem sheet',
      'Starter log',
    ]);
    expect(await thursday.findByText('44 students have 2 things due: “Starter log” and “Problem sheet”.')).toBeInTheDocument(); // prettier-ignore
    expect(thursday.getByText('Noor has 2 things due: “Starter log” and “Memo”.')).toBeInTheDocument();
    const tuesday = await day(/^Tue 10 Nov/);
    expect(tuesday.getByText(/14:00–17:30/)).toBeInTheDocument();
    expect(tuesday.getByText(/^Kitchen · /)).toBeInTheDocument();
    expect((await day(/^Wed 11 Nov/)).getByText('Cellar · only for Tun')).toBeInTheDocument();
    expect((await day(/^Sun 15 Nov/)).getByText('Draft')).toBeInTheDocument();
  });

  it('goes on and back, leads from an empty one to the next that is not, and is kept in the address', async () => {
    const { user, router } = show('?from=2026-10-19');
    await user.click(await screen.findByRole('button', { name: 'Go to 10 Nov 2026' }));
    expect(router.state.location.search).toBe('?from=2026-11-09');
    await user.click(screen.getByRole('button', { name: 'The week before' }));
    expect(await screen.findByText('2 Nov – 8 Nov 2026')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'This week' }));
    expect(await screen.findByText('Today')).toBeInTheDocument();
    expect(router.state.location.search).toBe('');
  });

  it('is read by others of the staff, without what only those who release may ask', async () => {
    const { asked } = show('?from=2026-11-09', 'assistant');
    const thursday = await day(/^Thu 12 Nov/);
    expect(thursday.getByText('Starter log')).toBeInTheDocument();
    expect(thursday.queryByRole('link')).not.toBeInTheDocument();
    expect(asked.some(({ path }) => path.endsWith('/collisions'))).toBe(false);
  });
});
