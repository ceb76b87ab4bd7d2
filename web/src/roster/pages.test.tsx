import { describe, expect, it } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { api } from '../api/index.js';
import { anAudience, audienceAnswers } from '../test/audiences.js';
import { anEntry, courseId, id, rosterAnswers } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';

describe('the roster', () => {
  it('says how to begin when it is empty', async () => {
    showPage(inCourse('people'), rosterAnswers());
    expect(await screen.findByRole('heading', { name: 'No students yet' })).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Import a class file' })).toHaveAttribute(
      'href',
      inCourse('people/import'),
    );
  });

  it('counts students and staff apart, and leaves out who has left', async () => {
    showPage(
      inCourse('people'),
      rosterAnswers(
        anEntry('Ada Okafor'),
        anEntry('Tomas Vey', { role: 'assistant' }),
        anEntry('Gone Away', { leftAt: '2026-11-01T00:00:00.000Z' }),
      ),
    );
    const views = within(await screen.findByRole('radiogroup', { name: 'Who is shown' }));
    expect(views.getAllByRole('radio').map((each) => each.textContent)).toEqual([
      'All 2',
      'Students 1',
      'Staff 1',
      'Left 1',
    ]);
    expect(screen.getByText(/^2 people/)).toBeInTheDocument();
  });

  it('finds by name, reading, number and address, without accents and case', async () => {
    const { user } = showPage(
      inCourse('people'),
      rosterAnswers(
        anEntry('Zofia Wiśniewska', { number: 'fe-7' }),
        anEntry('한서연', { reading: 'Han Seo-yeon', email: 'han@quillmere.example' }),
        anEntry('Ada Okafor'),
      ),
    );
    const find = await screen.findByPlaceholderText(/Find a name/);
    for (const sought of ['WISNIEWSKA', 'seo-yeon', 'fe-7', 'ada@']) {
      await user.clear(find);
      await user.type(find, sought);
      expect(screen.getByText(/^1 of 3 people/)).toBeInTheDocument();
    }
    await user.clear(find);
    await user.type(find, 'no one');
    expect(screen.getByText(/^0 of 3 people/)).toBeInTheDocument();
  });

  it('puts the cursor into the search with one key', async () => {
    const { user } = showPage(inCourse('people'), rosterAnswers(anEntry('Ada Okafor')));
    const find = await screen.findByPlaceholderText(/Find a name/);
    await user.keyboard('/');
    expect(find).toHaveFocus();
    expect(find).toHaveValue('');
  });

  it('is narrowed to a saved audience beside everything else, and to nothing once that is gone', async () => {
    const evening = anAudience('Evening', { id: id('evening') });
    const page = showPage(inCourse('people'), {
      ...rosterAnswers(anEntry('Ada Okafor'), anEntry('Ben Ek'), anEntry('Tomas Vey', { role: 'assistant' })),
      ...audienceAnswers([evening], ['Ben Ek', 'Tomas Vey']),
    });
    await page.user.click(await screen.findByRole('checkbox', { name: 'Select Ada Okafor' }));
    await page.user.click(screen.getByRole('button', { name: /Audience/ }));
    await page.user.click(await screen.findByRole('option', { name: 'Evening' }));
    expect(await screen.findByText(/^2 people/)).toBeInTheDocument();
    expect(screen.queryByText('Ada Okafor')).not.toBeInTheDocument();
    await page.user.click(screen.getByText('Students 2'));
    expect(await screen.findByText(/^1 person/)).toBeInTheDocument();
    expect(screen.getByText('Ben Ek')).toBeInTheDocument();
    page.set(`GET courses/${courseId}/audiences`, { audiences: [] });
    page.store.dispatch(api.util.invalidateTags(['Audience']));
    expect(await screen.findByText(/^2 people/)).toBeInTheDocument();
    expect(screen.getByText('Ada Okafor')).toBeInTheDocument();
  });

  it('keeps managing from assistants, who may write to people', async () => {
    const { user } = showPage(inCourse('people'), rosterAnswers(anEntry('Ada Okafor')), 'assistant');
    expect(await screen.findByText('1 person')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Add a person/ })).not.toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Invite/ })).not.toBeInTheDocument();
    expect(screen.queryByRole('link', { name: /Import people/ })).not.toBeInTheDocument();
    await user.click(screen.getByRole('checkbox', { name: 'Select Ada Okafor' }));
    expect(screen.getByRole('button', { name: 'Write to them…' })).toBeInTheDocument();
    for (const name of ['Edit…', 'Role…', 'Remove from course'])
      expect(screen.queryByRole('button', { name })).not.toBeInTheDocument();
  });

  it('hands out links, one person a line', async () => {
    const link = { name: 'Ada Okafor', email: 'ada@quillmere.example', url: 'http://x/welcome#token' };
    const { user, writes } = showPage(inCourse('people'), {
      ...rosterAnswers(anEntry('Ada Okafor', { hasComeIn: false }), anEntry('Ben Ek')),
      [`POST courses/${courseId}/roster/sign-in-links`]: {
        links: [link],
        expiresAt: '2026-11-24T10:00:00.000Z',
      },
    });
    await user.click(await screen.findByRole('button', { name: 'Invite…' }));
    await user.click(await screen.findByRole('menuitem', { name: /Create sign-in links/ }));
    const dialog = await screen.findByRole('dialog', { name: 'Sign-in links' });
    expect(dialog).toHaveTextContent('1 person has not signed in yet.');
    expect(writes()).toEqual([]); // opening it makes nothing
    await user.click(within(dialog).getByRole('button', { name: 'Create 1 link' }));
    expect(await within(dialog).findByRole('textbox')).toHaveValue(
      'Ada Okafor\tada@quillmere.example\thttp://x/welcome#token',
    );
  });
});
