import { useCallback, useEffect, useRef, useState } from 'react';
import { useSelector } from 'react-redux';
import { isProblem, problemOf } from './problem.js';
import type { RootState } from './store.js';

export type SaveState =
  | { readonly kind: 'saved'; readonly at: number | null }
  | { readonly kind: 'unsaved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly sentence: string }
  | { readonly kind: 'conflict'; readonly current: unknown; readonly sentence: string };

interface Autosave<Value> {
  readonly state: SaveState;
  /** Notes a change; it is saved after a short pause, never two saves at once. */
  readonly change: (value: Value) => void;
  /** Saves at once what is not saved yet. True: all is saved. */
  readonly flush: () => Promise<boolean>;
  /** After a conflict: the person chose; go on from there. */
  readonly settle: () => void;
}

const pauseMs = 700;

/** Saves what is typed as it is typed. A refusal keeps the text and tries again with the next change, or once signed in again. */
export function useAutosave<Value>(save: (value: Value) => Promise<unknown>): Autosave<Value> {
  const [state, setState] = useState<SaveState>({ kind: 'saved', at: null });
  const waiting = useRef<{ value: Value } | null>(null);
  const running = useRef<Promise<boolean> | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const latestSave = useRef(save);
  useEffect(() => {
    latestSave.current = save;
  });

  const flush = useCallback(async (): Promise<boolean> => {
    clearTimeout(timer.current);
    if (running.current) {
      await running.current;
      return waiting.current ? flush() : true;
    }
    const next = waiting.current;
    if (!next) return true;
    waiting.current = null;
    setState({ kind: 'saving' });
    const attempt = latestSave.current(next.value).then(
      () => {
        setState(waiting.current ? { kind: 'unsaved' } : { kind: 'saved', at: Date.now() });
        return true;
      },
      (error: unknown) => {
        waiting.current ??= next; // what could not be saved is not forgotten
        const problem = problemOf(error);
        setState(isProblem(error, 'stale-write') ? { kind: 'conflict', current: problem.current, sentence: problem.detail } : { kind: 'failed', sentence: problem.detail });
        return false;
      },
    );
    running.current = attempt;
    const isSaved = await attempt;
    running.current = null;
    return isSaved && waiting.current ? flush() : isSaved;
  }, []);

  const change = useCallback(
    (value: Value) => {
      waiting.current = { value };
      setState((before) => (before.kind === 'saving' || before.kind === 'conflict' ? before : { kind: 'unsaved' }));
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void flush(), pauseMs);
    },
    [flush],
  );

  const settle = useCallback(() => {
    waiting.current = null;
    setState({ kind: 'saved', at: Date.now() });
  }, []);

  const resumptions = useSelector((root: RootState) => root.session.resumptions);
  useEffect(() => {
    if (resumptions > 0 && waiting.current) void flush();
  }, [resumptions, flush]);

  useEffect(() => {
    const keep = (event: BeforeUnloadEvent) => {
      if (waiting.current || running.current) event.preventDefault();
    };
    window.addEventListener('beforeunload', keep);
    return () => {
      window.removeEventListener('beforeunload', keep);
      void flush(); // leaving the page inside the product saves what is left
    };
  }, [flush]);

  return { state, change, flush, settle };
}

export function saySaved(state: SaveState, time: (at: string) => string): string {
  switch (state.kind) {
    case 'saved':
      return state.at === null ? 'Saved as you type' : `Saved ${time(new Date(state.at).toISOString())}`;
    case 'unsaved':
    case 'saving':
      return 'Saving…';
    case 'failed':
      return 'Not saved yet';
    case 'conflict':
      return 'Not saved: changed elsewhere';
  }
}
