import { describe, expect, it } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { courseId } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const stations = () =>
  within(screen.getByRole('navigation', { name: 'Stations' }))
    .getAllByRole('link')
    .map((link) => link.textContent.trim());

describe('the track', () => {
  it('is there while its figures are being counted', async () => {
    const figures = `GET courses/${courseId}/figures`;
    showPage(inCourse('course'), { [figures]: () => new Promise(() => undefined) });
    await screen.findByRole('navigation', { name: 'Stations' });
    expect(stations()).toEqual(['People', 'Groups', 'Release', 'Rooms', 'Marks']);
  });

  it('leads on when they cannot be had', async () => {
    const { user, router } = showPage(
      inCourse('due'),
      { [`GET courses/${courseId}/figures`]: new Refusal(500, 'unexpected', 'Something went wrong.') },
      'student',
    );
    await user.click(await screen.findByRole('link', { name: 'Room' }));
    expect(router.state.location.pathname).toBe(inCourse('room'));
    expect(stations()).toEqual(['Due', 'Room', 'Marks']);
  });
});
