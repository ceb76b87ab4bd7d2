import { describe, expect, it } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import { sure } from '@jigsaw/core/lists';
import { Refusal, showPage } from '../test/showPage.js';
import { courseId, id } from '../test/data.js';

const signedOut = new Refusal(401, 'signed-out', 'You are not signed in, or your session has ended.');

describe('the sign-in page', () => {
  it('says what is wrong and keeps what was typed', async () => {
    const { user, writes } = showPage('/', {
      'GET session': signedOut,
      'POST session': new Refusal(401, 'wrong-password', 'That address and password do not go together.'),
    });
    await user.type(await screen.findByLabelText('Email'), 'ada@quillmere.example');
    await user.type(screen.getByLabelText('Password'), 'no');
    await user.click(screen.getByRole('button', { name: 'Sign in' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('do not go together');
    expect(screen.getByLabelText('Email')).toHaveValue('ada@quillmere.example');
    expect(writes()).toEqual([
      { method: 'POST', path: 'session', body: { email: 'ada@quillmere.example', password: 'no' } },
    ]);
  });

  it('offers the made-up people by role in demo mode only', async () => {
    showPage('/', {
      'GET session': signedOut,
      'GET session/front-door': {
        demoPeople: [
          {
            personId: id('noor'),
            name: '한서연',
            reading: 'Han Seo-yeon',
            role: 'student',
            courseId,
            note: 'in Crock',
            groupNumber: 1,
          },
        ],
      },
    });
    expect(await screen.findByRole('button', { name: /한서연 Han Seo-yeon.*in Crock/ })).toBeInTheDocument();
    expect(screen.getByRole('heading', { name: 'Studies' })).toBeInTheDocument();
    expect(screen.queryByRole('heading', { name: 'Teaches' })).not.toBeInTheDocument();
  });

  it('stands alone without the demo', async () => {
    showPage('/', { 'GET session': signedOut });
    expect(await screen.findByRole('heading', { name: 'Sign in' })).toBeInTheDocument();
    expect(screen.queryByText(/demo person/)).not.toBeInTheDocument();
  });

  it('says that the server does not answer', async () => {
    showPage('/', { 'GET session': () => Promise.reject(new TypeError('failed to fetch')) });
    expect(await screen.findByRole('alert')).toHaveTextContent('The server does not answer.');
    expect(screen.getByRole('button', { name: 'Try again' })).toBeInTheDocument();
  });
});

describe('a sign-in link', () => {
  const email = 'noor@quillmere.example';

  it('asks for ten characters and says when it was used meanwhile', async () => {
    const { user } = showPage('/welcome', {
      'POST session/link': { email, asksFor: 'new-password' },
      'POST session/password': new Refusal(410, 'link-used', 'This link was used already or has run out.'),
    });
    const save = await screen.findByRole('button', { name: 'Save password and sign in' });
    expect(screen.getByText(email)).toBeInTheDocument();
    await user.type(screen.getByLabelText('New password'), 'short');
    expect(screen.getByText('5 more characters')).toBeInTheDocument();
    expect(save).toBeDisabled();
    await user.type(screen.getByLabelText('New password'), 'er now');
    await user.click(save);
    expect(await screen.findByRole('alert')).toHaveTextContent('used already');
  });

  it('asks whoever has a password for it, or sends another link by mail', async () => {
    const { user, writes } = showPage('/welcome', {
      'POST session/link': { email, asksFor: 'password' },
      'POST session/mailed-link': { done: true },
    });
    expect(await screen.findByLabelText('Password')).toHaveAttribute('autocomplete', 'current-password');
    await user.click(screen.getByRole('button', { name: 'Email me a link' }));
    expect(await screen.findByRole('status')).toHaveTextContent(
      `Check the inbox of ${email}. If this email is known here`,
    );
    expect(sure(writes().at(-1)).body).toEqual({ email });
  });

  it('that was used leads to where another is sent', async () => {
    const { user, writes } = showPage('/welcome', {
      'POST session/link': new Refusal(410, 'link-used', 'This link was used already or has run out.'),
      'POST session/mailed-link': { done: true },
      'GET session': signedOut,
    });
    expect(await screen.findByRole('alert')).toHaveTextContent('used already');
    await user.click(screen.getByRole('link', { name: 'Sign in' }));
    expect(await screen.findByRole('button', { name: 'Email me a link' })).toBeDisabled();
    await user.type(screen.getByLabelText('Email'), ` ${email} `);
    await user.click(screen.getByRole('button', { name: 'Email me a link' }));
    await waitFor(() => expect(sure(writes().at(-1)).body).toEqual({ email }));
  });
});
