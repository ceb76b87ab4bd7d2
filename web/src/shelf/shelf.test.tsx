import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import type { ShelfFile, ShelfView } from '@jigsaw/contract/shelf';
import { sure } from '@jigsaw/core/lists';
import { aRoom, anAuthor, at, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';
import { realUploads, standInForUploads } from '../test/uploads.js';

const crock = id('Crock');
const path = `groups/${crock}/shelf`;
const plan = id<'shelf-file'>('plan');
const version = (number: number, name: string, by = 'Jorge') => ({
  number,
  name,
  mediaType: 'text/plain',
  sizeBytes: 2048,
  by: anAuthor(by, { isYou: by === 'Noor' }),
  at,
  restored: null,
});
const aFile = (name: string, more: Partial<ShelfFile> = {}): ShelfFile => ({
  id: id(name),
  versions: [version(1, name)],
  isNew: false,
  mayRemove: false,
  ...more,
});
const aShelf = (files: readonly ShelfFile[], more: Partial<ShelfView> = {}): ShelfView => ({
  files: [...files],
  removed: [],
  mayPut: true,
  bytes: 2048 * files.length,
  ...more,
});

function show(shelf: ShelfView, more = {}, role: 'student' | 'instructor' = 'student') {
  const room = aRoom();
  return showPage(
    inCourse(role === 'student' ? 'room' : `room/${crock}`),
    {
      [`GET courses/${courseId}/rooms`]: { rooms: [room], common: [], locked: [] },
      [`GET groups/${crock}/room`]: room,
      [`GET ${path}`]: shelf,
      ...more,
    },
    role,
  );
}
const part = async () => within(await screen.findByRole('region', { name: 'Shelf' }));
const box = () => sure(document.querySelector<HTMLInputElement>(`section[aria-label="Shelf"] input[type=file][multiple]`)); // prettier-ignore

afterEach(realUploads);

describe('the shelf in a room', () => {
  it('is empty at first, takes files, and shows each as the answer to it says', async () => {
    const { user } = show(aShelf([]));
    const sent = standInForUploads();
    const shelf = await part();
    expect(shelf.getByText(/becomes its newest version/)).toBeInTheDocument();
    await user.upload(box(), [new File(['a'], 'plan.txt'), new File(['b'], 'map.txt')]);
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent.map(({ address }) => address)).toEqual([`/api/${path}?name=plan.txt&type=`, `/api/${path}?name=map.txt&type=`]); // prettier-ignore
    act(() => sure(sent[0]).answer(200, aShelf([aFile('plan.txt')])));
    expect(await shelf.findByRole('link', { name: 'Download Version 1 of plan.txt' })).toBeInTheDocument();
    act(() => sure(sent[1]).answer(409, { type: 'x', title: 'x', status: 409, detail: 'This shelf is full.' })); // prettier-ignore
    expect(await shelf.findByText('map.txt: This shelf is full.')).toBeInTheDocument();
    await user.click(await shelf.findByRole('button', { name: 'Try again' }));
    await waitFor(() => expect(sent).toHaveLength(3));
    act(() => sure(sent[2]).answer(200, aShelf([aFile('map.txt'), aFile('plan.txt')])));
    expect(await shelf.findByText('2 files, 4 kB of 1 GB')).toBeInTheDocument();
  });

  it('shows the versions of a file, and makes an earlier one the newest again', async () => {
    const file = aFile('plan.txt', {
      id: plan,
      versions: [version(2, 'plan.txt'), version(1, 'plan.txt', 'Noor')],
    });
    const { user, writes } = show(aShelf([file]), {
      [`POST ${path}/${plan}/versions/restore`]: aShelf([{ ...file, versions: [{ ...version(3, 'plan.txt', 'Noor'), restored: 1 }, ...file.versions] }]), // prettier-ignore
    });
    const shelf = await part();
    expect(shelf.getByRole('link', { name: 'Download Version 2 of plan.txt' })).toHaveAttribute('href', `/api/${path}/${plan}/versions/2`); // prettier-ignore
    await user.click(shelf.getByRole('button', { name: 'Earlier versions of plan.txt' }));
    await user.click(shelf.getByRole('button', { name: 'Restore Version 1 of plan.txt' }));
    expect(await shelf.findByText(/^Version 3, version 1 again, you/)).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(writes().map(({ body }) => body)).toEqual([{ number: 1, newest: 2 }, { number: 2, newest: 3 }]),
    ); // prettier-ignore
  });

  it('lets go of a file with the way back, and says what was removed to those who can restore it', async () => {
    const file = aFile('plan.txt', { id: plan, mayRemove: true });
    const gone = aShelf([], {
      removed: [{ id: plan, name: 'plan.txt', by: anAuthor('Noor', { isYou: true }), at }],
    });
    const { user, writes } = show(aShelf([file, aFile('map.txt')]), {
      [`DELETE ${path}/${plan}`]: gone,
      [`POST ${path}/${plan}/restore`]: aShelf([file]),
    });
    const shelf = await part();
    expect(shelf.queryByRole('button', { name: 'Remove map.txt' })).toBeNull();
    await user.click(shelf.getByRole('button', { name: 'Remove plan.txt' }));
    await user.click(await shelf.findByRole('button', { name: '1 removed' }));
    expect(shelf.getByRole('list', { name: 'Removed files' })).toHaveTextContent(/plan\.txt removed by you/);
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    expect(await shelf.findByRole('button', { name: 'Remove plan.txt' })).toBeInTheDocument();
    expect(shelf.queryByRole('button', { name: /removed/ })).toBeNull();
    expect(writes().map(({ method }) => method)).toEqual(['DELETE', 'POST']);
  });

  it('is asked for again where an act was refused', async () => {
    const file = aFile('plan.txt', { id: plan, mayRemove: true });
    const { user, set } = show(aShelf([file]), {
      [`DELETE ${path}/${plan}`]: new Refusal(404, 'not-found', 'There is nothing at this address.'),
    });
    const shelf = await part();
    set(`GET ${path}`, aShelf([]));
    await user.click(shelf.getByRole('button', { name: 'Remove plan.txt' }));
    await waitFor(() => expect(shelf.queryByText('plan.txt')).toBeNull());
    expect(screen.getByText('There is nothing at this address.')).toBeInTheDocument();
  });

  it('is read by staff, who add nothing', async () => {
    show(aShelf([aFile('plan.txt')], { mayPut: false }), {}, 'instructor');
    const shelf = await part();
    expect(shelf.getByText('plan.txt')).toBeInTheDocument();
    expect(shelf.queryByRole('button', { name: /Add|version/ })).toBeNull();
  });
});

describe('what is new on a shelf', () => {
  let inView: (isIntersecting: boolean) => void;
  const Real = globalThis.IntersectionObserver;
  beforeEach(() => {
    globalThis.IntersectionObserver = class {
      constructor(tell: (entries: readonly object[]) => void) {
        inView = (isIntersecting) => tell([{ isIntersecting }]);
      }
      observe() {}
      disconnect() {}
    } as never;
  });
  afterEach(() => {
    globalThis.IntersectionObserver = Real;
    jest.useRealTimers();
  });

  it('counts as seen once it has stood in view, not when it was passed by, and is shown as new for this visit', async () => {
    const { writes } = show(aShelf([aFile('map.txt', { isNew: true }), aFile('plan.txt')]), {
      [`POST ${path}/seen`]: { done: true },
    });
    const shelf = await part();
    expect(shelf.getAllByText('new')).toHaveLength(1);
    jest.useFakeTimers();
    inView(true);
    inView(false);
    jest.advanceTimersByTime(5000);
    inView(true);
    jest.advanceTimersByTime(1100);
    expect(writes()).toEqual([]);
    act(() => {
      jest.advanceTimersByTime(200);
    });
    jest.useRealTimers();
    await waitFor(() => expect(writes()).toMatchObject([{ path: `${path}/seen`, body: { upTo: at } }]));
    expect(shelf.getAllByText('new')).toHaveLength(1);
  });
});
