import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { DeskRow, MarkView } from '@jigsaw/contract/marks';
import {
  aGroup,
  aHandIn,
  aHead,
  aMark,
  aSavedMark,
  aMember,
  aMyMark,
  aPart,
  aPost,
  aRubric,
  aTalk,
  at,
  aWork,
  courseId,
  id,
} from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const releaseId = id<'release'>('release');
const copyId = id<'copy'>('copy');
const markPath = `copies/${copyId}/marks/group`;
const aRow = (more: Partial<DeskRow> = {}): DeskRow => ({
  copyId,
  unit: 'group',
  group: aGroup(),
  student: null,
  work: { at, isComplete: true, lateMinutes: 160, deduction: '2', by: 'Noor' },
  mark: { state: 'unmarked', groupMark: null },
  needsYou: true,
  ...more,
});
const carboy = aRow({ copyId: id('carboy'), group: aGroup('Carboy', 2), work: null, needsYou: false });
const desk = (
  mark: MarkView,
  rows = [aRow(), carboy],
  more = {},
  role: 'instructor' | 'observer' = 'instructor',
) =>
  showPage(
    inCourse(`marks/${releaseId}/${copyId}/group`),
    {
      [`GET courses/${courseId}/desk`]: {
        activities: [
          {
            activityId: id('report'),
            releaseId,
            kind: 'assignment',
            title: 'Ferment report',
            points: '40',
            toMark: 1,
            unitCount: 2,
            markFor: 'group',
          },
        ],
      },
      [`GET releases/${releaseId}/desk`]: {
        releaseId,
        kind: 'assignment',
        title: 'Ferment report',
        points: '40',
        due: at,
        markFor: 'group',
        rows,
      },
      [`GET ${markPath}`]: mark,
      [`GET copies/${copyId}/work`]: aWork({ mayHandIn: false, handIns: [aHandIn()], state: 'done' }),
      ...more,
    },
    role,
  );

describe('the Marking desk', () => {
  it('lists the groups with what there is to do', async () => {
    desk(aMark());
    const queue = await screen.findByRole('navigation', { name: 'Groups to mark' });
    expect(within(queue).getByRole('link', { name: /Crock/ })).toHaveTextContent('To mark, late 2 h 40 min');
    expect(within(queue).getByRole('link', { name: /Carboy/ })).toHaveTextContent('Not handed in');
    expect(within(queue).getByText('1 to mark')).toBeInTheDocument();
  });

  it('shows another activity’s work when another one is chosen, never the last one’s under its name', async () => {
    const other = id<'release'>('other');
    const otherCopy = id<'copy'>('other copy');
    const entry = {
      activityId: id('report'),
      kind: 'assignment',
      points: '40',
      toMark: 1,
      unitCount: 2,
      markFor: 'group',
    };
    const { user, router } = desk(aMark(), undefined, {
      [`GET courses/${courseId}/desk`]: {
        activities: [
          { ...entry, releaseId, title: 'Ferment report' },
          { ...entry, releaseId: other, title: 'Salt trial' },
        ],
      },
      [`GET releases/${other}/desk`]: async () => {
        await new Promise((resolve) => setTimeout(resolve, 50));
        return {
          releaseId: other,
          kind: 'assignment',
          title: 'Salt trial',
          points: '40',
          due: at,
          markFor: 'group',
          rows: [aRow({ copyId: otherCopy })],
        };
      },
      [`GET copies/${otherCopy}/marks/group`]: aMark(),
    });
    await screen.findByRole('navigation', { name: 'Groups to mark' });
    await user.click(await screen.findByRole('button', { name: /Activity/ }));
    const seen: string[] = [];
    router.subscribe(({ location }) => void seen.push(location.pathname));
    await user.click(await screen.findByRole('option', { name: 'Salt trial' }));
    await waitFor(() =>
      expect(router.state.location.pathname).toBe(inCourse(`marks/${other}/${otherCopy}/group`)),
    );
    expect(seen).not.toContain(inCourse(`marks/${other}/${copyId}/group`));
  });

  it('shows the sum while the mark is typed, and saves it as it is typed', async () => {
    const { user, writes } = desk(aMark(), undefined, {
      [`PUT ${markPath}`]: aSavedMark({ groupMark: '31.5' }),
    });
    await user.type(await screen.findByLabelText('Group mark'), '31,5');
    const members = screen.getByRole('region', { name: 'Members and their marks' });
    expect(within(members).getAllByText('29.5')).toHaveLength(2);
    await waitFor(() => expect(writes().length).toBeGreaterThan(0), { timeout: 3000 });
    expect(writes().at(-1)).toEqual({
      method: 'PUT',
      path: markPath,
      body: { typedMark: '31.5', overrideReason: '', picks: {}, feedback: '', adjustments: [], version: 0 },
    });
  });

  it('does not save a mark that is no mark, and keeps what was typed', async () => {
    const { user, writes } = desk(aMark());
    const field = await screen.findByLabelText('Group mark');
    await user.type(field, '41');
    expect(await screen.findByText('From 0 to 40.')).toBeInTheDocument();
    await user.type(field, 'x');
    expect(await screen.findByText('Write a number, like 31.5.')).toBeInTheDocument();
    expect(field).toHaveValue('41x');
    expect(screen.getByRole('button', { name: 'Release to 2 students' })).toBeDisabled();
    expect(writes().every((write) => (write.body as { typedMark: string }).typedMark !== '41')).toBe(true);
  });

  it('cannot release what has no mark, and says so', async () => {
    desk(aMark());
    expect(await screen.findByRole('button', { name: 'Release to 2 students' })).toBeDisabled();
    expect(screen.getByText('Give the group a mark, or each member a separate one.')).toBeInTheDocument();
  });

  it('releases what is saved and offers to take it back', async () => {
    const drafted = aMark({ state: 'drafted', typedMark: '31.5', version: 2 });
    const { user, writes } = desk(drafted, undefined, {
      [`POST ${markPath}/release`]: aSavedMark({ state: 'released' }),
      [`POST ${markPath}/recall`]: drafted,
    });
    await user.click(await screen.findByRole('button', { name: 'Release to 2 students' }));
    await user.click(await screen.findByRole('button', { name: 'Take it back' }));
    await waitFor(() =>
      expect(writes().map((write) => write.path)).toEqual([`${markPath}/release`, `${markPath}/recall`]),
    );
    expect(writes()[0]!.body).toEqual({ version: 2 });
  });

  it('releases nothing while what was typed is not saved', async () => {
    const { user, writes } = desk(aMark({ state: 'drafted', typedMark: '31.5', version: 2 }), undefined, {
      [`PUT ${markPath}`]: new Refusal(503, 'unexpected', 'It could not be saved.'),
      [`POST ${markPath}/release`]: aSavedMark({ state: 'released' }),
    });
    const field = await screen.findByLabelText('Group mark');
    await user.clear(field);
    await user.type(field, '33');
    await user.click(screen.getByRole('button', { name: 'Release to 2 students' }));
    expect(await screen.findByText('It could not be saved.')).toBeInTheDocument();
    expect(writes().map((write) => write.path)).toEqual([markPath]);
    expect(field).toHaveValue('33');
  });

  it('keeps one’s own mark over another’s, on top of what they saved', async () => {
    const theirs = aMark({ state: 'drafted', typedMark: '20', version: 4 });
    const { user, set, writes } = desk(aMark(), undefined, {
      [`PUT ${markPath}`]: new Refusal(409, 'stale-write', 'Someone else marked this group meanwhile.', {
        current: theirs,
      }),
    });
    await user.type(await screen.findByLabelText('Group mark'), '31');
    await screen.findByText(/they gave 20, you 31/, {}, { timeout: 4000 });
    set(`GET ${markPath}`, theirs);
    set(`PUT ${markPath}`, aSavedMark({ version: 5 }));
    await user.click(screen.getByRole('button', { name: 'Save mine over it' }));
    await waitFor(() => expect(screen.queryByText(/they gave 20/)).not.toBeInTheDocument());
    expect(writes().at(-1)!.body).toMatchObject({ typedMark: '31', version: 4 });
    expect(screen.getByLabelText('Group mark')).toHaveValue('31');
  });

  it('names the missing reason in the server’s words', async () => {
    const drafted = aMark({ state: 'drafted', typedMark: '31.5', version: 2 });
    const { user } = desk(drafted, undefined, {
      [`POST ${markPath}/release`]: new Refusal(422, 'invalid-input', "Say why Jorge's mark differs."),
    });
    await user.click(await screen.findByRole('button', { name: 'Release to 2 students' }));
    expect(await screen.findByRole('alert')).toHaveTextContent("Say why Jorge's mark differs.");
  });

  it('shows both marks when two people marked at once, and lets one choose', async () => {
    const theirs = aMark({ state: 'drafted', typedMark: '20', version: 1 });
    const { user, set } = desk(aMark(), undefined, {
      [`PUT ${markPath}`]: new Refusal(409, 'stale-write', 'Someone else marked this group meanwhile.', {
        current: theirs,
      }),
    });
    await user.type(await screen.findByLabelText('Group mark'), '31');
    const strip = await screen.findByText(/they gave 20, you 31/, {}, { timeout: 4000 });
    set(`GET ${markPath}`, theirs);
    await user.click(
      within(strip.closest<HTMLElement>('[role=alert]')!).getByRole('button', { name: 'Take theirs' }),
    );
    await waitFor(() => expect(screen.getByLabelText('Group mark')).toHaveValue('20'));
  });

  it('warns of new work since the mark, and of marking before it is due', async () => {
    desk(aMark({ state: 'drafted', typedMark: '30', version: 1, isStale: true, beforeDue: true }));
    expect(await screen.findByText(/New work came in after this mark/)).toBeInTheDocument();
    expect(screen.getByText(/not due yet/)).toBeInTheDocument();
  });

  it('says that students see the earlier mark while a later one is a draft', async () => {
    desk(aMark({ state: 'drafted', typedMark: '35', version: 4, releasedAt: at }));
    expect(await screen.findByText(/students see the earlier mark/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Take back from 2 students' })).toBeInTheDocument();
  });

  it('shows the history, and what a group that has not handed in has so far', async () => {
    desk(aMark({ history: [{ at, by: 'Tomas Vey', what: 'Group mark none → 30' }] }), undefined, {
      [`GET copies/${copyId}/work`]: aWork({ parts: [aPart(aMember('Jorge'), 'So far so good')] }),
    });
    expect(await screen.findByText('Crock has not handed in')).toBeInTheDocument();
    expect(screen.getByText(/Tomas Vey: Group mark none → 30/)).toBeInTheDocument();
  });

  it('lets observers look and not mark', async () => {
    desk(aMark(), undefined, {}, 'observer');
    expect(await screen.findByLabelText('Group mark')).toBeDisabled();
    expect(screen.queryByRole('button', { name: /Release to/ })).not.toBeInTheDocument();
  });
});

describe('marking by a rubric', () => {
  const byRubric = (more: Partial<MarkView> = {}) =>
    aMark({
      copy: aHead({ part: 'staff', kind: 'folder', rubric: aRubric }),
      lateDeduction: '0',
      lateMinutes: 0,
      ...more,
    });
  const saved = () => ({
    [`PUT ${markPath}`]: aSavedMark(),
  });

  it('is done from the keyboard: a figure picks and goes on, arrows move, Backspace takes a pick back', async () => {
    const { user, writes } = desk(byRubric(), undefined, saved());
    const grid = await screen.findByRole('grid', { name: 'Rubric' });
    within(grid)
      .getByRole('gridcell', { name: /^Method: Thin/ })
      .focus();
    await user.keyboard('3');
    expect(within(grid).getByRole('gridcell', { name: /^Method: Sound/ })).toHaveAttribute(
      'aria-selected',
      'true',
    );
    expect(within(grid).getByRole('gridcell', { name: /^Writing: Sound/ })).toHaveFocus();
    expect(screen.getByText('1 to pick')).toBeInTheDocument();
    await user.keyboard('{ArrowRight}{Enter}');
    expect(within(grid).getByRole('gridcell', { name: /^Writing: Strong/ })).toHaveAttribute(
      'aria-selected',
      'true',
    );
    expect(screen.getAllByText('35').length).toBeGreaterThan(0); // 40 · (3/4 + 8/8) / 2
    await user.type(screen.getByLabelText('On Writing, told with it'), 'Clear.');
    await waitFor(
      () =>
        expect((writes().at(-1)?.body as { picks: object } | undefined)?.picks).toEqual({
          method: { points: '3', comment: '' },
          writing: { points: '8', comment: 'Clear.' },
        }),
      { timeout: 3000 },
    );
    within(grid)
      .getByRole('gridcell', { name: /^Writing: Strong/ })
      .focus();
    await user.keyboard('{Backspace}');
    expect(screen.getByText('1 to pick')).toBeInTheDocument();
    expect(
      screen.getByText('Pick a level for every criterion, or give the mark yourself and say why.'),
    ).toBeInTheDocument();
  });

  it('takes points between two levels, and no more than there are', async () => {
    const { user } = desk(byRubric(), undefined, saved());
    const points = await screen.findByLabelText('Points for Writing, of 8');
    await user.type(points, '5,5');
    expect(screen.getByRole('gridcell', { name: /^Writing: Sound/ })).toHaveAttribute(
      'aria-selected',
      'true',
    );
    await user.type(screen.getByLabelText('Points for Method, of 4'), '9');
    expect(screen.getByText('1 to pick')).toBeInTheDocument();
  });

  it('puts another mark in its place with a reason, and goes back to the rubric’s', async () => {
    const picks = { method: { points: '3', comment: '' }, writing: { points: '8', comment: '' } };
    const { user, writes } = desk(
      byRubric({ picks, groupMark: '35', version: 1, state: 'drafted' }),
      undefined,
      saved(),
    );
    await user.click(await screen.findByRole('button', { name: /Give another mark/ }));
    await user.type(screen.getByLabelText('In place of the rubric’s mark'), '38');
    await user.type(screen.getByLabelText('Why, told to students'), 'A second trial');
    await waitFor(
      () =>
        expect(writes().at(-1)?.body).toMatchObject({ typedMark: '38', overrideReason: 'A second trial' }),
      { timeout: 3000 },
    );
    await user.click(screen.getByRole('button', { name: 'Back to the rubric’s mark' }));
    await waitFor(
      () => expect(writes().at(-1)?.body).toMatchObject({ typedMark: null, overrideReason: '' }),
      { timeout: 3000 },
    );
  });
});

describe('marking each student of a talk', () => {
  const unit = id<'enrolment'>('Noor');
  const path = `copies/${copyId}/marks/${unit}`;

  it('shows what they wrote, what is proposed, and whose mark it is', async () => {
    const jorge = aPost('Jorge', 'Nose of walnut');
    const noor = aPost('Noor', 'Mine was toast', { parentId: jorge.id });
    const row = aRow({ unit, student: { name: 'Noor', reading: null } });
    const { user, writes } = showPage(inCourse(`marks/${releaseId}/${copyId}/${unit}`), {
      [`GET courses/${courseId}/desk`]: { activities: [] },
      [`GET releases/${releaseId}/desk`]: {
        releaseId,
        kind: 'discussion',
        title: 'Critique',
        points: '10',
        due: at,
        markFor: 'student',
        rows: [
          row,
          aRow({ unit: id('Jorge'), student: { name: 'Jorge', reading: null }, work: null, needsYou: false }),
        ],
      },
      [`GET ${path}`]: aMark({
        copy: aHead({ part: 'staff', kind: 'discussion' }),
        points: '10',
        unit,
        lateDeduction: '0',
        lateMinutes: 0,
        suggestion: { mark: '8', why: '1 of 1 post' },
        members: [{ ...aMark().members[0]! }],
      }),
      [`GET copies/${copyId}/discussion`]: aTalk([[jorge, noor]]),
      [`PUT ${path}`]: aSavedMark({ groupMark: '8' }),
    });
    const queue = await screen.findByRole('navigation', { name: 'Students to mark' });
    expect(within(queue).getByRole('link', { name: /Jorge/ })).toHaveTextContent('Nothing written');
    const work = await screen.findByRole('region', { name: 'Noor’s work' });
    expect(await within(work).findByText('Mine was toast')).toBeInTheDocument();
    expect(within(work).queryByRole('heading', { name: 'Jorge' })).not.toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Take 8' }));
    await waitFor(() => expect(writes().at(-1)?.body).toMatchObject({ typedMark: '8' }), { timeout: 3000 });
    expect(screen.getByRole('button', { name: 'Release to Noor' })).toBeInTheDocument();
  });
});

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
      await screen.findByText('In place of the 35 that the rubric comes to: A second trial'),
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
    copyId: state === 'not-theirs' ? null : copyId,
    unit: state === 'not-theirs' ? null : 'group',
    isLate,
  });
  const aStudent = (name: string, cells: object[], group: string | null = 'Crock') => ({
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
    },
  ];
  const open = (students: object[]) =>
    showPage(inCourse('marks/gradebook'), {
      [`GET courses/${courseId}/gradebook`]: { activities, students },
    });

  it('counts what is released, offers it as CSV, and filters by group', async () => {
    const { user } = open([
      aStudent('Noor', [cell('released', '31')]),
      aStudent('Amina', [cell('drafted', '20')], 'Carboy'),
      aStudent('Nino', [cell('not-theirs')], null),
    ]);
    expect(await screen.findByText('1 marks released')).toBeInTheDocument();
    expect(screen.getByText('3 students')).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Released marks as CSV' })).toHaveAttribute(
      'href',
      `/api/courses/${courseId}/gradebook.csv`,
    );
    await user.click(screen.getByRole('button', { name: /Show/ }));
    await user.click(await screen.findByRole('option', { name: 'Carboy' }));
    expect(await screen.findByText('1 students')).toBeInTheDocument();
  });

  it('says how it fills when nothing is released', async () => {
    showPage(inCourse('marks/gradebook'), {
      [`GET courses/${courseId}/gradebook`]: { activities: [], students: [] },
    });
    expect(await screen.findByRole('heading', { name: 'Nothing to mark yet' })).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Gradebook' })).toHaveAttribute('aria-current', 'page');
  });
});
