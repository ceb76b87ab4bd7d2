import { useCallback, useEffect, useRef } from 'react';

/** A function that stays the same while what it does keeps up with the page: what takes it need not be drawn again. */
export function useSteady<Given extends readonly unknown[], Answer>(
  does: (...given: Given) => Answer,
): (...given: Given) => Answer {
  const latest = useRef(does);
  useEffect(() => {
    latest.current = does;
  });
  return useCallback((...given: Given) => latest.current(...given), []);
}
