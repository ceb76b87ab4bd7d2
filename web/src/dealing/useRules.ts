import { useMemo, useRef, useState } from 'react';
import type { BoardView } from '@jigsaw/contract/placing';
import type { DealRule } from '@jigsaw/contract/sets';
import { useCourse } from '../course/index.js';
import { isWhole } from './dealProblem.js';
import { useChangeRulesMutation } from './dealingApi.js';
import { useAct } from '../page/index.js';

/** The set's rules as they are being written, kept with the set as soon as they are whole. An assistant may try rules and deal by them; they stay the set's own. */
export function useRules(board: BoardView) {
  const { course } = useCourse();
  const save = useAct(useChangeRulesMutation());
  const [rules, setRules] = useState<readonly DealRule[]>(board.rules);
  const version = useRef(board.set.version);
  const line = useRef<Promise<void>>(Promise.resolve()); // two quick changes are no conflict
  const whole = useMemo(() => rules.filter(isWhole), [rules]);

  const change = (next: readonly DealRule[]) => {
    setRules(next);
    if (course.role !== 'instructor') return;
    const keep = async () => {
      const answer = await save({
        setId: board.set.id,
        body: { rules: next.filter(isWhole), version: Math.max(version.current, board.set.version) },
      });
      if (answer) version.current = answer.version;
    };
    line.current = line.current.then(keep);
  };
  return { rules, whole, change };
}
