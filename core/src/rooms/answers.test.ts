import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { CopyId, EnrolmentId, PostId } from '../ids/index.js';
import { isAnswered, laterMs, stopAnswers, subjectOf, upToOf } from './index.js';
import type { Need } from './index.js';

const copyId = 'copy' as CopyId;
const moment = fc.integer({ min: 0, max: 1_000_000 });
const need: fc.Arbitrary<Need> = fc.oneof(
  moment.map((newest): Need => ({ code: 'question', copyId, postId: 'post' as PostId, since: 0, newest, count: 2 })), // prettier-ignore
  moment.map((due): Need => ({ code: 'nothing-yet', copyId, due })),
  moment.map((since): Need => ({ code: 'missing', copyId, since })),
  moment.map((newest): Need => ({ code: 'to-mark', copyId, unit: 'group', since: 0, newest, isLate: false })),
  moment.map((since): Need => ({ code: 'silent', enrolmentId: 'noor' as EnrolmentId, since })),
);

describe('an answer to a stop', () => {
  it('covers what was there, and nothing that is newer', () => {
    fc.assert(
      fc.property(need, fc.constantFrom(...stopAnswers), moment, (shown, said, at) => {
        const answer = { said, upTo: upToOf(shown), at };
        expect(isAnswered(shown, answer, at)).toBe(true);
        expect(isAnswered(shown, { ...answer, upTo: upToOf(shown) - 1 }, at)).toBe(false);
      }),
    );
  });

  it('holds for good, unless it puts it off', () => {
    fc.assert(
      fc.property(need, moment, fc.integer({ min: 0, max: 10 * laterMs }), (shown, at, passed) => {
        const answered = (said: 'done' | 'later' | 'not-needed') =>
          isAnswered(shown, { said, upTo: upToOf(shown), at }, at + passed);
        expect([answered('done'), answered('not-needed')]).toEqual([true, true]);
        expect(answered('later')).toBe(passed < laterMs);
      }),
    );
  });

  it('is about a copy, or about a member who is quiet', () => {
    const quiet: Need = { code: 'silent', enrolmentId: 'noor' as EnrolmentId, since: 0 };
    expect(subjectOf(quiet)).toBe('noor');
    fc.assert(fc.property(need, (each) => each.code === 'silent' || subjectOf(each) === copyId));
  });
});
