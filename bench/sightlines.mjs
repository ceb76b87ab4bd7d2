/** Times what the worker of the sightlines does: who sees what at one moment, for a course of 640 students in 160 groups with 30 activities, and for
 * a part of it. By hand: npx tsc -b core, then node bench/sightlines.mjs */
import { performance } from 'node:perf_hooks';
import { cellsAt } from '../core/dist/sightlines/index.js';

const rounds = 15;
const sizes = [
  { students: 160, groups: 40, activities: 30 },
  { students: 640, groups: 160, activities: 30 },
  { students: 2000, groups: 500, activities: 60 },
];

/** Every third activity is read along, every fifth is one copy for all, and every seventh is still to come. */
function course({ students, groups, activities }) {
  const setId = 'set';
  const group = (at) => `group ${at % groups}`;
  const people = Array.from({ length: students }, (_, at) => ({
    enrolmentId: `person ${at}`,
    role: 'student',
    leftAt: null,
    leads: [],
    seesOnlyLed: false,
  }));
  return {
    courseId: 'course',
    people,
    seats: people.map(({ enrolmentId }, at) => ({
      enrolmentId,
      groupId: group(at),
      setId,
      from: 0,
      until: null,
    })),
    groups: Array.from({ length: groups }, (_, at) => ({ groupId: group(at), setId })),
    activities: Array.from({ length: activities }, (_, at) => {
      const mode = at % 5 === 4 ? 'common' : at % 3 === 2 ? 'read-along' : 'own';
      const ids = mode === 'common' ? [null] : Array.from({ length: groups }, (_each, of) => group(of));
      return {
        activityId: `activity ${at}`,
        release: {
          courseId: 'course',
          state: at % 7 === 6 ? { state: 'scheduled', goesLiveAt: 900 } : { state: 'live', since: 100 },
          mode,
          audience: {
            include: [mode === 'common' ? { kind: 'class' } : { kind: 'set', setId }],
            exclude: [],
          },
          outsiders: 'hidden',
          schedule: { opens: null, due: 800, closes: null },
          ownTime: new Map(),
        },
        copies: ids.map((groupId) => ({
          copyId: `copy ${at} ${groupId}`,
          groupId,
          setId: groupId === null ? null : setId,
          extension: null,
        })),
      };
    }),
  };
}

for (const size of sizes) {
  const facts = course(size);
  const columns = [
    ...facts.groups.map((group) => ({ kind: 'group', ...group })),
    { kind: 'unplaced', setId: 'set' },
  ];
  const times = [];
  for (let round = 0; round < rounds; round += 1) {
    const begun = performance.now();
    cellsAt(facts, columns, 500);
    times.push(performance.now() - begun);
  }
  times.sort((a, b) => a - b);
  const middle = times[Math.floor(rounds / 2)];
  const cells = size.groups * size.activities;
  console.log(
    `${size.students} × ${size.groups} × ${size.activities}: ${middle.toFixed(0)} ms, ${((1000 * middle) / cells).toFixed(1)} µs a cell (${cells} cells)`,
  );
}
