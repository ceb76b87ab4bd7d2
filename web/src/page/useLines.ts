import { useVirtualizer } from '@tanstack/react-virtual';

interface Lines {
  readonly count: number;
  readonly linePx: number;
  readonly scroller: HTMLElement | null;
  /** Of a head that stays in view above them; 0: it is none of theirs. */
  readonly headPx?: number;
  /** Drawn above and below the view, so that a quick scroll meets no gap. */
  readonly beyond: number;
  /** What a line is of; left out: its number. */
  readonly keyOf?: (index: number) => string;
}

/** Lines of one height of which only those near the view are drawn. */
export function useLines({ count, linePx, scroller, headPx = 0, beyond, keyOf }: Lines) {
  // eslint-disable-next-line react-hooks/incompatible-library -- its answers change with scrolling, which re-renders the caller by itself
  return useVirtualizer({
    count,
    getScrollElement: () => scroller,
    estimateSize: () => linePx,
    paddingStart: headPx,
    scrollPaddingStart: headPx,
    overscan: beyond,
    initialRect: usualRect,
    ...(keyOf && { getItemKey: keyOf }),
  });
}

/** Of a view that has not been measured yet. */
export const usualRect = { width: 1280, height: 600 };
