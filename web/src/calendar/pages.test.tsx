import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { activityId, composer } from '../test/composer.js';
import { aHead, anActivity, aRoomItem, aRoom, at, courseId, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';

const undated = { opens: null, due: null, closes: null };
const times = { starts: '2099-11-12T10:00:00.000Z', ends: '2099-11-12T12:00:00.000Z', place: 'Lab 2', isCancelled: false }; // prettier-ignore
const event = (settings: object) =>
  showPage(
    inCourse(`copies/${id('copy')}`),
    { [`GET copies/${id('copy')}`]: aHead({ kind: 'event', title: 'Tasting day', points: null, schedule: undated, settings: settings as never }) }, // prettier-ignore
    'student',
  );

describe('an event', () => {
  it('tells when and where it is, in the zone of the course, and gives its file', async () => {
    event(times);
    const card = within(await screen.findByRole('region', { name: 'When and where' }));
    expect(card.getByRole('heading')).toHaveTextContent('Thu 12 Nov, 10:00–12:00');
    expect(card.getByText('Lab 2')).toBeInTheDocument();
    expect(card.getByText(/^Starts in/)).toBeInTheDocument();
    expect(card.getByRole('link', { name: 'Add to calendar' })).toHaveAttribute('href', `/api/copies/${id('copy')}/event.ics`); // prettier-ignore
    expect(screen.queryByText('No due date')).not.toBeInTheDocument();
  });

  it('tells both days where it goes over midnight, and that it is cancelled', async () => {
    event({ ...times, ends: '2099-11-13T01:00:00.000Z', isCancelled: true });
    expect(await screen.findByText('Thu 12 Nov, 10:00 to Fri 13 Nov, 01:00')).toBeInTheDocument();
    expect(screen.getByText('Cancelled')).toBeInTheDocument();
  });

  it('links to a place only where it is the address of a page', async () => {
    const { unmount } = event({ ...times, place: 'https://meet.quillmere.example/crock' });
    expect(
      await screen.findByRole('link', { name: 'https://meet.quillmere.example/crock' }),
    ).toBeInTheDocument();
    unmount();
    event({ ...times, place: 'javascript:alert(1)' });
    expect(await screen.findByText('javascript:alert(1)')).toBeInTheDocument();
    expect(screen.queryByRole('link', { name: 'javascript:alert(1)' })).not.toBeInTheDocument();
  });

  it('stands among what comes up until it is over, and in its room with its time', async () => {
    const soon = aRoomItem({
      title: 'Tasting day',
      kind: 'event',
      due: null,
      happens: times,
      progress: { owes: false },
    });
    const over = aRoomItem({ copyId: id('over'), title: 'Welcome', kind: 'event', due: null, happens: { ...times, starts: '2020-01-01T10:00:00.000Z', ends: '2020-01-01T11:00:00.000Z' }, progress: { owes: false } }); // prettier-ignore
    const rooms = { [`GET courses/${courseId}/rooms`]: { rooms: [aRoom({ items: [soon, over] })], common: [], locked: [] }, [`GET courses/${courseId}/sign-ups`]: { signUps: [] } }; // prettier-ignore
    const { unmount } = showPage(inCourse('due'), rooms, 'student');
    expect(await screen.findByRole('heading', { name: 'Coming up' })).toBeInTheDocument();
    expect(
      screen.getByRole('link', { name: /Tasting day.*Thu 12 Nov, 10:00–12:00.*Lab 2/ }),
    ).toBeInTheDocument();
    expect(screen.queryByText('Welcome')).not.toBeInTheDocument();
    expect(screen.queryByText(/You have done everything/)).not.toBeInTheDocument();
    unmount();
    showPage(inCourse('room'), rooms, 'student');
    expect(await screen.findByText('Event · Thu 12 Nov, 10:00–12:00, Lab 2')).toBeInTheDocument();
  });

  it('is written with its times, an end that follows its start, and no points or due date', async () => {
    const activity = anActivity({ kind: 'event', points: null, schedule: undated, settings: { starts: null, ends: null, place: '', isCancelled: false } }); // prettier-ignore
    let now: object = activity;
    const { user, writes } = composer(activity, {
      [`GET activities/${activityId}`]: () => now,
      [`PUT activities/${activityId}`]: (body: object) =>
        (now = { ...activity, ...body, version: activity.version + 1 }),
    });
    expect(await screen.findByText('Choose when it starts.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /^Release/ })).toBeDisabled();
    expect(screen.queryByRole('heading', { name: 'Marking' })).not.toBeInTheDocument();
    expect(screen.queryByRole('group', { name: 'Due' })).not.toBeInTheDocument();
    const starts = within(await screen.findByRole('group', { name: 'Starts' }));
    for (const part of starts.getAllByRole('spinbutton')) {
      part.focus();
      await user.keyboard('{ArrowUp}');
    }
    await user.type(screen.getByRole('textbox', { name: 'Place' }), 'Lab 2');
    const kept = () =>
      writes().findLast(({ method }) => method === 'PUT')?.body as {
        settings: { starts: string; ends: string; place: string };
      };
    await waitFor(() => expect(kept()).toMatchObject({ schedule: undated, points: null, settings: { place: 'Lab 2' } })); // prettier-ignore
    expect(Date.parse(kept().settings.ends) - Date.parse(kept().settings.starts)).toBe(3_600_000);
    expect(screen.queryByText('Choose when it starts.')).not.toBeInTheDocument();
  });
});

describe('times of groups', () => {
  const [crock, tun] = [id('crock'), id('tun')];
  const reached = {
    groups: [
      { groupId: crock, setId: id('set'), number: 1, name: 'Crock', members: 4, isIn: true, copyId: null },
      { groupId: tun, setId: id('set'), number: 2, name: 'Tun', members: 4, isIn: true, copyId: null },
    ],
    students: 8,
    outside: [],
    several: [],
    named: [],
    leftOut: [],
  };
  const written = (own: object[] = []) => {
    const activity = anActivity({
      kind: 'event',
      points: null,
      schedule: undated,
      settings: { ...times, own },
    });
    let now: object = activity;
    const shown = composer(activity, {
      [`GET activities/${activityId}`]: () => now,
      [`PUT activities/${activityId}`]: (body: object) =>
        (now = { ...activity, ...body, version: activity.version + 1 }),
      [`POST activities/${activityId}/reach`]: reached,
    });
    const kept = () => (shown.writes().findLast(({ method }) => method === 'PUT')?.body as { settings: { own: object[] } }).settings.own; // prettier-ignore
    return { ...shown, kept };
  };

  it('are given one after another, shown before they are set, and all of it is taken back at once', async () => {
    const { user, kept } = written();
    await user.click(await screen.findByRole('button', { name: 'One group after another…' }));
    const sheet = within(await screen.findByRole('dialog', { name: 'One group after another' }));
    const rows = () => within(sheet.getByRole('list', { name: 'Times as they would be' })).getAllByRole('listitem').map((row) => row.textContent); // prettier-ignore
    expect(rows()).toEqual(['1CrockThu 12 Nov, 10:00–11:00', '2TunThu 12 Nov, 11:00–12:00']);
    expect(sheet.getByText('The last group is done Thu 12 Nov, 12:00.')).toBeInTheDocument();
    const each = sheet.getByRole('textbox', { name: 'Minutes for each group' });
    await user.clear(each);
    await user.type(each, '20{Enter}');
    const pause = sheet.getByRole('textbox', { name: 'Minutes between groups' });
    await user.clear(pause);
    await user.type(pause, '5{Enter}');
    expect(rows()[1]).toBe('2TunThu 12 Nov, 10:25–10:45');
    await user.click(sheet.getByRole('button', { name: 'Set 2 times' }));
    await waitFor(() => expect(kept()).toMatchObject([{ groupId: crock, starts: '2099-11-12T10:00:00.000Z' }, { groupId: tun, starts: '2099-11-12T10:25:00.000Z', ends: '2099-11-12T10:45:00.000Z' }])); // prettier-ignore
    expect(screen.getByRole('list', { name: 'At times of their own' })).toHaveTextContent('Tun, Thu 12 Nov, 10:25–10:45'); // prettier-ignore
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(kept()).toEqual([]));
  });

  it('are changed and removed for one group, and what its members will see follows', async () => {
    const { user, kept } = written([{ groupId: crock, starts: times.starts, ends: times.ends, place: 'Cellar', isCancelled: false }]); // prettier-ignore
    await user.click(await screen.findByRole('button', { name: 'Edit time of Crock' }));
    const sheet = within(await screen.findByRole('dialog', { name: 'When Crock comes' }));
    const place = sheet.getByRole('textbox', { name: /^Place for this group/ });
    await user.clear(place);
    await user.type(place, 'Attic');
    await user.click(sheet.getByRole('checkbox', { name: 'It is cancelled for this group' }));
    await user.click(sheet.getByRole('button', { name: 'Set for Crock' }));
    await waitFor(() => expect(kept()).toMatchObject([{ groupId: crock, place: 'Attic', isCancelled: true }])); // prettier-ignore
    const preview = within(screen.getByRole('complementary', { name: 'What a group will see' }));
    expect(preview.getByText(/Cancelled: Thu 12 Nov, 10:00–12:00, Attic/)).toBeInTheDocument();
    await user.click(preview.getByRole('button', { name: 'Tun' }));
    expect(preview.getByText(/Thu 12 Nov, 10:00–12:00, Lab 2/)).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Remove time of Crock' }));
    await waitFor(() => expect(kept()).toEqual([]));
  });
});

describe('one’s own calendar', () => {
  it('gets an address that is shown once, copied, and removed', async () => {
    const phone = { id: id('phone'), label: 'Phone', createdAt: at };
    const url = 'http://localhost/api/calendars/abc.ics';
    let addresses = [{ ...phone, id: id('old'), label: 'Old phone' }];
    const { user, writes } = showPage(
      inCourse('my-marks'),
      {
        'GET calendar-addresses': () => ({ addresses }),
        'POST calendar-addresses': () => {
          addresses = [...addresses, phone];
          return { addresses, url };
        },
        [`DELETE calendar-addresses/${id('old')}`]: () => {
          addresses = [phone];
          return { addresses };
        },
      },
      'student',
    );
    await user.click(await screen.findByRole('button', { name: /your account/ }));
    await user.click(await screen.findByRole('menuitem', { name: 'Your calendar' }));
    const sheet = within(await screen.findByRole('dialog', { name: 'Your calendar' }));
    expect(sheet.getByRole('button', { name: 'Make an address' })).toBeDisabled();
    await user.type(sheet.getByRole('textbox', { name: 'Which calendar is it for?' }), ' Phone ');
    await user.click(sheet.getByRole('button', { name: 'Make an address' }));
    expect(await sheet.findByText(url)).toBeInTheDocument();
    await user.click(sheet.getByRole('button', { name: 'Copy address' }));
    expect(await navigator.clipboard.readText()).toBe(url);
    await user.click(sheet.getByRole('button', { name: 'Done' }));
    expect(sheet.queryByText(url)).not.toBeInTheDocument();
    await user.click(sheet.getByRole('button', { name: 'Remove the address for Old phone' }));
    await waitFor(() => expect(sheet.queryByText('Old phone')).not.toBeInTheDocument());
    expect(writes()).toMatchObject([{ body: { label: 'Phone' } }, { method: 'DELETE' }]);
  });
});
