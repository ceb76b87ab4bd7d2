import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { aGroup, aMark, courseId, id } from '../test/data.js';
import { aRow, desk, releaseId } from '../test/onDesk.js';
import { inCourse } from '../test/showPage.js';

const [noor, amina, kofi] = [id<'enrolment'>('noor'), id<'enrolment'>('amina'), id<'enrolment'>('kofi')];
const copy = (name: string) => id<'copy'>(name);
const marked = { mark: { state: 'drafted', groupMark: '32' }, needsYou: false } as const;
const rows = [
  aRow({ people: [noor] }),
  aRow({ copyId: copy('tun'), group: aGroup('Tun', 2), people: [amina, kofi], ...marked }),
  aRow({ copyId: copy('vat'), group: aGroup('Vat', 3), people: [kofi] }),
];
const dairy = {
  id: id('dairy'),
  name: 'Dairy',
  version: 1,
  include: [],
  exclude: [],
  people: 1,
  groups: 0,
  usedIn: [],
};
const person = (enrolmentId: string) => ({
  enrolmentId,
  name: 'Amina',
  reading: null,
  role: 'student',
  by: { kind: 'person', enrolmentId },
});
const ready = (copyOf: string, mark: string) => ({ copyId: copyOf, unit: 'group', version: 1, who: { name: copyOf, reading: null }, mark, students: 2, isChange: false, lacks: null }); // prettier-ignore
const show = (more: object = {}) =>
  desk(aMark(), rows, {
    [`GET courses/${courseId}/audiences`]: { audiences: [dairy] },
    [`POST courses/${courseId}/audiences/members`]: { people: [person(amina)], removed: [], groups: [], circle: null },
    ...more,
  }); // prettier-ignore
const queue = async () =>
  within(await screen.findByRole('navigation', { name: 'Groups to mark' }))
    .getAllByRole('link')
    .map((link) => link.querySelector('b')?.textContent);
const choose = async (user: ReturnType<typeof show>['user'], name: string) => {
  await user.click(await screen.findByRole('button', { name: /Show/ }));
  await user.click(await screen.findByRole('option', { name }));
};

describe('the queue of the Marking desk', () => {
  it('shows what is to mark, keeps what is open, and is kept in the address', async () => {
    const { user, router } = show();
    expect(await queue()).toEqual(['Crock', 'Tun', 'Vat']);
    await choose(user, 'To mark');
    await waitFor(async () => expect(await queue()).toEqual(['Crock', 'Vat']));
    expect(screen.getByText('2 of 3 groups')).toBeInTheDocument();
    await user.click(screen.getByRole('link', { name: /Vat/ }));
    expect(router.state.location.pathname).toBe(inCourse(`marks/${releaseId}/${copy('vat')}/group`));
    expect(router.state.location.search).toBe('?show=to-mark');
    await choose(user, 'All');
    await waitFor(async () => expect(await queue()).toHaveLength(3));
    expect(router.state.location.search).toBe('');
  });

  it('shows those whose mark it is, of an audience, and acts on them alone', async () => {
    const { user, writes } = show({
      [`GET releases/${releaseId}/marks/ready`]: { toRelease: [ready(copy('tun'), '32'), ready(copy('vat'), '30')], toTake: [] },
      [`POST releases/${releaseId}/marks/release`]: { units: 1, students: 2 },
    }); // prettier-ignore
    await choose(user, 'Audience Dairy');
    await waitFor(async () => expect(await queue()).toEqual(['Crock', 'Tun'])); // Crock is open
    await user.click(screen.getByRole('button', { name: /Release ready marks/ }));
    const sheet = within(await screen.findByRole('dialog', { name: 'Release ready marks' }));
    expect(await sheet.findByText(/Only what the queue shows now/)).toBeInTheDocument();
    expect(sheet.getAllByRole('listitem')).toHaveLength(1);
    await user.click(sheet.getByRole('button', { name: /^Release/ }));
    await waitFor(() =>
      expect(writes().filter(({ path }) => path.endsWith('/release'))).toMatchObject([
        { body: { units: [{ copyId: copy('tun') }] } },
      ]),
    );
  });
});
