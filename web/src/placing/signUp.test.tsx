import { beforeEach, describe, expect, it } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import type { SignUpView } from '@jigsaw/contract/placing';
import { noDetails } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';
import { setId, said } from '../test/onBoard.js';

beforeEach(() => localStorage.clear()); // what was done on a Board is kept there

describe('a student who chooses a place', () => {
  const signUpPath = `sets/${setId}/sign-up`;
  const nothingSaid = { details: noDetails, fits: null, isAwaited: false, awaiting: 0 };
  const aView = (more: Partial<SignUpView> = {}): SignUpView => ({
    set: { id: setId, name: 'Tasting panels', description: 'One taste each.', opens: null, closes: null },
    state: 'open',
    groups: [
      {
        id: id('Sour'),
        number: 1,
        name: 'Sour',
        members: 1,
        capacity: 2,
        isLocked: false,
        ...nothingSaid,
        names: [{ name: 'Ben', reading: null, isYou: false }],
      },
      {
        id: id('Malt'),
        number: 2,
        name: 'Malt',
        members: 2,
        capacity: 2,
        isLocked: false,
        ...nothingSaid,
        names: null,
      },
    ],
    yours: null,
    bound: null,
    latest: [],
    chosen: 3,
    students: 5,
    ...more,
  });
  const page = (view: SignUpView, more: object = {}) =>
    showPage(inCourse(`choose/${setId}`), { [`GET ${signUpPath}`]: view, ...more }, 'student');

  it('sees what is left and takes one, with the way back', async () => {
    const taken = aView({ yours: id('Sour') });
    const { user, writes } = page(aView(), { [`POST ${signUpPath}`]: taken });
    expect(await screen.findByText('3 of 5')).toBeInTheDocument();
    expect(within(screen.getByRole('listitem', { name: 'Malt' })).getByText('Full')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /in Malt/ })).not.toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Join Sour' }));
    await said('You are in Sour');
    expect(sure(writes()[0]).body).toEqual({ groupId: id('Sour') });
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(sure(writes()[1]).body).toEqual({ groupId: null }));
  });

  it('is told what is left when someone was faster', async () => {
    const { user } = page(aView(), {
      [`POST ${signUpPath}`]: new Refusal(
        409,
        'stale-write',
        'Sour is full now. No group has a place left; your instructor will place you.',
      ),
    });
    await user.click(await screen.findByRole('button', { name: 'Join Sour' }));
    expect(await screen.findByText(/Sour is full now/)).toBeInTheDocument();
  });

  it.each([
    [
      'before its time',
      aView({ state: 'not-open-yet', set: { ...aView().set, opens: '2026-11-12T08:00:00.000Z' } }),
      'choosing begins then',
    ],
    [
      'after its time',
      aView({ state: 'closed', set: { ...aView().set, closes: '2026-11-09T08:00:00.000Z' } }),
      'choosing ended then',
    ],
    ['once it is frozen', aView({ state: 'frozen', yours: id('Sour') }), 'by your instructor'],
    [
      'once handed in',
      aView({ bound: 'Your group has handed in already.', yours: id('Sour') }),
      'Your group has handed in already.',
    ],
  ])('has nothing to press %s', async (_when, view, says) => {
    page(view);
    expect(await screen.findByText(says)).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Sour|Leave this group/ })).not.toBeInTheDocument();
  });

  it('reads when and where a group meets, and whether they are free then', async () => {
    const [sour, malt] = aView().groups;
    page(
      aView({
        groups: [
          {
            ...sure(sour),
            details: { time: 'Mon 14:00', place: 'Pilot hall', about: 'Kombucha', halfDay: 'Mon pm' },
            fits: true,
          },
          { ...sure(malt), fits: false },
        ],
      }),
    );
    const card = within(await screen.findByRole('listitem', { name: 'Sour' }));
    expect(card.getByText('Mon 14:00 · Pilot hall')).toBeInTheDocument();
    expect(card.getByText('Kombucha')).toBeInTheDocument();
    expect(card.getByText('You are free then')).toBeInTheDocument();
    expect(
      within(screen.getByRole('listitem', { name: 'Malt' })).getByText('You are not free then'),
    ).toBeInTheDocument();
  });

  it('asks to be told of a free place, and can take it back', async () => {
    const [sour, malt] = aView().groups;
    const waiting = aView({ groups: [sure(sour), { ...sure(malt), isAwaited: true, awaiting: 1 }] });
    const path = `PUT ${signUpPath}/awaited/${id('Malt')}`;
    let shown = aView();
    const { user, writes } = page(shown, {
      [`GET ${signUpPath}`]: () => shown,
      [path]: ({ isAwaited }: { isAwaited: boolean }) => (shown = isAwaited ? waiting : aView()),
    });
    await user.click(await screen.findByRole('button', { name: 'Email me when a place is free' }));
    await said('You get one email when a place in Malt is free');
    expect(sure(writes()[0]).body).toEqual({ isAwaited: true });
    expect(await screen.findByText('1 waiting for a place')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Do not email me' }));
    await waitFor(() => expect(sure(writes()[1]).body).toEqual({ isAwaited: false }));
  });

  it('sees what happened just now, and whether there is a place for everyone', async () => {
    const ago = (seconds: number) => new Date(Date.now() - seconds * 1000).toISOString();
    page(
      aView({
        latest: [
          { at: ago(8), groupId: id('Sour'), what: 'taken' },
          { at: ago(130), groupId: id('Malt'), what: 'filled' },
        ],
        chosen: 3,
        students: 9,
      }),
    );
    const now = within(await screen.findByRole('region', { name: 'Just now' }));
    expect(now.getAllByRole('listitem').map((each) => each.textContent)).toEqual([
      'just nowA place was taken in Sour',
      '2 minThe last place was taken in Malt',
    ]);
    expect(within(screen.getByRole('listitem', { name: 'Sour' })).getByText('just now')).toBeInTheDocument();
    expect(
      within(screen.getByRole('listitem', { name: 'Malt' })).queryByText('just now'),
    ).not.toBeInTheDocument();
    expect(screen.getByText('6 students still to choose, 1 free place.')).toBeInTheDocument();
  });

  it('finds their own group first on a phone', async () => {
    const wide = window.matchMedia.bind(window);
    window.matchMedia = (query) => Object.assign(wide(query), { matches: true });
    try {
      page(aView({ yours: id('Malt') }));
      await screen.findByRole('listitem', { name: 'Malt' });
      const names = screen.getAllByRole('heading', { level: 2 }).map((each) => each.textContent);
      expect(names.slice(0, 2)).toEqual(['Malt', 'Sour']);
    } finally {
      window.matchMedia = wide;
    }
  });

  it('finds the choice among what is due, and nothing where there is none', async () => {
    const signUps = [
      { setId, name: 'Tasting panels', state: 'open', opens: null, closes: null, yours: null },
    ];
    showPage(
      inCourse('due'),
      {
        [`GET courses/${courseId}/rooms`]: { rooms: [], common: [], locked: [] },
        [`GET courses/${courseId}/sign-ups`]: { signUps },
      },
      'student',
    );
    expect(await screen.findByRole('link', { name: /Choose your group in Tasting panels/ })).toHaveAttribute(
      'href',
      expect.stringContaining(`choose/${setId}`),
    );
    cleanup();
    page(aView(), { [`GET ${signUpPath}`]: new Refusal(404, 'not-found', 'There is nothing here.') });
    expect(await screen.findByText('There is nothing to choose here')).toBeInTheDocument();
  });
});
