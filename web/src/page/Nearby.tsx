import { useEffect, useRef, useState } from 'react';
import type { ReactNode } from 'react';

const marginPx = 1200;

interface NearbyProps {
  /** Height until it was drawn once. */
  readonly estimatePx: number;
  /** Drawn from the start, wherever it stands. */
  readonly isFirst?: boolean;
  /** By which `reveal` finds it: ids of what is in it. */
  readonly holds?: readonly string[];
  readonly children: () => ReactNode;
}

/** A part of a long page that is drawn only while it stands near the view, so that a page of five hundred posts costs what its first screens cost. It
 * must stand in an element with `data-scroller`. Where someone is writing it stays drawn. */
export function Nearby({ estimatePx, isFirst = false, holds, children }: NearbyProps) {
  const [isNear, setIsNear] = useState(isFirst);
  const [drawnPx, setDrawnPx] = useState<number | null>(null);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new IntersectionObserver(
      (entries) => {
        const isIn = entries.at(-1)?.isIntersecting ?? true;
        if (!isIn && element.querySelector('[contenteditable="true"], textarea')) return;
        if (!isIn && element.offsetHeight > 0) setDrawnPx(element.offsetHeight);
        setIsNear(isIn);
      },
      { root: element.closest('[data-scroller]'), rootMargin: `${marginPx}px 0px` },
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return (
    <div
      ref={box}
      data-holds={holds?.join(' ')}
      style={isNear ? undefined : { height: drawnPx ?? estimatePx }}
    >
      {isNear ? children() : null}
    </div>
  );
}

const mostFrames = 60;

/** Scrolls to an element that may not be drawn yet: first to the part that holds it, then to it.
 * @param held as given to the part; the element's own id is `${prefix}-${held}`. */
export function reveal(prefix: string, held: string): void {
  const show = () => {
    const found = document.getElementById(`${prefix}-${held}`);
    found?.scrollIntoView({ block: 'center' });
    return found !== null;
  };
  if (show()) return;
  document.querySelector(`[data-holds~="${held}"]`)?.scrollIntoView({ block: 'start' });
  let frames = 0;
  const again = () => {
    frames += 1;
    if (!show() && frames < mostFrames) requestAnimationFrame(again);
  };
  requestAnimationFrame(again);
}

/** Splits a list into parts of so many, the last one shorter. */
export const inParts = <Item,>(items: readonly Item[], size: number): (readonly Item[])[] =>
  Array.from({ length: Math.ceil(items.length / size) }, (_, at) => items.slice(at * size, (at + 1) * size));
