/** Dealing 1,000 students into 250 groups by three spread attributes, 200 pairs apart and three earlier sets: what the usual effort reaches of what a long look
 * reaches, and of the best of 1,000 random deals; and how long 48 students take. Run it after a build: node bench/dealing.mjs */
import { dealAll } from '../core/dist/dealing/index.js';

const random = (() => {
  let state = 12345;
  return () => (state = (state * 1103515245 + 12345) % 2 ** 31) / 2 ** 31;
})();
const pick = (list) => list[Math.floor(random() * list.length)];

/** The best objective of so many deals that look at no wish. */
function randomDeals(problem, count) {
  let best = Infinity;
  for (let at = 0; at < count; at += 1)
    best = Math.min(best, dealAll({ ...problem, seed: at + 1, effort: 0 }).deal.objective);
  return best;
}

function problemOf(count, groupCount, pairs, seed, effort) {
  const students = Array.from({ length: count }, (_, at) => ({
    id: `s${at}`,
    name: `Student ${at}`,
    fixedIn: null,
    attributes: {
      lab: pick(['none', 'some', 'plenty']),
      time: pick(['day', 'evening']),
      language: pick(['Arabic', 'Dutch', 'Korean', 'French', 'Polish', 'Twi']),
    },
  }));
  const groups = Array.from({ length: groupCount }, (_, at) => ({
    id: `g${at}`,
    name: `Group ${at}`,
    capacity: Math.ceil(count / groupCount),
    isLocked: false,
  }));
  const ids = students.map((student) => student.id);
  const earlier = Array.from({ length: 3 }, (_, set) => {
    const mixed = [...ids].sort(() => random() - 0.5);
    return {
      name: `Set ${set}`,
      groups: Array.from({ length: groupCount }, (_, at) =>
        mixed.slice((at * count) / groupCount, ((at + 1) * count) / groupCount),
      ),
    };
  });
  const rules = [
    { kind: 'spread', attribute: 'lab', as: 'category' },
    { kind: 'fresh', sets: earlier },
    { kind: 'spread', attribute: 'time', as: 'category' },
    { kind: 'spread', attribute: 'language', as: 'category' },
    ...Array.from({ length: pairs }, () => ({ kind: 'apart', students: [pick(ids), pick(ids)] })).filter(
      ({ students: [one, other] }) => one !== other,
    ),
  ];
  return { students, groups, rules, seed, effort };
}

const large = problemOf(1000, 250, 200, 7, 1);
const took = (run) => {
  const began = performance.now();
  const result = run();
  return { ms: Math.round(performance.now() - began), result };
};
const usual = took(() => dealAll(large));
const long = took(() => dealAll({ ...large, effort: 30 }));
const [ours, theirs] = [usual.result.deal.objective, long.result.deal.objective];
console.log(`1,000 students: usual effort ${usual.ms} ms, a long look ${long.ms} ms`);
console.log(
  `objective: usual ${ours.toFixed(4)}, long ${theirs.toFixed(4)}, ${((ours / theirs - 1) * 100).toFixed(1)} % above; bound ${usual.result.deal.bound.toFixed(4)}; chance is about 1 above the bound`,
);
console.log(`best of 1,000 random deals: ${randomDeals(large, 1000).toFixed(4)}`);
for (const { rule, cost, bound, byChance } of usual.result.deal.reached)
  console.log(
    `  rule ${rule}: ${cost.toFixed(1)}, bound ${bound.toFixed(1)}, by chance ${byChance.toFixed(1)}`,
  );

const small = problemOf(48, 12, 6, 7, 1);
dealAll(small);
const quick = took(() => dealAll(small));
console.log(
  `48 students: ${quick.ms} ms; objective ${quick.result.deal.objective.toFixed(4)}, bound ${quick.result.deal.bound.toFixed(4)}, long ${dealAll({ ...small, effort: 30 }).deal.objective.toFixed(4)}, random ${randomDeals(small, 1000).toFixed(4)}`,
);

const many = took(() => dealAll(problemOf(5000, 1250, 1000, 7, 1)));
console.log(
  `5,000 students, as the server deals them: ${many.ms} ms, ${((many.result.deal.objective / many.result.deal.bound - 1) * 100).toFixed(1)} % above the bound`,
);
