import type { Role } from '../course/index.js';
import { readHalfDays } from '../course/index.js';
import type { AudienceId, EnrolmentId, GroupId, GroupSetId } from '../ids/index.js';
import { fold } from '../text/index.js';

/** One line of an audience: who it names, by reference, so that it follows moves and renames. */
export type Term =
  /** All students. */
  | { readonly kind: 'class' }
  | { readonly kind: 'set'; readonly setId: GroupSetId }
  | { readonly kind: 'group'; readonly setId: GroupSetId; readonly groupId: GroupId }
  | { readonly kind: 'role'; readonly role: Role }
  | { readonly kind: 'person'; readonly enrolmentId: EnrolmentId }
  | {
      readonly kind: 'attribute';
      readonly name: string;
      readonly test: AttributeTest;
      readonly value: string;
    }
  | { readonly kind: 'audience'; readonly audienceId: AudienceId };

/** is: the value itself; has: one of the values that stand together, as half-days do. */
export type AttributeTest = 'is' | 'has';

/** Everyone that a term of `include` names, without those that a term of `exclude` names. */
export interface Terms {
  readonly include: readonly Term[];
  readonly exclude: readonly Term[];
}

export interface SavedAudience extends Terms {
  readonly id: AudienceId;
}

export interface AudiencePerson {
  readonly enrolmentId: EnrolmentId;
  readonly role: Role;
  readonly groups: readonly { readonly groupId: GroupId; readonly setId: GroupSetId }[];
  readonly attributes: Readonly<Record<string, string>>;
}

/** Whether a value of an attribute is, or has among others, the wanted one. Case, accents and width do not matter.
 * "Mon, Tue pm" has "Mon am": a day alone is both its halves. */
export function fitsTest(value: string | undefined, test: AttributeTest, wanted: string): boolean {
  if (value === undefined) return false;
  if (test === 'is') return fold(value) === fold(wanted);
  const days = readHalfDays(value);
  const wantedDays = readHalfDays(wanted);
  if (days && wantedDays && wantedDays.size > 0) return [...wantedDays].every((day) => days.has(day));
  return partsOf(value).includes(fold(wanted).trim());
}

const partsOf = (value: string): string[] =>
  fold(value)
    .split(/[,;|/\n]+/)
    .map((part) => part.trim());
