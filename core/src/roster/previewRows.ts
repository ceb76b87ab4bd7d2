import type { Role } from '../course/index.js';
import type { EnrolmentId } from '../ids/index.js';
import type { RosterPerson } from './person.js';
import type { NamedPlace } from './places.js';

/** A person as a row tells of them; `role` null: the row does not say. */
export interface RowPerson extends RosterPerson {
  readonly role: Role | null;
  /** The places that the row names; none if the person is no student and sits nowhere. */
  readonly places: readonly NamedPlace[];
}

export type RowProblem =
  | { readonly code: 'no-address' }
  | { readonly code: 'bad-address'; readonly value: string }
  | { readonly code: 'same-address-as-line'; readonly line: number }
  | { readonly code: 'same-person-as-line'; readonly line: number; readonly name: string }
  | { readonly code: 'no-name' }
  | { readonly code: 'name-too-long'; readonly length: number }
  | { readonly code: 'looks-like-formula'; readonly heading: string; readonly value: string }
  /** `mayBeSame`: their own address is in no row, so that it may be them under a new one. `isAlike`: they are called the same, too. */
  | {
      readonly code: 'number-of-another';
      readonly number: string;
      readonly name: string;
      readonly mayBeSame: boolean;
      readonly isAlike: boolean;
    }
  | { readonly code: 'same-number-as-line'; readonly number: string; readonly line: number }
  | { readonly code: 'unknown-role'; readonly value: string }
  | { readonly code: 'several-groups'; readonly set: string | null; readonly groups: readonly string[] }
  | { readonly code: 'too-few-cells' | 'too-many-cells'; readonly cells: number; readonly expected: number };

export interface FieldChange {
  readonly field: string;
  readonly from: string;
  readonly to: string;
}

/** The file, or the role chosen for all of it, gives a known person another role than they have. */
export interface OtherRole {
  readonly told: Role;
  /** Someone said so of this line: a role is never changed in passing. */
  readonly isTaken: boolean;
}

/** What someone said of single lines. */
export interface SaidOfLines {
  /** These are the person who has the number, under a new address. */
  readonly newAddresses: ReadonlySet<number>;
  /** These people get the role that the file tells. */
  readonly newRoles: ReadonlySet<number>;
}
export const nothingSaid: SaidOfLines = { newAddresses: new Set(), newRoles: new Set() };

export type PreviewRow = { readonly line: number } & (
  | { readonly kind: 'new'; readonly person: RowPerson }
  | {
      readonly kind: 'changed';
      readonly enrolmentId: EnrolmentId;
      readonly person: RowPerson;
      readonly changes: readonly FieldChange[];
      /** Someone said that the person of this number has a new address. */
      readonly hasNewAddress: boolean;
      readonly otherRole: OtherRole | null;
    }
  | {
      readonly kind: 'unchanged';
      readonly enrolmentId: EnrolmentId;
      readonly person: RowPerson;
      readonly otherRole: OtherRole | null;
    }
  | { readonly kind: 'problem'; readonly problems: readonly RowProblem[]; readonly cells: readonly string[] }
);

export type Preview =
  | { readonly ok: true; readonly rows: readonly PreviewRow[]; readonly missing: readonly EnrolmentId[] }
  | {
      readonly ok: false;
      readonly code: 'no-address-column' | 'no-name-column' | 'meaning-twice' | 'columns-do-not-fit';
    };
