import { describe, expect, it } from '@jest/globals';
import { screen } from '@testing-library/react';
import { sure } from '@jigsaw/core/lists';
import { id } from '../test/data.js';
import { Refusal, showPage } from '../test/showPage.js';

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
