import { Column, Entity, ForeignKey, PrimaryColumn } from 'typeorm';
import type { CourseId, EnrolmentId } from '@jigsaw/core/ids';
import { CourseRow, EnrolmentRow } from '../course/index.js';

/** Something that may stay as it is, and why. It is asked about again when anything of it is different. */
@Entity('check_dismissal')
export class CheckDismissalRow {
  @ForeignKey(() => CourseRow) @PrimaryColumn('uuid') courseId!: CourseId;
  @PrimaryColumn('text') checkId!: string;
  @Column('text') reason!: string;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') by!: EnrolmentId;
  @Column('timestamptz') at!: Date;
}
