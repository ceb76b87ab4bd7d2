import { beforeEach, describe, expect, it } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import { sure } from '@jigsaw/core/lists';
import { aBoard, courseId } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';
import { setId, path } from '../test/onBoard.js';

beforeEach(() => localStorage.clear()); // what was done on a Board is kept there

describe('a new group set', () => {
  const open = (students: number) =>
    showPage(inCourse('groups/new'), {
      [`GET courses/${courseId}/sets`]: { sets: [], archived: [], students },
    });
  const heading = (name: string) => screen.findByRole('heading', { name });

  it('shows what will come of it before anything is made', async () => {
    const { user } = open(27);
    const size = await screen.findByLabelText('Members in a group');
    await user.clear(size);
    await user.type(size, '6');
    expect(await heading('5 groups: 2 of 6, 3 of 5')).toBeInTheDocument();
    await user.click(screen.getByText(/^Full groups/));
    expect(await heading('5 groups: 4 of 6, 1 of 3')).toBeInTheDocument();
    await user.click(screen.getByText(/^A fixed number/));
    expect(await heading('12 groups: 3 of 3, 9 of 2')).toBeInTheDocument();
  });

  it('says that groups stay empty, and what a shape must be', async () => {
    const { user } = open(2);
    await user.click(await screen.findByText(/^A fixed number/));
    expect(screen.getByText(/10 groups stay empty/)).toBeInTheDocument();
    const count = screen.getByLabelText('Number of groups');
    await user.clear(count);
    await user.type(count, '2.5');
    expect(screen.getByText('Write a whole number above 0.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Create groups' })).toBeDisabled();
  });

  it('sends the names that were pasted and goes on to deal by rules', async () => {
    const made = { ...aBoard({}).set, id: setId, capacity: 4, unplaced: 8, activities: [] };
    const { user, writes, set, router } = open(8);
    set(`POST courses/${courseId}/sets`, made);
    await user.type(await screen.findByLabelText('Name of the set'), 'Bench teams');
    await user.type(screen.getByLabelText(/^Places in each group/), '4');
    await user.type(screen.getByLabelText('Or paste names, one per line'), 'Crock\nCarboy');
    await user.click(screen.getByRole('button', { name: 'Create 2 groups' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(`${path}/deal`));
    expect(sure(writes()[0]).body).toEqual({
      name: 'Bench teams',
      shape: { by: 'size', size: 4, how: 'spread' },
      capacity: 4,
      isExclusive: true,
      pattern: 'Group {n}',
      names: ['Crock', 'Carboy'],
      signUp: null,
    });
  });
});
