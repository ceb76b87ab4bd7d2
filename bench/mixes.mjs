/** Made-up classes with the rules to deal them by: twelve mixes, each the same for the same number of students. */

const slots = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri'].flatMap((day) => [`${day} am`, `${day} pm`]);
const spread = (attribute, as = 'category') => ({ kind: 'spread', attribute, as });
const alike = (attribute) => ({ kind: 'alike', attribute, as: 'category' });
const notAlone = { kind: 'nobody-alone', attribute: 'gender' };
const time = { kind: 'common-time', attribute: 'free', wanted: 3 };

/** By name; each takes the class. */
export const mixes = {
  spread: () => [spread('lab')],
  'three spread': () => [spread('lab'), spread('time'), spread('language')],
  'no one alone, fresh, spread': (of) => [notAlone, of.fresh(3), spread('lab')],
  'common time': () => [time],
  'common time, two spread': () => [time, spread('lab'), spread('gender')],
  'alike, spread': () => [alike('time'), spread('lab')],
  'no one alone': () => [notAlone],
  fresh: (of) => [of.fresh(3)],
  'numbers, alike': () => [spread('grade', 'number'), alike('lab')],
  'all kinds': (of) => [notAlone, time, of.fresh(2), spread('lab'), spread('grade', 'number')],
  'apart, spread': (of) => [spread('language'), ...of.apart()],
  'sizes that differ': () => [spread('lab'), notAlone, time],
};

export function problemOf(name, count, size = 4) {
  const at = Object.keys(mixes).indexOf(name);
  const random = randomFrom(at * 104_729 + count * 31 + 7919);
  const pick = (list) => list[Math.floor(random() * list.length)];
  const students = Array.from({ length: count }, (_, index) => ({
    id: `s${index}`,
    name: `Student ${index}`,
    fixedIn: null,
    attributes: {
      lab: pick(['none', 'some', 'plenty']),
      time: pick(['day', 'evening', 'evening']),
      language: pick(['Arabic', 'Dutch', 'Korean', 'French', 'Polish', 'Twi']),
      gender: random() < 0.3 ? 'f' : 'm',
      grade: String(Math.round(40 + random() * 60)),
      free: slots.filter(() => random() < 0.55).join(', ') || 'Mon am',
    },
  }));
  const groupCount = Math.round(count / size);
  const capacity = name === 'sizes that differ' ? size + 1 : Math.ceil(count / groupCount);
  const groups = Array.from({ length: groupCount }, (_, index) => ({
    id: `g${index}`,
    name: `Group ${index}`,
    capacity,
    isLocked: false,
  }));
  const ids = students.map((student) => student.id);
  const part = (mixed, index) =>
    mixed.slice(Math.floor((index * count) / groupCount), Math.floor(((index + 1) * count) / groupCount));
  const of = {
    fresh: (sets) => ({
      kind: 'fresh',
      sets: Array.from({ length: sets }, (_, set) => {
        const mixed = shuffled(ids, random);
        return { name: `Set ${set}`, groups: groups.map((_group, index) => part(mixed, index)) };
      }),
    }),
    apart: () =>
      Array.from({ length: Math.floor(count / 8) }, () => ({
        kind: 'apart',
        students: [pick(ids), pick(ids)],
      })).filter(({ students: [one, other] }) => one !== other),
  };
  return { students, groups, rules: mixes[name](of), seed: 4127 };
}

/** Numbers in [0, 1), by a linear congruence: good enough to make up a class. */
export function randomFrom(seed) {
  let state = seed >>> 0 || 1;
  return () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
}

function shuffled(list, random) {
  const mixed = [...list];
  for (let last = mixed.length - 1; last > 0; last -= 1) {
    const at = Math.floor(random() * (last + 1));
    [mixed[last], mixed[at]] = [mixed[at], mixed[last]];
  }
  return mixed;
}
