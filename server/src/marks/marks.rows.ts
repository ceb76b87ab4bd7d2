import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CopyId, EnrolmentId, PersonId } from '@jigsaw/core/ids';
import type { LatePolicy } from '@jigsaw/core/handin';
import type { Adjustment, MarkStep, Picks, Rubric } from '@jigsaw/core/marks';
import { PersonRow } from '../identity/index.js';
import { CopyRow } from '../release/index.js';
import { EnrolmentRow } from '../course/index.js';

const agreed = `"markerId" IS NULL`;
const ofMarker = `"markerId" IS NOT NULL`;
const ofGroup = `"enrolmentId" IS NULL`;
const ofStudent = `"enrolmentId" IS NOT NULL`;

/** The desk's draft for one group's copy, or for one student in it: the agreed one, which is released, or one marker's own, which no one else's
 * query reads. Students never read this table. */
@Entity('mark')
@Index('agreed_mark_of_group', ['copyId'], { unique: true, where: `${ofGroup} AND ${agreed}` })
@Index('agreed_mark_of_student', ['copyId', 'enrolmentId'], {
  unique: true,
  where: `${ofStudent} AND ${agreed}`,
})
@Index('mark_of_group_by_marker', ['copyId', 'markerId'], {
  unique: true,
  where: `${ofGroup} AND ${ofMarker}`,
})
@Index('mark_of_student_by_marker', ['copyId', 'enrolmentId', 'markerId'], {
  unique: true,
  where: `${ofStudent} AND ${ofMarker}`,
})
export class MarkRow {
  @PrimaryColumn('uuid') id!: string;
  @ForeignKey(() => CopyRow) @Column('uuid') copyId!: CopyId;
  /** null: the group's. */
  @ForeignKey(() => EnrolmentRow) @Column('uuid', { nullable: true }) enrolmentId!: EnrolmentId | null;
  /** Whose own it is; null: the agreed one. */
  @ForeignKey(() => PersonRow) @Column('uuid', { nullable: true }) markerId!: PersonId | null;
  /** Typed by the marker; with a rubric it stands in place of what the rubric comes to. */
  @Column('numeric', { precision: 7, scale: 2, nullable: true }) typedMark!: string | null;
  @Column('text', { default: '' }) overrideReason!: string;
  @Column('jsonb', { default: {} }) picks!: Picks;
  @Column('text', { default: '' }) feedback!: string;
  @Column('int') version!: number;
  /** The newest work that was on the desk when this was last saved; null: there was none. */
  @Column('timestamptz', { nullable: true }) workAt!: Date | null;
  @Column('timestamptz') updatedAt!: Date;
}

@Entity('mark_adjustment')
export class MarkAdjustmentRow {
  @ForeignKey(() => CopyRow) @PrimaryColumn('uuid') copyId!: CopyId;
  @ForeignKey(() => EnrolmentRow) @PrimaryColumn('uuid') enrolmentId!: EnrolmentId;
  @Column('jsonb') adjustment!: Adjustment;
}

/** What one person was given, as it was released (`GivenMark`): one row a person, so that no one's query can reach another's. */
@Entity('released_mark')
@Index('released_mark_by_enrolment', ['enrolmentId'])
export class ReleasedMarkRow {
  @ForeignKey(() => CopyRow) @PrimaryColumn('uuid') copyId!: CopyId;
  @ForeignKey(() => EnrolmentRow) @PrimaryColumn('uuid') enrolmentId!: EnrolmentId;
  @Column('numeric', { precision: 7, scale: 2, nullable: true }) groupMark!: string | null;
  @Column('numeric', { precision: 7, scale: 2, nullable: true }) mark!: string | null;
  /** What it is out of; null: as many as the activity has, of before this was kept. */
  @Column('numeric', { precision: 7, scale: 2, nullable: true }) points!: string | null;
  @Column('jsonb') steps!: MarkStep[];
  /** The rubric and what was picked in it, as they were then. */
  @Column('jsonb', { nullable: true }) rubric!: { rubric: Rubric; picks: Picks } | null;
  @Column('text') feedback!: string;
  @Column('int') lateMinutes!: number;
  /** What being late cost then. */
  @Column('jsonb', { nullable: true }) latePolicy!: LatePolicy | null;
  @Column('timestamptz', { nullable: true }) handedInAt!: Date | null;
  @Column('timestamptz') releasedAt!: Date;
  @ForeignKey(() => PersonRow) @Column('uuid') releasedBy!: PersonId;
  @Column('timestamptz', { nullable: true }) seenAt!: Date | null;
}
