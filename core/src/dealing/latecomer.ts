import type { EnrolmentId } from '../ids/index.js';
import type { DealtStudent } from './students.js';
import type { Rule, Wish } from './wishes.js';
import { measure } from './wishes.js';

type Attributes = DealtStudent['attributes'];

/** What it adds to the spread rules' cost that someone comes to a group (CALC §3); 0 without such rules.
 * @param everyone the class with the newcomer, by attributes.
 * @param members those of the group. */
export function spreadIncrease(
  rules: readonly { readonly kind: Rule['kind'] }[],
  everyone: readonly Attributes[],
  members: readonly Attributes[],
  newcomer: Attributes,
): number {
  const wishes = rules.filter((rule): rule is Wish & { kind: 'spread' } => rule.kind === 'spread');
  const asStudent = (attributes: Attributes, at: number): DealtStudent => ({
    id: String(at) as EnrolmentId,
    name: '',
    attributes,
    fixedIn: null,
  });
  // The group's own people first, the newcomer behind them, and the class after: the class says what an even share is.
  const students = [...members, newcomer, ...everyone].map(asStudent);
  const row = Int32Array.from(students.keys());
  return wishes.reduce((sum, wish) => {
    const { cost } = measure(wish, students);
    return sum + cost(row, 0, members.length + 1) - cost(row, 0, members.length);
  }, 0);
}
