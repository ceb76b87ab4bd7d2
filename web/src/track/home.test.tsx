import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { Home } from '@jigsaw/contract/track';
import { sure } from '@jigsaw/core/lists';
import { aCourse, courseId, id } from '../test/data.js';
import { Refusal, showPage, staffFigures, studentFigures } from '../test/showPage.js';

describe('the courses of a person', () => {
  it('names the field that needs correcting and keeps the rest', async () => {
    const { user } = showPage('/', {
      'POST courses': new Refusal(422, 'invalid-input', 'Give the course a title.', {
        issues: [{ path: 'title', message: 'Give the course a title.' }],
      }),
    });
    await user.type(await screen.findByLabelText('Code'), 'FER 220');
    await user.click(screen.getByRole('button', { name: 'Create course' }));
    expect(await screen.findByText('Give the course a title.')).toBeInTheDocument();
    expect(screen.getByLabelText('Code')).toHaveValue('FER 220');
  });

  it('takes a time zone from the list, found by any part of its name', async () => {
    const { user, writes } = showPage('/', {
      'POST courses': new Refusal(422, 'invalid-input', 'Give the course a title.'),
    });
    const zone = await screen.findByRole('combobox', { name: 'Time zone' });
    await user.clear(zone);
    await user.type(zone, 'lisbon');
    await user.click(await screen.findByRole('option', { name: 'Europe/Lisbon' }));
    await user.click(screen.getByRole('button', { name: 'Create course' }));
    expect(await screen.findByRole('alert')).toBeInTheDocument();
    expect(sure(writes()[0]).body).toMatchObject({ timeZone: 'Europe/Lisbon' });
  });

  it('tells a student without a course what happens next, and offers no form', async () => {
    showPage('/', {
      'GET session': {
        person: { id: id('noor'), name: 'Noor', reading: null, email: 'n@b.example' },
        mayCreateCourses: false,
        isProven: false,
        sitsIn: null,
      },
      'GET courses': { courses: [] },
    });
    expect(await screen.findByRole('heading', { name: 'No courses yet' })).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Create course' })).not.toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Email me a link' })).toBeEnabled();
  });
});

const other = id<'course'>('other');
const taught = { ...aCourse('instructor'), id: other, title: 'Baking', code: 'BAK 110', timeZone: 'Asia/Tokyo' }; // prettier-ignore
const aStudent = (more = {}) => ({
  person: { id: id('noor'), name: 'Noor', reading: null, email: 'n@b.example' },
  mayCreateCourses: false,
  isProven: true,
  sitsIn: null,
  ...more,
});
const owed = (title: string, due: string | null, more: Partial<Home['due'][number]> = {}) => ({
  courseId,
  copyId: id<'copy'>(title),
  title,
  due,
  isExtended: false,
  groupName: 'Crock',
  ...more,
});

describe('home', () => {
  it('says what needs one in each course, each with the way to where it is counted', async () => {
    const home: Home = {
      courses: [
        { courseId, figures: { ...studentFigures, due: 2, unread: 3, newMarks: 0 } as never, messages: 2 },
        {
          courseId: other,
          figures: { ...staffFigures, unplaced: 0, toMark: 30, unread: 4 } as never,
          messages: 0,
        },
      ],
      due: [],
    };
    showPage('/', { 'GET courses': { courses: [aCourse('student'), taught] }, 'GET home': home });
    const needs = async (title: string) =>
      within(await screen.findByRole('list', { name: `What needs you in ${title}` })).getAllByRole('link').map((link) => [link.textContent, link.getAttribute('href')]); // prettier-ignore
    expect(await needs('Baking')).toEqual([['Rooms: 4 unread', `/c/${other}/rooms`], ['Marks: 30 to mark', `/c/${other}/marks`]]); // prettier-ignore
    expect(await needs(aCourse('student').title)).toEqual([['Messages: 2 new', `/c/${courseId}/messages`], ['Due: 2 to do', `/c/${courseId}/due`], ['Room: 3 new', `/c/${courseId}/room`]]); // prettier-ignore
  });

  it('lists what is owed in all courses, each at the time of its course, and offers one calendar for them', async () => {
    const due = [
      owed('Crumb', '2026-11-06T15:00:00.000Z', { courseId: other, groupName: null, isExtended: true }),
      owed('Report', '2126-11-06T15:00:00.000Z'),
      owed('Whenever', null),
    ];
    showPage('/', {
      'GET courses': { courses: [aCourse('student'), { ...taught, role: 'student' }] },
      'GET home': { courses: [], due },
    });
    const lines = within(await screen.findByRole('list', { name: 'Due' })).getAllByRole('link');
    expect(lines.map((line) => line.textContent)).toEqual([
      expect.stringMatching(/^CrumbBAK 110Late Sat 7 Nov, 00:00, extended/),
      expect.stringMatching(/^Report.* · Crock Wed 6 Nov, 1\d:00/),
      expect.stringMatching(/No due date$/),
    ]);
    expect(lines[0]).toHaveAttribute('href', `/c/${other}/copies/${id('Crumb')}`);
    expect(await screen.findByRole('button', { name: 'Keep my calendar up to date' })).toBeInTheDocument();
  });

  it('shows the courses although what needs one cannot be counted', async () => {
    const away = new Refusal(503, 'database-away', 'The database does not answer.');
    const { user, set } = showPage('/', { 'GET courses': { courses: [aCourse('student'), taught] }, 'GET home': away }); // prettier-ignore
    expect(await screen.findByText('What needs you could not be counted.')).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Baking' })).toHaveAttribute('href', `/c/${other}`);
    set('GET home', { courses: [], due: [owed('Report', null)] });
    await user.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await screen.findByRole('list', { name: 'Due' })).toBeInTheDocument();
  });

  it('is passed over by who has one course, until they come to it by a link', async () => {
    const answers = { 'GET session': aStudent(), 'GET courses': { courses: [aCourse('student')] } };
    const { router } = showPage('/', answers, 'student');
    await waitFor(() => expect(router.state.location.pathname).toBe(`/c/${courseId}/due`));
    await router.navigate('/');
    expect(await screen.findByRole('list', { name: 'Courses' })).toBeInTheDocument();
    expect(router.state.location.pathname).toBe('/');
  });

  it.each([
    ['makes courses', { mayCreateCourses: true }, 1],
    ['signed in by a link from one course and may have others', { isProven: false }, 1],
    ['has two', {}, 2],
  ])('is shown to who %s', async (_says, session, count) => {
    const courses = [aCourse('student'), taught].slice(0, count);
    const { router } = showPage('/', { 'GET session': aStudent(session), 'GET courses': { courses } });
    expect(await screen.findByRole('list', { name: 'Courses' })).toBeInTheDocument();
    expect(router.state.location.pathname).toBe('/');
  });
});
