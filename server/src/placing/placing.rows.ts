import { Check, Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { EnrolmentId, GroupId, GroupSetId, PersonId } from '@jigsaw/core/ids';
import { EnrolmentRow } from '../course/index.js';
import { PersonRow } from '../identity/index.js';
import { GroupRow, GroupSetRow } from '../sets/index.js';

/** A student who asked to be told when a place in this group comes free. */
@Entity('awaited_place')
export class AwaitedPlaceRow {
  @ForeignKey(() => GroupRow, { onDelete: 'CASCADE' }) @PrimaryColumn('uuid') groupId!: GroupId;
  @ForeignKey(() => EnrolmentRow, { onDelete: 'CASCADE' })
  @PrimaryColumn('uuid')
  @Index('awaited_place_by_enrolment')
  enrolmentId!: EnrolmentId;
  @Column('timestamptz') since!: Date;
}

/** Membership is history: a move ends one row and begins another. */
@Entity('membership')
@Check('membership_span', `"until" IS NULL OR "until" >= "from"`)
@Index('membership_exclusive', ['setId', 'enrolmentId'], {
  unique: true,
  where: `"until" IS NULL AND "isExclusive"`,
})
@Index('membership_leader_once', ['groupId'], { unique: true, where: `"until" IS NULL AND "isLeader"` })
@Index('membership_by_group', ['groupId'], { where: `"until" IS NULL` })
@Index('membership_by_enrolment', ['enrolmentId'])
@Index('membership_by_set', ['setId', 'from'])
export class MembershipRow {
  @PrimaryColumn('uuid') id!: string;
  @ForeignKey(() => GroupSetRow) @Column('uuid') setId!: GroupSetId;
  @ForeignKey(() => GroupRow) @Column('uuid') groupId!: GroupId;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') enrolmentId!: EnrolmentId;
  /** Copied from the set, so that the database itself can hold the rule. */
  @Column('boolean') isExclusive!: boolean;
  @Column('timestamptz') from!: Date;
  @Column('timestamptz', { nullable: true }) until!: Date | null;
  @ForeignKey(() => PersonRow) @Column('uuid') placedBy!: PersonId;
  @ForeignKey(() => PersonRow) @Column('uuid', { nullable: true }) endedBy!: PersonId | null;
  /** The one member that the others may turn to; at most one a group. */
  @Column('boolean', { default: false }) isLeader!: boolean;
  /** In someone's words, where they gave any: why this place began, and why it ended. */
  @Column('text', { nullable: true }) why!: string | null;
  @Column('text', { nullable: true }) endedWhy!: string | null;
}
