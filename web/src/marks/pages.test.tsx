import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { DeskRow, MarkView } from '@jigsaw/contract/marks';
import { aCopy, aGroup, aMark, aMyMark, at, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const releaseId = id<'release'>('release');
const copyId = id<'copy'>('copy');
const markPath = `copies/${copyId}/mark`;
const aRow = (more: Partial<DeskRow> = {}): DeskRow => ({
  copyId,
  group: aGroup(),
  handIn: { handedInAt: at, lateMinutes: 160, deduction: '2', by: 'Noor' },
  mark: { state: 'unmarked', groupMark: null },
  needsYou: true,
  ...more,
});
const carboy = aRow({ copyId: id('carboy'), group: aGroup('Carboy', 2), handIn: null, needsYou: false });
const desk = (mark: MarkView, rows = [aRow(), carboy], more = {}, role: 'instructor' | 'observer' = 'instructor') =>
  showPage(
    inCourse(`marks/${releaseId}/${copyId}`),
    {
      [`GET courses/${courseId}/desk`]: { activities: [{ activityId: id('report'), releaseId, title: 'Ferment report', points: '40', toMark: 1, groups: 2 }] },
      [`GET releases/${releaseId}/desk`]: { releaseId, title: 'Ferment report', points: '40', due: at, rows },
      [`GET ${markPath}`]: mark,
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

  it('shows the sum while the mark is typed, and saves it as it is typed', async () => {
    const { user, writes } = desk(aMark(), undefined, { [`PUT ${markPath}`]: aMark({ version: 1, groupMark: '31.5' }) });
    await user.type(await screen.findByLabelText('Group mark'), '31,5');
    const members = screen.getByRole('region', { name: 'Members and their marks' });
    expect(within(members).getAllByText('29.5')).toHaveLength(2);
    await waitFor(() => expect(writes().length).toBeGreaterThan(0), { timeout: 3000 });
    expect(writes().at(-1)).toEqual({ method: 'PUT', path: markPath, body: { groupMark: '31.5', feedback: '', adjustments: [], version: 0 } });
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
    expect(writes().every((write) => (write.body as { groupMark: string }).groupMark !== '41')).toBe(true);
  });

  it('cannot release what has no mark, and says so', async () => {
    desk(aMark());
    expect(await screen.findByRole('button', { name: 'Release to 2 students' })).toBeDisabled();
    expect(screen.getByText('Give the group a mark first')).toBeInTheDocument();
  });

  it('releases what is saved and offers to take it back', async () => {
    const drafted = aMark({ state: 'drafted', groupMark: '31.5', version: 2 });
    const { user, writes } = desk(drafted, undefined, {
      [`POST ${markPath}/release`]: { ...drafted, state: 'released', releasedAt: at },
      [`POST ${markPath}/recall`]: drafted,
    });
    await user.click(await screen.findByRole('button', { name: 'Release to 2 students' }));
    await user.click(await screen.findByRole('button', { name: 'Take it back' }));
    await waitFor(() => expect(writes().map((write) => write.path)).toEqual([`${markPath}/release`, `${markPath}/recall`]));
    expect(writes()[0]!.body).toEqual({ version: 2 });
  });

  it('names the missing reason in the server’s words', async () => {
    const drafted = aMark({ state: 'drafted', groupMark: '31.5', version: 2 });
    const { user } = desk(drafted, undefined, { [`POST ${markPath}/release`]: new Refusal(422, 'invalid-input', "Say why Jorge's mark differs.") });
    await user.click(await screen.findByRole('button', { name: 'Release to 2 students' }));
    expect(await screen.findByRole('alert')).toHaveTextContent("Say why Jorge's mark differs.");
  });

  it('shows both marks when two people marked at once, and lets one choose', async () => {
    const theirs = aMark({ state: 'drafted', groupMark: '20', version: 1 });
    const { user, set } = desk(aMark(), undefined, {
      [`PUT ${markPath}`]: new Refusal(409, 'stale-write', 'Someone else marked this group meanwhile.', { current: theirs }),
    });
    await user.type(await screen.findByLabelText('Group mark'), '31');
    const strip = await screen.findByText(/they gave 20, you 31/, {}, { timeout: 4000 });
    set(`GET ${markPath}`, theirs);
    await user.click(within(strip.closest<HTMLElement>('[role=alert]')!).getByRole('button', { name: 'Take theirs' }));
    await waitFor(() => expect(screen.getByLabelText('Group mark')).toHaveValue('20'));
  });

  it('warns of new work since the mark, and of marking before it is due', async () => {
    desk(aMark({ state: 'drafted', groupMark: '30', version: 1, isStale: true, beforeDue: true }));
    expect(await screen.findByText(/New work came in after this mark/)).toBeInTheDocument();
    expect(screen.getByText(/not due yet/)).toBeInTheDocument();
  });

  it('says that students see the earlier mark while a later one is a draft', async () => {
    desk(aMark({ state: 'drafted', groupMark: '35', version: 4, releasedAt: at }));
    expect(await screen.findByText(/students see the earlier mark/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Take back from 2 students' })).toBeInTheDocument();
  });

  it('shows the history, and what a group that has not handed in has so far', async () => {
    desk(aMark({ copy: aCopy({ mayHandIn: false }), history: [{ at, by: 'Tomas Vey', what: 'Group mark none → 30' }] }));
    expect(await screen.findByText('Crock has not handed in')).toBeInTheDocument();
    expect(screen.getByText(/Tomas Vey: Group mark none → 30/)).toBeInTheDocument();
  });

  it('lets observers look and not mark', async () => {
    desk(aMark(), undefined, {}, 'observer');
    expect(await screen.findByLabelText('Group mark')).toBeDisabled();
    expect(screen.queryByRole('button', { name: /Release to/ })).not.toBeInTheDocument();
  });
});

describe('one’s own marks', () => {
  const mine = (answer: unknown) => showPage(inCourse('my-marks'), { [`GET courses/${courseId}/my-marks`]: answer }, 'student');

  it('show the group’s mark, one’s own, and how one became the other', async () => {
    mine({ marks: [aMyMark()], waiting: [] });
    const one = await screen.findByRole('region', { name: 'Ferment report' });
    for (const words of ['31.5 / 40', '−2', 'late 2 h 40 min', '+1.5', '31 / 40', 'Good reading.']) expect(one).toHaveTextContent(words);
    expect(within(one).getByText('+1.5 for you: Ill for a week')).toBeInTheDocument();
    expect(within(one).getByText('2 points less, because it was late.')).toBeInTheDocument();
    expect(screen.getByText('new')).toBeInTheDocument();
  });

  it('tell an excused student so, without a sum that would not be theirs', async () => {
    mine({ marks: [aMyMark({ mark: null, steps: [{ code: 'excused', reason: 'In hospital' }] })], waiting: [] });
    expect(await screen.findByText('Excused: In hospital')).toBeInTheDocument();
    expect(screen.getByRole('region', { name: 'Ferment report' })).toHaveTextContent('Excused');
    expect(screen.queryByText(/for you/)).not.toBeInTheDocument();
  });

  it('change from one to another', async () => {
    const { user } = mine({
      marks: [aMyMark(), aMyMark({ copyId: id('salt'), title: 'Salt trial', mark: '16', isNew: false })],
      waiting: [{ title: 'Problem sheet', points: '30' }],
    });
    await user.click(await screen.findByRole('button', { name: /Salt trial/ }));
    expect(screen.getByRole('region', { name: 'Salt trial' })).toBeInTheDocument();
    expect(screen.getByText('Problem sheet: handed in, being marked')).toBeInTheDocument();
  });

  it('say what is being marked while there are none', async () => {
    mine({ marks: [], waiting: [{ title: 'Ferment report', points: '40' }] });
    expect(await screen.findByText(/Being marked: Ferment report/)).toBeInTheDocument();
  });
});

describe('the gradebook', () => {
  const cell = (state: string, mark: string | null = null, isLate = false) => ({ state, mark, copyId: state === 'not-theirs' ? null : copyId, isLate });
  const aStudent = (name: string, cells: object[], group: string | null = 'Crock') => ({
    enrolmentId: id(name),
    name,
    familyName: null,
    reading: null,
    number: null,
    groups: group ? [{ setId: id('benches'), groupId: id(group), number: 1, name: group }] : [],
    cells,
  });
  const activities = [{ activityId: id('report'), releaseId, setId: id('benches'), title: 'Ferment report', points: '40', due: at }];
  const open = (students: object[]) => showPage(inCourse('marks/gradebook'), { [`GET courses/${courseId}/gradebook`]: { activities, students } });

  it('counts what is released, offers it as CSV, and filters by group', async () => {
    const { user } = open([
      aStudent('Noor', [cell('released', '31')]),
      aStudent('Amina', [cell('drafted', '20')], 'Carboy'),
      aStudent('Nino', [cell('not-theirs')], null),
    ]);
    expect(await screen.findByText('1 marks released')).toBeInTheDocument();
    expect(screen.getByText('3 students')).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Released marks as CSV' })).toHaveAttribute('href', `/api/courses/${courseId}/gradebook.csv`);
    await user.click(screen.getByRole('button', { name: /Show/ }));
    await user.click(await screen.findByRole('option', { name: 'Carboy' }));
    expect(await screen.findByText('1 students')).toBeInTheDocument();
  });

  it('says how it fills when nothing is released', async () => {
    showPage(inCourse('marks/gradebook'), { [`GET courses/${courseId}/gradebook`]: { activities: [], students: [] } });
    expect(await screen.findByRole('heading', { name: 'Nothing to mark yet' })).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Gradebook' })).toHaveAttribute('aria-current', 'page');
  });
});
