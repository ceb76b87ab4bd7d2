import { Inject, Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In, IsNull, LessThan, MoreThan } from 'typeorm';
import type { LinkView } from '@jigsaw/contract/identity';
import { linkDays } from '@jigsaw/contract/identity';
import { sameAddress } from '@jigsaw/core/course';
import { sure } from '@jigsaw/core/lists';
import type { EnrolmentId, PersonId } from '@jigsaw/core/ids';
import { Clock } from '../platform/clock.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { KnownDeviceRow, PasswordLinkRow, PersonRow } from './identity.rows.js';
import { hashPassword, hashToken, newToken } from './passwords.js';
import type { Entered, From } from './session.service.js';
import { SessionService, signedIn } from './session.service.js';
import type { SignedIn } from './signedIn.js';

/** Links of one making end together. */
export interface Links {
  readonly urlOf: ReadonlyMap<PersonId, string>;
  readonly expiresAt: Date;
}

/** A link that a course handed out was opened. */
export interface OpenedLink {
  readonly enrolmentId: EnrolmentId;
  readonly personId: PersonId;
  readonly now: Date;
  /** Whether a password was chosen with it: the account had none. */
  readonly isFirst: boolean;
}

/** Lets someone in to the course of the entry that a link was made for.
 * @returns false if there is no such entry any more. */
type Opens = (manager: EntityManager, opened: OpenedLink) => Promise<boolean>;

export interface NewPerson {
  readonly email: string;
  readonly name: string;
  readonly familyName: string | null;
  readonly reading: string | null;
}

/** Anyone who asks again and again fills no one's mailbox. */
const betweenMailsMs = 5 * 60_000;

@Injectable()
export class PeopleService {
  private opens: Opens = () => Promise.resolve(false);

  constructor(
    private readonly dataSource: DataSource,
    private readonly sessions: SessionService,
    private readonly clock: Clock,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Someone as they are when they are signed in; null: there is no such account. */
  async asSignedIn(personId: PersonId): Promise<SignedIn | null> {
    const person = await this.dataSource.manager.findOneBy(PersonRow, { id: personId });
    return person && signedIn(person);
  }

  /** An account that is no one's: nothing that can be typed is its address, so that no one signs in to it and nothing is mailed there. */
  async accountOfNoOne(
    manager: EntityManager,
    key: string,
    named: Pick<NewPerson, 'name' | 'familyName' | 'reading'>,
  ): Promise<PersonId> {
    const accounts = await this.accountsFor(manager, [{ ...named, email: key }]);
    return sure(accounts.get(sameAddress(key)));
  }

  /** The accounts for these people, made where there is none yet; by address key. One account serves all courses. */
  async accountsFor(manager: EntityManager, people: readonly NewPerson[]): Promise<Map<string, PersonId>> {
    const now = this.clock.now();
    const rows = people.map((person) => ({
      id: newId<'person'>(),
      email: person.email,
      addressKey: sameAddress(person.email),
      name: person.name,
      familyName: person.familyName,
      reading: person.reading,
      passwordHash: null,
      provenAt: null,
      mayCreateCourses: false,
      createdAt: now,
      lastSeenAt: null,
    }));
    for (let at = 0; at < rows.length; at += 1000) {
      await manager
        .createQueryBuilder()
        .insert()
        .into(PersonRow)
        .values(rows.slice(at, at + 1000))
        .orIgnore()
        .execute();
    }
    const found = await manager.find(PersonRow, {
      where: { addressKey: In(rows.map((row) => row.addressKey)) },
      select: { id: true, addressKey: true },
    });
    return new Map(found.map((row) => [row.addressKey, row.id]));
  }

  /** The accounts of people who are known under other addresses in one course, by their new address key. One that no one has used is put
   * right in place; else the entry goes to the account at the new address, made if there is none, and anyone who uses the old one keeps it.
   * @param elsewhere those of these accounts that are in another course, too. */
  async accountsAt(
    manager: EntityManager,
    moves: readonly { readonly email: string; readonly was: NewPerson }[],
    elsewhere: (personIds: readonly PersonId[]) => Promise<ReadonlySet<PersonId>>,
  ): Promise<ReadonlyMap<string, PersonId>> {
    const keys = moves.flatMap(({ email, was }) => [sameAddress(email), sameAddress(was.email)]);
    const rows = await manager.find(PersonRow, {
      where: { addressKey: In(keys) },
      select: { id: true, addressKey: true, passwordHash: true },
    });
    const byKey = new Map(rows.map((row) => [row.addressKey, row]));
    const isElsewhere = await elsewhere(rows.map((row) => row.id));
    const found = new Map<string, PersonId>();
    const inPlace: { personId: PersonId; email: string; addressKey: string }[] = [];
    const lacking: NewPerson[] = [];
    for (const { email, was } of moves) {
      const addressKey = sameAddress(email);
      const there = byKey.get(addressKey);
      const old = sure(byKey.get(sameAddress(was.email)));
      const isUnused = old.passwordHash === null && !isElsewhere.has(old.id);
      if (there && there.id !== old.id) found.set(addressKey, there.id);
      else if (there || isUnused) inPlace.push({ personId: old.id, email, addressKey });
      else lacking.push({ email, name: was.name, familyName: was.familyName, reading: was.reading });
    }
    await manager.query(
      `UPDATE "person" p SET "email" = x."email", "addressKey" = x."addressKey"
         FROM jsonb_to_recordset($1::jsonb) AS x("personId" uuid, "email" text, "addressKey" text) WHERE p."id" = x."personId"`,
      [JSON.stringify(inPlace)],
    );
    // Anyone who reads the old address may have a link to what is someone else's now.
    const moved = inPlace.filter(({ addressKey }) => !byKey.has(addressKey)).map(({ personId }) => personId);
    if (moved.length > 0) await manager.delete(PasswordLinkRow, { personId: In(moved) });
    const made = lacking.length > 0 ? await this.accountsFor(manager, lacking) : new Map<string, PersonId>();
    return new Map([
      ...found,
      ...inPlace.map(({ addressKey, personId }) => [addressKey, personId] as const),
      ...made,
    ]);
  }

  /** Names of accounts that no one has taken as theirs yet; one statement. */
  async nameUnused(
    manager: EntityManager,
    people: readonly (Omit<NewPerson, 'email'> & { readonly personId: PersonId })[],
  ): Promise<void> {
    await manager.query(
      `UPDATE "person" p SET "name" = x."name", "familyName" = x."familyName", "reading" = x."reading"
         FROM jsonb_to_recordset($1::jsonb) AS x("personId" uuid, "name" text, "familyName" text, "reading" text)
        WHERE p."id" = x."personId" AND p."passwordHash" IS NULL`,
      [JSON.stringify(people)],
    );
  }

  async createInstructor(
    person: NewPerson,
    password: string,
    manager: EntityManager = this.dataSource.manager,
  ): Promise<void> {
    const addressKey = sameAddress(person.email);
    await manager.insert(PersonRow, {
      id: newId<'person'>(),
      ...person,
      addressKey,
      passwordHash: await hashPassword(password),
      mayCreateCourses: true,
      createdAt: this.clock.now(),
      provenAt: this.clock.now(), // anyone who runs the server says so
      lastSeenAt: null,
    });
  }

  /** Of several servers that start at once on an empty database, one makes it.
   * @returns false: there is one already, and nothing was made. */
  createFirstInstructor(person: NewPerson, password: string): Promise<boolean> {
    return this.dataSource.transaction(async (manager) => {
      await manager.query(`SELECT pg_advisory_xact_lock(727002)`);
      if (await this.hasInstructor(manager)) return false;
      await this.createInstructor(person, password, manager);
      return true;
    });
  }

  hasInstructor(manager: EntityManager = this.dataSource.manager): Promise<boolean> {
    return manager.existsBy(PersonRow, { mayCreateCourses: true });
  }

  /** The area that hands links out says what one of them opens. */
  whenOpened(opens: Opens): void {
    this.opens = opens;
  }

  /** Links that a course hands out, each for one entry of it. Those made before stay good beside them. */
  handedLinks(
    manager: EntityManager,
    people: readonly { readonly personId: PersonId; readonly enrolmentId: EnrolmentId }[],
  ): Promise<Links> {
    return this.makeLinks(manager, people);
  }

  /** Links for mail to these people's addresses, and for no one's eyes else: anyone who opens one has shown that the address is theirs. */
  mailedLinks(manager: EntityManager, personIds: readonly PersonId[]): Promise<Links> {
    return this.makeLinks(
      manager,
      personIds.map((personId) => ({ personId, enrolmentId: null })),
    );
  }

  private async makeLinks(
    manager: EntityManager,
    people: readonly { readonly personId: PersonId; readonly enrolmentId: EnrolmentId | null }[],
  ): Promise<Links> {
    const now = this.clock.now();
    const expiresAt = new Date(now.getTime() + linkDays * 86_400_000);
    await manager.delete(PasswordLinkRow, { expiresAt: LessThan(now) });
    const links = people.map((each) => ({ ...each, token: newToken() }));
    if (links.length > 0)
      await manager.insert(
        PasswordLinkRow,
        links.map(({ token, ...whose }) => ({ tokenHash: hashToken(token), ...whose, expiresAt })),
      );
    const urlOf = new Map(
      links.map(({ personId, token }) => [personId, `${this.config.publicUrl}/welcome#${token}`]),
    );
    return { urlOf, expiresAt };
  }

  /** The account at an address, if no one wrote a link to it in the last minutes. */
  async askingForLink(manager: EntityManager, email: string): Promise<PersonRow | null> {
    const person = await manager.findOneBy(PersonRow, { addressKey: sameAddress(email) });
    const lately = new Date(this.clock.now().getTime() + linkDays * 86_400_000 - betweenMailsMs);
    const wasWritten =
      person !== null &&
      (await manager.existsBy(PasswordLinkRow, {
        personId: person.id,
        enrolmentId: IsNull(),
        expiresAt: MoreThan(lately),
      }));
    return wasWritten ? null : person;
  }

  async lookAtLink(token: string): Promise<LinkView> {
    const link = await this.goodLink(this.dataSource.manager, token);
    const person = await this.dataSource.manager.findOneByOrFail(PersonRow, { id: link.personId });
    return {
      email: person.email,
      asksFor: link.enrolmentId !== null && person.passwordHash !== null ? 'password' : 'new-password',
    };
  }

  /** A mailed link sets the password and ends what others have open; one that was handed out asks for the password, or sets the first, and
   * lets in to its course. What takes long is done first: no one holds the account while a password is worked on. */
  async openLink(token: string, password: string, from: From): Promise<Entered> {
    const link = await this.goodLink(this.dataSource.manager, token);
    const { enrolmentId, personId } = link;
    const before = await this.dataSource.manager.findOneByOrFail(PersonRow, { id: personId });
    const isMailed = enrolmentId === null;
    const sets = isMailed || before.passwordHash === null;
    if (!sets) await this.sessions.checkPassword(before, before.addressKey, password, from);
    const passwordHash = sets ? await hashPassword(password) : before.passwordHash;
    const person = await this.dataSource.transaction(async (manager) => {
      // Links of one person take turns, so that the second of two sees the password that the first has set.
      const found = await manager.findOneOrFail(PersonRow, {
        where: { id: personId },
        lock: { mode: 'pessimistic_write' },
      });
      await this.goodLink(manager, token);
      if (!isMailed && found.passwordHash !== before.passwordHash) throw problems.passwordMeanwhile();
      const now = this.clock.now();
      if (sets)
        await manager.update(PersonRow, personId, {
          passwordHash,
          ...(isMailed ? { provenAt: found.provenAt ?? now } : {}),
        });
      if (isMailed) {
        await manager.delete(PasswordLinkRow, { personId });
        await manager.delete(KnownDeviceRow, { personId });
        await this.sessions.endAll(manager, personId);
      } else {
        if (!(await this.opens(manager, { enrolmentId, personId, now, isFirst: sets })))
          throw problems.linkUsed();
        await manager.delete(PasswordLinkRow, { personId, enrolmentId });
      }
      return manager.findOneByOrFail(PersonRow, { id: personId });
    });
    return this.sessions.start(person, from);
  }

  private async goodLink(manager: EntityManager, token: string): Promise<PasswordLinkRow> {
    const link = await manager.findOneBy(PasswordLinkRow, { tokenHash: hashToken(token) });
    if (!link || link.expiresAt <= this.clock.now()) throw problems.linkUsed();
    return link;
  }
}
