import { Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { CourseId, PersonId } from '@jigsaw/core/ids';

/** What happened, written in the transaction in which it happened: the audit trail and the source of live updates. */
@Entity('event')
@Index('event_by_course', ['courseId', 'at'])
@Index('event_by_subject', ['subjectId', 'at'])
export class EventRow {
  @PrimaryColumn('uuid') id!: string;
  @Column('uuid', { nullable: true }) courseId!: CourseId | null;
  @Column('uuid', { nullable: true }) actorId!: PersonId | null;
  /** The row it is about: a set, a release, a copy. */
  @Column('uuid', { nullable: true }) subjectId!: string | null;
  @Column('text') type!: string;
  /** Ids, codes and figures; never texts of people. */
  @Column('jsonb') facts!: Record<string, unknown>;
  @Column('timestamptz') at!: Date;
}
