/** How near deals come to what exists. Where a class is small enough the optimum is proven: of all groups that there could be the cheapest partition, solved
 * exactly. And against plain annealing with the same time, at sizes from 24 to 5,000. Run it after a build: node bench/dealingOptimum.mjs [24 48 200 …] */
import highsLoader from 'highs';
import { compile } from '../core/dist/dealing/units.js';
import { dealAll } from '../core/dist/dealing/index.js';
import { judge, weigh } from '../core/dist/dealing/weigh.js';
import { Table } from '../core/dist/dealing/table.js';
import { mixes, problemOf, randomFrom } from './mixes.mjs';

/** Of more students there are too many groups that could be. */
const mostProven = 32;
const counts = process.argv.slice(2).map(Number);
const highs = await highsLoader();

for (const count of counts.length > 0 ? counts : [24, 32, 48, 200, 640, 1000, 5000]) {
  console.log(`\n${count} students in groups of 4`);
  for (const name of Object.keys(mixes)) {
    const problem = problemOf(name, count);
    dealAll({ ...problem, effort: 0.02 }); // so that neither of the two pays for the first run
    const began = performance.now();
    const { deal } = dealAll(problem);
    const tookMs = performance.now() - began;
    const plain = annealed(problem, deal, tookMs);
    const optimum = count <= mostProven && name !== 'sizes that differ' ? proven(problem, deal) : null;
    console.log(
      [
        name.padEnd(28),
        `${Math.round(tookMs)} ms`.padStart(8),
        `cost ${deal.objective.toFixed(4)}`,
        `bound ${deal.bound.toFixed(4)}`,
        `annealing ${plain.toFixed(4)} (${sayRatio(plain, deal.objective)})`,
        optimum === null ? '' : `optimum ${optimum.toFixed(4)} (${sayRatio(deal.objective, optimum)})`,
      ].join('  '),
    );
  }
}

function sayRatio(one, other) {
  return other < 1e-9 ? (one < 1e-9 ? 'both 0' : 'other is 0') : `× ${(one / other).toFixed(3)}`;
}

/** The seating as a table, and what weighs how much in it. */
function tableOf(problem, seats) {
  const compiled = compile(problem);
  const rows = problem.students.map(({ id }) => compiled.groupIndexOf.get(seats.get(id)));
  const width = Math.max(...problem.groups.map((_, at) => rows.filter((row) => row === at).length));
  const table = new Table(problem.groups.length, rows.length, width);
  rows.forEach((row, student) => table.add(student, row));
  return { compiled, table, wishes: weigh(problem, table) };
}

/** Metropolis, swaps of two, a temperature that falls by the same factor with each part of the time: what anybody would write first.
 * @returns its best objective, in the deal's own weights */
function annealed(problem, deal, forMs) {
  const random = randomFrom(99);
  const { compiled, table, wishes } = tableOf(problem, deal.seats);
  const costOf = (group) =>
    wishes.reduce(
      (sum, { measured, weight }) =>
        sum + weight * measured.cost(table.members, group * table.width, table.sizes[group]),
      0,
    );
  const count = table.groupOf.length;
  const any = () => Math.floor(random() * count);
  const swap = (one, other) => {
    const [here, there] = [table.groupOf[one], table.groupOf[other]];
    table.take(one);
    table.take(other);
    table.add(one, there);
    table.add(other, here);
  };
  const isBroken = (student) =>
    [...compiled.apart[student]].some((other) => table.groupOf[other] === table.groupOf[student]);
  // From chance, not from where the deal ended; rules without exception are mended on the way.
  for (let at = 0; at < 20 * count; at += 1) {
    const [one, other] = [any(), any()];
    if (table.groupOf[one] !== table.groupOf[other]) swap(one, other);
  }
  const broken = () => [...table.groupOf.keys()].filter(isBroken);
  for (let bad = broken(); bad.length > 0; bad = broken()) {
    const other = any();
    if (table.groupOf[bad[0]] !== table.groupOf[other]) swap(bad[0], other);
  }
  const costs = Float64Array.from({ length: table.groupCount }, (_, group) => costOf(group));
  let cost = costs.reduce((sum, each) => sum + each, 0);
  let best = cost;
  const hottest = cost / table.groupCount;
  const began = performance.now();
  let heat = hottest;
  for (let step = 0; ; step += 1) {
    if (step % 500 === 0) {
      const part = (performance.now() - began) / forMs;
      if (part >= 1) break;
      heat = hottest * 0.001 ** part;
    }
    const [one, other] = [any(), any()];
    const [here, there] = [table.groupOf[one], table.groupOf[other]];
    if (here === there) continue;
    swap(one, other);
    const [costHere, costThere] = [costOf(here), costOf(there)];
    const delta = costHere + costThere - costs[here] - costs[there];
    if (isBroken(one) || isBroken(other) || (delta > 0 && random() >= Math.exp(-delta / heat))) {
      swap(one, other);
      continue;
    }
    costs[here] = costHere;
    costs[there] = costThere;
    cost += delta;
    if (cost < best - 1e-12) best = cost;
  }
  return best;
}

/** The cheapest way to part the class into groups of four, proven: a set partition over all groups that there could be. */
function proven(problem, deal) {
  const { compiled, table, wishes } = tableOf(problem, deal.seats);
  const size = table.width;
  const count = problem.students.length;
  const members = new Int32Array(size);
  const columns = [];
  const choose = (at, from) => {
    if (at === size) {
      let cost = 0;
      for (const { measured, weight } of wishes) cost += weight * measured.cost(members, 0, size);
      columns.push({ cost, members: [...members] });
      return;
    }
    for (let student = from; student < count; student += 1) {
      if (members.slice(0, at).some((other) => compiled.apart[student].has(other))) continue;
      members[at] = student;
      choose(at + 1, student + 1);
    }
  };
  choose(0, 0);
  const rows = Array.from({ length: count }, () => []);
  columns.forEach((column, at) => column.members.forEach((student) => rows[student].push(`x${at}`)));
  const wrapped = (terms) =>
    terms.reduce((text, term, at) => `${text}${at % 40 === 39 ? '\n' : ' '}+ ${term}`, '');
  const model = [
    'Minimize',
    ` obj:${wrapped(columns.map(({ cost }, at) => `${Math.max(0, cost).toFixed(9)} x${at}`))}`,
    'Subject To',
    ...rows.map((terms, student) => ` s${student}:${wrapped(terms)} = 1`),
    'Binary',
    columns.map((_, at) => `x${at}`).join('\n'),
    'End',
  ].join('\n');
  const solved = highs.solve(model, { mip_rel_gap: 0, mip_abs_gap: 1e-7, time_limit: 40 });
  if (solved.Status !== 'Optimal') return null;
  // Added up from the groups chosen, held against the deal in the same weights.
  const chosen = columns.filter((_, at) => solved.Columns[`x${at}`].Primal > 0.5);
  const seats = new Map(
    chosen.flatMap((column, group) =>
      column.members.map((student) => [problem.students[student].id, problem.groups[group].id]),
    ),
  );
  return judge(problem, seats).objective;
}
