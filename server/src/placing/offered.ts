import type { SignUpSettings } from '@jigsaw/contract/sets';
import type { SignUpState } from '@jigsaw/core/placing';
import { signUpState } from '@jigsaw/core/placing';
import type { GroupSetRow } from '../sets/index.js';

/** A set in which students choose their places. */
export type Offered = GroupSetRow & { signUp: SignUpSettings };

export const isOffered = (set: GroupSetRow): set is Offered => set.signUp !== null && set.archivedAt === null;

export function stateOf({ signUp, frozenAt }: Offered, now: Date): SignUpState {
  const at = (time: string | null) => (time === null ? null : Date.parse(time));
  return signUpState(
    { opens: at(signUp.opens), closes: at(signUp.closes) },
    frozenAt !== null,
    now.getTime(),
  );
}
