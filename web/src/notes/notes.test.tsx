import { beforeEach, describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { NoteView } from '@jigsaw/contract/notes';
import type { Lately } from '@jigsaw/contract/rooms';
import { aGroup, aMember, anAuthor, aRoom, at, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const crock = id('Crock');
const notesPath = `groups/${crock}/notes`;
const aNote = (text: string, more: Partial<NoteView> = {}): NoteView => ({
  id: id(text),
  text,
  about: null,
  author: anAuthor('Dr. Ilse Marrow', { isYou: true, isStaff: true }),
  createdAt: at,
  editedAt: null,
  version: 1,
  mayRemove: true,
  ...more,
});
const lately: Lately = {
  members: [
    { enrolmentId: id('Noor'), name: 'Noor', reading: null, days: [...Array<number>(13).fill(0), 2], last: { at, title: 'Talk', copyId: id('talk') } },
    { enrolmentId: id('Jorge'), name: 'Jorge', reading: null, days: Array<number>(14).fill(0), last: null },
  ],
  previous: null,
  next: aGroup('Carboy', 2),
}; // prettier-ignore
const show = (notes: readonly NoteView[], more = {}, role: 'instructor' | 'observer' = 'instructor') =>
  showPage(
    inCourse(`room/${crock}`),
    {
      [`GET groups/${crock}/room`]: aRoom({ members: [{ ...aMember('Noor'), isLeader: false }] }),
      [`GET groups/${crock}/lately`]: lately,
      [`GET ${notesPath}`]: { notes },
      [`GET groups/${id('Carboy')}/room`]: aRoom({ group: aGroup('Carboy', 2) }),
      [`GET groups/${id('Carboy')}/lately`]: { ...lately, previous: aGroup('Crock'), next: null },
      [`GET groups/${id('Carboy')}/notes`]: { notes: [] },
      ...more,
    },
    role,
  );
const part = () => screen.findByRole('region', { name: 'Notes' });

beforeEach(() => sessionStorage.clear());

describe('a room, for staff', () => {
  it('says what each member wrote lately, and leads to the rooms beside it by a key', async () => {
    const { user, router } = show([]);
    const table = await screen.findByRole('table', { name: 'Lately' });
    const [noor, jorge] = within(table).getAllByRole('row');
    expect(noor).toHaveTextContent(/Noor.* in Talk/);
    expect(within(table).getByRole('img', { name: '2 written in 14 days, 2 of it today' })).toBeInTheDocument(); // prettier-ignore
    expect(jorge).toHaveTextContent('JorgeNothing written yet');
    expect(screen.getByRole('button', { name: /First room/ })).toBeDisabled();
    await user.keyboard('p'); // there is none
    await user.keyboard('n');
    expect(await screen.findByRole('heading', { name: 'Carboy', level: 1 })).toBeInTheDocument();
    expect(router.state.location.pathname).toBe(inCourse(`room/${id('Carboy')}`));
    await user.type(await screen.findByRole('textbox', { name: 'New note' }), 'pn'); // a letter in a text is a letter
    expect(router.state.location.pathname).toBe(inCourse(`room/${id('Carboy')}`));
    await user.tab();
    await user.keyboard('p');
    expect(await screen.findByRole('heading', { name: 'Crock', level: 1 })).toBeInTheDocument();
  });

  it('has no notes for those who may not mark', async () => {
    const { asked } = show([aNote('Quiet')], {}, 'observer');
    await screen.findByRole('table', { name: 'Lately' });
    expect(screen.queryByRole('region', { name: 'Notes' })).toBeNull();
    expect(asked.map(({ path }) => path)).not.toContain(notesPath);
  });
});

describe('notes', () => {
  it('are written about the group or a member, and what is not sent stays', async () => {
    const first = show([], { [`POST ${notesPath}`]: new Refusal(503, 'unavailable', 'The database does not answer.') }); // prettier-ignore
    await first.user.type(await screen.findByRole('textbox', { name: 'New note' }), 'Speaks for all');
    await first.user.click(screen.getByRole('button', { name: /About/ }));
    await first.user.click(await screen.findByRole('option', { name: 'Noor' }));
    await first.user.click(screen.getByRole('button', { name: 'Add note' }));
    expect(await screen.findByText('The database does not answer.')).toBeInTheDocument();
    first.unmount();
    const { user, writes, set } = show([]);
    expect(await screen.findByRole('textbox', { name: 'New note' })).toHaveValue('Speaks for all');
    const written = aNote('Speaks for all', {
      about: { enrolmentId: id('Noor'), name: 'Noor', reading: null },
    });
    set(`POST ${notesPath}`, written);
    set(`GET ${notesPath}`, { notes: [written] });
    await user.click(screen.getByRole('button', { name: 'Add note' }));
    expect(await within(await part()).findByRole('listitem')).toHaveTextContent(/about NoorSpeaks for all/);
    expect(writes().at(-1)?.body).toMatchObject({ text: 'Speaks for all', about: id('Noor') });
    expect(screen.getByRole('textbox', { name: 'New note' })).toHaveValue('');
  });

  it('are removed with the way back', async () => {
    const note = aNote('Quiet');
    const theirs = aNote('Loud', { author: anAuthor('Tomas', { isStaff: true }), mayRemove: false });
    const { user, writes } = show([note, theirs], {
      [`DELETE notes/${note.id}`]: { notes: [theirs] },
      [`POST notes/${note.id}/restore`]: { notes: [note, theirs] },
    });
    const [mine, other] = await within(await part()).findAllByRole('listitem');
    expect(within(other as HTMLElement).queryByRole('button')).toBeNull();
    await user.click(within(mine as HTMLElement).getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(screen.queryByText('Quiet')).toBeNull());
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    expect(await screen.findByText('Quiet')).toBeInTheDocument();
    expect(writes().map(({ method }) => method)).toEqual(['DELETE', 'POST']);
  });

  it('are changed, not over what another window wrote until that was seen', async () => {
    const note = aNote('Quiet');
    const { user, writes, set } = show([note], {
      [`PUT notes/${note.id}`]: new Refusal(409, 'stale-write', 'You changed this in another window.'),
    });
    await user.click(await screen.findByRole('button', { name: 'Edit' }));
    await user.clear(screen.getByRole('textbox', { name: 'Note' }));
    await user.type(screen.getByRole('textbox', { name: 'Note' }), 'Very quiet');
    set(`GET ${notesPath}`, { notes: [{ ...note, text: 'Silent', version: 2 }] });
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByText(/It now says:/)).toHaveTextContent('It now says: Silent');
    expect(screen.getByRole('textbox', { name: 'Note' })).toHaveValue('Very quiet');
    set(`PUT notes/${note.id}`, { notes: [{ ...note, text: 'Very quiet', version: 3 }] });
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(screen.queryByRole('textbox', { name: 'Note' })).toBeNull());
    expect(writes().map(({ body }) => body)).toEqual([
      { text: 'Very quiet', version: 1 },
      { text: 'Very quiet', version: 2 },
    ]);
    expect(screen.getByText('Very quiet')).toBeInTheDocument();
  });
});
