import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { Adjustment, MarkStep } from '@jigsaw/core/marks';
import { PersonRow } from '../identity/index.js';
import { CopyRow } from '../release/index.js';
import { EnrolmentRow } from '../roster/index.js';

/** The desk's draft for one group's copy. Students never read this table. */
@Entity('mark')
export class MarkRow {
  @ForeignKey(() => CopyRow) @PrimaryColumn('uuid') copyId!: string;
  @Column('numeric', { precision: 7, scale: 2, nullable: true }) groupMark!: string | null;
  @Column('text', { default: '' }) feedback!: string;
  @Column('int') version!: number;
  /** The attempt that was on the desk when this was last saved; 0: nothing was handed in. */
  @Column('int') attempt!: number;
  /** The version that students see; null: none. */
  @Column('int', { nullable: true }) releasedVersion!: number | null;
  @Column('timestamptz') updatedAt!: Date;
}

@Entity('mark_adjustment')
export class MarkAdjustmentRow {
  @ForeignKey(() => CopyRow) @PrimaryColumn('uuid') copyId!: string;
  @ForeignKey(() => EnrolmentRow) @PrimaryColumn('uuid') enrolmentId!: string;
  @Column('jsonb') adjustment!: Adjustment;
}

/** What one person was given, as it was released: one row a person, so that nobody's query can reach another's. */
@Entity('released_mark')
@Index('released_mark_by_enrolment', ['enrolmentId'])
export class ReleasedMarkRow {
  @ForeignKey(() => CopyRow) @PrimaryColumn('uuid') copyId!: string;
  @ForeignKey(() => EnrolmentRow) @PrimaryColumn('uuid') enrolmentId!: string;
  @Column('numeric', { precision: 7, scale: 2, nullable: true }) groupMark!: string | null;
  @Column('numeric', { precision: 7, scale: 2, nullable: true }) mark!: string | null;
  @Column('jsonb') steps!: MarkStep[];
  @Column('text') feedback!: string;
  @Column('int') lateMinutes!: number;
  @Column('timestamptz', { nullable: true }) handedInAt!: Date | null;
  @Column('timestamptz') releasedAt!: Date;
  @ForeignKey(() => PersonRow) @Column('uuid') releasedBy!: string;
  @Column('timestamptz', { nullable: true }) seenAt!: Date | null;
}
