import { Check, Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { Role } from '@jigsaw/core/release';
import { PersonRow } from '../identity/index.js';

@Entity('course')
export class CourseRow {
  @PrimaryColumn('uuid') id!: string;
  @Column('text') code!: string;
  @Column('text') title!: string;
  @Column('text') term!: string;
  @Column('text') timeZone!: string;
  @Column('timestamptz') createdAt!: Date;
}

/** A person in a course. Leaving sets an end; the row, and all that hangs on it, stays. */
@Entity('enrolment')
@Index('enrolment_once', ['courseId', 'personId'], { unique: true })
@Check('enrolment_role', `"role" IN ('instructor', 'assistant', 'student', 'observer')`)
export class EnrolmentRow {
  @PrimaryColumn('uuid') id!: string;
  @ForeignKey(() => CourseRow) @Column('uuid') courseId!: string;
  @ForeignKey(() => PersonRow) @Column('uuid') @Index('enrolment_by_person') personId!: string;
  @Column('text') role!: Role;
  @Column('text', { nullable: true }) number!: string | null;
  @Column('jsonb', { default: {} }) attributes!: Record<string, string>;
  @Column('timestamptz') joinedAt!: Date;
  @Column('timestamptz', { nullable: true }) leftAt!: Date | null;
}
