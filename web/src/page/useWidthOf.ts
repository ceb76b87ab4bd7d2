import { useLayoutEffect, useState } from 'react';
import { usualRect } from './useLines.js';

/** How wide an element is, also when that changes. What draws only lines in view is told of a new width only when other lines come into view. */
export function useWidthOf(element: HTMLElement | null): number {
  const [width, setWidth] = useState(usualRect.width);
  useLayoutEffect(() => {
    if (!element) return;
    const measure = () => setWidth(element.clientWidth || usualRect.width);
    measure();
    const watching = new ResizeObserver(measure);
    watching.observe(element);
    return () => watching.disconnect();
  }, [element]);
  return width;
}
