import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { at, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';

const session = (cameFrom: string, isThis = false) => ({
  id: id(cameFrom),
  cameFrom,
  since: at,
  seenAt: at,
  isThis,
});

describe('where someone is signed in', () => {
  const open = async (sessions: object[]) => {
    const page = showPage(
      inCourse('my-marks'),
      {
        'GET session/open': { sessions },
        [`DELETE session/open/${id('Firefox on Linux')}`]: { done: true },
        'DELETE session/open': { done: true },
      },
      'student',
    );
    await page.user.click(await screen.findByRole('button', { name: /your account/ }));
    await page.user.click(await screen.findByRole('menuitem', { name: 'Where you are signed in' }));
    return { ...page, sheet: within(await screen.findByRole('dialog', { name: 'Where you are signed in' })) };
  };

  it('can be ended elsewhere, one by one or all together, and not here', async () => {
    const { user, writes, sheet } = await open([
      session('Chrome on Windows', true),
      session('Firefox on Linux'),
      session('Safari on iPhone'),
    ]);
    expect(await sheet.findByText('this browser')).toBeInTheDocument();
    expect(sheet.getAllByRole('button', { name: /^Sign out / })).toHaveLength(3);
    await user.click(sheet.getByRole('button', { name: /Sign out Firefox on Linux/ }));
    await user.click(sheet.getByRole('button', { name: 'Sign out everywhere else' }));
    await waitFor(() =>
      expect(
        writes()
          .filter(({ method }) => method === 'DELETE')
          .map(({ path }) => path),
      ).toEqual([`session/open/${id('Firefox on Linux')}`, 'session/open']),
    );
  });

  it('says so where it is nowhere else', async () => {
    const { sheet } = await open([session('Chrome on Windows', true)]);
    expect(await sheet.findByText('You are signed in nowhere else.')).toBeInTheDocument();
    expect(sheet.queryByRole('button', { name: /^Sign out/ })).not.toBeInTheDocument();
  });
});
