import { sure } from '@jigsaw/core/lists';
import type { Gradebook } from '@jigsaw/contract/gradebook';
import { foldGradebook } from '@jigsaw/contract/gradebook';
import { userEvent } from '@testing-library/user-event';
import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { anAudience, audienceAnswers } from '../test/audiences.js';
import { aMyMark, aRubric, at, courseId, id } from '../test/data.js';
import { api } from '../api/index.js';
import { inCourse, showPage } from '../test/showPage.js';
import { releaseId, copyId } from '../test/onDesk.js';

describe('one’s own marks', () => {
  const mine = (answer: unknown) =>
    showPage(inCourse('my-marks'), { [`GET courses/${courseId}/my-marks`]: answer }, 'student');

  it('show the group’s mark, one’s own, and how one became the other', async () => {
    mine({ marks: [aMyMark()], waiting: [] });
    const one = await screen.findByRole('region', { name: 'Ferment report' });
    for (const words of ['31.5 / 40', '−2', 'late 2 h 40 min', '+1.5', '31 / 40', 'Good reading.'])
      expect(one).toHaveTextContent(words);
    expect(within(one).getByText('+1.5 for you: Ill for a week')).toBeInTheDocument();
    expect(within(one).getByText('2 points less, because it was late.')).toBeInTheDocument();
    expect(screen.getByText('new')).toBeInTheDocument();
  });

  it('are told to have been seen when they were shown, each once, and asking for them tells nothing', async () => {
    const marks = [aMyMark(), aMyMark({ copyId: id('salt'), title: 'Salt trial', isNew: false })];
    const { writes } = mine({ marks, waiting: [] });
    await screen.findByRole('region', { name: 'Ferment report' });
    await waitFor(() => expect(writes()).toHaveLength(1));
    expect(writes()).toEqual([
      { method: 'POST', path: `courses/${courseId}/my-marks/seen`, body: { until: marks[0]?.releasedAt } },
    ]);
    expect(screen.getByText('new')).toBeInTheDocument(); // for as long as it is looked at
  });

  it('tell an excused student so, without a sum that would not be theirs', async () => {
    mine({
      marks: [aMyMark({ mark: null, steps: [{ code: 'excused', reason: 'In hospital' }] })],
      waiting: [],
    });
    expect(await screen.findByText('Excused: In hospital')).toBeInTheDocument();
    expect(screen.getByRole('region', { name: 'Ferment report' })).toHaveTextContent('Excused');
    expect(screen.queryByText(/for you/)).not.toBeInTheDocument();
  });

  it('show the rubric with what was picked and said, and why another mark stands in its place', async () => {
    const picks = {
      method: { points: '3', comment: 'Say what it rules out.' },
      writing: { points: '8', comment: '' },
    };
    const steps = [
      { code: 'group-mark' as const, mark: '38', max: '40' },
      { code: 'override' as const, rubricMark: '35', mark: '38', reason: 'A second trial' },
    ];
    mine({
      marks: [aMyMark({ rubric: { rubric: aRubric, picks }, steps, groupMark: '38', mark: '38' })],
      waiting: [],
    });
    expect(
      await screen.findByText('Set by hand instead of the rubric’s 35: A second trial'),
    ).toBeInTheDocument();
    expect(screen.getByText('Say what it rules out.')).toBeInTheDocument();
    const picked = document.querySelectorAll('td[data-picked]');
    expect([...picked].map((cell) => cell.textContent)).toEqual(['Sound 3', 'Strong 8']);
  });

  it('change from one to another', async () => {
    const { user } = mine({
      marks: [aMyMark(), aMyMark({ copyId: id('salt'), title: 'Salt trial', mark: '16', isNew: false })],
      waiting: [{ title: 'Problem sheet', points: '30' }],
    });
    await user.click(await screen.findByRole('button', { name: /Salt trial/ }));
    expect(screen.getByRole('region', { name: 'Salt trial' })).toBeInTheDocument();
    expect(screen.getByText('Problem sheet: done, being marked')).toBeInTheDocument();
  });

  it('say what is being marked while there are none', async () => {
    mine({ marks: [], waiting: [{ title: 'Ferment report', points: '40' }] });
    expect(await screen.findByText(/Being marked: Ferment report/)).toBeInTheDocument();
  });
});

describe('the gradebook', () => {
  const cell = (state: string, mark: string | null = null, isLate = false) => ({
    state,
    mark,
    copyId,
    unit: 'group',
    points: '40',
    isChanged: false,
    isLate,
    group: null as string | null,
  });
  const aStudent = (name: string, cells: object[][], group: string | null = 'Crock') => ({
    enrolmentId: id(name),
    name,
    familyName: null,
    reading: null,
    number: null,
    groups: group ? [{ setId: id('benches'), groupId: id(group), number: 1, name: group }] : [],
    cells,
  });
  const activities = [
    {
      activityId: id('report'),
      releaseId,
      setId: id('benches'),
      markFor: 'group',
      kind: 'assignment',
      title: 'Ferment report',
      points: '40',
      due: at,
      isWithdrawn: false,
    },
  ];
  const folded = (activities: object[], students: object[]) =>
    foldGradebook({ activities, students } as unknown as Gradebook);
  const open = (students: object[]) =>
    showPage(inCourse('marks/gradebook'), {
      [`GET courses/${courseId}/gradebook`]: folded(activities, students),
    });

  it('counts what is released, offers it as CSV, and filters by group', async () => {
    const { user } = open([
      aStudent('Noor', [[cell('released', '31')]]),
      aStudent('Amina', [[cell('drafted', '20')]], 'Carboy'),
      aStudent('Nino', [[]], null),
    ]);
    expect(await screen.findByText('1 mark released')).toBeInTheDocument();
    expect(screen.getByText('3 students')).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Released marks as CSV' })).toHaveAttribute(
      'href',
      `/api/courses/${courseId}/gradebook.csv`,
    );
    await user.click(screen.getByRole('button', { name: /Show/ }));
    await user.click(await screen.findByRole('option', { name: 'Carboy' }));
    expect(await screen.findByText('1 student')).toBeInTheDocument();
  });

  it('is narrowed to the people of a saved audience, and to nothing once it is gone', async () => {
    const evening = anAudience('Evening');
    const students = [aStudent('Noor', [[cell('released', '31')]]), aStudent('Nino', [[]], null)];
    const page = showPage(inCourse('marks/gradebook'), {
      [`GET courses/${courseId}/gradebook`]: folded(activities, students),
      ...audienceAnswers([evening], ['Nino']),
    });
    await page.user.click(await screen.findByRole('button', { name: /Show/ }));
    await page.user.click(await screen.findByRole('option', { name: 'Audience Evening' }));
    expect(await screen.findByText('1 student')).toBeInTheDocument();
    expect(screen.getByRole('rowheader', { name: /Nino/ })).toBeInTheDocument();
    expect(page.asked.at(-1)?.body).toMatchObject({
      include: [{ kind: 'audience', audienceId: evening.id }],
    });
    page.set(`GET courses/${courseId}/audiences`, { audiences: [] });
    page.store.dispatch(api.util.invalidateTags(['Audience']));
    expect(await screen.findByText('2 students')).toBeInTheDocument();
  });

  it('tells what a mark is out of where that is not what the heading says, that it changed since, and what is withdrawn', async () => {
    showPage(inCourse('marks/gradebook'), {
      [`GET courses/${courseId}/gradebook`]: folded(
        activities.map((each) => ({ ...each, isWithdrawn: true })),
        [aStudent('Noor', [[{ ...cell('released', '31'), points: '30', isChanged: true }]])],
      ),
    });
    expect(await screen.findByRole('link', { name: '31 of 30 changed since release' })).toBeInTheDocument();
    expect(screen.getByRole('columnheader', { name: /withdrawn, of 40/ })).toBeInTheDocument();
  });

  it('shows a mark for each copy where someone has several, each with its group and a way to its sheet', async () => {
    open([
      aStudent('Noor', [
        [
          { ...cell('released', '31'), group: 'Crock' },
          { ...cell('missing'), group: 'Panel 2', copyId: id('panel') },
        ],
      ]),
    ]);
    const sheet = (copy: string) => `/c/${courseId}/marks/${releaseId}/${copy}/group`;
    expect(await screen.findByRole('link', { name: 'Crock 31' })).toHaveAttribute('href', sheet(copyId));
    expect(screen.getByRole('link', { name: 'Panel 2 missing' })).toHaveAttribute('href', sheet(id('panel')));
    expect(screen.getByText('1 mark released')).toBeInTheDocument();
  });

  it('draws only what is in view of many students and activities, and goes anywhere by keys', async () => {
    const many = Array.from({ length: 60 }, (_, at) => ({
      ...sure(activities[0]),
      releaseId: id(`${at} log`),
      title: `Log ${at + 1}`,
    }));
    const cells = many.map((_, at) => [cell('released', `${at + 1}`)]);
    showPage(inCourse('marks/gradebook'), {
      [`GET courses/${courseId}/gradebook`]: folded(
        many,
        Array.from({ length: 640 }, (_, at) => aStudent(`${at + 1} Brewer`, cells)),
      ),
    });
    const grid = await screen.findByRole('grid', { name: 'Gradebook' });
    expect(grid).toHaveAttribute('aria-rowcount', '641');
    expect(grid).toHaveAttribute('aria-colcount', '62');
    expect(within(grid).getAllByRole('gridcell').length).toBeLessThan(600);
    const user = userEvent.setup();
    await user.click(within(grid).getByText('1 Brewer'));
    const focused = () => document.activeElement?.closest('[data-spot]')?.getAttribute('data-spot');
    expect(focused()).toBe('0 0');
    for (const [keys, spot] of [
      // A key that is held down is faster than frames.
      ['{ArrowDown}{ArrowRight}{ArrowRight}', '1 2'],
      ['{ArrowRight>12/}{ArrowLeft>12/}', '1 2'],
      ['{ArrowUp}{ArrowUp}', '-1 2'],
      ['{ArrowDown}{ArrowDown}{Home}', '1 0'],
    ] as const) {
      await user.keyboard(keys);
      await waitFor(() => expect(focused()).toBe(spot));
    }
    // A cell with a mark gives the focus to the way to its sheet.
    await user.keyboard('{ArrowRight}{ArrowRight}');
    await waitFor(() =>
      expect(document.activeElement).toHaveAttribute(
        'href',
        expect.stringContaining(`/marks/${id('0 log')}/`),
      ),
    );
  });

  it('says how it fills when nothing is released', async () => {
    showPage(inCourse('marks/gradebook'), {
      [`GET courses/${courseId}/gradebook`]: { activities: [], cells: [], students: [] },
    });
    expect(await screen.findByRole('heading', { name: 'Nothing to mark yet' })).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Gradebook' })).toHaveAttribute('aria-current', 'page');
  });
});
