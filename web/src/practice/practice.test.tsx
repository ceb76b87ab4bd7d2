import { afterEach, describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { aRoom, courseId, id, rooms } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const room = aRoom();
const at = `courses/${courseId}/practice`;
const session = {
  person: { id: id('practice'), name: 'Practice student', reading: null, email: '' },
  mayCreateCourses: false,
  isProven: true,
  sitsIn: { courseId, enrolmentId: id('practice'), practisesIn: { groupId: room.group.id, name: 'Crock' } },
};
const answers = {
  'GET session': session,
  [`GET courses/${courseId}/rooms`]: rooms(room),
  [`POST ${at}`]: { round: 3, hasTraces: true },
  [`POST ${at}/clear`]: { round: 4, hasTraces: false },
  [`POST ${at}/restore`]: { round: 3, hasTraces: true },
};
const strip = () => screen.findByRole('region', { name: 'Practising' });
const show = (more = {}) => {
  window.history.replaceState(null, '', `/practise/${room.group.id}/c/1/room`);
  return showPage(inCourse('room'), { ...answers, ...more }, 'student');
};

afterEach(() => {
  window.history.replaceState(null, '', '/');
  sessionStorage.clear();
  localStorage.clear();
});

describe('a page on which someone practises', () => {
  it('says so, makes everything ready, and clears it with the way back', async () => {
    const { user, writes } = show();
    expect(await strip()).toHaveTextContent('Practising as a member of Crock.');
    await waitFor(() => expect(writes()).toHaveLength(1));
    await user.click(within(await strip()).getByRole('button', { name: 'Clear what was practised' }));
    expect(await screen.findByText('What was practised in this course is cleared')).toBeInTheDocument();
    await waitFor(() => expect(writes()).toHaveLength(3)); // cleared, and made ready again
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    expect(await screen.findByText('What was practised is back')).toBeInTheDocument();
    expect(writes().at(-1)).toMatchObject({ path: `${at}/restore`, body: { round: 3 } });
  });

  it('says why it cannot be cleared, and why it is over', async () => {
    const { user } = show({ [`POST ${at}/clear`]: new Refusal(503, 'busy', 'Try again in a moment.') });
    await user.click(within(await strip()).getByRole('button', { name: 'Clear what was practised' }));
    expect(await screen.findByText('Try again in a moment.')).toBeInTheDocument();
  });

  it('is over where the reader may not any more', async () => {
    show({ 'GET session': new Refusal(403, 'not-yours', 'Your role in this course does not include this.') });
    expect(await screen.findByRole('heading', { name: 'You are not practising' })).toBeInTheDocument();
  });
});

it('is entered from a room by those who may sit in, once everything is ready there', async () => {
  const staffRoom = { [`GET groups/${room.group.id}/room`]: room };
  const { user, writes } = showPage(inCourse(`room/${room.group.id}`), { ...staffRoom, [`POST ${at}`]: new Refusal(404, 'not-found', 'There is no such group.') }); // prettier-ignore
  await user.click(await screen.findByRole('button', { name: 'Practise in Crock' }));
  expect(await screen.findByText('There is no such group.')).toBeInTheDocument();
  expect(writes()).toMatchObject([{ path: at, body: { groupId: room.group.id } }]);
});
