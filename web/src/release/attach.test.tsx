import { afterEach, describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { sure } from '@jigsaw/core/lists';
import { activityId, composer } from '../test/composer.js';
import { aHead, anActivity, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';
import { realUploads, standInForUploads } from '../test/uploads.js';

afterEach(realUploads);

const file = (name: string) => ({
  id: id<'file'>(name),
  name,
  mediaType: 'text/plain',
  sizeBytes: 2048,
  isPerGroup: false,
});

describe('files of an activity', () => {
  it('are attached as they arrive, none pushing out another, and removed again', async () => {
    const activity = anActivity();
    let now: object = activity;
    const sent = standInForUploads();
    const { user, writes } = composer(activity, {
      [`GET activities/${activityId}`]: () => now,
      [`PUT activities/${activityId}`]: (body: object & { version: number }) =>
        (now = { ...activity, ...body, version: body.version + 1 }),
    });
    const part = within(await screen.findByRole('region', { name: 'Attached files' }));
    const chosen = [new File(['a'], 'a.txt'), new File(['b'], 'b.txt'), new File(['c'], 'c.exe')];
    const box = sure(
      document.querySelector<HTMLInputElement>('section[aria-label="Attached files"] input[type=file]'),
    );
    await user.upload(box, chosen);
    expect(part.getByRole('progressbar', { name: 'Adding a.txt' })).toBeInTheDocument();
    expect(sent.map(({ address }) => address.split('?')[0])).toEqual(Array(3).fill(`/api/activities/${activityId}/files`)); // prettier-ignore
    sent[0]?.answer(200, file('a.txt'));
    sent[1]?.answer(200, file('b.txt'));
    sent[2]?.answer(413, { type: 'x', title: 'x', status: 413, detail: 'The file is too large.' });
    expect(await part.findByText('c.exe: The file is too large.')).toBeInTheDocument();
    const kept = () => (writes().findLast(({ method }) => method === 'PUT')?.body as { files: { name: string }[] }).files.map(({ name }) => name); // prettier-ignore
    await waitFor(() => expect(kept()).toEqual(['a.txt', 'b.txt']));
    expect(part.getByRole('link', { name: /a\.txt/ })).toHaveAttribute('href', `/api/activities/${activityId}/files/${id('a.txt')}`); // prettier-ignore
    await user.click(part.getByRole('button', { name: 'Remove a.txt' }));
    await waitFor(() => expect(kept()).toEqual(['b.txt']));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(kept()).toEqual(['a.txt', 'b.txt']));
  });

  it('stand under the brief of a copy, and a resource has its link over it', async () => {
    const { unmount } = showPage(
      inCourse(`copies/${id('copy')}`),
      {
        [`GET copies/${id('copy')}`]: aHead({ kind: 'resource', title: 'Salt tables', points: null, schedule: { opens: null, due: null, closes: null }, files: [file('salt.csv')], settings: { link: 'https://quillmere.example/salt', linkName: 'The tables' } }), // prettier-ignore
      },
      'student',
    );
    const page = within(await screen.findByRole('article', { name: 'Resource' }));
    expect(page.getByRole('link', { name: /The tables/ })).toHaveAttribute(
      'href',
      'https://quillmere.example/salt',
    );
    expect(page.getByRole('link', { name: /salt\.csv.*2 kB/ })).toHaveAttribute('href', `/api/copies/${id('copy')}/attached/${id('salt.csv')}`); // prettier-ignore
    unmount();
  });

  it('of a resource: a link that is no page says what to enter, and is not saved', async () => {
    const activity = anActivity({ kind: 'resource', points: null, schedule: { opens: null, due: null, closes: null }, settings: { link: '', linkName: '' } }); // prettier-ignore
    const { user, writes } = composer(activity);
    await user.type(await screen.findByRole('textbox', { name: 'Link' }), 'salt tables');
    expect((await screen.findAllByText('Enter a whole address that begins with https:// or http://.')).length).toBeGreaterThan(0); // prettier-ignore
    expect(screen.getByText('Not saved yet')).toBeInTheDocument();
    expect(writes().filter(({ method }) => method === 'PUT')).toEqual([]);
  });
});
