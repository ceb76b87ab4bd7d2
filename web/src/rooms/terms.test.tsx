import { expect, it } from '@jest/globals';
import { screen } from '@testing-library/react';
import { aHead, courseId, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';

const at = (kind: string, settings: object) =>
  showPage(
    inCourse(`copies/${id('copy')}`),
    {
      [`GET copies/${id('copy')}`]: aHead({
        kind,
        settings: settings as never,
        schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes: null },
        serverTime: '2026-11-12T18:00:00.000Z',
      }),
      [`GET courses/${courseId}/rooms`]: { rooms: [], common: [], locked: [] },
    },
    'student',
  );

it('tells of points that being late costs only where it costs some', async () => {
  const { unmount } = at('assignment', {});
  expect(await screen.findByText(/loses 10 % of the points/)).toBeInTheDocument();
  expect(screen.getByText('late: −4 points')).toBeInTheDocument();
  unmount();
  const talk = at('discussion', {});
  expect(
    await screen.findByText('Posts after the due date do not count towards the requirement.'),
  ).toBeInTheDocument();
  expect(screen.getByText('past due')).toBeInTheDocument();
  talk.unmount();
  at('wiki', {});
  expect(await screen.findByText(/^Due Thu 12 Nov/)).toBeInTheDocument();
  expect(screen.queryByText(/points/)).not.toBeInTheDocument();
});
