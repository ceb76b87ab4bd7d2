import { describe, expect, it } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import { api } from '../api/index.js';
import { aGroup, aHead, aRoom, aRoomItem, aRoomLine, courseId, handedIn, id, rooms } from '../test/data.js';
import type { RoomLine } from '@jigsaw/contract/rooms';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const roomsPath = `GET courses/${courseId}/rooms`;

describe('what is due', () => {
  it('puts what is owed first and says what is late', async () => {
    const items = [
      aRoomItem({
        title: 'Salt trial',
        copyId: id('salt'),
        progress: handedIn(160, '4'),
      }),
      aRoomItem({ title: 'Overdue sheet', copyId: id('over'), due: '2020-01-01T00:00:00.000Z' }),
    ];
    showPage(inCourse('due'), { [roomsPath]: rooms(aRoom({ items })) }, 'student');
    const [first, second] = await screen.findAllByRole('link', { name: /Crock/ });
    expect(first).toHaveTextContent(/Overdue sheet.*Late/);
    expect(second).toHaveTextContent('Handed in Tue 10 Nov, 10:00, late 2 h 40 min');
  });

  it('tells a student in no group what happens next', async () => {
    showPage(inCourse('due'), { [roomsPath]: rooms() }, 'student');
    expect(await screen.findByRole('heading', { name: 'You are in no group yet' })).toBeInTheDocument();
  });
});

describe('a room', () => {
  it('shows what its members made of it, and lets them change it from what they saw', async () => {
    const room = aRoom({ motto: 'Slow is fast', about: 'Until the tasting day.', namingVersion: 3 });
    const namingPath = `PATCH groups/${room.group.id}/naming`;
    const now = { id: room.group.id, name: 'Kvevri', motto: '', version: 4 };
    const { user, writes, set } = showPage(
      inCourse('room'),
      {
        [roomsPath]: rooms(room),
        [namingPath]: new Refusal(
          409,
          'stale-write',
          'Someone of your group changed it meanwhile: it is called Kvevri now.',
          { current: now },
        ),
      },
      'student',
    );
    expect(await screen.findByText('Slow is fast')).toBeInTheDocument();
    expect(screen.getByText('Until the tasting day.')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Name and motto of your group' }));
    await user.clear(screen.getByRole('textbox', { name: 'Name' }));
    await user.type(screen.getByRole('textbox', { name: 'Name' }), 'Tun');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('it is called Kvevri now');
    expect(screen.getByRole('textbox', { name: 'Name' })).toHaveValue('Tun');
    // Anyone who presses again after reading that writes over it.
    set(namingPath, { ...now, name: 'Tun', version: 5 });
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(writes().map((write) => write.body)).toEqual([
      { name: 'Tun', motto: 'Slow is fast', version: 3 },
      { name: 'Tun', motto: 'Slow is fast', version: 4 },
    ]);
  });

  it('opens where something waits, and names the members', async () => {
    const lab = aRoom({ group: { ...aGroup('Tuesday lab', 1), setName: 'Lab sections' }, items: [] });
    showPage(inCourse('room'), { [roomsPath]: rooms(lab, aRoom()) }, 'student');
    expect(await screen.findByRole('heading', { name: 'Crock', level: 1 })).toBeInTheDocument();
    expect(screen.getByRole('list', { name: 'Members' })).toHaveTextContent('Noor you Jorge');
    expect(screen.getByText(/Only the 2 of you and the staff can see this room/)).toBeInTheDocument();
    expect(screen.getByRole('link', { name: /Ferment report/ })).toHaveAttribute(
      'href',
      inCourse(`copies/${id('copy')}`),
    );
  });

  it('says what is due next and how long there is, and what changed since one was last there', async () => {
    const room = aRoom({
      items: [
        aRoomItem({ title: 'Later sheet', copyId: id('later'), due: '2099-11-13T17:00:00.000Z' }),
        aRoomItem({ title: 'Salt trial', copyId: id('salt'), due: '2099-11-12T17:00:00.000Z' }),
      ],
    });
    const post = { copyId: id<'copy'>('talk'), kind: 'discussion', title: 'Talk', at: '2026-11-10T10:00:00.000Z', by: 'Jorge', byYou: false, excerpt: 'Is it salt?', isNew: true }; // prettier-ignore
    const latest = { items: [post, { ...post, by: 'Noor', byYou: true, excerpt: '', isNew: false }] };
    const { set, store } = showPage(
      inCourse('room'),
      { [roomsPath]: rooms(room), [`GET groups/${room.group.id}/last-written`]: latest },
      'student',
    );
    const next = await screen.findByRole('region', { name: 'Next' });
    expect(next).toHaveTextContent(/To hand in Due Thu 12 Nov, 17:00, in .*Salt trial/);
    expect(within(next).getByRole('link', { name: 'Open' })).toHaveAttribute('href', inCourse(`copies/${id('salt')}`)); // prettier-ignore
    const fresh = await screen.findByRole('list', { name: 'New' });
    expect(fresh).toHaveTextContent(/^Jorge in Talk newIs it salt\?/);
    expect(within(fresh).getByRole('link')).toHaveAttribute('href', inCourse(`copies/${id('talk')}`));
    expect(screen.getByRole('list', { name: 'Before' })).toHaveTextContent(/^You in Talk/);
    set(`GET groups/${room.group.id}/last-written`, { items: [] });
    act(() => void store.dispatch(api.util.invalidateTags(['Room'])));
    expect(await screen.findByText('Nothing new. You have seen it all.')).toBeInTheDocument();
  });

  it('is not there for a group that is not one’s own', async () => {
    showPage(inCourse(`room/${id('Carboy')}`), { [roomsPath]: rooms(aRoom()) }, 'student');
    expect(await screen.findByRole('heading', { name: 'Nothing here' })).toBeInTheDocument();
  });

  it('shows what is new and who wrote last, what is shared with others, and what is locked', async () => {
    const talk = aRoomItem({
      kind: 'discussion',
      title: 'Tasting critique',
      unread: 2,
      latest: {
        at: '2026-11-10T10:00:00.000Z',
        by: 'Jorge',
        byYou: false,
        excerpt: 'I had the bitterness later.',
      },
      progress: { state: 'in-work', isYours: true, done: 1, asked: 3 },
    });
    const list = {
      ...rooms(aRoom({ items: [talk] })),
      common: [
        aRoomItem({
          kind: 'discussion',
          title: 'Ask the lab',
          copyId: id('ask'),
          due: null,
          progress: { owes: false },
        }),
      ],
    };
    showPage(
      inCourse('room'),
      {
        [roomsPath]: {
          ...list,
          locked: [{ title: 'Salt trial', kind: 'folder', why: ['Sees it.', 'Is for other groups.'] }],
        },
      },
      'student',
    );
    const inRoom = await screen.findByRole('list', { name: 'In this room' });
    expect(within(inRoom).getByRole('link')).toHaveTextContent(
      /Tasting critique.*Discussion · You have written 1 of 3.*Jorge: I had the bitterness later.*2 new.*To write/,
    );
    const shared = screen.getByRole('list', { name: 'Shared with others' });
    expect(within(shared).getByRole('link')).toHaveTextContent(/Ask the lab.*Nothing written yet/);
    expect(shared).toHaveTextContent('Salt trialIs for other groups.');
  });

  it('asks to load the page again for a kind that came with an update', async () => {
    showPage(
      inCourse(`copies/${id('copy')}`),
      { [`GET copies/${id('copy')}`]: aHead({ kind: 'seance' }) },
      'student',
    );
    expect(await screen.findByRole('heading', { name: 'Something new' })).toBeInTheDocument();
  });
});

describe('all rooms, for staff', () => {
  const linesPath = `GET courses/${courseId}/room-lines`;
  const crock = aRoomLine({ members: ['Noor', 'Jorge'] });
  const carboy = aRoomLine({
    group: aGroup('Carboy', 2),
    members: ['Zoë'],
    unread: 1203,
    firstUnread: id('log'),
    latest: { at: '2026-11-10T10:00:00.000Z', by: 'Zoë', title: 'Culture log', copyId: id('log') },
  });
  const missing = { code: 'missing', copyId: id<'copy'>('report'), kind: 'assignment', title: 'Ferment report', since: '2026-11-07T10:00:00.000Z' } as const; // prettier-ignore
  const tun = aRoomLine({
    group: aGroup('Tun', 3),
    needs: [missing, { ...missing, title: 'Salt trial' }],
    score: 46.4,
  });
  const cut = aRoomLine({ group: { ...aGroup('Cut 1', 1), setId: id('cuts'), setName: 'Cuts' }, items: 0 });
  const show = (...lines: RoomLine[]) => showPage(inCourse('rooms'), { [linesPath]: { lines, common: [] } });
  const shown = () => screen.getAllByRole('rowheader').map((each) => each.querySelector('b')?.textContent);

  it('stand in the order of what needs someone, what is new, quiet or their number, and lead to what is unread', async () => {
    const { user } = show(crock, carboy, tun);
    expect(await screen.findByText('1,203 unread in 1 room')).toBeInTheDocument();
    expect(shown()).toEqual(['Tun', 'Carboy']);
    expect(screen.getByText('1 room needs no one now.')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Show it' }));
    expect(shown()).toEqual(['Tun', 'Carboy', 'Crock']);
    expect(screen.getByRole('link', { name: /^Ferment report, was due/ })).toHaveAttribute('href', inCourse(`copies/${id('report')}`)); // prettier-ignore
    expect(screen.getByText(/and 1 more/)).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Read the first new' })).toHaveAttribute(
      'href',
      inCourse(`copies/${id('log')}`),
    );
    const [, , second] = screen.getAllByRole('row');
    expect(second).toHaveTextContent(/CarboyZoë.*1203 new in Carboy.*Zoë in Culture log/);
    for (const [order, names] of [
      ['New first', ['Carboy', 'Crock', 'Tun']],
      ['Quietest first', ['Crock', 'Tun', 'Carboy']],
      ['By number', ['Crock', 'Carboy', 'Tun']],
    ] as const) {
      await user.click(screen.getByRole('button', { name: /Order/ }));
      await user.click(await screen.findByRole('option', { name: order }));
      expect(shown()).toEqual(names);
    }
  });

  it('are found by a member’s name, whatever its accents, and set by set', async () => {
    const { user } = show(crock, carboy, cut);
    await user.type(await screen.findByRole('searchbox', { name: 'Find a member or a group' }), 'zoe');
    await waitFor(() => expect(shown()).toEqual(['Carboy']));
    await user.type(screen.getByRole('searchbox', { name: 'Find a member or a group' }), 'x');
    expect(await screen.findByText('No one has that name')).toBeInTheDocument();
    await user.clear(screen.getByRole('searchbox', { name: 'Find a member or a group' }));
    await user.click(screen.getByRole('radio', { name: 'Cuts' }));
    await waitFor(() => expect(shown()).toEqual(['Cut 1']));
    expect(screen.getByText('Nothing released yet')).toBeInTheDocument();
  });

  it('are drawn only as far as they are in view', async () => {
    show(...Array.from({ length: 200 }, (_, at) => aRoomLine({ group: aGroup(`${at + 1} team`, at + 1) })));
    expect(await screen.findByRole('table', { name: 'Rooms' })).toHaveAttribute('aria-rowcount', '201');
    expect(shown().length).toBeLessThan(40);
  });

  it('open as their members see them', async () => {
    const room = aRoom();
    showPage(inCourse(`room/${room.group.id}`), { [`GET groups/${room.group.id}/room`]: room });
    expect(await screen.findByRole('heading', { name: 'Crock', level: 1 })).toBeInTheDocument();
    expect(screen.getByText(/They are not told/)).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'All rooms' })).toHaveAttribute('href', inCourse('rooms'));
  });
});
