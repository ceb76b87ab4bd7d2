import { draftOf } from '@jigsaw/contract/release';
import type { ActivityDraft, ActivityView } from '@jigsaw/contract/release';
import { useAct } from '../page/index.js';
import { useDiscardChangesMutation, usePublishActivityMutation } from './releaseApi.js';

/** What is written in the composer. */
interface Kept {
  readonly change: (content: ActivityDraft) => void;
  readonly flush: () => Promise<boolean>;
  readonly seen: () => number;
}

/** What can be done with changes that groups do not see yet. Both ways can be taken back.
 * @param onDone told what the activity is by then
 * @param readers those that it reaches, in words */
export function useInWork(
  activity: ActivityView,
  kept: Kept,
  onDone: (now: ActivityView) => void,
  readers: string,
) {
  const activityId = activity.id;
  const publishAct = useAct(usePublishActivityMutation(), {
    says: () => `Changes published to ${readers}`,
    undo: () => {
      const before = draftOf(activity);
      return async () => {
        kept.change(before);
        if (await kept.flush()) await publish(kept.seen());
      };
    },
    isRefusalShown: true,
  });
  const discard = useAct(useDiscardChangesMutation(), {
    says: () => 'Changes discarded',
    undo: () => {
      const discarded = draftOf(activity.inWork ?? activity);
      return () => {
        kept.change(discarded);
      };
    },
  });
  const publish = async (version: number) => {
    const now = await publishAct({ activityId, version });
    if (now) onDone(now);
  };
  return {
    isBusy: publishAct.isBusy || discard.isBusy,
    refusal: publishAct.error,
    /** @param version that was in view when it was pressed */
    publish,
    discard: async (version: number) => {
      const now = await discard({ activityId, version });
      if (now) onDone(now);
    },
  };
}
