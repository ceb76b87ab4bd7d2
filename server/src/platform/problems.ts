import { onlyLooking, onlyPractising } from '@jigsaw/contract/common';

export interface ProblemIssue {
  readonly path: string;
  readonly message: string;
}

interface ProblemFacts {
  readonly issues?: readonly ProblemIssue[];
  /** With stale-write: what is there now. */
  readonly current?: unknown;
  readonly retryAfterSeconds?: number;
}

/** A refusal on its way to the one filter that writes it out. */
export class Problem extends Error {
  constructor(
    readonly type: string,
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly facts: ProblemFacts = {},
  ) {
    super(`${type}: ${detail}`);
  }
}

const problem =
  (type: string, status: number, title: string) =>
  (detail: string = title, facts: ProblemFacts = {}) =>
    new Problem(type, status, title, detail, facts);

/** Every way in which the server says no. */
export const problems = {
  /** One answer for the absent and for the hidden, whatever the reason. */
  notFound: () =>
    new Problem('not-found', 404, 'Nothing here', 'There is nothing at this address, or you cannot see it.'),
  signedOut: () =>
    new Problem(
      'signed-out',
      401,
      'Not signed in',
      'You are not signed in, or your session has ended. Sign in and go on where you were.',
    ),
  wrongPassword: () =>
    new Problem(
      'wrong-password',
      401,
      'Sign-in failed',
      'This email and password do not match. Check both and try again.',
    ),
  tooManyTries: (retryAfterSeconds: number) =>
    new Problem(
      'too-many-tries',
      429,
      'Too many tries',
      `Too many tries with a wrong password. Wait ${Math.max(1, Math.ceil(retryAfterSeconds / 60))} min and try again.`,
      { retryAfterSeconds },
    ),
  linkUsed: problem(
    'link-used',
    410,
    'This link was used already or has run out. Ask your instructor for a new one.',
  ),
  passwordMeanwhile: problem(
    'password-meanwhile',
    409,
    'A password was chosen for this account at the same moment. Open the link again and enter it.',
  ),
  invalidInput: problem('invalid-input', 422, 'Something here needs correcting.'),
  notYours: problem('not-yours', 403, 'Your role in this course does not include this.'),
  onlyLooking: () => new Problem('only-looking', onlyLooking.status, onlyLooking.title, onlyLooking.detail),
  onlyPractising: () =>
    new Problem('only-practising', onlyPractising.status, onlyPractising.title, onlyPractising.detail),
  otherOrigin: problem('other-origin', 403, 'This request came from another site and was not carried out.'),
  closed: problem('closed', 409, 'It can be read, but no longer changed.'),
  staleWrite: (
    current: unknown,
    detail = 'Someone else changed this first. Your text is kept here; compare the two.',
  ) => new Problem('stale-write', 409, 'Changed meanwhile', detail, { current }),
  conflict: problem('conflict', 409, 'This contradicts what is already there.'),
  tooLarge: problem('too-large', 413, 'That is larger than allowed.'),
  tooSlow: problem(
    'too-slow',
    408,
    'The request did not arrive whole in time. Nothing was changed; send it again.',
  ),
  tooManyAtOnce: problem('too-many-at-once', 429, 'Too many of these at once. Wait until one is done.'),
  registrarAway: problem('registrar-away', 502, 'The registrar cannot be reached.'),
  unreadableFile: problem('unreadable-file', 422, 'The file could not be read as a list of people.'),
  broken: () =>
    new Problem(
      'broken',
      500,
      'Something went wrong here',
      'Something went wrong on the server. Nothing was changed; try again in a moment.',
    ),
  savedUnread: () =>
    new Problem(
      'saved-unread',
      500,
      'Saved, but not shown',
      'What you did is saved, but the answer could not be read. Reload the page to see it.',
    ),
  busy: () =>
    new Problem(
      'busy',
      503,
      'Too busy right now',
      'Many people are using this right now. Nothing was changed; try again in a few seconds.',
    ),
  noRoom: () =>
    new Problem(
      'no-room',
      507,
      'No space left',
      'The server has no space left. Nothing was changed; keep what you have, and tell the people who run it.',
    ),
  databaseAway: () =>
    new Problem(
      'database-away',
      503,
      'Not reachable for a moment',
      'The database does not answer. Nothing was changed; try again in a moment.',
    ),
} as const;
