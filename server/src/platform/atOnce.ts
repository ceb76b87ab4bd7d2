/** How much of one kind each owner has going on, and a bound for it. */
export class AtOnce {
  private readonly going = new Map<string, number>();

  constructor(
    private readonly mostEach: number,
    private readonly refusal: () => Error,
  ) {}

  /** @throws refusal if this owner has as much going on as is allowed. */
  async run<Result>(owner: string, work: () => Promise<Result>): Promise<Result> {
    const before = this.going.get(owner) ?? 0;
    if (before >= this.mostEach) throw this.refusal();
    this.going.set(owner, before + 1);
    try {
      return await work();
    } finally {
      const left = (this.going.get(owner) ?? 1) - 1;
      if (left === 0) this.going.delete(owner);
      else this.going.set(owner, left);
    }
  }
}
