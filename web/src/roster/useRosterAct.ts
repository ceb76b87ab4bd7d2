import type { RosterAct } from '@jigsaw/contract/roster';
import { problemOf } from '../api/index.js';
import { useNotice } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useChangeRosterMutation, useUndoRosterChangeMutation } from './rosterApi.js';
import { counted } from '@jigsaw/core/text';
import { useAct } from '../page/index.js';

/** Does an act on the roster and says what was done, with the way back. */
export function useRosterAct() {
  const { course } = useCourse();
  const notice = useNotice();
  const [change, { error, isLoading, reset }] = useChangeRosterMutation();
  const undo = useUndoRoster();
  return {
    error,
    isBusy: isLoading,
    reset,
    /** @param onRefused told why, where no strip shows it. */
    act: async (body: RosterAct, said: string, onRefused?: (why: string) => void): Promise<boolean> => {
      const answer = await change({ courseId: course.id, body });
      if (!('data' in answer) || !answer.data) {
        onRefused?.(problemOf(answer.error).detail);
        return false;
      }
      const { changeId, seated } = answer.data;
      if (changeId) notice(`${said}${saySeated(seated)}`, { label: 'Undo', do: () => void undo(changeId) });
      return true;
    },
  };
}

/** What happened to latecomers, where a set gives them a place. */
export const saySeated = (seated: number): string =>
  seated === 0 ? '' : `; ${counted(seated, 'place')} given where there was room`;

/** Takes one change of the roster back as a whole. */
export function useUndoRoster() {
  const { course } = useCourse();
  const undo = useAct(useUndoRosterChangeMutation(), { says: () => 'Undone' });
  return (changeId: string) => undo({ courseId: course.id, changeId });
}
