import { useEffect, useRef, useState } from 'react';
import { groupNumberTyped } from '@jigsaw/core/placing';
import { useKeys } from '../page/index.js';

const pauseMs = 600;

interface Keys {
  readonly groupCount: number;
  readonly hasSelection: boolean;
  readonly onNumber: (number: number) => void;
  readonly onNoSuchGroup: (typed: string) => void;
  readonly onUnplace: () => void;
  readonly onSwap: () => void;
  readonly onLead: () => void;
  readonly onDeal: () => void;
  readonly onUndo: () => void;
  readonly onRedo: () => void;
  readonly onClear: () => void;
  readonly onFind: () => void;
}

/** The Board's keys, wherever on its page the focus is. A number sends the selection to that group: at once when no longer number fits, else after a pause or Enter. */
export function useBoardKeys(keys: Keys): string {
  const [typed, setTyped] = useState('');
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);

  const finish = (digits: string) => {
    clearTimeout(timer.current);
    setTyped('');
    const number = Number(digits);
    if (number < 1 || number > keys.groupCount) keys.onNoSuchGroup(digits);
    else keys.onNumber(number);
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (
      event.target instanceof HTMLElement &&
      event.target.closest('input, textarea, [role="dialog"], [role="menu"]')
    )
      return;
    const isPlain = !event.altKey && !event.ctrlKey && !event.metaKey;
    const act = (does: () => void) => {
      event.preventDefault();
      event.stopPropagation();
      does();
    };
    const isUndo = event.key.toLowerCase() === 'z' && !event.altKey;
    if (isUndo) return act(event.shiftKey ? keys.onRedo : keys.onUndo);
    if (!isPlain) return;
    if (/^\d$/.test(event.key) && keys.hasSelection) {
      return act(() => {
        const digits = typed + event.key;
        clearTimeout(timer.current);
        if (groupNumberTyped(digits, keys.groupCount) !== null) return finish(digits);
        setTyped(digits);
        timer.current = setTimeout(() => finish(digits), pauseMs);
      });
    }
    if (event.key === 'Enter' && typed !== '') return act(() => finish(typed));
    if (event.key === '/') return act(keys.onFind);
    if (event.key === 'Escape' && typed !== '') {
      return act(() => {
        clearTimeout(timer.current);
        setTyped('');
      });
    }
    if (!keys.hasSelection) return;
    if (event.key === 'Escape') keys.onClear();
    if (event.key.toLowerCase() === 'u') act(keys.onUnplace);
    if (event.key.toLowerCase() === 's') act(keys.onSwap);
    if (event.key.toLowerCase() === 'l') act(keys.onLead);
    if (event.key.toLowerCase() === 'd') act(keys.onDeal);
  };
  useKeys(onKeyDown);
  return typed;
}
