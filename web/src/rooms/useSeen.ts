import { useCallback, useEffect, useMemo, useRef } from 'react';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { useMarkSeenMutation } from './copyApi.js';

const longEnoughMs = 1200;
const togetherMs = 400;

/** Marks what is new as seen once it has stood in view for a moment: give `ref(id, version)` to each new thing. */
export function useSeen(
  copyId: string,
): (id: string, version: number) => (element: HTMLElement | null) => void {
  const [markSeen] = useMarkSeenMutation();
  const waiting = useRef(new Map<string, number>());
  const watched = useRef(
    new Map<Element, { id: string; version: number; timer?: ReturnType<typeof setTimeout> }>(),
  );
  const sender = useRef<ReturnType<typeof setTimeout>>(undefined);
  const observer = useRef<IntersectionObserver | null>(null);

  const send = useCallback(() => {
    clearTimeout(sender.current);
    sender.current = setTimeout(() => {
      const items = [...waiting.current].map(([id, version]) => ({ id, version }));
      waiting.current.clear();
      if (items.length > 0) void markSeen({ copyId, body: { what: 'items', items } });
    }, togetherMs);
  }, [copyId, markSeen]);

  useEffect(() => {
    const all = watched.current;
    return () => {
      observer.current?.disconnect();
      observer.current = null;
      for (const { timer } of all.values()) clearTimeout(timer);
      all.clear();
    };
  }, []);

  return useCallback(
    (id, version) => (element) => {
      if (!element) return;
      observer.current ??= new IntersectionObserver((entries) => {
        for (const entry of entries) {
          const thing = watched.current.get(entry.target);
          if (!thing) continue;
          clearTimeout(thing.timer);
          if (!entry.isIntersecting) continue;
          thing.timer = setTimeout(() => {
            waiting.current.set(thing.id, thing.version);
            observer.current?.unobserve(entry.target);
            send();
          }, longEnoughMs);
        }
      });
      watched.current.set(element, { id, version });
      observer.current.observe(element);
      return () => {
        observer.current?.unobserve(element);
        clearTimeout(watched.current.get(element)?.timer);
        watched.current.delete(element);
      };
    },
    [send],
  );
}

/** For a copy that is itself the news: give this ref to its text. What was new and has changed since is watched again. */
export function useSeenHere({ id, unread }: Pick<CopyHead, 'id' | 'unread'>) {
  const seen = useSeen(id);
  // It is told as its newest edition, whichever that is.
  return useMemo(() => (unread > 0 ? seen(id, newest) : undefined), [seen, id, unread]);
}

const newest = 2_000_000_000;
