import { isAway, isProblem, problemOf } from '../api/index.js';

export type SaveState =
  | { readonly kind: 'saved'; readonly at: number | null }
  | { readonly kind: 'unsaved' }
  /** The page sits in: what is typed is not sent. */
  | { readonly kind: 'looking' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly sentence: string }
  | { readonly kind: 'conflict'; readonly current: unknown; readonly sentence: string };

const pauseMs = 700;
/** How long until it is tried again when the server did not answer. */
const againMs = 4_000;

/** Saves what is typed as it is typed: after a short pause, never two saves at once, and nothing that failed is forgotten: while the server is away
 * it is tried again. */
export class Autosaver<Value> {
  state: SaveState = { kind: 'saved', at: null };
  private save: (value: Value) => Promise<unknown> = () =>
    Promise.reject(new Error('nothing to save with yet'));
  private onState: (state: SaveState) => void = () => undefined;
  private waiting: { readonly value: Value } | null = null;
  private running: Promise<boolean> | null = null;
  private isStopped = false;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** How to save and who to tell; given anew whenever what they close over has changed. */
  use(save: (value: Value) => Promise<unknown>, onState: (state: SaveState) => void): void {
    this.save = save;
    this.onState = onState;
  }

  /** Whether something would be lost if the page went away now. */
  get hasUnsaved(): boolean {
    return this.waiting !== null || this.running !== null;
  }

  change(value: Value): void {
    this.waiting = { value };
    if (this.state.kind !== 'saving' && this.state.kind !== 'conflict') this.become({ kind: 'unsaved' });
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), pauseMs);
  }

  /** Someone else sees to what is not saved yet. */
  stop(): void {
    this.isStopped = true;
    clearTimeout(this.timer);
    this.waiting = null;
  }

  /** Saves at once what is not saved yet. True: all is saved. */
  async flush(): Promise<boolean> {
    clearTimeout(this.timer);
    for (;;) {
      if (this.running) await this.running;
      if (this.running) continue; // someone else who waited began the next save
      if (!this.waiting) return true;
      const next = this.waiting;
      this.waiting = null;
      this.running = this.attempt(next);
      const isSaved = await this.running;
      if (!isSaved) return false;
    }
  }

  /** After a conflict: the person chose; go on from there. */
  settle(): void {
    this.waiting = null;
    this.become({ kind: 'saved', at: Date.now() });
  }

  /** Another act was refused because someone else was faster: as if saving had been. */
  dispute(current: unknown, sentence: string): void {
    this.become({ kind: 'conflict', current, sentence });
  }

  private async attempt(next: { readonly value: Value }): Promise<boolean> {
    this.become({ kind: 'saving' });
    try {
      await this.save(next.value);
      this.running = null;
      this.become(this.waiting ? { kind: 'unsaved' } : { kind: 'saved', at: Date.now() });
      return true;
    } catch (error) {
      this.running = null;
      if (this.isStopped) return false;
      this.waiting ??= next; // typed since: that is newer and holds this too
      const { current, detail } = problemOf(error);
      this.become(
        isProblem(error, 'stale-write')
          ? { kind: 'conflict', current, sentence: detail }
          : { kind: 'failed', sentence: detail },
      );
      if (isAway(error)) this.timer = setTimeout(() => void this.flush(), againMs);
      return false;
    }
  }

  private become(state: SaveState): void {
    this.state = state;
    this.onState(state);
  }
}
