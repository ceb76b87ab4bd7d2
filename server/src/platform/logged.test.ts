import { describe, expect, it } from '@jest/globals';
import { QueryFailedError } from 'typeorm';
import { sure } from '@jigsaw/core/lists';
import { loggedError } from './logged.js';

describe('errors in the log', () => {
  it('hold kind, code and place, and nothing that people wrote', () => {
    const cause = Object.assign(
      new Error('duplicate key: Key (addressKey)=(noor@quillmere.example) already exists'),
      {
        code: '23505',
        detail: 'Key (addressKey)=(noor@quillmere.example)',
      },
    );
    const error = Object.assign(
      new QueryFailedError('INSERT INTO "person" VALUES ($1)', ['noor@quillmere.example'], cause),
      { code: '23505' },
    );
    const logged = loggedError(error);
    expect(logged).toMatchObject({ name: 'QueryFailedError', code: '23505' });
    expect(sure(logged.stack).length).toBeGreaterThan(0);
    expect(JSON.stringify(logged)).not.toContain('noor');
    expect(JSON.stringify(logged)).not.toContain('INSERT');
  });

  it('say of what is no error only what kind it is', () =>
    expect(loggedError('noor@quillmere.example broke')).toEqual({ name: 'string' }));
});
