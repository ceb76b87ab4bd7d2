/** Where a Board's tests look, and how they write down what was moved. */
import { expect } from '@jest/globals';
import { screen } from '@testing-library/react';
import { id } from './data.js';
import { inCourse } from './showPage.js';

export const setId = id<'group-set'>('benches');

export const path = inCourse(`groups/${setId}`);

export const placePath = `POST sets/${setId}/place`;

export const tray = () => screen.findByRole('grid', { name: 'Unplaced students' });

export const group = (name: string) => screen.getByRole('grid', { name: new RegExp(`^${name}, group`) });

export const names = (grid: HTMLElement) =>
  [...grid.querySelectorAll('[role=row][data-key]')].map(
    (row) => row.getAttribute('aria-label') ?? row.textContent,
  );

/** In the notice, and then in the list of this sitting. */
export const said = async (words: string) =>
  expect((await screen.findAllByText(words)).length).toBeGreaterThan(0);

export const move = (name: string, from: string | null, to: string | null) => ({
  student: id(name),
  from: from && id(from),
  to: to && id(to),
});
