import { useEffect, useRef, useState } from 'react';
import { z } from 'zod';
import { isProblem, problemOf } from '../api/index.js';
import { useNotice } from '../look/index.js';
import type { Merged } from './merge.js';
import { readStored, store } from './stored.js';
import { useAutosave } from './useAutosave.js';

interface Versioned<Value> {
  readonly value: Value;
  readonly version: number;
}

/** How what is not saved yet outlives a reload, or leaving the page while the server is away: in this tab, as JSON. */
export interface KeptInTab<Value> {
  readonly name: string;
  readonly pack: (value: Value) => unknown;
  /** null: what is there does not fit these pages any more. */
  readonly unpack: (packed: unknown) => Value | null;
}

interface Keeping<Value> {
  /** Where it begins. */
  readonly begin: () => Versioned<Value>;
  /** @returns its next version, once it is kept */
  readonly save: (value: Value, version: number) => Promise<{ readonly version: number }>;
  /** As it is kept now, by any author. */
  readonly read: () => Promise<Versioned<Value>>;
  readonly inTab: KeptInTab<Value>;
  /** Puts what was changed here on top of what someone else wrote; left out: it is one whole. */
  readonly merge?: (base: Value, mine: Value, theirs: Value) => Merged<Value>;
  /** As the page has it by now. A newer version takes the place of what is shown, unless something is being written here. */
  readonly now?: Versioned<Value>;
  /** Told when that happened. */
  readonly onNewer?: () => void;
}

/** Savers of pages that were left before all was saved, by what they save: anyone who comes back to it goes on in their place. */
const leftBehind = new Map<string, () => void>();

const Kept = z.object({ packed: z.unknown(), version: z.number() });

/** What two people may write at once: saved as it is typed, on top of the version that one has seen. Where someone else was faster, what each of them
 * changed is put together; where both changed the same, nothing is lost on either side until the person says whose stands. */
export function useVersionedDraft<Value>(keeping: Keeping<Value>) {
  const { save, read, inTab, merge, now, onNewer } = keeping;
  const notice = useNotice();
  const key = `unsaved ${inTab.name}`;
  const [begun] = useState(() => {
    const first = keeping.begin();
    const kept = readStored(key, Kept, 'tab');
    const value = kept && inTab.unpack(kept.packed);
    return value === null
      ? { ...first, base: first.value, isUnsaved: false }
      : { value, version: kept?.version ?? 0, base: first.value, isUnsaved: true };
  });
  const [value, setValue] = useState(begun.value);
  const [version, setVersion] = useState(begun.version);
  // As they are now, for what began before the page was drawn again.
  const newest = useRef(begun.version);
  const typed = useRef(begun.value);
  /** What was last the same here and on the server. */
  const base = useRef(begun.base);
  const show = (next: Value) => {
    typed.current = next;
    setValue(next);
  };
  const stand = (on: number) => {
    newest.current = on;
    setVersion(on);
  };
  /** As it is on the server, by any author. */
  const follow = (current: Versioned<Value>) => {
    show(current.value);
    stand(current.version);
    base.current = current.value;
  };
  const saveOn = async (next: Value) => {
    stand((await save(next, newest.current)).version);
    base.current = next;
    if (typed.current === next) store(key, null, 'tab');
  };
  const autosave = useAutosave<Value>(async (next) => {
    try {
      await saveOn(next);
    } catch (refusal) {
      if (!merge || !isProblem(refusal, 'stale-write')) throw refusal;
      const theirs = await read();
      const { value: together, disputed } = merge(base.current, typed.current, theirs.value);
      if (disputed.length > 0) throw refusal;
      stand(theirs.version);
      show(together);
      await saveOn(together);
    }
  });
  const change = (next: Value) => {
    show(next);
    store(key, { packed: inTab.pack(next), version: newest.current }, 'tab');
    autosave.change(next);
  };
  useEffect(() => {
    leftBehind.get(key)?.();
    leftBehind.delete(key);
    if (begun.isUnsaved) autosave.change(begun.value);
    return () => void leftBehind.set(key, autosave.stop);
    // Once: it goes on where the tab left off.
  }, []); // eslint-disable-line react-hooks/exhaustive-deps
  useEffect(() => {
    if (!now || now.version <= newest.current || !autosave.isIdle()) return;
    follow(now);
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
    change,
    /** Shows it, and saves nothing: it cannot be kept as it stands. */
    show,
    /** Which version what is shown stands on, at this moment. */
    seen: () => newest.current,
    /** The parts that were changed both here and there, each to something else. */
    disputedWith: (theirs: Value): readonly string[] =>
      merge?.(base.current, typed.current, theirs).disputed ?? [],
    /** Another act on it was refused. @returns whether because someone else was faster: both are shown then, and the person says whose stands. */
    dispute: (refusal: unknown): boolean => {
      const { current, detail } = problemOf(refusal);
      if (!isProblem(refusal, 'stale-write')) return false;
      autosave.dispute(current, detail);
      return true;
    },
    /** Something else that the page did has made another version of it. */
    stand,
    /** Something else that the page did has made it what it is now. */
    follow,
    /** What was changed here stands; what was not is as they wrote it. */
    keepMine: async () => {
      const current = await readNow();
      if (!current) return;
      const mine = merge ? merge(base.current, typed.current, current.value).value : typed.current;
      stand(current.version);
      base.current = current.value;
      autosave.settle();
      change(mine);
      await autosave.flush();
    },
    /** @returns theirs; null: it could not be read, and all is as it was */
    takeTheirs: async (): Promise<Value | null> => {
      const current = await readNow();
      if (!current) return null;
      follow(current);
      autosave.settle();
      store(key, null, 'tab');
      return current.value;
    },
  };
}
