import { describe, expect, it } from '@jest/globals';
import { datesIn } from './dates.js';

describe('dates', () => {
  it('are written in the course’s zone', () => {
    expect(datesIn('Europe/Lisbon').dateTime('2026-11-06T17:00:00Z')).toBe('Fri 6 Nov, 17:00');
    expect(datesIn('Asia/Tokyo').dateTime('2026-11-06T17:00:00Z')).toBe('Sat 7 Nov, 02:00');
  });
  it('say how far away they are', () => {
    const now = Date.parse('2026-11-06T17:00:00Z');
    expect(datesIn('UTC').fromNow('2026-11-08T17:00:00Z', now)).toBe('in 2 days');
    expect(datesIn('UTC').fromNow('2026-11-06T14:00:00Z', now)).toBe('3 hours ago');
    expect(datesIn('UTC').fromNow('2026-11-06T17:20:00Z', now)).toBe('in 20 minutes');
  });
});
