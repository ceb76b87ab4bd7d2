import type { StopAnswer } from '@jigsaw/core/rooms';
import { useAct } from '../page/index.js';
import { answerTo } from './round.js';
import type { Stop } from './round.js';
import { useAnswerStopMutation } from './roundsApi.js';
import { sayHow } from './sayRound.js';

/** Says something to a stop, for oneself, with the way back; `null` opens it again. */
export function useAnswer(courseId: string) {
  const reopen = useAct(useAnswerStopMutation());
  const put = useAct(useAnswerStopMutation(), {
    says: (_done, { name, body }) => `${name}: ${sayHow(body.said ?? 'open')}`,
    undo: (_done, asked) => () => reopen({ ...asked, body: { ...asked.body, said: null } }),
  });
  /** @returns whether it was taken. */
  return async (stop: Pick<Stop, 'group' | 'need'>, said: StopAnswer | null): Promise<boolean> => {
    const asked = { courseId, name: stop.group.name, body: answerTo(stop, said) };
    return (await (said === null ? reopen : put)(asked)) !== null;
  };
}
