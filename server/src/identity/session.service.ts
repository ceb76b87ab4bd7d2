import { Inject, Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In, LessThan, MoreThan } from 'typeorm';
import type { PersonId, SessionId } from '@jigsaw/core/ids';
import { sameAddress } from '@jigsaw/core/course';
import { Clock } from '../platform/clock.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { KnownDeviceRow, PersonRow, SessionRow } from './identity.rows.js';
import { hashToken, newToken, passwordFits } from './passwords.js';
import type { SignedIn } from './signedIn.js';
import { Tries } from './tries.js';

const dayMs = 86_400_000;
export const sessionDays = 14;
export const deviceDays = 180;
const seenEveryMs = 60_000;

/** What a request to come in says of itself. */
export interface From {
  /** Browser and system, in words. */
  readonly program: string;
  /** Where it comes from, as far as the network tells. */
  readonly client: string;
  /** From the cookie of a browser that was let in before. */
  readonly deviceToken: string | null;
}

export interface Entered {
  readonly token: string;
  readonly deviceToken: string;
  readonly person: SignedIn;
}

@Injectable()
export class SessionService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly clock: Clock,
    private readonly tries: Tries,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Checks address and password; the answer is what goes into cookies. */
  async signIn(email: string, password: string, from: From): Promise<Entered> {
    const addressKey = sameAddress(email);
    const person = await this.dataSource.getRepository(PersonRow).findOneBy({ addressKey });
    return this.start(await this.checkPassword(person, addressKey, password, from), from);
  }

  /** @throws Problem if it does not fit, or was tried too often; no one learns whether the address is anybody's. */
  async checkPassword(
    person: PersonRow | null,
    addressKey: string,
    password: string,
    from: From,
  ): Promise<PersonRow> {
    const device = await this.knownDevice(from);
    const isOwn = device !== null && device.personId === person?.id;
    const trier = { who: isOwn ? `device ${device.tokenHash}` : addressKey, client: from.client };
    const checked = await this.tries.check(trier, async () =>
      (await passwordFits(person?.passwordHash ?? null, password)) ? person : null,
    );
    if (!checked) throw problems.wrongPassword();
    return checked;
  }

  /** In demo mode only, and only for the people on the demo's list. */
  async signInAsDemoPerson(personId: PersonId, from: From): Promise<Entered> {
    const person = await this.dataSource.getRepository(PersonRow).findOneBy({ id: personId });
    const isOffered =
      person !== null &&
      this.config.demoPeople.some((offered) => sameAddress(offered.email) === person.addressKey);
    if (!isOffered) throw problems.notFound();
    return this.start(person, from);
  }

  /** null: no session has this token, or it is over. */
  async find(token: string): Promise<{ person: SignedIn; sessionId: SessionId } | null> {
    const now = this.clock.now();
    const session = (await this.dataSource.manager
      .createQueryBuilder(SessionRow, 'session')
      .innerJoinAndMapOne('session.person', PersonRow, 'person', 'person.id = session."personId"')
      .where('session."tokenHash" = :tokenHash AND session."expiresAt" > :now', {
        tokenHash: hashToken(token),
        now,
      })
      .getOne()) as (SessionRow & { person: PersonRow }) | null;
    if (!session) return null;
    const { person } = session;
    if (now.getTime() - session.seenAt.getTime() > seenEveryMs) {
      await this.dataSource
        .getRepository(SessionRow)
        .update(session.tokenHash, { seenAt: now, expiresAt: new Date(now.getTime() + sessionDays * dayMs) });
      await this.dataSource.getRepository(PersonRow).update(person.id, { lastSeenAt: now });
    }
    return { person: signedIn(person), sessionId: session.id };
  }

  /** Which of these are open by now. */
  async stillOpen(sessionIds: readonly SessionId[]): Promise<ReadonlySet<SessionId>> {
    const rows = await this.dataSource.getRepository(SessionRow).find({
      select: { id: true },
      where: { id: In([...sessionIds]), expiresAt: MoreThan(this.clock.now()) },
    });
    return new Set(rows.map((row) => row.id));
  }

  /** @returns all that are open in this account, the last used first. */
  async ofPerson(personId: PersonId): Promise<SessionRow[]> {
    return this.dataSource.getRepository(SessionRow).find({
      where: { personId, expiresAt: MoreThan(this.clock.now()) },
      order: { seenAt: 'DESC', id: 'ASC' },
    });
  }

  async end(token: string): Promise<void> {
    await this.endWhere(this.dataSource.manager, `"tokenHash" = $1`, [hashToken(token)]);
  }

  /** One's own: any one of them, or all but one.
   * @throws not-found for what is not among them. */
  async endOwn(personId: PersonId, sessionId: SessionId): Promise<void> {
    const ended = await this.endWhere(this.dataSource.manager, `"personId" = $1 AND "id" = $2`, [
      personId,
      sessionId,
    ]);
    if (ended === 0) throw problems.notFound();
  }

  async endOthers(personId: PersonId, sessionId: SessionId): Promise<void> {
    await this.endWhere(this.dataSource.manager, `"personId" = $1 AND "id" <> $2`, [personId, sessionId]);
  }

  /** Anyone who has the account open anywhere signs in again. */
  async endAll(manager: EntityManager, personId: PersonId): Promise<void> {
    await this.endWhere(manager, `"personId" = $1`, [personId]);
  }

  /** Gone, and told to every server process, so that what is open with it ends too. */
  private async endWhere(manager: EntityManager, where: string, parameters: unknown[]): Promise<number> {
    const ended = await manager.query<unknown[]>(
      `WITH ended AS (DELETE FROM "session" WHERE ${where} RETURNING "id") SELECT pg_notify('session_ended', "id"::text) FROM ended`,
      parameters,
    );
    return ended.length;
  }

  /** Lets someone in who has shown who they are. */
  async start(person: PersonRow, from: From): Promise<Entered> {
    const token = newToken();
    const now = this.clock.now();
    const sessions = this.dataSource.getRepository(SessionRow);
    await sessions.delete({ personId: person.id, expiresAt: LessThan(now) });
    await sessions.insert({
      tokenHash: hashToken(token),
      id: newId<'session'>(),
      cameFrom: from.program,
      personId: person.id,
      createdAt: now,
      seenAt: now,
      expiresAt: new Date(now.getTime() + sessionDays * dayMs),
    });
    await this.dataSource.getRepository(PersonRow).update(person.id, { lastSeenAt: now });
    return { token, deviceToken: await this.remember(person, from), person: signedIn(person) };
  }

  private async knownDevice({ deviceToken }: From): Promise<KnownDeviceRow | null> {
    const tokenHash = hashToken(deviceToken ?? '');
    return this.dataSource.getRepository(KnownDeviceRow).findOneBy({ tokenHash });
  }

  /** @returns the token by which this browser is known from here on. */
  private async remember({ id: personId }: PersonRow, from: From): Promise<string> {
    const devices = this.dataSource.getRepository(KnownDeviceRow);
    const usedAt = this.clock.now();
    const known = await this.knownDevice(from);
    if (known?.personId === personId && from.deviceToken !== null) {
      await devices.update(known.tokenHash, { usedAt });
      return from.deviceToken;
    }
    const token = newToken();
    await devices.delete({ personId, usedAt: LessThan(new Date(usedAt.getTime() - deviceDays * dayMs)) });
    await devices.insert({ tokenHash: hashToken(token), personId, usedAt });
    return token;
  }
}

export const signedIn = (person: PersonRow): SignedIn => ({
  id: person.id,
  name: person.name,
  reading: person.reading,
  email: person.email,
  isProven: person.provenAt !== null,
  mayCreateCourses: person.mayCreateCourses && person.provenAt !== null,
  sitsIn: null,
});
