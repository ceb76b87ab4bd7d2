import { sure } from '../lists/index.js';
import type { DealProblem } from './problem.js';
import type { Compiled } from './units.js';
import { counted, namesTogether } from '../text/index.js';

/** Names of groups that are locked and in the way; none: no one is held by a lock. */
type Locked = readonly string[];

/** Why the rules that hold without exception cannot all hold, with those concerned by name. */
export type Clash =
  | { readonly code: 'together-is-apart'; readonly names: readonly [string, string] }
  | {
      readonly code: 'together-fixed-apart';
      readonly names: readonly [string, string];
      readonly groups: readonly [string, string];
      readonly locked: Locked;
    }
  | {
      readonly code: 'apart-fixed-together';
      readonly names: readonly [string, string];
      readonly group: string;
      readonly locked: Locked;
    }
  | { readonly code: 'together-too-many'; readonly names: readonly string[]; readonly most: number }
  | { readonly code: 'too-many-apart'; readonly names: readonly string[]; readonly groups: number }
  | {
      readonly code: 'fixed-group-full';
      readonly names: readonly string[];
      readonly group: string;
      readonly places: number;
      readonly locked: Locked;
    }
  | {
      readonly code: 'fixed-beside-apart';
      readonly name: string;
      readonly names: readonly string[];
      readonly locked: Locked;
    }
  | { readonly code: 'together-do-not-fit'; readonly names: readonly string[] }
  | {
      readonly code: 'not-found';
      /** There is none, whatever the sizes of the groups. */
      readonly isProven: boolean;
      readonly pairs: readonly (readonly [string, string])[];
    };

/** What can be shown before anybody is dealt; null: no clash of these kinds. */
export function clashIn(problem: DealProblem, compiled: Compiled): Clash | null {
  const { students, groups } = problem;
  const { units, fixed, apart, capacity, isLocked } = compiled;
  const name = (at: number) => sure(students[at]).name;
  const open = groups.flatMap((_, at) => (isLocked[at] ? [] : [at]));
  const lockedAmong = (ids: readonly (string | null)[]): Locked =>
    groups.flatMap((group) => (group.isLocked && ids.includes(group.id) ? [group.name] : []));
  const fixedOf = (at: number) => sure(students[at]).fixedIn;
  const roomIn = (group: number) =>
    sure(capacity[group]) - students.filter((student) => student.fixedIn === sure(groups[group]).id).length;

  for (const unit of units) {
    for (const [at, one] of unit.entries()) {
      for (const other of unit.slice(at + 1)) {
        if (sure(apart[one]).has(other))
          return { code: 'together-is-apart', names: [name(one), name(other)] };
        const [here, there] = [sure(students[one]).fixedIn, sure(students[other]).fixedIn];
        if (here !== null && there !== null && here !== there) {
          const groupName = (id: string) => groups.find((group) => group.id === id)?.name ?? 'another group';
          return {
            code: 'together-fixed-apart',
            names: [name(one), name(other)],
            groups: [groupName(here), groupName(there)],
            locked: lockedAmong([here, there]),
          };
        }
      }
    }
  }
  for (const [one, others] of apart.entries()) {
    for (const other of others) {
      const group = sure(students[one]).fixedIn;
      if (one < other && group !== null && sure(students[other]).fixedIn === group)
        return {
          code: 'apart-fixed-together',
          names: [name(one), name(other)],
          group: sure(groups.find((each) => each.id === group)).name,
          locked: lockedAmong([group]),
        };
    }
  }
  // Units that follow someone into the same group need places there together.
  const comers = groups.map((_, group) =>
    units.filter(
      (unit, at) => fixed[at] === group && unit.some((each) => sure(students[each]).fixedIn === null),
    ),
  );
  const comingTo = (group: number) =>
    sure(comers[group])
      .flat()
      .filter((each) => sure(students[each]).fixedIn === null).length;
  const most = Math.max(0, ...open.map((group) => sure(capacity[group])));
  for (const [at, unit] of units.entries()) {
    const comes = unit.filter((student) => sure(students[student]).fixedIn === null);
    const group = sure(fixed[at]);
    if (group >= 0 && comes.length > 0 && (isLocked[group] || comingTo(group) > roomIn(group)))
      return {
        code: 'fixed-group-full',
        names: (isLocked[group] || comes.length > roomIn(group) ? unit : sure(comers[group]).flat()).map(
          name,
        ),
        group: sure(groups[group]).name,
        places: isLocked[group] ? 0 : roomIn(group),
        locked: lockedAmong([sure(groups[group]).id]),
      };
    if (group < 0 && unit.length > most) return { code: 'together-too-many', names: unit.map(name), most };
    const beside =
      group < 0
        ? undefined
        : comes.find((student) =>
            [...sure(apart[student])].some(
              (other) => fixed[sure(compiled.unitOf[other])] === group && compiled.unitOf[other] !== at,
            ),
          );
    if (beside !== undefined) {
      const others = [...sure(apart[beside])].filter(
        (other) => fixed[sure(compiled.unitOf[other])] === group,
      );
      const locked = lockedAmong([sure(groups[group]).id]);
      return { code: 'fixed-beside-apart', name: name(beside), names: others.map(name), locked };
    }
    if (group < 0) {
      const isShut = (each: number) =>
        sure(isLocked[each]) ||
        unit.some((student) =>
          [...sure(apart[student])].some((other) => fixed[sure(compiled.unitOf[other])] === each),
        );
      if (
        groups.length > 0 &&
        unit.some((student) => sure(apart[student]).size > 0) &&
        groups.every((_, each) => isShut(each))
      ) {
        const others = [...new Set(unit.flatMap((student) => [...sure(apart[student])]))].filter(
          (other) => sure(fixed[sure(compiled.unitOf[other])]) >= 0,
        );
        return {
          code: 'fixed-beside-apart',
          name: name(sure(unit[0])),
          names: others.map(name),
          locked: lockedAmong([
            ...others.map(fixedOf),
            ...groups.flatMap((each, at) => (isLocked[at] ? [each.id] : [])),
          ]),
        };
      }
    }
  }
  const clique = mutuallyApart(compiled);
  if (clique.length > groups.length)
    return { code: 'too-many-apart', names: clique.map(name), groups: groups.length };
  return null;
}

/** A large number of people, each apart from every other: grown from the person who has most to be apart from. One that is larger than the
 * number of groups proves that they cannot all be parted. */
function mutuallyApart({ apart }: Compiled): number[] {
  let best: number[] = [];
  const order = [...apart.keys()]
    .filter((at) => sure(apart[at]).size > 0)
    .sort((a, b) => sure(apart[b]).size - sure(apart[a]).size || a - b);
  for (const seed of order.slice(0, 200)) {
    if (sure(apart[seed]).size < best.length) break;
    const clique = [seed];
    let candidates = new Set(apart[seed]);
    while (candidates.size > 0) {
      let next = -1;
      let shared = -1;
      for (const each of candidates) {
        let common = 0;
        for (const other of candidates) if (sure(apart[each]).has(other)) common += 1;
        if (common > shared) [next, shared] = [each, common];
      }
      clique.push(next);
      candidates = new Set([...candidates].filter((each) => sure(apart[next]).has(each)));
    }
    if (clique.length > best.length) best = clique;
  }
  return best;
}

/** Four names are told whole; of more, the first three. */
const some = (names: readonly string[]): string => namesTogether(names, names.length <= 4 ? 4 : 3);

/** Someone in a locked group is not freed by unpinning. */
const unlock = (locked: Locked): string =>
  locked.length === 1
    ? `${locked.join('')} is locked: unlock it, or remove the rule.`
    : `${some(locked)} are locked: unlock one of them, or remove the rule.`;
const free = (locked: Locked): string => (locked.length === 0 ? 'Unpin one of them.' : unlock(locked));

/** The same in words, with what to do. */
export function sayClash(clash: Clash): string {
  switch (clash.code) {
    case 'together-is-apart':
      return `${clash.names.join(' and ')} must be together and apart at once. Remove one of the two rules.`;
    case 'together-fixed-apart':
      return `${clash.names.join(' and ')} must be together, but one stays in ${clash.groups[0]} and the other in ${clash.groups[1]}. ${free(clash.locked)}`;
    case 'apart-fixed-together':
      return `${clash.names.join(' and ')} must be apart, but both stay in ${clash.group}. ${free(clash.locked)}`;
    case 'together-too-many':
      return `${some(clash.names)} must be together: ${clash.names.length} people, and no group holds more than ${clash.most}. Remove someone from the rule, or let a group hold more.`;
    case 'too-many-apart':
      return `${some(clash.names)}: each of these ${clash.names.length} must be apart from all the others, and there are ${clash.groups} groups. Make more groups, or let two of them meet.`;
    case 'fixed-group-full':
      return `${some(clash.names)} must be together in ${clash.group}, which has ${clash.places === 0 ? 'no place' : counted(clash.places, 'place')} for those who come. ${clash.locked.length > 0 ? unlock(clash.locked) : 'Unpin them, or let it hold more.'}`;
    case 'fixed-beside-apart':
      return `${clash.name} must be apart from ${some(clash.names)}, who stay where they are, so no group is left. ${free(clash.locked)}`;
    case 'together-do-not-fit':
      return `${some(clash.names)} must be together, but the other rules leave no group with room for all of them. Let a group hold more, or split them.`;
    case 'not-found': {
      const pairs = clash.pairs.slice(0, 3).map((pair) => pair.join(' and '));
      const told = `${pairs.join('; ')}${clash.pairs.length > 3 ? ` and ${clash.pairs.length - 3} more` : ''}`;
      return clash.isProven
        ? `These cannot all be kept apart in these groups: ${told}. Let some of them share a group, or make more groups.`
        : `No deal was found that keeps all of these apart: ${told}. There may be none. Let some of them meet, or look longer.`;
    }
  }
}
