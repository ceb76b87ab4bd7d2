import { useEffect, useRef, useState } from 'react';
import { isProblem, problemOf } from '../api/index.js';
import { useNotice } from '../look/index.js';
import { useAutosave } from './useAutosave.js';

interface Versioned<Value> {
  readonly value: Value;
  readonly version: number;
}

interface Keeping<Value> {
  /** Where it begins. */
  readonly begin: () => Versioned<Value>;
  /** @returns its next version, once it is kept */
  readonly save: (value: Value, version: number) => Promise<{ readonly version: number }>;
  /** As it is kept now, whoever wrote it. */
  readonly read: () => Promise<Versioned<Value>>;
  /** As the page has it by now. A newer version takes the place of what is shown, unless something is being written here. */
  readonly now?: Versioned<Value>;
  /** Told when that happened. */
  readonly onNewer?: () => void;
}

/** What two people may write at once: saved as it is typed, on top of the version that one has seen. Where somebody else was faster, nothing is lost on
 * either side until the person says whose stands. */
export function useVersionedDraft<Value>({ begin, save, read, now, onNewer }: Keeping<Value>) {
  const notice = useNotice();
  const [begun] = useState(begin);
  const [value, setValue] = useState(begun.value);
  const [version, setVersion] = useState(begun.version);
  // As they are now, for what began before the page was drawn again.
  const newest = useRef(begun.version);
  const typed = useRef(begun.value);
  const show = (next: Value) => {
    typed.current = next;
    setValue(next);
  };
  const stand = (on: number) => {
    newest.current = on;
    setVersion(on);
  };
  const autosave = useAutosave<Value>(async (next) => {
    stand((await save(next, newest.current)).version);
  });
  useEffect(() => {
    if (!now || now.version <= newest.current || !autosave.isIdle()) return;
    show(now.value);
    stand(now.version);
    onNewer?.();
  });
  const readNow = async (): Promise<Versioned<Value> | null> => {
    try {
      return await read();
    } catch (refusal) {
      notice(problemOf(refusal).detail);
      return null;
    }
  };
  return {
    value,
    version,
    state: autosave.state,
    flush: autosave.flush,
    /** Shows it, and saves it in a moment. */
    change: (next: Value) => {
      show(next);
      autosave.change(next);
    },
    /** Shows it, and saves nothing: it cannot be kept as it stands. */
    show,
    /** Which version what is shown stands on, at this moment. */
    seen: () => newest.current,
    /** Another act on it was refused. @returns whether because somebody else was faster: both are shown then, and the person says whose stands. */
    dispute: (refusal: unknown): boolean => {
      const { current, detail } = problemOf(refusal);
      if (!isProblem(refusal, 'stale-write')) return false;
      autosave.dispute(current, detail);
      return true;
    },
    /** Something else that the page did has made another version of it. */
    stand,
    keepMine: async () => {
      const current = await readNow();
      if (!current) return;
      stand(current.version);
      autosave.settle();
      autosave.change(typed.current);
      await autosave.flush();
    },
    /** @returns theirs; null: it could not be read, and all is as it was */
    takeTheirs: async (): Promise<Value | null> => {
      const current = await readNow();
      if (!current) return null;
      show(current.value);
      stand(current.version);
      autosave.settle();
      return current.value;
    },
  };
}
