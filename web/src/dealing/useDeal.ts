import { useCallback, useEffect, useRef, useState } from 'react';
import type { Deal, DealProblem, Dealt, Why } from '@jigsaw/core/dealing';
import { ask } from './dealRunner.js';
import type { Question, Told } from './dealMessages.js';

export interface Going {
  readonly question: Question;
  readonly part: number;
  /** Of a deal: the best so far. */
  readonly best: Deal | null;
}

interface Heard {
  readonly onDealt: (problem: DealProblem, dealt: Dealt, isStopped: boolean) => void;
  readonly onWhy: (why: Why) => void;
  readonly onGivenUp: (detail: string) => void;
}

/** One question at a time, off the page's own thread: how far it is, and stopping a deal with the best so far. */
export function useDeal(courseId: string, { onDealt, onWhy, onGivenUp }: Heard) {
  const [going, setGoing] = useState<Going | null>(null);
  const endAsking = useRef<(() => void) | null>(null);
  const end = useCallback(() => {
    endAsking.current?.();
    endAsking.current = null;
    setGoing(null);
  }, []);
  useEffect(() => end, [end]);

  const start = (question: Question) => {
    end();
    setGoing({ question, part: 0, best: null });
    const hear = (told: Told) => {
      if (told.kind === 'going') return setGoing({ question, part: told.part, best: told.best });
      end();
      if (told.kind === 'dealt') onDealt(question.problem, told.dealt, false);
      else if (told.kind === 'why') onWhy(told.why);
      else onGivenUp(told.detail);
    };
    endAsking.current = ask(courseId, question, hear);
  };
  const stop = () => {
    if (going?.best) onDealt(going.question.problem, { ok: true, deal: going.best }, true);
    end();
  };
  return { going, start, stop };
}
