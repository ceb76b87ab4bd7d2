import { Check, Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CourseId, EnrolmentId, GroupId, GroupSetId, PersonId } from '@jigsaw/core/ids';
import type { DealRule, GroupDetails, SignUpSettings, Topic } from '@jigsaw/contract/sets';
import { noDetails } from '@jigsaw/contract/sets';
import { PersonRow } from '../identity/index.js';
import { CourseRow, EnrolmentRow } from '../course/index.js';

@Entity('group_set')
@Index('group_set_by_course', ['courseId', 'position'])
@Check('group_set_latecomers', `"latecomers" IN ('leave', 'smallest')`)
@Index('group_set_of_sections_once', ['courseId'], { unique: true, where: `"isSynchronised"` })
export class GroupSetRow {
  @PrimaryColumn('uuid') id!: GroupSetId;
  @ForeignKey(() => CourseRow) @Column('uuid') courseId!: CourseId;
  @Column('text') name!: string;
  @Column('int') position!: number;
  @Column('int', { nullable: true }) capacity!: number | null;
  @Column('text') pattern!: string;
  @Column('boolean', { default: true }) isExclusive!: boolean;
  /** Its groups are the registrar's sections. */
  @Column('boolean', { default: false }) isSynchronised!: boolean;
  @Column('text', { default: '' }) description!: string;
  @Column('boolean', { default: true }) isDescriptionShown!: boolean;
  @Column('text', { default: 'leave' }) latecomers!: 'leave' | 'smallest';
  /** null: students do not choose their places. */
  @Column('jsonb', { nullable: true }) signUp!: SignUpSettings | null;
  @Column('timestamptz', { nullable: true }) frozenAt!: Date | null;
  /** Out of the way: its rooms and work stay, but no one is placed in it any more. */
  @Column('timestamptz', { nullable: true }) archivedAt!: Date | null;
  /** One member of each group may lead it. */
  @Column('boolean', { default: false }) hasLeaders!: boolean;
  /** Members name their own group and give it a motto. */
  @Column('boolean', { default: false }) membersName!: boolean;
  /** Its groups come to be when students hand in and name their partners. */
  @Column('boolean', { default: false }) isFormedAtHandIn!: boolean;
  /** What its deals are to bring about, in order. */
  @Column('jsonb', { default: [] }) rules!: DealRule[];
  /** Its groups are expert tables: each takes people of the different groups of this set. */
  @ForeignKey(() => GroupSetRow) @Column('uuid', { nullable: true }) homeSetId!: GroupSetId | null;
  /** Of expert tables: what they are about, in order. */
  @Column('jsonb', { default: [] }) topics!: Topic[];
  @Column('int', { default: 1 }) version!: number;
  @Column('timestamptz') createdAt!: Date;
}

@Entity('course_group')
@Index('group_number_once', ['setId', 'number'], { unique: true })
export class GroupRow {
  @PrimaryColumn('uuid') id!: GroupId;
  @ForeignKey(() => GroupSetRow) @Column('uuid') setId!: GroupSetId;
  /** Never given out again in its set: the emblem hangs on it. */
  @Column('int') number!: number;
  @Column('text') name!: string;
  /** null: the set's. */
  @Column('int', { nullable: true }) capacity!: number | null;
  @Column('boolean', { default: false }) isLocked!: boolean;
  @Column('int', { default: 1 }) version!: number;
  /** What the registrar knows a section by; null: this group is none. */
  @Column('text', { nullable: true }) sourceId!: string | null;
  /** A line of its members' own under the name. */
  @Column('text', { default: '' }) motto!: string;
  /** When and where it meets, and what for, for those who choose. */
  @Column('jsonb', { default: noDetails }) details!: GroupDetails;
  /** Of an expert table: which topic of its set, from 1. */
  @Column('int', { nullable: true }) topic!: number | null;
}

/** Staff who lead a group without being its members. */
@Entity('group_lead')
export class GroupLeadRow {
  @ForeignKey(() => GroupRow) @PrimaryColumn('uuid') groupId!: GroupId;
  @ForeignKey(() => EnrolmentRow)
  @PrimaryColumn('uuid')
  @Index('group_lead_by_enrolment')
  enrolmentId!: EnrolmentId;
  @Column('timestamptz') since!: Date;
  @ForeignKey(() => PersonRow) @Column('uuid') namedBy!: PersonId;
}
