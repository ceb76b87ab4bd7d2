import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { CheckFound, CheckList } from '@jigsaw/contract/checks';
import { composer } from '../test/composer.js';
import { courseId, id } from '../test/data.js';
import { anActivity, aRelease } from '../test/releases.js';
import { inCourse, showPage } from '../test/showPage.js';

const [benches, crock, tun] = [id<'group-set'>('benches'), id<'group'>('crock'), id<'group'>('tun')];
const crockAlone = { include: [{ kind: 'group' as const, setId: benches, groupId: crock }], exclude: [] };
const report = anActivity({ id: id('report'), title: 'Report', release: aRelease({ to: crockAlone }) });
const talk = anActivity({ id: id('talk'), title: 'Talk' });
const of = { activityId: report.id };
const due = '2026-11-12T17:00:00.000Z';
const every: readonly CheckFound[] = [
  { code: 'reaches-no-one', ...of, audienceId: null },
  { code: 'reaches-no-one', ...of, audienceId: id('dairy') },
  { code: 'groups-left-out', ...of, setId: benches, groupIds: [tun] },
  { code: 'unplaced', setId: benches, students: { count: 1, named: [id('noor')] }, activityIds: [report.id, talk.id] },
  { code: 'live-too-late', ...of, goesLiveAt: '2026-11-13T08:00:00.000Z', over: 'due', at: due },
  { code: 'due-before-open', ...of, who: { groupId: crock }, due, opens: '2026-11-13T08:00:00.000Z' },
  { code: 'due-together', activityIds: [report.id, talk.id], due: [due, '2026-11-12T17:30:00.000Z'], students: { count: 4, named: [] }, inGroups: [crock] },
  { code: 'leads-none', enrolmentId: id('noor') },
  { code: 'rubric-points', ...of, sum: '22.5', points: '20' },
  { code: 'rubric-points', ...of, sum: '22.5', points: null },
  { code: 'typed-placeholder', ...of, words: ['{group name}'] },
  { code: 'line-for-no-one', ...of, groupIds: [tun] },
  { code: 'cannot-be-done', ...of, why: 'There is no one to reply to.', groupIds: [crock, tun] },
]; // prettier-ignore
const idOf = (at: number) => at.toString(16).padStart(32, '0');
const list = (found: readonly CheckFound[], dismissed: CheckList['checks'][number]['dismissed'] = null): CheckList => ({
  checks: found.map((each, at) => ({ id: idOf(at), found: each, dismissed })),
  activities: [report, talk].map(({ id: activityId, title, kind }) => ({ activityId, title, kind })),
  groups: [{ groupId: crock, setId: benches, number: 1, name: 'Crock' }, { groupId: tun, setId: benches, number: 2, name: 'Tun' }],
  sets: [{ setId: benches, name: 'Benches' }],
  people: [{ enrolmentId: id('noor'), name: 'Noor' }],
  audiences: [{ audienceId: id('dairy'), name: 'Dairy people' }],
}); // prettier-ignore
const show = (answers: object) =>
  showPage(inCourse('release/checks'), { [`GET courses/${courseId}/activities`]: { activities: [report, talk] }, ...answers }); // prettier-ignore
const at = `GET courses/${courseId}/checks`;

describe('what is to be checked', () => {
  it('is said in words, with what follows from it and where or how it is mended', async () => {
    show({ [at]: list(every) });
    const lines = within(await screen.findByRole('list', { name: 'To check' })).getAllByRole('listitem');
    const said = lines.map((line) => [...line.querySelectorAll('b, p, a, .acts > button:not(:last-child)')].map((each) => each.textContent)); // prettier-ignore
    expect(said).toEqual([
      ['“Report” reaches no one', 'No student is in the groups that it goes to.', 'Edit who gets it'],
      ['“Report” reaches no one', 'No student is in Dairy people now.', 'Edit Dairy people'],
      ['“Report” leaves out Tun', 'The other groups of Benches have it.', 'Release to Tun too'],
      ['Noor is in no group of Benches', 'This student sees nothing of “Report” and “Talk”.', 'Place 1 student'],
      ['“Report” goes live after it is due', 'It goes live on Fri 13 Nov, 08:00, and is due on Thu 12 Nov, 17:00.', 'Edit the dates'],
      ['“Report” is due for Crock before it opens', 'It is due on Thu 12 Nov, 17:00, and opens on Fri 13 Nov, 08:00.', 'Remove extension of Crock'],
      ['“Report” and “Talk” are due within an hour', 'On Thu 12 Nov, 17:00 and Thu 12 Nov, 17:30, for 4 students.', 'Move “Talk” a day later'],
      ['Noor leads no group', 'Assistants see only the groups that they lead here, so that they see no group’s work.', 'Choose the groups they lead'],
      ['The rubric of “Report” adds up to 22.5, the activity has 20 points', 'Marks are scaled to the points of the activity. Students see both numbers.', 'Edit points or rubric'],
      ['“Report” has a rubric and no points', 'Without points it cannot be marked.', 'Give it points'],
      ['“Report” says “{group name}” to everyone', 'It is typed, so that every group reads it as it stands. Insert the placeholder instead.', 'Edit the text'],
      ['A line of “Report” is read by no group', 'It is for Tun, and “Report” does not go there.', 'Edit the text'],
      ['“Report” cannot be completed by Crock and Tun', 'There is no one to reply to.', 'Edit the requirement'],
    ]); // prettier-ignore
  });

  it('is mended by one act, with the way back', async () => {
    const { user, asked } = show({
      [at]: list(every.filter(({ code }) => code === 'groups-left-out')),
      [`PUT activities/${report.id}/reach`]: (body: { to: object }) => ({ ...report, release: { ...report.release, to: body.to } }), // prettier-ignore
    });
    await user.click(await screen.findByRole('button', { name: 'Release to Tun too' }));
    const reaches = () => asked.filter(({ method }) => method === 'PUT').map(({ body }) => (body as { to: { include: object[] } }).to.include.length); // prettier-ignore
    expect(await screen.findByText('“Report” now reaches Tun too')).toBeInTheDocument();
    expect(reaches()).toEqual([2]);
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    expect(await screen.findByText('As it was before')).toBeInTheDocument();
    expect(reaches()).toEqual([2, 1]);
  });

  it('is dismissed with a reason, and is folded away until it is checked again', async () => {
    let current = list(every.slice(0, 1));
    const { user, asked } = show({
      [at]: () => current,
      [`POST courses/${courseId}/checks/dismissals`]: ({ reason }: { reason: string }) => (current = list(every.slice(0, 1), { reason, by: 'Ilse', at: due })), // prettier-ignore
      [`DELETE courses/${courseId}/checks/dismissals/${idOf(0)}`]: () => (current = list(every.slice(0, 1))),
    });
    await user.click(await screen.findByRole('button', { name: 'Dismiss: “Report” reaches no one' }));
    const sheet = within(screen.getByRole('dialog', { name: 'Keep it as it is' }));
    expect(sheet.getByRole('button', { name: 'Dismiss' })).toBeDisabled();
    await user.type(sheet.getByRole('textbox'), 'They join next week');
    await user.click(sheet.getByRole('button', { name: 'Dismiss' }));
    expect(await screen.findByRole('heading', { name: 'Nothing to check' })).toBeInTheDocument();
    expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({ id: idOf(0), reason: 'They join next week' }); // prettier-ignore
    await user.click(screen.getByRole('button', { name: '1 dismissed' }));
    expect(screen.getByText(/Dismissed by Ilse/)).toHaveTextContent('They join next week');
    await user.click(screen.getByRole('button', { name: 'Check again: “Report” reaches no one' }));
    expect(await screen.findByRole('list', { name: 'To check' })).toBeInTheDocument();
  });

  it('is counted on the release page', async () => {
    showPage(inCourse('release'), { [`GET courses/${courseId}/activities`]: { activities: [report] }, [at]: list(every.slice(0, 2)) }); // prettier-ignore
    expect(await screen.findByRole('link', { name: '2 to check' })).toHaveAttribute('href', `/c/${courseId}/release/checks`); // prettier-ignore
  });
});

it('stands in the composer, too, as far as it is about what is open there', async () => {
  const open = anActivity({ release: aRelease() });
  const about = { activityId: open.id };
  const elsewhere = { activityId: id<'activity'>('other') };
  const found = [
    { code: 'groups-left-out', ...about, setId: benches, groupIds: [tun] },
    { code: 'typed-placeholder', ...about, words: ['{group name}'] },
    { code: 'typed-placeholder', ...elsewhere, words: ['{her name}'] },
  ] as const satisfies readonly unknown[];
  const { user, set } = composer(open, { [at]: list(found as unknown as CheckFound[]), [`GET courses/${courseId}/activities`]: { activities: [open] } }); // prettier-ignore
  const lines = await screen.findByRole('list', { name: 'To check here' });
  expect(within(lines).getAllByRole('listitem')).toHaveLength(2);
  expect(await within(lines).findByRole('button', { name: 'Release to Tun too' })).toBeInTheDocument();
  expect(within(lines).queryByRole('link')).toBeNull(); // what is mended in the text is mended below
  set(`POST courses/${courseId}/checks/dismissals`, list([]));
  set(at, list([]));
  await user.click(within(lines).getAllByRole('button', { name: /^Dismiss/ })[0] as HTMLElement);
  await user.type(await screen.findByRole('textbox'), 'Meant so');
  await user.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'Dismiss' }));
  await waitFor(() => expect(screen.queryByRole('list', { name: 'To check here' })).toBeNull());
});
