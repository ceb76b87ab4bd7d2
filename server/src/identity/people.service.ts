import { Inject, Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource, In, IsNull, LessThan } from 'typeorm';
import type { SignInLinks } from '@jigsaw/contract/identity';
import { sameAddress } from '@jigsaw/core/course';
import { sure } from '@jigsaw/core/lists';
import type { PersonId } from '@jigsaw/core/ids';
import { Clock } from '../platform/clock.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { newId } from '../platform/ids.js';
import { problems } from '../platform/problems.js';
import { PasswordLinkRow, PersonRow } from './identity.rows.js';
import { hashPassword, hashToken, newToken } from './passwords.js';
import { SessionService } from './session.service.js';
import type { SignedIn } from './signedIn.js';

const linkDays = 14;

/** Links with whose they are, for whoever hands them on. */
export interface PersonalLinks extends SignInLinks {
  links: (SignInLinks['links'][number] & { personId: PersonId })[];
}

/** Somebody by the name that whoever hands the link on knows them by. */
export interface Named {
  readonly personId: PersonId;
  readonly name: string;
}

export interface NewPerson {
  readonly email: string;
  readonly name: string;
  readonly familyName: string | null;
  readonly reading: string | null;
}

@Injectable()
export class PeopleService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly sessions: SessionService,
    private readonly clock: Clock,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

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

  /** The account of somebody who is known under another address in one course. One that nobody has used is put right in place; else the
   * entry goes to the account at the new address, made if there is none, and whoever uses the old one keeps it.
   * @param isElsewhere whether an account is in another course, too. */
  async accountAt(
    manager: EntityManager,
    email: string,
    was: NewPerson,
    isElsewhere: (personId: PersonId) => Promise<boolean>,
  ): Promise<PersonId> {
    const there = await manager.findOneBy(PersonRow, { addressKey: sameAddress(email) });
    const old = await manager.findOneByOrFail(PersonRow, { addressKey: sameAddress(was.email) });
    if (there && there.id !== old.id) return there.id;
    const isUnused = old.passwordHash === null && !(await isElsewhere(old.id));
    if (there || isUnused) {
      await manager.update(PersonRow, old.id, { email, addressKey: sameAddress(email) });
      return old.id;
    }
    const made = await this.accountsFor(manager, [
      { email, name: was.name, familyName: was.familyName, reading: was.reading },
    ]);
    return sure(made.get(sameAddress(email)));
  }

  /** Names of accounts that nobody has taken as theirs yet; one statement. */
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

  async createInstructor(person: NewPerson, password: string): Promise<void> {
    const addressKey = sameAddress(person.email);
    await this.dataSource.getRepository(PersonRow).insert({
      id: newId<'person'>(),
      ...person,
      addressKey,
      passwordHash: await hashPassword(password),
      mayCreateCourses: true,
      createdAt: this.clock.now(),
      lastSeenAt: null,
    });
  }

  async hasInstructor(): Promise<boolean> {
    return this.dataSource.getRepository(PersonRow).existsBy({ mayCreateCourses: true });
  }

  /** Links for those of these people who have no password yet. Others that they were given, here or in another course, stay good beside them:
   * whichever is opened first lets in, and closes all. */
  async linksFor(people: readonly Named[]): Promise<SignInLinks> {
    return this.dataSource.transaction((manager) => this.linksWithin(manager, people));
  }

  /** The same inside somebody else's transaction. */
  async linksWithin(manager: EntityManager, named: readonly Named[]): Promise<PersonalLinks> {
    const nameOf = new Map(named.map((each) => [each.personId, each.name]));
    const expiresAt = new Date(this.clock.now().getTime() + linkDays * 86_400_000);
    const people = await manager.find(PersonRow, {
      where: { id: In([...nameOf.keys()]), passwordHash: IsNull() },
    });
    await manager.delete(PasswordLinkRow, { expiresAt: LessThan(this.clock.now()) });
    const links = people.map((person) => ({ person, token: newToken() }));
    if (links.length > 0) {
      await manager.insert(
        PasswordLinkRow,
        links.map(({ person, token }) => ({ tokenHash: hashToken(token), personId: person.id, expiresAt })),
      );
    }
    return {
      links: links
        .map(({ person, token }) => ({
          personId: person.id,
          name: nameOf.get(person.id) ?? '',
          email: person.email,
          url: `${this.config.publicUrl}/welcome#${token}`,
        }))
        .sort((a, b) => a.name.localeCompare(b.name)),
      expiresAt: expiresAt.toISOString(),
    };
  }

  async choosePassword(token: string, password: string): Promise<{ token: string; person: SignedIn }> {
    const person = await this.dataSource.transaction(async (manager) => {
      const link = await manager.findOneBy(PasswordLinkRow, { tokenHash: hashToken(token) });
      if (!link || link.expiresAt <= this.clock.now()) throw problems.linkUsed();
      const chosen = { passwordHash: await hashPassword(password) };
      const { affected } = await manager.update(
        PersonRow,
        { id: link.personId, passwordHash: IsNull() },
        chosen,
      );
      if (affected !== 1) throw problems.linkUsed(); // another link, or the same one, was opened at the same moment
      await manager.delete(PasswordLinkRow, { personId: link.personId });
      return manager.findOneByOrFail(PersonRow, { id: link.personId });
    });
    return this.sessions.start(person);
  }
}
