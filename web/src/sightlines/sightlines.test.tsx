import { describe, expect, it } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import { courseId, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';
import { columnsBy, columnsOf } from './columns.js';
import { csvOf, tableOf } from './csv.js';
import { everyLine, linesOf } from './lines.js';
import { otherwiseOf } from './otherwise.js';
import { sightWork, unpacker } from './sightWork.js';
import { sayCell, shortLater } from './words.js';

const [benches, panels, crock, tun, sour] = [id<'group-set'>('benches'), id<'group-set'>('panels'), id<'group'>('crock'), id<'group'>('tun'), id<'group'>('sour')]; // prettier-ignore
const at = '2026-11-01T10:00:00.000Z';
const person = (name: string, more: Partial<SightlinesView['people'][number]> = {}): SightlinesView['people'][number] => ({ enrolmentId: id<'enrolment'>(name), name, reading: null, role: 'student', leftAt: null, leads: [], seesOnlyLed: false, ...more }); // prettier-ignore
const seat = (name: string, groupId: typeof crock, until: string | null = null) => ({ enrolmentId: id<'enrolment'>(name), groupId, setId: groupId === sour ? panels : benches, from: '2026-10-01T10:00:00.000Z', until }); // prettier-ignore
type Released = NonNullable<SightlinesView['activities'][number]['release']>;
const activity = (title: string, release: Partial<Released> | null, due: string | null = null): SightlinesView['activities'][number] => ({
  activityId: id<'activity'>(title),
  title,
  kind: 'assignment',
  schedule: { opens: null, due, closes: null },
  release: release && {
    state: 'live',
    at,
    mode: 'own',
    outsiders: 'hidden',
    audience: { include: [{ kind: 'set', setId: benches }], exclude: [] },
    ownTime: [],
    copies: [crock, tun].map((groupId) => ({ copyId: id<'copy'>(`${title} ${groupId}`), groupId, setId: benches, extension: null })),
    ...release,
  },
}); // prettier-ignore
const view: SightlinesView = {
  courseId,
  people: [
    person('Noor'),
    person('Jorge'),
    person('Amina'),
    person('Nino'),
    person('Ilse', { role: 'instructor' }),
  ],
  seats: [seat('Noor', crock), seat('Jorge', tun), seat('Amina', crock, '2026-11-05T10:00:00.000Z'), { ...seat('Amina', tun), from: '2026-11-05T10:00:00.000Z' }, seat('Noor', sour)], // prettier-ignore
  sets: [
    { setId: panels, name: 'Panels', groups: [{ groupId: sour, number: 1, name: 'Sour' }] },
    { setId: benches, name: 'Benches', groups: [{ groupId: crock, number: 1, name: 'Crock' }, { groupId: tun, number: 2, name: 'Tun' }] }, // prettier-ignore
  ],
  activities: [
    activity('Report', { copies: [{ copyId: id('a'), groupId: crock, setId: benches, extension: null }, { copyId: id('b'), groupId: tun, setId: benches, extension: { due: '2026-11-14T17:00:00.000Z', closes: null } }] }, '2026-11-12T17:00:00.000Z'), // prettier-ignore
    activity('Notice', { mode: 'common', audience: { include: [{ kind: 'class' }], exclude: [] }, copies: [{ copyId: id('c'), groupId: null, setId: null, extension: null }] }), // prettier-ignore
    activity('Later', { state: 'scheduled', at: '2099-11-13T08:00:00.000Z' }),
    activity('Draft', null),
  ],
  audiences: [{ audienceId: id('dairy'), name: 'Dairy people', people: [id('Noor'), id('Nino')] }],
  serverTime: '2026-11-10T10:00:00.000Z',
};
const show = (more: Partial<SightlinesView> = {}) =>
  showPage(inCourse('release/sightlines'), { [`GET courses/${courseId}/sightlines`]: { ...view, ...more } });
const workOn = (of: SightlinesView) => {
  const work = sightWork();
  work.load(of);
  return work;
};
const grid = async () => within(await screen.findByRole('grid', { name: 'Who sees what' }));

const dates = {
  dateTime: () => 'Fri',
  day: () => '',
  time: () => '',
  fromNow: () => '',
  isPast: () => false,
};

describe('the sightlines', () => {
  it('say of each group what it sees, in words, of the set that has most, and of those in no group', async () => {
    show();
    const cells = (await grid()).getAllByRole('gridcell').map((cell) => cell.getAttribute('aria-label'));
    expect(cells).toEqual([
      'Crock, Notice: one copy for all',
      'Tun, Notice: one copy for all',
      'No group, Notice: one copy for all',
      'Crock, Report: own copy',
      'Tun, Report: own copy, due 2 days later',
      'No group, Report: not listed',
      'Crock, Later: own copy, from Fri 13 Nov, 08:00',
      'Tun, Later: own copy, from Fri 13 Nov, 08:00',
      'No group, Later: not listed',
      'Crock, Draft: not listed',
      'Tun, Draft: not listed',
      'No group, Draft: not listed',
    ]);
    expect((await grid()).getByText('One copy for 4 students')).toBeInTheDocument();
    expect((await grid()).getByText('Live · 2')).toBeInTheDocument();
  });

  it('tell why, person by person, with who moved away, and go from cell to cell by keys', async () => {
    const { user } = show();
    const sheet = await grid();
    act(() => sheet.getByRole('gridcell', { name: 'Crock, Report: own copy' }).focus());
    await user.keyboard('{Enter}');
    const panel = within(screen.getByRole('complementary', { name: 'What Crock sees' }));
    expect(panel.getByRole('list', { name: 'Why' })).toHaveTextContent('It was released to Benches.');
    const members = within(panel.getByRole('list', { name: 'Members' })).getAllByRole('listitem');
    expect(members.map((each) => each.textContent)).toEqual([
      'Noor Sit inCan read and work in it.',
      expect.stringMatching(/^Amina left the groupWas in it until Thu 5 Nov, 10:00, and is in Tun now\. .*Sees nothing of it\.$/), // prettier-ignore
    ]);
    expect(within(panel.getByRole('list', { name: 'Staff' })).getByText(/Instructors see everything/)).toBeInTheDocument(); // prettier-ignore
    expect(panel.getByRole('link', { name: 'Look into the copy' })).toHaveAttribute('href', `/c/${courseId}/copies/${id('a')}`); // prettier-ignore
    await user.click(panel.getByRole('button', { name: 'Close' }));
    await user.click(sheet.getByRole('gridcell', { name: /^No group, Report/ }));
    expect(screen.getByRole('complementary', { name: 'What students in no group see' })).toHaveTextContent('Is in none of the groups'); // prettier-ignore
  });

  it('show another moment, change by change, and the way back to now', async () => {
    const { user } = show();
    await grid();
    await user.click(screen.getByRole('button', { name: 'The change before' }));
    expect(screen.getByText('Thu 5 Nov, 10:00')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'The change before' }));
    expect(screen.getByText('Sun 1 Nov, 10:00')).toBeInTheDocument();
    await user.click((await grid()).getByRole('gridcell', { name: 'Crock, Report: own copy' }));
    const members = within(screen.getByRole('list', { name: 'Members' }));
    expect(members.getAllByRole('listitem').map((each) => each.textContent)).toEqual(['Noor Can read and work in it.', 'Amina Can read and work in it.']); // prettier-ignore
    expect(screen.getByText('Groups as they were then, dates as they are now.')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Back to now' }));
    expect(screen.getByText('Now')).toBeInTheDocument();
  });

  it('narrow to what differs, and show another set', async () => {
    const { user } = show();
    const sheet = await grid();
    await user.click(screen.getByRole('checkbox', { name: 'Only what differs' }));
    expect(sheet.queryByRole('gridcell', { name: /Draft/ })).not.toBeInTheDocument();
    expect(sheet.getByRole('gridcell', { name: /^Tun, Report/ })).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: /Columns/ }));
    await user.click(screen.getByRole('option', { name: 'Panels' }));
    expect((await grid()).getByRole('gridcell', { name: 'Sour, Report: copies in their groups of another set' })).toBeInTheDocument(); // prettier-ignore
  });

  it('are of students one by one, found by name, or of saved audiences', async () => {
    const { user } = show();
    await grid();
    await user.click(screen.getByRole('button', { name: /Columns/ }));
    await user.click(screen.getByRole('option', { name: 'Students one by one' }));
    const report = async () => (await grid()).getAllByRole('gridcell', { name: /Report/ }).map((cell) => cell.getAttribute('aria-label')); // prettier-ignore
    await waitFor(async () => expect(await report()).toEqual(['Amina, Report: own copy, due 2 days later', 'Jorge, Report: own copy, due 2 days later', 'Nino, Report: not listed', 'Noor, Report: own copy'])); // prettier-ignore
    await user.type(screen.getByRole('searchbox', { name: 'Find a student' }), 'NO');
    expect(await report()).toEqual(['Nino, Report: not listed', 'Noor, Report: own copy']);
    await user.click((await grid()).getByRole('gridcell', { name: 'Nino, Report: not listed' }));
    expect(await within(screen.getByRole('complementary', { name: 'What Nino sees' })).findByText(/Is in none of the groups/)).toBeInTheDocument(); // prettier-ignore
    await user.type(screen.getByRole('searchbox', { name: 'Find a student' }), 'x');
    expect(screen.getByRole('heading', { name: 'No one here is called “NOx”' })).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: /Columns/ }));
    await user.click(screen.getByRole('option', { name: 'Saved audiences' }));
    expect(await screen.findByRole('gridcell', { name: 'Dairy people, Report: own copy, 1 of 2 see it' })).toBeInTheDocument(); // prettier-ignore
  });

  it('narrow by kind, state and who it goes to, and say how many are left', async () => {
    const { user } = show();
    await grid();
    await user.click(screen.getByRole('button', { name: /State/ }));
    await user.click(screen.getByRole('option', { name: 'Draft' }));
    expect(screen.getAllByRole('status').map((each) => each.textContent)).toContain('1 of 4');
    expect((await grid()).getAllByRole('gridcell')).toHaveLength(3);
    await user.click(screen.getByRole('button', { name: 'Show all' }));
    expect((await grid()).getAllByRole('gridcell')).toHaveLength(12);
  });

  it('mark what is to be checked, and narrow to it', async () => {
    const found = { code: 'reaches-no-one', activityId: id('Report'), audienceId: null };
    const checks = { checks: [{ id: '0'.repeat(32), found, dismissed: null }], activities: [{ activityId: id('Report'), title: 'Report', kind: 'assignment' }], groups: [], sets: [], people: [], audiences: [] }; // prettier-ignore
    const { user } = showPage(inCourse('release/sightlines'), { [`GET courses/${courseId}/sightlines`]: view, [`GET courses/${courseId}/checks`]: checks }); // prettier-ignore
    const sheet = await grid();
    expect(await sheet.findAllByRole('img', { name: /^To check/ })).toHaveLength(1);
    expect(sheet.getByRole('img', { name: 'To check: “Report” reaches no one' })).toBeInTheDocument();
    await user.click(screen.getByRole('checkbox', { name: 'Only what is to check' }));
    expect((await grid()).getAllByRole('gridcell')).toHaveLength(3);
    expect((await grid()).getByRole('gridcell', { name: 'Crock, Report: own copy' })).toBeInTheDocument();
  });

  it('ring the cells that something is to be checked in, as long as it is now', async () => {
    const found = { code: 'due-before-open', activityId: id('Report'), who: { groupId: crock }, due: at, opens: '2026-11-02T10:00:00.000Z' }; // prettier-ignore
    const checks = { checks: [{ id: '0'.repeat(32), found, dismissed: null }], activities: [{ activityId: id('Report'), title: 'Report', kind: 'assignment' }], groups: [{ groupId: crock, setId: benches, number: 1, name: 'Crock' }], sets: [], people: [], audiences: [] }; // prettier-ignore
    const { user } = showPage(inCourse('release/sightlines'), { [`GET courses/${courseId}/sightlines`]: view, [`GET courses/${courseId}/checks`]: checks }); // prettier-ignore
    const name = /^Crock, Report: own copy\. To check: /;
    const cell = await (await grid()).findByRole('gridcell', { name });
    expect(cell).toHaveAttribute('data-ringed');
    expect((await grid()).getAllByRole('gridcell', { name: /To check/ })).toEqual([cell]);
    await user.click(cell);
    expect(await screen.findByRole('complementary')).toHaveTextContent(
      /due for Crock before it opens\. See what to do/,
    );
    act(() => screen.getByRole('slider').focus());
    await user.keyboard('{Home}');
    expect((await grid()).queryByRole('gridcell', { name: /To check/ })).toBeNull();
  });

  it('go to a file as they are shown, and no cell of it is a formula', () => {
    const columns = columnsOf(view, columnsBy(view, benches));
    const cells = unpacker()(workOn(view).cells(columns.map(({ of }) => of), Date.parse(view.serverTime))); // prettier-ignore
    const named = { ...view, activities: view.activities.map((each) => ({ ...each, title: `=${each.title}` })) }; // prettier-ignore
    const table = tableOf(linesOf(named, cells, Date.parse(view.serverTime), everyLine), columns, dates);
    expect(table[0]).toEqual(['Activity', 'Kind', 'State', 'Crock', 'Tun', 'No group']);
    expect(table[2]).toEqual(['=Report', 'Assignment', 'Live', 'own copy', 'own copy, due 2 days later', 'not listed']); // prettier-ignore
    expect(csvOf(table)).toContain("\r\n'=Report,Assignment,Live,own copy,\"own copy, due 2 days later\",not listed\r\n"); // prettier-ignore
  });

  it('are the very same cells where nothing changed, so that they are not drawn again', () => {
    const [work, unpack] = [workOn(view), unpacker()];
    const of = columnsOf(view, columnsBy(view, benches)).map((column) => column.of);
    const [before, after] = [Date.parse('2026-11-10T10:00:00Z'), Date.parse('2026-11-12T10:00:00Z')].map((moment) => unpack(work.cells(of, moment))); // prettier-ignore
    expect(before?.flat()).toHaveLength(12);
    for (const [at, cell] of (before ?? []).flat().entries()) expect((after ?? []).flat()[at]).toBe(cell);
  });

  it('say what to do where there are no groups, and nothing that is written', async () => {
    const { unmount } = show({ sets: [] });
    expect(await screen.findByRole('heading', { name: 'There are no groups yet' })).toBeInTheDocument();
    unmount();
    show({ activities: [] });
    expect(await screen.findByRole('heading', { name: 'Nothing is written yet' })).toBeInTheDocument();
  });
});

describe('the words of a cell', () => {
  const cell = { code: 'own', from: null, members: 4, see: 4, laterMs: null, isClosed: false } as const;
  it('say who of a group sees it, how much longer they have, and what is closed', () => {
    expect(sayCell({ ...cell, see: 3 }, dates)).toBe('own copy, 3 of 4 see it');
    expect(sayCell({ ...cell, isClosed: true, laterMs: 5 * 3_600_000 }, dates)).toBe('own copy, closed, read only, due 5 hours later'); // prettier-ignore
    expect(sayCell({ ...cell, members: 0, see: 0 }, dates)).toBe('own copy, no one is in this group');
    expect([2 * 86_400_000, -3 * 3_600_000, 60_000].map(shortLater)).toEqual(['+2d', '−3h', '+1h']);
  });
});

describe('a release with one group or student more, or without them', () => {
  const whole = { to: { include: [{ kind: 'set' as const, setId: benches }], exclude: [] }, mode: 'own' as const, outsiders: 'hidden' as const }; // prettier-ignore
  const group = (groupId: typeof crock) => ({ kind: 'group', groupId, setId: groupId === sour ? panels : benches }) as const; // prettier-ignore
  const of = (name: string) => ({ kind: 'person', enrolmentId: id<'enrolment'>(name) }) as const;
  it('leaves a group out of a set, and takes it in again as the whole', () => {
    const { isIn, target } = otherwiseOf(view, whole, group(crock));
    expect([isIn, target?.to.include]).toEqual([true, [group(tun)]]);
    const back = otherwiseOf(view, { ...whole, to: { include: [group(tun)], exclude: [] } }, group(crock));
    expect([back.isIn, back.target?.to.include]).toEqual([false, whole.to.include]);
    expect(otherwiseOf(view, whole, group(sour)).target?.to.include).toEqual([...whole.to.include, { kind: 'set', setId: panels }]); // prettier-ignore
  });

  it('is not made for the last group, for what all have, or for what another list decides', () => {
    expect(otherwiseOf(view, { ...whole, to: { include: [group(sour)], exclude: [] } }, group(sour))).toEqual({ isIn: true, target: null }); // prettier-ignore
    const toAll = { ...whole, mode: 'common' as const, to: { include: [{ kind: 'class' as const }], exclude: [] } }; // prettier-ignore
    expect(otherwiseOf(view, toAll, group(crock))).toEqual({ isIn: true, target: null });
    const saved = { kind: 'audience' as const, audienceId: id<'audience'>('dairy') };
    const entry = { ...saved, name: 'Dairy', people: [], groups: [{ groupId: crock, setId: benches }] };
    const bySaved = { ...view, activities: [activity('Report', { audience: { include: [entry], exclude: [] } })] }; // prettier-ignore
    expect(otherwiseOf(bySaved, { ...whole, to: { include: [saved], exclude: [] } }, group(crock))).toEqual({ isIn: true, target: null }); // prettier-ignore
  });

  it('leaves a student out by name, and lets them in again', () => {
    const out = otherwiseOf(view, whole, of('Noor'));
    expect([out.isIn, out.target?.to.exclude]).toEqual([true, [id('Noor')]]);
    const back = otherwiseOf(view, { ...whole, to: { ...whole.to, exclude: [id('Noor')] } }, of('Noor'));
    expect([back.isIn, back.target?.to]).toEqual([false, whole.to]);
    expect(otherwiseOf(view, whole, of('Nino')).target).toBeNull(); // no copy would be theirs
    const common = { ...whole, mode: 'common' as const };
    expect(otherwiseOf(view, common, of('Nino')).target?.to.include).toContainEqual(of('Nino'));
  });
});
