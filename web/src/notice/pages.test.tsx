import { describe, expect, it } from '@jest/globals';
import { screen } from '@testing-library/react';
import { aHead, aPost, aTalk, id } from '../test/data.js';
import { inCourse, showPage } from '../test/showPage.js';

const notice = (settings: object, talk: object) =>
  showPage(
    inCourse(`copies/${id('copy')}`),
    {
      [`GET copies/${id('copy')}`]: aHead({ kind: 'notice', title: 'Lab 2 is closed', points: null, schedule: { opens: null, due: null, closes: null }, settings: settings as never }), // prettier-ignore
      [`GET copies/${id('copy')}/discussion`]: talk,
    },
    'student',
  );

describe('a notice', () => {
  it('stands over its replies, with a box for one’s own', async () => {
    notice({ hasReplies: true }, aTalk([[aPost('Jorge', 'Where do we go?')]]));
    expect(await screen.findByRole('article', { name: 'Notice' })).toHaveTextContent('For Crock');
    expect(screen.getByText('Where do we go?')).toBeInTheDocument();
    expect(screen.getByRole('region', { name: 'Your reply' })).toBeInTheDocument();
    expect(screen.queryByText('No due date')).not.toBeInTheDocument();
  });

  it('without replies says so; what was replied before stays', async () => {
    notice({ hasReplies: false }, aTalk([[aPost('Jorge', 'Where do we go?')]], { mayOpenThread: false, mayReply: false })); // prettier-ignore
    expect(await screen.findByText('Replies are off here.')).toBeInTheDocument();
    expect(screen.getByText('Where do we go?')).toBeInTheDocument();
    expect(screen.queryByRole('region', { name: 'Your reply' })).not.toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Reply' })).not.toBeInTheDocument();
  });
});
