import { useEffect, useState } from 'react';
import { useSelector } from 'react-redux';
import { Autosaver } from './autosaver.js';
import type { SaveState } from './autosaver.js';
import { sitsIn } from '../api/index.js';
import type { RootState } from '../api/index.js';

interface Autosave<Value> {
  readonly state: SaveState;
  readonly change: (value: Value) => void;
  readonly flush: () => Promise<boolean>;
  readonly settle: () => void;
  readonly dispute: (current: unknown, sentence: string) => void;
  readonly isIdle: () => boolean;
  readonly stop: () => void;
}

/** An Autosaver for as long as the component lives. It tries again once signed in again, and saves the rest when the page is left; while that fails it goes on
 * trying. */
export function useAutosave<Value>(save: (value: Value) => Promise<unknown>): Autosave<Value> {
  const [saver] = useState(() => new Autosaver<Value>());
  const [state, setState] = useState<SaveState>(saver.state);
  useEffect(() => saver.use(save, setState), [saver, save]);

  const resumptions = useSelector((root: RootState) => root.session.resumptions);
  useEffect(() => {
    if (resumptions > 0 && saver.hasUnsaved) void saver.flush();
  }, [resumptions, saver]);

  useEffect(() => {
    const keep = (event: BeforeUnloadEvent) => {
      if (saver.hasUnsaved) event.preventDefault();
    };
    window.addEventListener('beforeunload', keep);
    return () => {
      // What could not be saved on leaving is tried again, and keeps the tab from being closed without a word.
      void saver.flush().then((isSaved) => isSaved && window.removeEventListener('beforeunload', keep));
    };
  }, [saver]);

  return {
    state,
    change: (value) => (sitsIn() ? setState({ kind: 'looking' }) : saver.change(value)),
    flush: () => saver.flush(),
    settle: () => saver.settle(),
    dispute: (current, sentence) => saver.dispute(current, sentence),
    stop: () => saver.stop(),
    isIdle: () => !saver.hasUnsaved && saver.state.kind === 'saved',
  };
}

export function saySaved(state: SaveState, time: (at: string) => string): string {
  switch (state.kind) {
    case 'saved':
      return state.at === null ? 'Saved as you type' : `Saved ${time(new Date(state.at).toISOString())}`;
    case 'looking':
      return 'Not kept while you sit in';
    case 'unsaved':
    case 'saving':
      return 'Saving…';
    case 'failed':
      return 'Not saved yet';
    case 'conflict':
      return 'Not saved: changed elsewhere';
  }
}
