import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { sure } from '@jigsaw/core/lists';
import { someGroups, wholeSet } from '@jigsaw/core/release';
import { activityId, acts, composer, reach, set, setId } from '../test/composer.js';
import { anAudience } from '../test/audiences.js';
import { anActivity, anEntry, aRelease, courseId, id, rosterAnswers } from '../test/data.js';
import { inCourse, Refusal } from '../test/showPage.js';

describe('reached an activity is released to', () => {
  it('releases in another way, to some groups, and says so on the button', async () => {
    const { user, writes } = composer(anActivity({ kind: 'discussion', settings: {} }), {
      [`POST activities/${activityId}/release`]: anActivity({ release: aRelease() }),
    });
    await user.click(await screen.findByText('Groups read each other'));
    await user.click(await screen.findByRole('button', { name: 'Carboy', pressed: true }));
    await user.click(screen.getByRole('button', { name: /What others see/ }));
    await user.click(await screen.findByRole('option', { name: 'see that it exists, locked' }));
    await user.click(screen.getByRole('button', { name: /^Release to/ }));
    await waitFor(() => expect(acts(writes()).length).toBeGreaterThan(0));
    expect(sure(acts(writes()).at(-1)).body).toMatchObject({
      to: someGroups(setId, [id('Crock')]),
      mode: 'read-along',
      outsiders: 'listed',
    });
  });

  it('goes to a saved audience; one without groups only in one copy for all', async () => {
    const dairy = anAudience('Dairy', { id: id('dairy'), people: 5, groups: 2 });
    const audiences = [dairy, { ...dairy, id: id('late'), name: 'Late', groups: 0 }];
    const { user, writes } = composer(anActivity(), {
      [`GET courses/${courseId}/audiences`]: { audiences },
      [`POST activities/${activityId}/release`]: anActivity({ release: aRelease() }),
    });
    await user.click(await screen.findByText('Audience, 2 groups, 5 people'));
    expect(screen.getByText('Audience without groups: only in one copy for all')).toBeInTheDocument();
    expect(screen.getByRole('checkbox', { name: /^Late/ })).toBeDisabled();
    await user.click(screen.getByRole('button', { name: /^Release to/ }));
    await waitFor(() => expect(acts(writes()).length).toBeGreaterThan(0));
    const { include } = wholeSet(setId);
    expect(sure(acts(writes()).at(-1)).body).toMatchObject({
      to: { include: [...include, { kind: 'audience', audienceId: id('dairy') }], exclude: [] },
    });
  });

  it('says when the audiences cannot be asked for', async () => {
    composer(anActivity(), {
      [`GET courses/${courseId}/audiences`]: new Refusal(502, 'away', 'The server is away.'),
    });
    expect(await screen.findByText('The server is away.')).toBeInTheDocument();
  });

  it('goes to several sets together, without someone who is left out by name', async () => {
    const other = { ...set, id: id<'group-set'>('experts'), name: 'Expert tables' };
    const beth = anEntry('Beth Orr');
    const { user, writes } = composer(anActivity(), {
      [`GET courses/${courseId}/sets`]: { sets: [set, other], archived: [], students: 3 },
      [`POST activities/${activityId}/reach`]: (body: unknown) => ({
        ...reach,
        leftOut: (body as { to: { exclude: string[] } }).to.exclude.map((enrolmentId) => ({
          enrolmentId,
          name: 'Beth Orr',
        })),
      }),
      [`POST activities/${activityId}/release`]: anActivity({ release: aRelease() }),
      ...rosterAnswers(beth, anEntry('Ada Okafor')),
    });
    const sets = within(await screen.findByRole('group', { name: 'Released to' }));
    await user.click(await sets.findByRole('checkbox', { name: new RegExp(set.name) }));
    await user.click(sets.getByRole('checkbox', { name: /Expert tables/ }));
    await user.click(await screen.findByRole('button', { name: 'Exclude someone…' }));
    await user.type(await screen.findByRole('combobox', { name: 'Someone more' }), 'Beth');
    await user.click(await screen.findByRole('option', { name: /Beth Orr/ }));
    expect(await screen.findByRole('button', { name: 'Without Beth Orr' })).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: /^Release to/ }));
    await waitFor(() => expect(acts(writes()).length).toBeGreaterThan(0));
    expect(sure(acts(writes()).at(-1)).body).toMatchObject({
      to: {
        include: [...wholeSet(setId).include, ...wholeSet(other.id).include],
        exclude: [beth.enrolmentId],
      },
    });
  });

  it('offers the class where a kind can be one copy, and not where it cannot', async () => {
    composer(anActivity({ kind: 'discussion', settings: {} }));
    expect(await screen.findByText('The whole class')).toBeInTheDocument();
  });

  it('does not offer one copy for all of what a group hands in', async () => {
    composer(anActivity());
    expect(await screen.findByText('Not for this assignment')).toBeInTheDocument();
    expect(screen.queryByText('The whole class')).not.toBeInTheDocument();
  });

  it('changes reached a release reaches afterwards, with the way back', async () => {
    const out = anActivity({ release: aRelease() });
    const { user, writes } = composer(out, { [`PUT activities/${activityId}/reach`]: out });
    await user.click(await screen.findByRole('button', { name: 'Carboy', pressed: true }));
    await user.click(await screen.findByRole('button', { name: /^Change to/ }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(writes().filter((write) => write.method === 'PUT')).toHaveLength(2));
    expect(
      writes()
        .filter((write) => write.method === 'PUT')
        .map((write) => (write.body as { to: unknown }).to),
    ).toEqual([someGroups(setId, [id('Crock')]), wholeSet(setId)]);
  });

  it('never chooses between two sets by itself', async () => {
    const other = { ...set, id: id<'group-set'>('labs'), name: 'Lab sections' };
    const { user } = composer(anActivity(), {
      [`GET courses/${courseId}/sets`]: { sets: [other, set], archived: [], students: 3 },
    });
    expect(await screen.findByText('Choose who gets it first')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Release' })).toBeDisabled();
    await user.click(await screen.findByText('Bench teams'));
    expect(await screen.findByRole('button', { name: 'Release to 2 groups' })).toBeEnabled();
  });

  it('is copied to write further, or the same for another set, which it is then meant for', async () => {
    const other = { ...set, id: id<'group-set'>('experts'), name: 'Expert tables' };
    const copied = anActivity({ id: id('again') });
    const { user, writes, router } = composer(anActivity({ release: aRelease() }), {
      [`GET courses/${courseId}/sets`]: { sets: [set, other], archived: [], students: 3 },
      [`POST activities/${activityId}/copy`]: copied,
      [`GET activities/${copied.id}`]: copied,
      [`POST activities/${copied.id}/reach`]: reach,
    });
    await user.click(await screen.findByRole('button', { name: 'Copy activity…' }));
    expect(screen.getAllByRole('menuitem').map((item) => item.textContent)).toEqual([
      'As a new draft',
      'The same for Expert tables',
    ]);
    await user.click(screen.getByRole('menuitem', { name: 'The same for Expert tables' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(inCourse(`release/${copied.id}`)));
    expect(router.state.location.search).toBe(`?for=${other.id}`);
    expect(sure(acts(writes())[0]).body).toEqual({ keepsTitle: true });
    await waitFor(() => expect(sure(writes().at(-1)).body).toMatchObject({ to: wholeSet(other.id) }));
  });

  it('asks for a group set first where there is none', async () => {
    composer(anActivity(), { [`GET courses/${courseId}/sets`]: { sets: [], archived: [], students: 3 } });
    expect(await screen.findByText(/Create a group set first/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Release' })).toBeDisabled();
  });
});
