import { meansOfGroups, readHalfDays } from '../course/index.js';
import type { EnrolmentId } from '../ids/index.js';
import { sure } from '../lists/index.js';
import type { Deal, Reached } from './weigh.js';
import type { DealProblem } from './problem.js';
import type { DealtStudent } from './students.js';
import type { Rule } from './wishes.js';
import { counted } from '../text/index.js';

/** What a deal made of one rule, in numbers that people count by, and who is concerned where it falls short. */
export interface Outcome {
  /** "11 of 12 groups" */
  readonly says: string;
  /** The same as a number: 11 of `of`. */
  readonly met: number;
  readonly of: number;
  /** Of the whole, how much was reached: 1 is all of it. */
  readonly part: number;
  /** How far it is from its proven bound, as a part of what chance is: 0 is the bound, 1 what dealing at random gives. null: it holds without exception. */
  readonly gap: number | null;
  /** The most of `of` that any deal could reach, where the bound says so in the same unit; null: it does not. */
  readonly most: number | null;
  /** Nothing better can be, proven by the bound (or because nothing is left to wish). */
  readonly isBest: boolean;
  readonly concerned: readonly EnrolmentId[];
}

/** One for each rule, in their order. */
export function outcomesOf(problem: DealProblem, deal: Deal): Outcome[] {
  const byGroup = problem.groups
    .map((group) => problem.students.filter((student) => deal.seats.get(student.id) === group.id))
    .filter((members) => members.length > 0);
  return problem.rules.map((rule, at) => {
    const reached = deal.reached.find((each) => each.rule === at);
    const isProven = reached !== undefined && reached.cost <= reached.bound + 1e-6;
    const { says, met, of, concerned } = count(rule, problem, byGroup);
    const most = reached && rule.kind === 'fresh' ? of - Math.ceil(reached.bound - 1e-6) : null;
    return {
      says,
      met,
      of,
      gap: gapOf(reached),
      most,
      part: of === 0 ? 1 : met / of,
      isBest: isProven || met === of,
      concerned,
    };
  });
}

function gapOf(reached: Reached | undefined): number | null {
  if (!reached) return null;
  const { cost, bound, usual } = reached;
  return cost <= bound + 1e-6 || usual === 0 ? 0 : (cost - bound) / usual;
}

interface Counted {
  readonly says: string;
  readonly met: number;
  readonly of: number;
  readonly concerned: readonly EnrolmentId[];
}

function count(rule: Rule, problem: DealProblem, groups: readonly (readonly DealtStudent[])[]): Counted {
  switch (rule.kind) {
    case 'together':
    case 'apart':
      return pairsKept(rule, problem.students, groups);
    case 'spread':
      return rule.as === 'category'
        ? evenGroups(rule.attribute, problem.students, groups)
        : nearMeans(rule.attribute, groups);
    case 'alike':
      return alikeGroups(rule.attribute, rule.as, groups);
    case 'nobody-alone':
      return company(rule.attribute, problem.students, groups);
    case 'common-time':
      return timeShared(rule.attribute, rule.wanted, groups);
    case 'fresh':
      return newPairs(rule, groups);
  }
}

/** A deal keeps them all; a seating that was made by hand, or by other rules, may not. */
function pairsKept(
  rule: Extract<Rule, { kind: 'together' | 'apart' }>,
  students: readonly DealtStudent[],
  groups: readonly (readonly DealtStudent[])[],
): Counted {
  const groupOf = new Map(
    groups.flatMap((members, group) => members.map((student) => [student.id, group] as const)),
  );
  const named = rule.students.filter((id) => students.some((student) => student.id === id));
  const pairs = named.flatMap((one, at) => named.slice(at + 1).map((other) => [one, other] as const));
  const isTogether = ([one, other]: (typeof pairs)[number]) =>
    groupOf.has(one) && groupOf.get(one) === groupOf.get(other);
  const broken = pairs.filter((pair) => isTogether(pair) !== (rule.kind === 'together'));
  const met = pairs.length - broken.length;
  return {
    says: `${met} of ${counted(pairs.length, 'pair')}`,
    met,
    of: pairs.length,
    concerned: [...new Set(broken.flat())],
  };
}

const inGroups = (met: number, of: number, what: string): string => `${met} of ${of} groups ${what}`;

/** A group is even if each kind is within one person of its share. */
function evenGroups(
  attribute: string,
  students: readonly DealtStudent[],
  groups: readonly (readonly DealtStudent[])[],
): Counted {
  const all = students.flatMap((student) => student.attributes[attribute] ?? []);
  const kinds = [...new Set(all)];
  const total = new Map(kinds.map((kind) => [kind, all.filter((value) => value === kind).length]));
  const uneven = groups.filter((members) => {
    const own = members.flatMap((student) => student.attributes[attribute] ?? []);
    return kinds.some(
      (kind) =>
        Math.abs(
          own.filter((value) => value === kind).length -
            (own.length * sure(total.get(kind))) / Math.max(1, all.length),
        ) >= 1,
    );
  });
  const met = groups.length - uneven.length;
  return {
    says: inGroups(met, groups.length, 'mixed'),
    met,
    of: groups.length,
    concerned: uneven.flat().map((student) => student.id),
  };
}

function nearMeans(attribute: string, groups: readonly (readonly DealtStudent[])[]): Counted {
  const means = meansOfGroups(
    groups.map((members) => members.map((student) => student.attributes[attribute])),
  );
  const measured = groups.flatMap((members, at) => {
    const own = means?.groups[at];
    return own && own.mean !== null ? [{ members, isNear: own.isNear }] : [];
  });
  const far = measured.filter((group) => !group.isNear);
  const met = measured.length - far.length;
  return {
    says: inGroups(met, measured.length, 'near the class’s mean'),
    met,
    of: measured.length,
    concerned: far.flatMap(({ members }) => members).map((student) => student.id),
  };
}

function alikeGroups(
  attribute: string,
  as: 'category' | 'number',
  groups: readonly (readonly DealtStudent[])[],
): Counted {
  const mixed = groups.filter(
    (members) => new Set(members.flatMap((student) => student.attributes[attribute] ?? [])).size > 1,
  );
  const met = groups.length - mixed.length;
  const what = as === 'category' ? 'of one kind' : 'of one number';
  return {
    says: inGroups(met, groups.length, what),
    met,
    of: groups.length,
    concerned: mixed.flat().map((student) => student.id),
  };
}

/** Only those who could have company count: the class has another of their kind. */
function company(
  attribute: string,
  students: readonly DealtStudent[],
  groups: readonly (readonly DealtStudent[])[],
): Counted {
  const valueOf = (student: DealtStudent) => student.attributes[attribute];
  const canHave = (student: DealtStudent) =>
    valueOf(student) !== undefined &&
    students.some((other) => other !== student && valueOf(other) === valueOf(student));
  const seated = groups.flat().filter(canHave);
  const alone = groups.flatMap((members) =>
    members.filter(
      (student) =>
        canHave(student) &&
        members.every((other) => other === student || valueOf(other) !== valueOf(student)),
    ),
  );
  const met = seated.length - alone.length;
  return {
    says: `${met} of ${seated.length} have company`,
    met,
    of: seated.length,
    concerned: alone.map((student) => student.id),
  };
}

function timeShared(
  attribute: string,
  wanted: number,
  groups: readonly (readonly DealtStudent[])[],
): Counted {
  const several = groups.filter((members) => members.length > 1);
  const short = several.filter((members) => {
    const free = members.flatMap((student) => readHalfDays(student.attributes[attribute] ?? '') ?? []);
    const shared =
      free.length === 0
        ? Infinity
        : [...sure(free[0])].filter((slot) => free.every((own) => own.has(slot))).length;
    return shared < wanted;
  });
  const met = several.length - short.length;
  return {
    says: inGroups(met, several.length, `share ${wanted} or more`),
    met,
    of: several.length,
    concerned: short.flat().map((student) => student.id),
  };
}

function newPairs(
  rule: Extract<Rule, { kind: 'fresh' }>,
  groups: readonly (readonly DealtStudent[])[],
): Counted {
  const before = rule.sets.map(
    (set) => new Map(set.groups.flatMap((members, at) => members.map((id) => [id, at] as const))),
  );
  const met = (one: DealtStudent, other: DealtStudent) =>
    before.some((groupOf) => groupOf.has(one.id) && groupOf.get(one.id) === groupOf.get(other.id));
  let pairs = 0;
  const again = groups.flatMap((members) =>
    members.flatMap((one, at) =>
      members.slice(at + 1).flatMap((other) => {
        pairs += 1;
        return met(one, other) ? [[one.id, other.id] as const] : [];
      }),
    ),
  );
  const says =
    again.length === 0 ? `all ${pairs} pairs are new` : `${pairs - again.length} of ${pairs} pairs are new`;
  return { says, met: pairs - again.length, of: pairs, concerned: [...new Set(again.flat())] };
}
