import { describe, expect, it } from '@jest/globals';
import { stdSerializers } from 'pino';
import { QueryFailedError } from 'typeorm';
import { sure } from '@jigsaw/core/lists';
import { loggedError, loggedPath } from './logged.js';

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

  it('say what is wrong, with the names of the database’s own things and no one’s values', () => {
    const message = (text: string) => loggedError(new Error(text)).message;
    expect(message('null value in column "typedMark" of relation "mark" violates not-null constraint')).toBe(
      'null value in column "typedMark" of relation "mark" violates not-null constraint',
    );
    expect(message('invalid input syntax for type uuid: "Noor"')).toBe(
      'invalid input syntax for type uuid: …',
    );
    expect(message("cannot read 'Noor' (Noor Haddad) of noor@b.example")).toBe('cannot read … … of …');
    expect(message('x'.repeat(5000))).toHaveLength(300);
  });

  it('are the same when the logger has made something of them first', () => {
    const error = Object.assign(new TypeError('nothing to read'), { code: 'E_READ' });
    const serialise = stdSerializers.wrapErrorSerializer(loggedError as never);
    expect(serialise(error)).toMatchObject({ name: 'TypeError', code: 'E_READ', message: 'nothing to read' });
  });

  it('say of what is no error only what kind it is', () =>
    expect(loggedError('noor@quillmere.example broke')).toEqual({ name: 'string' }));
});

it('addresses in the log tell neither what was asked with them nor the key of a calendar', () => {
  expect(loggedPath('/api/courses/1/rooms?q=Noor')).toBe('/api/courses/1/rooms');
  expect(loggedPath('/api/calendars/Ejuk-3ssc1cOSfVQ2.ics?x=1')).toBe('/api/calendars/…');
  expect(loggedPath('/sit-in/1/api/calendars/Ejuk-3ssc1cOSfVQ2.ics')).toBe('/sit-in/1/api/calendars/…');
});
