import type { BoardStudent } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import { meansOfGroups, readHalfDays } from '@jigsaw/core/course';
import { counted } from '@jigsaw/core/text';

const mostFigures = 2;

/** What the rules are about, of one group: how many of each kind, the mean of a number, free half-days that all share. */
export function figuresOf(members: readonly BoardStudent[], rules: readonly DealRule[]): string[] {
  if (members.length === 0) return [];
  const figures = rules.flatMap((rule) => {
    if (rule.kind === 'spread' || rule.kind === 'alike')
      return rule.as === 'number' ? meanOf(members, rule.attribute) : kindsOf(members, rule.attribute);
    return rule.kind === 'common-time' ? sharedTime(members, rule.attribute) : [];
  });
  return [...new Set(figures)].slice(0, mostFigures);
}

function meanOf(members: readonly BoardStudent[], attribute: string): string[] {
  const mean = meansOfGroups([members.map((student) => student.attributes[attribute])])?.groups[0]?.mean;
  return mean === null || mean === undefined ? [] : [`${attribute} ${mean.toFixed(1)}`];
}

function kindsOf(members: readonly BoardStudent[], attribute: string): string[] {
  const counts = new Map<string, number>();
  for (const { attributes } of members) {
    const kind = attributes[attribute];
    if (kind !== undefined) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  }
  const told = [...counts].toSorted(([, a], [, b]) => b - a).map(([kind, count]) => `${count} ${kind}`);
  return told.length === 0 ? [] : [told.join(', ')];
}

/** Someone who said nothing is free, as in the deal itself. */
function sharedTime(members: readonly BoardStudent[], attribute: string): string[] {
  const [first, ...others] = members.flatMap(
    (student) => readHalfDays(student.attributes[attribute] ?? '') ?? [],
  );
  if (!first) return [];
  return [
    counted([...first].filter((slot) => others.every((free) => free.has(slot))).length, 'free half-day'),
  ];
}
