import { useRef } from 'react';

/** Whether Ctrl, Shift or ⌘ is held, so that a selection in one list can leave those in the others. */
export function useMoreKey() {
  const held = useRef(false);
  const note = (event: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean; target: EventTarget }) => {
    const isTick =
      event.target instanceof HTMLElement && event.target.closest('[slot="selection"], label') !== null;
    held.current = event.ctrlKey || event.metaKey || event.shiftKey || isTick;
  };
  return { isHeld: () => held.current, handlers: { onPointerDownCapture: note, onKeyDown: note } };
}
