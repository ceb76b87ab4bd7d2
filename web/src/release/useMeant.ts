import { useState } from 'react';
import type { ActivityView, ChangeReach } from '@jigsaw/contract/release';
import type { ReleaseTarget } from './releaseTarget.js';

/** Who someone means an activity to go to, until it does, with who got it when they began to change that.
 * @param first what they begin with. */
export function useMeant(release: ActivityView['release'], first: ReleaseTarget) {
  const [meant, setMeant] = useState<{
    readonly target: ReleaseTarget;
    readonly was: ChangeReach['was'] | null;
  } | null>(null);
  const now = release && { to: release.to, outsiders: release.outsiders };
  return {
    target: meant?.target ?? first,
    /** null: it is a draft that no one gets yet. */
    was: meant?.was ?? now,
    mean: (target: ReleaseTarget) => setMeant({ target, was: meant?.was ?? now }),
    /** Who gets it now is shown again. */
    settle: () => setMeant(null),
  };
}
