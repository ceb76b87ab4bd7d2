import { describe, expect, it } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import { aGroup, aRoom, courseId, id, rooms } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';

const to = (path: string, answers: object, role: 'student' | 'assistant' | 'instructor' = 'student') =>
  showPage(inCourse(path), { ...answers }, role).router;
const group = (name: string, number: number) => ({ id: id<'group'>(name), setId: id<'group-set'>('benches'), setName: 'Benches', number, name }); // prettier-ignore
const copies = (...names: string[]) => ({
  [`GET activities/${id('report')}/copies`]: {
    copies: names.map((name, at) => ({ copyId: id(`copy-${name}`), group: group(name, at + 1) })),
  },
});
const leadsTo = (router: ReturnType<typeof to>, path: string) =>
  waitFor(() => expect(router.state.location.pathname).toBe(inCourse(path)));
const link = `go/activity/${id('report')}`;

describe('a link to an activity', () => {
  it('leads a student to their own group’s copy', () =>
    leadsTo(to(link, copies('Crock')), `copies/${id('copy-Crock')}`));
  it('leads an assistant to the first, and those who release to where it is written', async () => {
    await leadsTo(to(link, copies('Crock', 'Tun'), 'assistant'), `copies/${id('copy-Crock')}`);
    await leadsTo(to(link, {}, 'instructor'), `release/${id('report')}`);
  });
  it('asks a student who has it in several groups', async () => {
    to(link, copies('Crock', 'Tun'));
    expect(await screen.findByRole('link', { name: /Tun \(Benches\)/ })).toHaveAttribute('href', inCourse(`copies/${id('copy-Tun')}`)); // prettier-ignore
  });
  it('leads others nowhere', async () => {
    to(link, {});
    expect(await screen.findByRole('heading', { name: 'Nothing here' })).toBeInTheDocument();
  });
});

describe('a link to a set', () => {
  const set = `go/set/${id('benches')}`;
  const signUps = (...setIds: string[]) => ({
    [`GET courses/${courseId}/sign-ups`]: {
      signUps: setIds.map((setId) => ({ setId, name: 'Benches', about: '', state: 'open', opens: null, closes: null, yours: null })),
    },
  }); // prettier-ignore
  const room = aRoom({ group: { ...aGroup(), setId: id('benches') } });
  const own = (...all: Parameters<typeof rooms>) => ({ [`GET courses/${courseId}/rooms`]: rooms(...all) });

  it('leads a student to their room in it, and staff to its Board', async () => {
    await leadsTo(to(set, { ...own(room), ...signUps() }), `room/${room.group.id}`);
    await leadsTo(to(set, {}, 'assistant'), `groups/${id('benches')}`);
  });
  it('leads a student who may choose to where they do, and others nowhere', async () => {
    await leadsTo(to(set, { ...own(), ...signUps(id('benches')) }), `choose/${id('benches')}`);
    to(set, { ...own(), ...signUps() });
    expect(await screen.findByRole('heading', { name: 'Nothing here' })).toBeInTheDocument();
  });
});
