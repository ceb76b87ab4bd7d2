import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { draftOf } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { wholeSet } from '@jigsaw/core/release';
import { activityId, acts, composer, reach, setId } from '../test/composer.js';
import { aMember, anActivity, anEntry, aRelease, at, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

describe('what is written and released', () => {
  it('keeps drafts and withdrawn ones apart from what groups see', async () => {
    showPage(inCourse('release'), {
      [`GET courses/${courseId}/activities`]: {
        activities: [
          anActivity({ title: 'Shelf life memo' }),
          anActivity({ id: id('a2'), title: 'Ferment report', release: aRelease() }),
          anActivity({
            id: id('a3'),
            title: 'Old sheet',
            release: aRelease({ state: { state: 'withdrawn', at } }),
          }),
        ],
      },
    });
    const drafts = await screen.findByRole('region', { name: 'Drafts, seen by staff only' });
    expect(
      within(drafts)
        .getAllByRole('link')
        .map((link) => link.querySelector('b')?.textContent),
    ).toEqual(['Shelf life memo', 'Old sheet']);
    expect(within(screen.getByRole('region', { name: 'Released' })).getByRole('link')).toHaveTextContent(
      'Assignment: Ferment reportBench teams: 2 groupsDue Thu 12 Nov, 17:0040 pointsLive',
    );
  });

  it('begins a draft with one press', async () => {
    const { user, writes, router } = showPage(inCourse('release'), {
      [`GET courses/${courseId}/activities`]: { activities: [] },
      [`POST courses/${courseId}/activities`]: anActivity(),
    });
    await user.click(await screen.findByRole('button', { name: 'New activity' }));
    await user.click(await screen.findByRole('menuitem', { name: /Submission folder/ }));
    await waitFor(() => expect(router.state.location.pathname).toBe(inCourse(`release/${activityId}`)));
    expect(sure(writes()[0]).body).toMatchObject({
      kind: 'folder',
      title: 'Untitled submission folder',
      points: '40',
      settings: { by: 'group', attempts: 'latest' },
    });
  });
});

describe('the composer', () => {
  it('says before release who sees nothing and why, and which groups are empty', async () => {
    composer(anActivity());
    expect(await screen.findByText('1 see nothing')).toBeInTheDocument();
    expect(screen.getByText('Carboy is empty')).toBeInTheDocument();
    expect(screen.getByText('Is in none of the groups it was released to.')).toBeInTheDocument();
  });

  it('says before release who gets more than one copy', async () => {
    const several = [{ name: 'Noor', reading: null, groups: ['Crock', 'Panel 2'] }];
    composer(anActivity(), { [`POST activities/${activityId}/reach`]: { ...reach, several } });
    expect(await screen.findByText('1 student will get more than one copy')).toBeInTheDocument();
    expect(screen.getByText('A copy and a mark in each: Crock, Panel 2.')).toBeInTheDocument();
  });

  it('saves what is typed, with the version it began from', async () => {
    const { user, writes } = composer(anActivity(), {
      [`PUT activities/${activityId}`]: anActivity({ version: 4 }),
    });
    const points = await screen.findByLabelText('Points');
    await user.clear(points);
    await user.type(points, '50');
    // A slow machine saves between two keys, too.
    await waitFor(
      () => expect(acts(writes()).at(-1)?.body).toMatchObject({ points: '50', title: 'Ferment report' }),
      { timeout: 3000 },
    );
    expect(sure(acts(writes())[0]).body).toMatchObject({ version: 3 });
    expect(await screen.findByText(/^Saved \d\d:\d\d$/)).toBeInTheDocument();
  });

  it('does not save a draft without a title, and says why', async () => {
    const { user, writes } = composer(anActivity());
    await user.clear(await screen.findByLabelText('Title'));
    expect(await screen.findByText('Give it a title; until then it is not saved.')).toBeInTheDocument();
    expect(acts(writes())).toEqual([]);
  });

  it('offers both texts when someone else changed it', async () => {
    const theirs = anActivity({ version: 9, title: 'Their title' });
    const { user, set: answer } = composer(anActivity(), {
      [`PUT activities/${activityId}`]: new Refusal(409, 'stale-write', 'Changed.', { current: theirs }),
    });
    await user.type(await screen.findByLabelText('Title'), ' mine');
    const strip = sure(
      (
        await screen.findByText(/Someone else changed this while/, {}, { timeout: 4000 })
      ).closest<HTMLElement>('[role=alert]'),
    );
    expect(screen.getByLabelText('Title')).toHaveValue('Ferment report mine');
    answer(`GET activities/${activityId}`, theirs);
    await user.click(within(strip).getByRole('button', { name: 'Use theirs' }));
    await waitFor(() => expect(screen.getByLabelText('Title')).toHaveValue('Their title'));
  });

  it('releases what is saved to the set in view, and takes it back with one press', async () => {
    const { user, writes } = composer(anActivity(), {
      [`POST activities/${activityId}/release`]: anActivity({ release: aRelease() }),
      [`POST activities/${activityId}/withdraw`]: anActivity(),
    });
    await user.click(await screen.findByRole('button', { name: 'Release to 2 groups' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(acts(writes()).map((write) => write.path.split('/').at(-1))).toEqual(['release', 'withdraw']),
    );
    expect(sure(acts(writes())[0]).body).toEqual({
      to: wholeSet(setId),
      mode: 'own',
      outsiders: 'hidden',
      goesLiveAt: null,
      version: 3,
    });
  });

  it('shows the copy of whichever group is picked', async () => {
    const brief = {
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'placeholder', attrs: { what: 'group-name' } }] }],
    };
    const { user } = composer(anActivity({ brief }));
    const side = await screen.findByRole('complementary', { name: 'What a group will see' });
    expect(await within(side).findByText('Crock’s own copy.')).toBeInTheDocument();
    await user.click(within(side).getByRole('button', { name: 'Carboy' }));
    expect(within(side).getByText('Carboy’s own copy.')).toBeInTheDocument();
    expect(within(side).getByText('Carboy', { selector: 'span' })).toBeInTheDocument();
  });

  it('changes its kind while no one has it, with the settings of the new kind', async () => {
    const { user, writes } = composer(anActivity(), {
      [`PUT activities/${activityId}`]: anActivity({ version: 4 }),
    });
    await user.click(await screen.findByRole('button', { name: 'Discussion' }));
    expect(await screen.findByLabelText('Posts required')).toBeInTheDocument();
    await user.clear(screen.getByLabelText('Posts required'));
    await user.type(screen.getByLabelText('Posts required'), '1');
    await waitFor(
      () =>
        expect(acts(writes()).at(-1)?.body).toMatchObject({
          kind: 'discussion',
          points: null,
          settings: { posts: 1, markFor: 'student' },
        }),
      {
        timeout: 3000,
      },
    );
    expect(screen.getByText('Not marked')).toBeInTheDocument();
  });

  it('edits a rubric in place, and does not save what is none yet', async () => {
    const { user, writes } = composer(anActivity(), {
      [`PUT activities/${activityId}`]: anActivity({ version: 4 }),
    });
    await user.click(await screen.findByRole('button', { name: 'Add rubric' }));
    const name = await screen.findByLabelText('Criterion 1');
    await user.clear(name);
    expect(
      await screen.findByText(/Give each criterion a name. Until then the rubric is not saved./),
    ).toBeInTheDocument();
    await user.type(name, 'Method');
    await waitFor(
      () =>
        expect(acts(writes()).at(-1)?.body).toMatchObject({
          rubric: { criteria: [{ name: 'Method', levels: [{ name: 'Thin', points: '2' }, {}, {}, {}] }, {}] },
        }),
      { timeout: 3000 },
    );
    await user.click(screen.getByRole('button', { name: 'Remove Method' }));
    expect(screen.queryByDisplayValue('Method')).not.toBeInTheDocument();
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    expect(await screen.findByDisplayValue('Method')).toBeInTheDocument();
  });

  it('gives a group longer with a reason, and takes it back', async () => {
    const extension = {
      groupId: id<'group'>('Crock'),
      number: 1,
      name: 'Crock',
      due: '2026-11-14T17:00:00.000Z',
      closes: null,
      reason: 'Ill',
    };
    const path = `activities/${activityId}/extensions/${id('Crock')}`;
    const { user, writes } = composer(anActivity({ extensions: [extension] }), {
      [`DELETE ${path}`]: anActivity(),
      [`PUT ${path}`]: anActivity({ extensions: [extension] }),
    });
    expect(await screen.findByRole('list', { name: 'Different for' })).toHaveTextContent(
      'Crock, due Sat 14 Nov, 17:00: Ill',
    );
    await user.click(screen.getByRole('button', { name: 'Remove extension of Crock' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(acts(writes()).map((write) => [write.method, write.path])).toEqual([
        ['DELETE', path],
        ['PUT', path],
      ]),
    );
    expect(sure(acts(writes())[1]).body).toEqual({ due: extension.due, closes: null, reason: 'Ill' });
  });

  it('gives one student longer, found by name, and puts back what they had before', async () => {
    const noor = anEntry('Noor', {
      groups: [{ setId, groupId: id('Crock'), number: 1, name: 'Crock' }],
    });
    const earlier = { due: '2026-11-14T17:00:00.000Z', closes: null, reason: 'Ill' };
    const { enrolmentId } = noor;
    const own = { enrolmentId, name: 'Noor', groups: [id<'group'>('Crock')], ...earlier };
    const activity = anActivity({ studentExtensions: [own] });
    const path = `activities/${activityId}/student-extensions/${enrolmentId}`;
    const { user, writes } = composer(activity, {
      [`GET courses/${courseId}/roster`]: { entries: [noor], sets: [], attributes: [], syncedAt: null },
      [`PUT ${path}`]: activity,
    });
    await user.click(await screen.findByRole('button', { name: 'Extend for a group or student…' }));
    const sheet = await screen.findByRole('dialog');
    expect(within(sheet).getByText('Choose a group or student')).toBeInTheDocument();
    await user.type(within(sheet).getByRole('combobox', { name: 'Group or student' }), 'noor cro');
    await user.click(await screen.findByRole('option', { name: 'Noor, Crock' }));
    expect(within(sheet).getByText(/has until Sat 14 Nov, 17:00 already: Ill/)).toBeInTheDocument();
    await user.type(within(sheet).getByLabelText('Reason, shown to this student alone'), 'Still ill');
    await user.click(within(sheet).getByRole('button', { name: 'Extend for Noor' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(acts(writes())).toHaveLength(2));
    expect(acts(writes()).map((write) => write.body)).toEqual([
      { due: '2026-11-12T17:00:00.000Z', closes: null, reason: 'Still ill' },
      earlier,
    ]);
  });

  it('shows what is changed in what groups have, whose marks that touches, and makes it visible with one press', async () => {
    const live = anActivity({ release: aRelease() });
    const inWork = { ...draftOf(live), points: '50', brief: live.brief, files: [] };
    const changed = anActivity({ release: aRelease(), inWork, version: 4 });
    const { user, writes, set } = composer(live, {
      [`PUT activities/${activityId}`]: changed,
      [`POST activities/${activityId}/marks-foreseen`]: {
        changes: [{ member: aMember('Noor'), group: null, says: '30 of 40 → 30 of 50' }],
      },
      [`POST activities/${activityId}/publish`]: { ...live, points: '50', version: 5 },
      [`POST activities/${activityId}/discard`]: { ...live, version: 5 },
    });
    expect(screen.queryByRole('region', { name: /groups do not see/ })).not.toBeInTheDocument();
    const points = await screen.findByLabelText('Points');
    await user.clear(points);
    await user.type(points, '50');
    const strip = await screen.findByRole('region', { name: 'Changes that groups do not see yet' });
    expect(within(strip).getByText('40 points → 50 points')).toBeInTheDocument();
    expect(await within(strip).findByText(/30 of 40 → 30 of 50/)).toBeInTheDocument();
    set(`GET activities/${activityId}`, { ...live, points: '50', version: 5 });
    await user.click(within(strip).getByRole('button', { name: 'Publish changes to 2 groups, 2 students' }));
    expect(await screen.findByText('Changes published to 2 groups, 2 students')).toBeInTheDocument();
    await waitFor(() => expect(strip).not.toBeInTheDocument());
    expect(sure(acts(writes()).at(-1))).toMatchObject({
      path: `activities/${activityId}/publish`,
      body: { version: 4 },
    });
  });

  it('deletes a draft, which can be brought back', async () => {
    const { user, writes, router } = composer(anActivity(), {
      [`DELETE activities/${activityId}`]: { done: true },
      [`POST activities/${activityId}/restore`]: anActivity(),
      [`GET courses/${courseId}/activities`]: { activities: [] },
    });
    await user.click(await screen.findByRole('button', { name: 'Delete draft' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(inCourse('release')));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(acts(writes()).map((write) => write.method)).toEqual(['DELETE', 'POST']));
  });
});
