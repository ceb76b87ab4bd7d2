import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { onlyLooking } from '@jigsaw/contract/common';
import { aRoom, courseId, id, rooms } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const base = '/sit-in/01a22cca-d1d0-7650-9b02-1ff77141e226';
const session = {
  person: { id: id('noor'), name: 'Noor', reading: null, email: 'noor@quillmere.example' },
  mayCreateCourses: false,
  isProven: true,
  sitsIn: { courseId, enrolmentId: id('noor'), practisesIn: null },
};
const room = aRoom({ namingVersion: 3 });
const answers = { 'GET session': session, [`GET courses/${courseId}/rooms`]: rooms(room) };
const show = (path = inCourse('room'), more = {}) => showPage(path, { ...answers, ...more }, 'student');
const strip = () => screen.findByRole('region', { name: 'Sitting in' });

beforeEach(() => window.history.replaceState(null, '', `${base}/c/1/room`));
afterEach(() => {
  window.history.replaceState(null, '', '/');
  sessionStorage.clear();
  localStorage.clear();
});

describe('a page that sits in', () => {
  it('says as who, sends nothing but questions, and leads back to where its reader came from', async () => {
    sessionStorage.setItem('jigsaw.sat-in-from', JSON.stringify('/c/1/release/sightlines'));
    const { user, writes } = show();
    expect(await strip()).toHaveTextContent('Sitting in as Noor.');
    await user.click(await screen.findByRole('button', { name: 'Name and motto of your group' }));
    await user.type(screen.getByRole('textbox', { name: 'Name' }), 'Tun');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByRole('alert')).toHaveTextContent(onlyLooking.detail);
    expect(writes()).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(within(await strip()).getByRole('link', { name: 'Leave' })).toHaveAttribute('href', '/c/1/release/sightlines'); // prettier-ignore
    expect([...Object.keys(localStorage), ...Object.keys(sessionStorage)]).toEqual(['jigsaw.sat-in-from']);
  });

  it('shows itself on a phone, too, and says who it is once', async () => {
    const { user } = show();
    await user.click(within(await strip()).getByRole('radio', { name: 'With a phone beside it' }));
    expect(screen.getByTitle('The same page on a phone')).toHaveAttribute(
      'src',
      `${base}${inCourse('room')}`,
    );
    await user.click(screen.getByRole('radio', { name: 'Page' }));
    expect(screen.queryByTitle('The same page on a phone')).toBeNull();
  });

  it('leads into the course from anywhere, and has nothing of the student’s account', async () => {
    const { user, router } = show('/');
    await strip();
    expect(router.state.location.pathname).toContain(inCourse(''));
    await user.click(await screen.findByRole('button', { name: 'Noor: your account' }));
    expect(screen.getAllByRole('menuitemradio')).toHaveLength(3); // light or dark
    expect(screen.queryAllByRole('menuitem')).toEqual([]);
  });

  it('says that it is over, and why', async () => {
    show(inCourse('room'), {
      'GET session': new Refusal(403, 'not-yours', 'Your role in this course does not include this.'),
    });
    expect(await screen.findByRole('heading', { name: 'You are not sitting in' })).toBeInTheDocument();
    expect(screen.getByText('Your role in this course does not include this.')).toBeInTheDocument();
  });
});
