import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { EnrolmentId, PersonId, SessionId } from '@jigsaw/core/ids';

@Entity('person')
export class PersonRow {
  @PrimaryColumn('uuid') id!: PersonId;
  /** As it was typed; compared without case through the unique index person_address. */
  @Column('text') email!: string;
  @Column('text') @Index('person_address', { unique: true }) addressKey!: string;
  @Column('text') name!: string;
  @Column('text', { nullable: true }) familyName!: string | null;
  @Column('text', { nullable: true }) reading!: string | null;
  /** Argon2id; null: has not chosen a password yet. */
  @Column('text', { nullable: true }) passwordHash!: string | null;
  /** When someone first came in by a link that was mailed to the address; null: anyone who has the password may have it from a course's handed link. */
  @Column('timestamptz', { nullable: true }) provenAt!: Date | null;
  @Column('boolean', { default: false }) mayCreateCourses!: boolean;
  @Column('timestamptz') createdAt!: Date;
  @Column('timestamptz', { nullable: true }) lastSeenAt!: Date | null;
}

@Entity('session')
export class SessionRow {
  /** SHA-256 of the cookie's token: who reads the table cannot sign in with it. */
  @PrimaryColumn('text') tokenHash!: string;
  /** What its owner calls it by, and what is said when it ends. */
  @Column('uuid') @Index('session_id', { unique: true }) id!: SessionId;
  /** Browser and system, as far as it said. */
  @Column('text') cameFrom!: string;
  @ForeignKey(() => PersonRow) @Column('uuid') @Index('session_by_person') personId!: PersonId;
  @Column('timestamptz') createdAt!: Date;
  @Column('timestamptz') seenAt!: Date;
  @Column('timestamptz') expiresAt!: Date;
}

/** A try with a password that was wrong, or is being checked. */
@Entity('sign_in_try')
@Index('sign_in_try_by_who', ['who', 'at'])
@Index('sign_in_try_by_client', ['client', 'at'])
@Index('sign_in_try_by_time', ['at'])
export class SignInTryRow {
  @PrimaryColumn('uuid') id!: string;
  @Column('text') who!: string;
  @Column('text') client!: string;
  @Column('timestamptz') at!: Date;
}

/** A browser in which someone signed in with their password before. */
@Entity('known_device')
export class KnownDeviceRow {
  /** SHA-256 of the cookie's token. */
  @PrimaryColumn('text') tokenHash!: string;
  @ForeignKey(() => PersonRow) @Column('uuid') @Index('known_device_by_person') personId!: PersonId;
  @Column('timestamptz') usedAt!: Date;
}

/** A link that lets one person in, once. */
@Entity('password_link')
export class PasswordLinkRow {
  @PrimaryColumn('text') tokenHash!: string;
  @ForeignKey(() => PersonRow) @Column('uuid') @Index('password_link_by_person') personId!: PersonId;
  /** The entry of a course that it was handed out for, and lets in to; null: it was mailed to the address. */
  @Column('uuid', { nullable: true }) enrolmentId!: EnrolmentId | null;
  @Column('timestamptz') expiresAt!: Date;
}
