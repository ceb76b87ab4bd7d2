import { useEffect, useRef } from 'react';

const typing = 'input, textarea, [contenteditable]:not([contenteditable=false])';
/** Whether what is typed goes into a text. */
export const isTyping = (event: Event): boolean =>
  event.target instanceof HTMLElement && event.target.closest(typing) !== null;

/** Hears every key of the page, before whatever has the focus does: a list would take a letter for the start of a name. */
export function useKeys(hear: (event: KeyboardEvent) => void): void {
  const latest = useRef(hear);
  useEffect(() => {
    latest.current = hear;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => latest.current(event);
    window.addEventListener('keydown', listen, true);
    return () => window.removeEventListener('keydown', listen, true);
  }, []);
}

const overThePage = '[role="dialog"], [role="alertdialog"], [role="menu"], [role="listbox"]';
/** Whether something that opened over the page has the focus: there a letter finds a choice, and nothing behind it moves. */
const isOverThePage = (event: Event): boolean =>
  event.target instanceof HTMLElement && event.target.closest(overThePage) !== null;

/** A page's shortcut: one plain key, wherever the focus is but in a text or in what opened over the page. */
export function useKey(key: string, act: () => void): void {
  useKeys((event) => {
    if (event.key !== key || event.ctrlKey || event.metaKey || event.altKey) return;
    if (isTyping(event) || isOverThePage(event)) return;
    event.preventDefault();
    act();
  });
}
