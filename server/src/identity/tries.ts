import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Clock } from '../platform/clock.js';
import { FairQueue } from '../platform/fairQueue.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';

/** Whose try it is: counted by what is tried, and by where it comes from. */
export interface Trier {
  /** The address that is tried; or a device that its owner signed in with before, so that a stranger's tries do not lock them out. */
  readonly who: string;
  /** Where it comes from, as far as the network tells. */
  readonly client: string;
}

const windowMs = 15 * 60_000;
const mostByWho = 8;
/** A whole school may stand behind one address of the network; their right passwords are not counted. */
const mostByClient = 100;
/** Checking a password takes tens of milliseconds of a core, by design. */
const checksAtOnce = 2;
const mostWaiting = 1000;

/** Tries with a password. They are counted before they are checked, in the database, so that two at one moment, two server processes or a restart
 * do not give more of them than one after the other. */
@Injectable()
export class Tries {
  private readonly checks = new FairQueue(checksAtOnce, mostWaiting, problems.busy);

  constructor(
    private readonly dataSource: DataSource,
    private readonly clock: Clock,
  ) {}

  /** One check of a password in its turn: no one's many guesses hold the sign-in of others.
   * @returns what the check says; null from it: the try was wrong, and stays counted.
   * @throws too-many-tries without checking. */
  check<Result>(trier: Trier, check: () => Promise<Result | null>): Promise<Result | null> {
    return this.checks.run(trier.client, async () => {
      await this.count(trier);
      const result = await check();
      if (result !== null) await this.forget(trier);
      return result;
    });
  }

  /** Counts one more link that someone asked for by mail, whether or not anybody has the address.
   * @throws too-many-at-once beyond what one place may ask for. */
  async countMailed(client: string): Promise<void> {
    const from = `mailed ${client}`;
    await this.count({ who: `${from} ${newId()}`, client: from }, () =>
      problems.tooManyAtOnce('Very many links were asked for from where you are. Wait 15 min and ask again.'),
    );
  }

  private async count(
    { who, client }: Trier,
    refusal: (retryAfterSeconds: number) => Error = problems.tooManyTries,
  ): Promise<void> {
    const now = this.clock.now();
    const since = new Date(now.getTime() - windowMs);
    const waitUntil = await this.dataSource.transaction(async (manager) => {
      // Always in one order, so that two who count the same two do not wait for each other.
      for (const key of [who, client].toSorted())
        await manager.query(`SELECT pg_advisory_xact_lock(hashtextextended($1, 1))`, [key]);
      const [found] = await manager.query<{ byWho: number; byClient: number; oldest: Date | null }[]>(
        `SELECT count(*) FILTER (WHERE "who" = $1)::int AS "byWho", count(*) FILTER (WHERE "client" = $2)::int AS "byClient", min("at") AS "oldest"
           FROM "sign_in_try" WHERE "at" > $3 AND ("who" = $1 OR "client" = $2)`,
        [who, client, since],
      );
      if (found?.oldest && (found.byWho >= mostByWho || found.byClient >= mostByClient))
        return found.oldest.getTime() + windowMs;
      await manager.query(`DELETE FROM "sign_in_try" WHERE "at" <= $1`, [since]);
      await manager.query(`INSERT INTO "sign_in_try" ("id", "who", "client", "at") VALUES ($1, $2, $3, $4)`, [
        newId(),
        who,
        client,
        now,
      ]);
      return null;
    });
    if (waitUntil !== null) throw refusal((waitUntil - now.getTime()) / 1000);
  }

  /** What came from elsewhere stays: it was not them. */
  private forget({ who, client }: Trier): Promise<unknown> {
    return this.dataSource.query(`DELETE FROM "sign_in_try" WHERE "who" = $1 AND "client" = $2`, [
      who,
      client,
    ]);
  }
}
