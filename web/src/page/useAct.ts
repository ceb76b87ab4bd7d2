import { problemOf } from '../api/index.js';
import { useNotice } from '../look/index.js';

/** What a mutation hook of the cache gives. */
type Mutation<Asked, Answer> = readonly [
  (asked: Asked) => { unwrap(): Promise<Answer> },
  { readonly isLoading: boolean; readonly error?: unknown; readonly reset: () => void },
];

interface Telling<Asked, Answer> {
  /** What was done, in words; left out: the page shows it by itself. */
  readonly says?: (answer: Answer, asked: Asked) => string;
  /** The same act, asked so that it takes this one back. */
  readonly inverse?: (asked: Asked) => Asked;
  /** The way back by another act; null: there is none this time. */
  readonly undo?: (answer: Answer, asked: Asked) => (() => unknown) | null;
  /** "Undo", unless something says better what it does. */
  readonly undoLabel?: string;
  /** Whether the page tells of this refusal in its own way. */
  readonly refused?: (refusal: unknown) => boolean;
  /** The page shows `error` where the act was; else a refusal is told like what was done. */
  readonly isRefusalShown?: boolean;
}

export interface Act<Asked, Answer> {
  /** @returns null: it was refused, and the person was told. */
  (asked: Asked): Promise<Answer | null>;
  readonly isBusy: boolean;
  readonly error: unknown;
  readonly reset: () => void;
}

/** The one way out for what a page does: done and said, with the way back, or refused in the server's words. A refusal that no one sees is a lie,
 * so there is no way to omit it. */
export function useAct<Asked, Answer>(
  [trigger, { isLoading, error, reset }]: Mutation<Asked, Answer>,
  { says, inverse, undo, undoLabel = 'Undo', refused, isRefusalShown = false }: Telling<Asked, Answer> = {},
): Act<Asked, Answer> {
  const notice = useNotice();
  const act = async (asked: Asked): Promise<Answer | null> => {
    try {
      const answer = await trigger(asked).unwrap();
      const goBack = inverse ? () => act(inverse(asked)) : (undo?.(answer, asked) ?? null);
      if (says)
        notice(
          says(answer, asked),
          goBack === null ? undefined : { label: undoLabel, do: () => void goBack() },
        );
      return answer;
    } catch (refusal) {
      const isTold = refused?.(refusal) ?? false;
      if (!isTold && !isRefusalShown) notice(problemOf(refusal).detail);
      return null;
    }
  };
  return Object.assign(act, { isBusy: isLoading, error, reset });
}
