import { describe, expect, it } from '@jest/globals';
import { QueryFailedError } from 'typeorm';
import { isStillReferredTo, refusedByDatabase } from './databaseErrors.js';

const failed = (code: string) =>
  new QueryFailedError('', [], Object.assign(new Error('the database says no'), { code }));

describe('what the database refuses', () => {
  it.each([
    ['22003', 422, 'a number out of range'],
    ['22021', 422, 'bytes that are no text'],
    ['23505', 409, 'something that is there already'],
    ['21000', 409, 'something that was sent twice'],
    ['23503', 409, 'something that needs what is gone'],
    ['53100', 507, 'what a full disk has no room for'],
    ['40P01', 503, 'one of two that waited for each other'],
  ])('%s is %s: %s', (code, status) => expect(refusedByDatabase(failed(code))?.status).toBe(status));

  it('for its own reasons is no fault of what was sent', () => {
    for (const error of [failed('53200'), failed('42703'), new Error('22003'), null])
      expect(refusedByDatabase(error)).toBeNull();
  });

  it('since others need it is told apart', () =>
    expect([failed('23503'), failed('23505')].map(isStillReferredTo)).toEqual([true, false]));
});
