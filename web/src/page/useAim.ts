import { useEffect, useMemo, useRef } from 'react';

/** Leads the focus to something that may have to be drawn first. Of several aims in a row, as a key that is held down makes them, the last one counts, and
 * what is aimed at is where the next key goes from. */
export function useAim<Spot>(focusOn: (spot: Spot) => void) {
  const aim = useRef<{ readonly spot: Spot } | null>(null);
  const latest = useRef(focusOn);
  useEffect(() => {
    latest.current = focusOn;
  });
  return useMemo(
    () => ({
      /** Where the focus is on its way to; null: nowhere. */
      at: (): Spot | null => aim.current?.spot ?? null,
      to(spot: Spot): void {
        const own = { spot };
        aim.current = own;
        // One frame to scroll and one to draw.
        requestAnimationFrame(() =>
          requestAnimationFrame(() => {
            if (aim.current !== own) return;
            aim.current = null;
            latest.current(spot);
          }),
        );
      },
    }),
    [],
  );
}
