import type { Response } from 'express';
import type { PersonId, SessionId } from '@jigsaw/core/ids';

interface Owner {
  readonly personId: PersonId;
  readonly sessionId: SessionId;
  /** Which of their pages it is; null: it did not say. */
  readonly page: string | null;
  /** Someone else's page, who sits in as them. */
  readonly sitsIn: boolean;
}

/** One open page that listens. What it is told is gathered for a moment: the same thing twenty times in a rush is told once. */
export class Stream {
  /** Kinds of change that it was not told yet, each by this page itself or by another. */
  private readonly waiting = new Set<string>();
  private timer: NodeJS.Timeout | null = null;
  private isOver = false;

  /** @param gatherMs how long it gathers; asked each time. */
  constructor(
    readonly owner: Owner,
    private readonly response: Pick<Response, 'write' | 'end' | 'writableNeedDrain' | 'once'>,
    private readonly gatherMs: () => number,
  ) {}

  /** @param page of whose act it is. */
  tell(type: string, page: string | null): void {
    if (this.isOver) return;
    const isYours = page !== null && page === this.owner.page;
    this.waiting.add(`event: change\ndata: ${JSON.stringify({ type, isYours })}\n\n`);
    this.timer ??= setTimeout(() => this.send(), this.gatherMs());
  }

  /** So that whatever stands between does not take a quiet line for a dead one. */
  beat(): void {
    if (!this.isOver && !this.response.writableNeedDrain) this.response.write(': still here\n\n');
  }

  /** The page connects again by itself and asks for everything, if it still may. */
  end(): void {
    if (this.isOver) return;
    this.isOver = true;
    if (this.timer) clearTimeout(this.timer);
    this.response.end();
  }

  private send(): void {
    this.timer = null;
    if (this.isOver || this.waiting.size === 0) return;
    if (this.response.writableNeedDrain) {
      // Who reads slowly is told the rest at once when they are ready; nothing piles up here for them.
      this.response.once('drain', () => (this.timer ??= setTimeout(() => this.send(), 0)));
      return;
    }
    const told = [...this.waiting].join('');
    this.waiting.clear();
    this.response.write(told);
  }
}
