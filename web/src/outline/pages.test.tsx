import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { OutlineView } from '@jigsaw/contract/outline';
import type { ActivityId } from '@jigsaw/core/ids';
import { headingMoved, placed } from '@jigsaw/core/outline';
import { aGroup, anActivity, aRelease, aRoom, aRoomItem, courseId, id, rooms } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const heading = (name: string, title: string, activityIds: ActivityId[], version: number | null = 1) => ({ id: id<'heading'>(name), title, version, activityIds }); // prettier-ignore
const [log, memo, report] = [id<'activity'>('log'), id<'activity'>('memo'), id<'activity'>('report')];
const outline: OutlineView = {
  headings: [heading('milk', 'Milk', [log, memo]), heading('salt', 'Salt', [])],
  loose: [report],
};
const activities = [
  anActivity({ id: log, title: 'Starter log', release: aRelease() }),
  anActivity({ id: memo, title: 'Shelf memo' }),
  anActivity({ id: report, title: 'Ferment report', release: aRelease() }),
];
const outlinePath = `GET courses/${courseId}/outline`;
const show = (more: object = {}, role: 'instructor' | 'assistant' = 'instructor') =>
  showPage(
    inCourse('outline'),
    { [`GET courses/${courseId}/activities`]: { activities }, [outlinePath]: outline, ...more },
    role,
  );
const under = async (name: string) =>
  within(await screen.findByRole('region', { name }))
    .queryAllByRole('row')
    .map((row) => row.querySelector('b')?.textContent);
const choose = async (user: ReturnType<typeof show>['user'], title: string, act: string) => {
  await user.click(await screen.findByRole('button', { name: `More for ${title}` }));
  await user.click(await screen.findByRole('menuitem', { name: act }));
};

describe('the outline for those who arrange it', () => {
  it('shows everything in its order, drafts too', async () => {
    show();
    expect(await under('Milk')).toEqual(['Starter log', 'Shelf memo']);
    expect(await under('Everything else')).toEqual(['Ferment report']);
    expect(within(screen.getByRole('region', { name: 'Salt' })).getByText(/Drag an activity here/)).toBeInTheDocument(); // prettier-ignore
    expect(screen.getByText('Draft')).toBeInTheDocument();
  });

  it('moves an activity at once, and back', async () => {
    const place = `POST activities/${memo}/place`;
    const to = { headingId: id<'heading'>('salt'), before: null };
    let answer: (value: unknown) => void = () => undefined;
    const { user, writes, set } = show({
      [place]: () => new Promise((resolve) => (answer = resolve)),
    });
    await choose(user, 'Shelf memo', 'Move under “Salt”');
    // Before the server has answered.
    await waitFor(async () => expect(await under('Salt')).toEqual(['Shelf memo']));
    const was = { headingId: id<'heading'>('milk'), before: null };
    answer({ outline: placed(outline, memo, to), was });
    expect(await screen.findByText('“Shelf memo” moved under “Salt”')).toBeInTheDocument();
    set(place, { outline, was: to });
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(async () => expect(await under('Milk')).toEqual(['Starter log', 'Shelf memo']));
    expect(writes().map(({ body }) => body)).toEqual([to, was]);
  });

  it('has an activity where it was when the move is refused', async () => {
    const { user } = show({
      [`POST activities/${log}/place`]: new Refusal(409, 'conflict', 'This heading was deleted meanwhile.'),
    });
    await choose(user, 'Starter log', 'Move down');
    expect(await screen.findByText('This heading was deleted meanwhile.')).toBeInTheDocument();
    expect(await under('Milk')).toEqual(['Starter log', 'Shelf memo']);
  });

  it('adds a heading, and moves one', async () => {
    const more = { ...outline, headings: [...outline.headings, heading('time', 'Time', [])] };
    const { user, writes } = show({
      [`POST courses/${courseId}/headings`]: more,
      [`POST headings/${id('time')}/move`]: {
        outline: headingMoved(more, id<'heading'>('time'), id<'heading'>('salt')),
        was: { before: null },
      },
    });
    await user.click(await screen.findByRole('button', { name: 'New heading' }));
    await user.keyboard('Time{Enter}');
    expect(await screen.findByRole('heading', { name: 'Time' })).toBeInTheDocument();
    expect(screen.queryByRole('textbox')).not.toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Move Time up' }));
    expect(await screen.findByText('“Time” moved')).toBeInTheDocument();
    expect(writes().map(({ body }) => body)).toEqual([{ title: 'Time' }, { before: id('salt') }]);
    expect(screen.getAllByRole('heading', { level: 2 }).map((each) => each.textContent)).toEqual([
      'Milk',
      'Time',
      'Salt',
      'Everything else',
    ]);
  });

  it('keeps a typed title that someone else’s came before, and saves it over that', async () => {
    const rename = `PUT headings/${id('salt')}`;
    const theirs = { ...outline, headings: [sureFirst, heading('salt', 'Sea salt', [], 2)] };
    const { user, writes, set } = show({
      [rename]: new Refusal(409, 'stale-write', 'Someone renamed this heading to “Sea salt” meanwhile.'),
    });
    await user.click(await screen.findByRole('button', { name: 'Rename Salt' }));
    set(outlinePath, theirs);
    await user.clear(screen.getByRole('textbox', { name: 'New title of Salt' }));
    await user.keyboard('Rock salt{Enter}');
    expect(await screen.findByText(/to “Sea salt” meanwhile/)).toBeInTheDocument();
    const field = await screen.findByRole('textbox', { name: 'New title of Sea salt' });
    expect(field).toHaveValue('Rock salt');
    set(rename, { ...outline, headings: [sureFirst, heading('salt', 'Rock salt', [], 3)] });
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByRole('heading', { name: 'Rock salt' })).toBeInTheDocument();
    expect(writes().map(({ body }) => body)).toEqual([
      { title: 'Rock salt', version: 1 },
      { title: 'Rock salt', version: 2 },
    ]);
  });

  it('deletes a heading with a way back', async () => {
    const { user, writes } = show({
      [`DELETE headings/${id('milk')}`]: { headings: outline.headings.slice(1), loose: [log, memo, report] },
      [`POST headings/${id('milk')}/restore`]: outline,
    });
    await user.click(await screen.findByRole('button', { name: 'Delete Milk' }));
    expect(await screen.findByText('“Milk” deleted. Its activities stay.')).toBeInTheDocument();
    expect(await under('Everything else')).toHaveLength(3);
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(async () => expect(await under('Milk')).toHaveLength(2));
    expect(writes().map(({ method }) => method)).toEqual(['DELETE', 'POST']);
  });

  it('is looked at by other staff', async () => {
    show({}, 'assistant');
    expect(await under('Milk')).toHaveLength(2);
    expect(screen.queryByRole('button', { name: /Rename|Delete|More for|New heading/ })).toBeNull();
  });
});

const sureFirst = heading('milk', 'Milk', [log, memo]);

describe('the outline for a student', () => {
  it('has the same order, each with where their own work stands', async () => {
    const item = (activityId: ActivityId, title: string, copy: string) => aRoomItem({ activityId, title, copyId: id<'copy'>(copy) }); // prettier-ignore
    showPage(
      inCourse('outline'),
      {
        [outlinePath]: { headings: [heading('milk', 'Milk', [memo, log], null)], loose: [report] },
        [`GET courses/${courseId}/rooms`]: rooms(
          aRoom({ items: [item(report, 'Ferment report', 'c1'), item(log, 'Starter log', 'c2'), item(memo, 'Shelf memo', 'c3')] }),
        ), // prettier-ignore
      },
      'student',
    );
    const links = async (name: string) =>
      within(await screen.findByRole('region', { name }))
        .getAllByRole('link')
        .map((link) => link.querySelector('b')?.textContent);
    expect(await links('Milk')).toEqual(['Shelf memo', 'Starter log']);
    expect(await links('Everything else')).toEqual(['Ferment report']);
    expect(screen.getAllByText('To hand in')).toHaveLength(3);
  });

  it('tells apart what one has in several groups', async () => {
    const one = (copy: string, group: string) =>
      aRoom({
        group: { ...aGroup(group), id: id(group) },
        items: [aRoomItem({ activityId: log, title: 'Starter log', copyId: id<'copy'>(copy) })],
      });
    showPage(
      inCourse('outline'),
      {
        [outlinePath]: { headings: [heading('milk', 'Milk', [log], null)], loose: [] },
        [`GET courses/${courseId}/rooms`]: rooms(one('c1', 'Crock'), one('c2', 'Tun')),
      },
      'student',
    );
    const links = await screen.findAllByRole('link', { name: /Starter log/ });
    expect(links.map((link) => /Crock|Tun/.exec(link.textContent)?.[0])).toEqual(['Crock', 'Tun']);
  });

  it('says what will be here', async () => {
    showPage(
      inCourse('outline'),
      { [outlinePath]: { headings: [], loose: [] }, [`GET courses/${courseId}/rooms`]: rooms() },
      'student',
    );
    expect(await screen.findByRole('heading', { name: 'Nothing is here yet' })).toBeInTheDocument();
  });
});
