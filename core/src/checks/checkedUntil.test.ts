import { expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { ActivityId, CopyId, CourseId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import { wholeSet } from '../release/index.js';
import type { SightActivity, SightFacts } from '../sightlines/index.js';
import { checkedUntil, checksOf } from './index.js';
import type { WrittenFacts } from './index.js';

const courseId = 'course' as CourseId;
const setId = 'benches' as GroupSetId;
const groupId = 'a' as GroupId;
const ada = 'ada' as EnrolmentId;
const minute = 60_000;
const plain: WrittenFacts = { brief: { type: 'doc' }, points: null, rubric: null, isWork: true, whyNotDone: () => 'It asks for a reply.' }; // prettier-ignore

const moment = fc.integer({ min: 0, max: 100 }).map((minutes) => minutes * minute);
const maybe = fc.option(moment);
const extension = fc.option(fc.record({ due: moment, closes: maybe }));
const anActivity = fc.record({
  schedule: fc.record({ opens: maybe, due: maybe, closes: maybe }),
  goesLiveAt: fc.option(moment, { freq: 1 }),
  granted: extension,
  own: extension,
});
const course = fc.array(anActivity, { maxLength: 4 }).map((all): SightFacts => ({
  courseId,
  people: [{ enrolmentId: ada, role: 'student', leftAt: null, leads: [], seesOnlyLed: false }],
  seats: [{ enrolmentId: ada, groupId, setId, from: 0, until: null }],
  groups: [{ groupId, setId }],
  activities: all.map(({ schedule, goesLiveAt, granted, own }, at): SightActivity => ({
    activityId: `${at}` as ActivityId,
    release: { courseId, state: goesLiveAt === null ? { state: 'live', since: 0 } : { state: 'scheduled', goesLiveAt }, mode: 'own', audience: wholeSet(setId), outsiders: 'hidden', schedule, ownTime: new Map(own ? [[ada, own]] : []) }, // prettier-ignore
    copies: [{ copyId: `${at}` as CopyId, groupId, setId, extension: granted }],
  })),
}));

it('says until when what is to be checked stays as it is, and not a moment longer than it has to', () => {
  let changes = 0;
  fc.assert(
    fc.property(course, moment, fc.integer({ min: 0, max: 110 * minute }), (sight, now, passed) => {
      const written = new Map(sight.activities.map(({ activityId }) => [activityId, plain]));
      const until = checkedUntil({ sight, now });
      const later = now + passed;
      if (until === null || later < until)
        expect(checksOf({ sight, written, now: later })).toEqual(checksOf({ sight, written, now }));
      else if (checksOf({ sight, written, now: until }).length !== checksOf({ sight, written, now }).length)
        changes += 1;
    }),
    { numRuns: 2000 },
  );
  expect(changes).toBeGreaterThan(0);
});
