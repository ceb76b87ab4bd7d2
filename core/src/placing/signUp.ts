import { counted } from '../text/index.js';
/** When students choose their own places. Times in milliseconds since 1970. */
export interface SignUp {
  /** null: since it is offered. */
  readonly opens: number | null;
  /** null: until the set is frozen. */
  readonly closes: number | null;
}

export type SignUpState = 'not-open-yet' | 'open' | 'closed' | 'frozen';

export function signUpState({ opens, closes }: SignUp, isFrozen: boolean, now: number): SignUpState {
  if (isFrozen) return 'frozen';
  if (opens !== null && now < opens) return 'not-open-yet';
  if (closes !== null && now >= closes) return 'closed';
  return 'open';
}

/** What stands between a student and a place. */
export type NoPlace =
  | { readonly code: Exclude<SignUpState, 'open'> }
  | { readonly code: 'locked' }
  | { readonly code: 'full'; readonly placesElsewhere: number }
  | { readonly code: 'handed-in' };

export interface WantedPlace {
  readonly state: SignUpState;
  /** The group they are in now; null: in none. */
  readonly from: { readonly isLocked: boolean; readonly hasHandedIn: boolean } | null;
  /** The group they want; null: to give their place back. */
  readonly to: {
    readonly isLocked: boolean;
    readonly members: number;
    readonly capacity: number | null;
  } | null;
  readonly placesElsewhere: number;
}

/** Whether a student may take this place, or give theirs back; null: they may. */
export function whyNoPlace({ state, from, to, placesElsewhere }: WantedPlace): NoPlace | null {
  if (state !== 'open') return { code: state };
  if (from?.isLocked || to?.isLocked) return { code: 'locked' };
  if (from?.hasHandedIn) return { code: 'handed-in' };
  if (to && to.capacity !== null && to.members >= to.capacity) return { code: 'full', placesElsewhere };
  return null;
}

/** The same in words, for the student. */
export function sayNoPlace(why: NoPlace, groupName: string): string {
  switch (why.code) {
    case 'not-open-yet':
      return 'Places can be chosen later. The page says from when.';
    case 'closed':
      return 'The time for choosing is over. Ask your instructor if you need another place.';
    case 'frozen':
      return 'Your instructor has fixed the groups. Ask them if you need another place.';
    case 'locked':
      return 'This group is locked, so no one can join or leave. Ask your instructor.';
    case 'handed-in':
      return 'Your group has handed in already, so you stay in it. Ask your instructor if you need to move.';
    case 'full': {
      const left = why.placesElsewhere;
      const elsewhere = !Number.isFinite(left)
        ? 'Other groups have room.'
        : left === 0
          ? 'No group has a place left; your instructor will place you.'
          : `${counted(left, 'place is', 'places are')} left in other groups.`;
      return `${groupName} is full now. ${elsewhere}`;
    }
  }
}
