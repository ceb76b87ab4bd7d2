import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { ActivityId, CourseId, HeadingId } from '@jigsaw/core/ids';
import { CourseRow } from '../course/index.js';
import { ActivityRow } from '../release/index.js';

/** What activities of a course stand under. */
@Entity('heading')
export class HeadingRow {
  @PrimaryColumn('uuid') id!: HeadingId;
  @ForeignKey(() => CourseRow) @Column('uuid') @Index('heading_by_course') courseId!: CourseId;
  @Column('text') title!: string;
  @Column('int') position!: number;
  @Column('int', { default: 1 }) version!: number;
  @Column('timestamptz') createdAt!: Date;
  /** null: it is there. What stands under a deleted one stays its own, should it be restored. */
  @Column('timestamptz', { nullable: true }) deletedAt!: Date | null;
}

/** Where someone put an activity; without a row it stands under no heading, after those that were put there. */
@Entity('outline_place')
export class OutlinePlaceRow {
  @PrimaryColumn('uuid') @ForeignKey(() => ActivityRow) activityId!: ActivityId;
  @ForeignKey(() => CourseRow) @Column('uuid') @Index('outline_place_by_course') courseId!: CourseId;
  /** null: under no heading. */
  @ForeignKey(() => HeadingRow) @Column('uuid', { nullable: true }) headingId!: HeadingId | null;
  @Column('int') position!: number;
}
