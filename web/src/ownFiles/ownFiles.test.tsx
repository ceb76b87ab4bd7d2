import { afterEach, describe, expect, it } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import type { OwnFiles } from '@jigsaw/contract/ownFiles';
import { sure } from '@jigsaw/core/lists';
import { api } from '../api/index.js';
import { aHead, anAuthor, at, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';
import { realUploads, standInForUploads } from '../test/uploads.js';

afterEach(realUploads);

const copyId = id<'copy'>('copy');
const sheet = id<'file'>('sheet');
const path = `copies/${copyId}/own-files/${sheet}`;
const version = (number: number, more: object = {}) => ({
  number,
  name: 'sheet.csv',
  mediaType: 'text/csv',
  sizeBytes: 2048,
  by: number === 0 ? null : anAuthor('Kofi'),
  at: number === 0 ? null : at,
  restored: null,
  ...more,
});
const own = (newest: number, mayPut = true): OwnFiles => ({
  files: [{ originalId: sheet, name: 'sheet.csv', versions: Array.from({ length: newest + 1 }, (_each, back) => version(newest - back)) }], // prettier-ignore
  mayPut,
});

function shown(first: OwnFiles) {
  let ownFiles = first;
  const answers = {
    [`GET copies/${copyId}`]: () => aHead({ kind: 'resource', points: null, schedule: { opens: null, due: null, closes: null }, settings: { link: '', linkName: '' }, ownFiles }), // prettier-ignore
    [`POST ${path}/restore`]: () => ownFiles,
  };
  return { ...showPage(inCourse(`copies/${copyId}`), answers, 'student'), become: (next: OwnFiles) => (ownFiles = next) }; // prettier-ignore
}
const part = async () => within(await screen.findByRole('region', { name: 'Files to work in' }));

describe('a file to work in', () => {
  it('shows its newest version, who put it there, and takes a newer one on top of that', async () => {
    const { user, become, store } = shown(own(2));
    const sent = standInForUploads();
    const files = await part();
    expect(files.getByText(/^Version 2, Kofi, .*2 kB$/)).toBeInTheDocument();
    expect(files.getByRole('link', { name: 'Download Version 2 of sheet.csv' })).toHaveAttribute('href', `/api/${path}/versions/2`); // prettier-ignore
    const box = sure(document.querySelector<HTMLInputElement>('section[aria-label="Files to work in"] input[type=file]')); // prettier-ignore
    await user.upload(box, new File(['x'], 'mine.csv', { type: 'text/csv' }));
    expect(sure(sent[0]).address).toBe(`/api/${path}/versions?newest=2&name=mine.csv&type=text%2Fcsv`);
    sure(sent[0]).answer(409, { type: 'x', title: 'x', status: 409, detail: 'There is a newer version of this file. Look at it first, then add yours.' }); // prettier-ignore
    expect(await files.findByText(/Look at it first, then add yours/)).toBeInTheDocument();
    become(own(3));
    // What is tried again goes on top of what was looked at meanwhile.
    await act(() => store.dispatch(api.util.invalidateTags(['Copy'])));
    expect(await files.findByText(/^Version 3, Kofi/)).toBeInTheDocument();
    await user.click(files.getByRole('button', { name: 'Try again' }));
    expect(sure(sent[1]).address).toContain('newest=3&name=mine.csv');
    become(own(4));
    sure(sent[1]).answer(200, own(4));
    expect(await files.findByText(/^Version 4, Kofi/)).toBeInTheDocument();
    expect(files.queryByText(/Look at it first/)).not.toBeInTheDocument();
  });

  it('unfolds what was before, restores it, and can be undone', async () => {
    const { user, writes } = shown(own(2));
    const files = await part();
    await user.click(files.getByRole('button', { name: 'Earlier versions of sheet.csv' }));
    const earlier = within(files.getByRole('list', { name: 'Earlier versions of sheet.csv' }));
    expect(earlier.getAllByRole('listitem').map((row) => row.textContent)).toEqual([expect.stringContaining('Version 1, Kofi'), expect.stringContaining('The file as attached, 2 kB')]); // prettier-ignore
    await user.click(earlier.getByRole('button', { name: 'Restore Version 1 of sheet.csv' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(writes().map(({ body }) => body)).toEqual([
        { number: 1, newest: 2 },
        { number: 2, newest: 3 },
      ]),
    );
  });

  it('is only read where nothing may be added, and not spoken of where there is none', async () => {
    const { user, unmount } = shown(own(1, false));
    const files = await part();
    await user.click(files.getByRole('button', { name: 'Earlier versions of sheet.csv' }));
    expect(files.getAllByRole('link')).toHaveLength(2);
    expect(files.queryByRole('button', { name: /version of|Restore/ })).not.toBeInTheDocument();
    unmount();
    shown({ files: [], mayPut: true });
    await screen.findByRole('heading', { level: 1 });
    expect(screen.queryByRole('region', { name: 'Files to work in' })).not.toBeInTheDocument();
  });
});
