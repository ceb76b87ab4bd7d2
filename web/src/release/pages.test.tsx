import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { ActivityView } from '@jigsaw/contract/release';
import { anActivity, aRelease, at, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const activityId = id<'activity'>('report');
const setId = id<'group-set'>('benches');
const set = { id: setId, name: 'Bench teams', capacity: 4, groupCount: 2, unplaced: 1 };
const reach = {
  groups: ['Crock', 'Carboy'].map((name, index) => ({ groupId: id(name), number: index + 1, name, members: index === 0 ? 2 : 0, copyId: null })),
  outside: [{ name: 'Nino', reading: null, why: ['Sees nothing of it.', 'Is in none of the groups it was released to.'] }],
};
const composer = (activity: ActivityView, more = {}) =>
  showPage(inCourse(`release/${activityId}`), {
    [`GET activities/${activityId}`]: activity,
    [`GET courses/${courseId}/sets`]: { sets: [set], students: 3 },
    [`GET activities/${activityId}/reach/${setId}`]: reach,
    ...more,
  });

describe('what is written and released', () => {
  it('keeps drafts and withdrawn ones apart from what groups see', async () => {
    showPage(inCourse('release'), {
      [`GET courses/${courseId}/activities`]: {
        activities: [
          anActivity({ title: 'Shelf life memo' }),
          anActivity({ id: id('a2'), title: 'Ferment report', release: aRelease() }),
          anActivity({ id: id('a3'), title: 'Old sheet', release: aRelease({ state: { state: 'withdrawn', at } }) }),
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
      'Ferment reportBench teams: 2 groupsDue Thu 12 Nov, 17:0040 pointsLive',
    );
  });

  it('begins a draft with one press', async () => {
    const { user, writes, router } = showPage(inCourse('release'), {
      [`GET courses/${courseId}/activities`]: { activities: [] },
      [`POST courses/${courseId}/activities`]: anActivity(),
    });
    await user.click(await screen.findByRole('button', { name: 'Write an assignment' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(inCourse(`release/${activityId}`)));
    expect(writes()[0]!.body).toMatchObject({ title: 'Untitled assignment', points: '40' });
  });
});

describe('the composer', () => {
  it('says before release who sees nothing and why, and which groups are empty', async () => {
    composer(anActivity());
    expect(await screen.findByText('1 unplaced see nothing')).toBeInTheDocument();
    expect(screen.getByText('1 groups are empty')).toBeInTheDocument();
    expect(screen.getByText('Is in none of the groups it was released to.')).toBeInTheDocument();
  });

  it('saves what is typed, with the version it began from', async () => {
    const { user, writes } = composer(anActivity(), { [`PUT activities/${activityId}`]: anActivity({ version: 4 }) });
    const points = await screen.findByLabelText('Points');
    await user.clear(points);
    await user.type(points, '50');
    await waitFor(() => expect(writes().length).toBeGreaterThan(0), { timeout: 3000 });
    expect(writes().at(-1)!.body).toMatchObject({ points: '50', title: 'Ferment report', version: 3 });
    expect(await screen.findByText(/^Saved \d\d:\d\d$/)).toBeInTheDocument();
  });

  it('does not save a draft without a title, and says why', async () => {
    const { user, writes } = composer(anActivity());
    await user.clear(await screen.findByLabelText('Title'));
    expect(await screen.findByText('Give it a title; until then it is not saved.')).toBeInTheDocument();
    expect(writes()).toEqual([]);
  });

  it('offers both texts when somebody else changed it', async () => {
    const theirs = anActivity({ version: 9, title: 'Their title' });
    const { user, set: answer } = composer(anActivity(), {
      [`PUT activities/${activityId}`]: new Refusal(409, 'stale-write', 'Changed.', { current: theirs }),
    });
    await user.type(await screen.findByLabelText('Title'), ' mine');
    const strip = (await screen.findByText(/Someone else changed this assignment/, {}, { timeout: 4000 })).closest<HTMLElement>('[role=alert]')!;
    expect(screen.getByLabelText('Title')).toHaveValue('Ferment report mine');
    answer(`GET activities/${activityId}`, theirs);
    await user.click(within(strip).getByRole('button', { name: 'Take theirs' }));
    await waitFor(() => expect(screen.getByLabelText('Title')).toHaveValue('Their title'));
  });

  it('releases what is saved to the set in view, and takes it back with one press', async () => {
    const { user, writes } = composer(anActivity(), {
      [`POST activities/${activityId}/release`]: anActivity({ release: aRelease() }),
      [`POST activities/${activityId}/withdraw`]: anActivity(),
    });
    await user.click(await screen.findByRole('button', { name: 'Release to 2 groups' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(writes().map((write) => write.path.split('/').at(-1))).toEqual(['release', 'withdraw']));
    expect(writes()[0]!.body).toEqual({ setId, goesLiveAt: null, version: 3 });
  });

  it('shows the copy of whichever group is picked', async () => {
    const brief = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'placeholder', attrs: { what: 'group-name' } }] }] };
    const { user } = composer(anActivity({ brief }));
    const side = await screen.findByRole('complementary', { name: 'What a group will see' });
    expect(await within(side).findByText('Crock’s own copy.')).toBeInTheDocument();
    await user.click(within(side).getByRole('button', { name: 'Carboy' }));
    expect(within(side).getByText('Carboy’s own copy.')).toBeInTheDocument();
    expect(within(side).getByText('Carboy', { selector: 'span' })).toBeInTheDocument();
  });

  it('asks for a group set first where there is none', async () => {
    composer(anActivity(), { [`GET courses/${courseId}/sets`]: { sets: [], students: 3 } });
    expect(await screen.findByText('Make a group set first')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Release' })).toBeDisabled();
  });

  it('never chooses between two sets by itself', async () => {
    const other = { ...set, id: id<'group-set'>('labs'), name: 'Lab sections' };
    const { user } = composer(anActivity(), { [`GET courses/${courseId}/sets`]: { sets: [other, set], students: 3 } });
    expect(await screen.findByText('Choose a group set first')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Release' })).toBeDisabled();
    await user.click(await screen.findByText('Bench teams'));
    expect(await screen.findByRole('button', { name: 'Release to 2 groups' })).toBeEnabled();
  });
});
