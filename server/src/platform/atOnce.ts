/** How much of one kind each owner has going on: no more than a bound; what is beyond it waits, a little, or is refused. */
export class AtOnce {
  private readonly going = new Map<string, { running: number; readonly waiting: (() => void)[] }>();

  /** @param mostEach of one owner run at the same time. @param mostWaiting of one owner wait for that. */
  constructor(
    private readonly mostEach: number,
    private readonly mostWaiting: number,
    private readonly refusal: () => Error,
  ) {}

  /** @throws refusal if this owner has as much waiting as is allowed. */
  async run<Result>(owner: string, work: () => Promise<Result>): Promise<Result> {
    const own = this.going.get(owner) ?? { running: 0, waiting: [] };
    if (own.running < this.mostEach) own.running += 1;
    else if (own.waiting.length < this.mostWaiting)
      await new Promise<void>((begin) => own.waiting.push(begin)); // anyone who ends hands its place on
    else throw this.refusal();
    this.going.set(owner, own);
    try {
      return await work();
    } finally {
      const next = own.waiting.shift();
      if (next) next();
      else own.running -= 1;
      if (own.running === 0) this.going.delete(owner);
    }
  }
}
