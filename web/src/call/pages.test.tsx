import { afterEach, describe, expect, it, jest } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import type { CallView } from '@jigsaw/contract/call';
import { aHead, aMember, anAuthor, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const copyPath = `copies/${id('copy')}`;
/** Told by the server: at night, a quarter of an hour ago was yesterday. */
const noon = '2026-11-12T12:00:00.000Z';
const undated = { opens: null, due: null, closes: null };
const aCall = (more: Partial<CallView> = {}): CallView => ({
  members: [aMember('Noor', { isYou: true }), aMember('Jorge')],
  inNow: [],
  visits: [],
  door: { address: '', version: 0 },
  mayStepIn: true,
  maySetDoor: true,
  serverTime: noon,
  ...more,
});
const call = (view: CallView | (() => CallView), more: object = {}, head: object = {}) =>
  showPage(
    inCourse(copyPath),
    {
      [`GET ${copyPath}`]: aHead({ kind: 'call', title: 'Bench call', points: null, schedule: undated, settings: {}, serverTime: noon, ...head }), // prettier-ignore
      [`GET ${copyPath}/call`]: view,
      ...more,
    },
    'student',
  );
const ago = (minutes: number) => new Date(Date.parse(noon) - minutes * 60_000).toISOString();

afterEach(() => void jest.useRealTimers());

describe('a standing call', () => {
  it('says who is in and since when, and who came on the days before', async () => {
    const jorge = aMember('Jorge').enrolmentId;
    call(
      aCall({
        inNow: [{ member: anAuthor('Jorge'), since: ago(5) }],
        visits: [
          {
            enrolmentId: jorge,
            name: 'Jorge',
            from: ago(60 * 48 + 50),
            seen: ago(60 * 48),
            left: ago(60 * 48),
          },
          { enrolmentId: jorge, name: 'Jorge', from: ago(5), seen: ago(0), left: null },
        ],
      }),
    );
    expect(await screen.findByRole('heading', { name: 'Jorge is in' })).toBeInTheDocument();
    expect(screen.getByText(/^Since \d\d:\d\d, alone\./)).toBeInTheDocument();
    const today = within(screen.getByRole('region', { name: 'Today' }));
    expect(today.getByText(/^in since/)).toBeInTheDocument();
    expect(today.getByText('not here yet')).toBeInTheDocument();
    expect(within(screen.getByRole('complementary', { name: 'The days before' })).getByText(/Jorge/).parentElement).toHaveTextContent('Jorge, 50 min'); // prettier-ignore
  });

  it('is stepped into and left by one press each; leaving the page leaves it, too', async () => {
    let inNow: CallView['inNow'] = [];
    const { user, writes, unmount } = call(() => aCall({ inNow }), {
      [`POST ${copyPath}/call/visits`]: () => {
        inNow = [{ member: anAuthor('Noor', { isYou: true }), since: ago(0) }];
        return { isIn: true };
      },
    });
    await user.click(await screen.findByRole('button', { name: 'Step in' }));
    expect(await screen.findByRole('heading', { name: 'You are in' })).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Leave' })).toBeInTheDocument();
    unmount();
    await waitFor(() => expect(writes().map(({ method }) => method)).toEqual(['POST', 'DELETE']));
  });

  it('misses those who go without a word', async () => {
    jest.useFakeTimers({ advanceTimers: true });
    let inNow: CallView['inNow'] = [{ member: anAuthor('Jorge'), since: ago(5) }];
    call(() => aCall({ inNow }));
    expect(await screen.findByRole('heading', { name: 'Jorge is in' })).toBeInTheDocument();
    inNow = [];
    act(() => jest.advanceTimersByTime(60_000));
    expect(await screen.findByRole('heading', { name: 'No one is in' })).toBeInTheDocument();
  });

  it('has a door: its address is set, kept in view when it is refused, and opens the call', async () => {
    const { user } = call(aCall({ door: { address: 'https://a.example', version: 1 } }), {
      [`POST ${copyPath}/call/visits`]: { isIn: true },
      [`PUT ${copyPath}/call/door`]: new Refusal(422, 'invalid-input', 'Enter a whole address that begins with https:// or http://.'), // prettier-ignore
    });
    await user.click(await screen.findByRole('button', { name: 'Where does the door lead?' }));
    const sheet = within(await screen.findByRole('dialog', { name: 'Where does the door lead?' }));
    await user.clear(sheet.getByRole('textbox'));
    await user.type(sheet.getByRole('textbox'), 'crock');
    await user.click(sheet.getByRole('button', { name: 'Save' }));
    expect(await sheet.findByText(/Enter a whole address/)).toBeInTheDocument();
    expect(sheet.getByRole('textbox')).toHaveValue('crock');
    await user.click(sheet.getByRole('button', { name: 'Close' }));
    await user.click(screen.getByRole('button', { name: 'Step in' }));
    expect(await screen.findByRole('link', { name: 'Open the call' })).toHaveAttribute(
      'href',
      'https://a.example',
    );
  });

  it('tells staff who is in, and not who came before', async () => {
    call(aCall({ visits: [] }), {}, { part: 'staff' });
    expect(await screen.findByText('Only members see who came on the days before.')).toBeInTheDocument();
    expect(screen.queryByRole('region', { name: 'Today' })).not.toBeInTheDocument();
  });

  it('that is closed has no way in', async () => {
    call(aCall({ mayStepIn: false, maySetDoor: false }));
    expect(await screen.findByRole('heading', { name: 'No one is in' })).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Step in' })).not.toBeInTheDocument();
  });
});
