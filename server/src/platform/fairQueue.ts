/** Jobs that are costly, a few at a time. Anyone who sends many waits behind themselves: owners of jobs take turns. */
export class FairQueue {
  private readonly waiting = new Map<string, (() => void)[]>();
  private running = 0;

  /** @param atOnce how many run at the same time.
   * @param mostEach how many of one owner may wait. */
  constructor(
    private readonly atOnce: number,
    private readonly mostEach: number,
    private readonly refusal: () => Error,
  ) {}

  /** @throws refusal if too many of this owner wait already. */
  async run<Result>(owner: string, job: () => Promise<Result>): Promise<Result> {
    await this.turn(owner);
    try {
      return await job();
    } finally {
      this.running -= 1;
      this.next();
    }
  }

  private turn(owner: string): Promise<void> {
    const own = this.waiting.get(owner) ?? [];
    if (own.length >= this.mostEach) throw this.refusal();
    return new Promise((resolve) => {
      own.push(resolve);
      this.waiting.set(owner, own);
      this.next();
    });
  }

  /** The owner who has waited longest since their last turn; with more to do they stand last again. */
  private next(): void {
    const first = this.waiting.entries().next().value;
    if (this.running >= this.atOnce || !first) return;
    const [owner, own] = first;
    this.waiting.delete(owner);
    const begin = own.shift();
    if (own.length > 0) this.waiting.set(owner, own);
    this.running += 1;
    begin?.();
    this.next();
  }
}
