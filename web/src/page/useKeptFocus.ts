import { useEffect } from 'react';

/** Keeps the focus in the page when what had it disappears: a link whose page was left, a row that was deleted, a button that can no
 * longer be pressed. Without it the browser drops the focus, and the next Tab starts again at the top. */
export function useKeptFocus(): void {
  useEffect(() => {
    let last: Element | null = null;
    /** From the nearest outwards; what disappears cannot be asked any more. */
    let around: readonly Element[] = [];
    const note = (event: FocusEvent) => {
      if (!(event.target instanceof Element)) return;
      last = event.target;
      around = ancestorsOf(last);
    };
    let frame = 0;
    const mend = () => {
      frame = 0;
      if (isLost(last)) placeNear(around);
    };
    // Two frames: dialogs and lists that lead the focus themselves come first.
    const look = () => {
      if (frame === 0 && isLost(last))
        frame = requestAnimationFrame(() => (frame = requestAnimationFrame(mend)));
    };
    // A press beside everything lets go of the focus on purpose.
    const letGo = () => {
      last = null;
    };
    const observer = new MutationObserver(look);
    observer.observe(document.body, {
      subtree: true,
      childList: true,
      attributes: true,
      attributeFilter: ['disabled'],
    });
    document.addEventListener('focusin', note);
    document.addEventListener('pointerdown', letGo, true);
    return () => {
      observer.disconnect();
      cancelAnimationFrame(frame);
      document.removeEventListener('focusin', note);
      document.removeEventListener('pointerdown', letGo, true);
    };
  }, []);
}

const ancestorsOf = (element: Element): readonly Element[] =>
  element.parentElement ? [element.parentElement, ...ancestorsOf(element.parentElement)] : [];

/** What had the focus last is not there, or cannot have it any more. Whatever took it since would be the last itself. */
const isLost = (last: Element | null): boolean =>
  last !== null && (!last.isConnected || last.matches(':disabled'));

function placeNear(around: readonly Element[]): void {
  const nearest = around.findIndex((each) => each.isConnected);
  // Whole pages were exchanged: the new one is read from its beginning.
  const page = around[nearest]?.querySelector('main');
  if (page) return void takesFocus(page);
  // Never the next button: a second press of the same key would set off something else. What is not drawn itself cannot be focused.
  around.slice(nearest).find((each) => each.closest('main, header, [role=dialog]') && takesFocus(each));
  // None: the page is still being loaded, and its arrival is looked at again.
}

function takesFocus(element: Element): boolean {
  if (!(element instanceof HTMLElement)) return false;
  if (!element.hasAttribute('tabindex')) element.setAttribute('tabindex', '-1');
  element.focus({ preventScroll: true });
  return document.activeElement === element;
}
