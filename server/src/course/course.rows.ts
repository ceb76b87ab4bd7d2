import { Check, Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CourseId, EnrolmentId, PersonId } from '@jigsaw/core/ids';
import type { AttributeKind, Role } from '@jigsaw/core/course';
import { PersonRow } from '../identity/index.js';

@Entity('course')
@Check('course_assistants_see', `"assistantsSee" IN ('all', 'theirs')`)
export class CourseRow {
  @PrimaryColumn('uuid') id!: CourseId;
  @Column('text') code!: string;
  @Column('text') title!: string;
  @Column('text') term!: string;
  @Column('text') timeZone!: string;
  @Column('timestamptz') createdAt!: Date;
  /** Of its names and its time zone. */
  @Column('int', { default: 1 }) version!: number;
  /** The registrar's code for the course that this one follows; null: none. */
  @Column('text', { nullable: true }) registrarCode!: string | null;
  @Column('timestamptz', { nullable: true }) syncedAt!: Date | null;
  /** By name; what no one said is guessed from the values. */
  @Column('jsonb', { default: {} }) attributeKinds!: Record<string, AttributeKind>;
  /** Which groups' work assistants see: everyone's, or that of the groups they lead. */
  @Column('text', { default: 'all' }) assistantsSee!: 'all' | 'theirs';
  /** What was tried out in earlier rounds was cleared. */
  @Column('int', { default: 1 }) practiceRound!: number;
}

/** A person in a course. Leaving sets an end; the row, and all that hangs on it, stays. */
@Entity('enrolment')
@Index('enrolment_once', ['courseId', 'personId'], { unique: true })
@Index('practice_once', ['courseId'], { unique: true, where: `"role" = 'practice'` })
@Check('enrolment_role', `"role" IN ('instructor', 'assistant', 'student', 'observer', 'practice')`)
export class EnrolmentRow {
  @PrimaryColumn('uuid') id!: EnrolmentId;
  @ForeignKey(() => CourseRow) @Column('uuid') courseId!: CourseId;
  @ForeignKey(() => PersonRow) @Column('uuid') @Index('enrolment_by_person') personId!: PersonId;
  /** 'practice': it is no one, and is met nowhere but in what was practised. */
  @Column('text') role!: Role | 'practice';
  /** What this course calls them; their account keeps the name that they have there. */
  @Column('text') name!: string;
  @Column('text', { nullable: true }) familyName!: string | null;
  @Column('text', { nullable: true }) reading!: string | null;
  @Column('text', { nullable: true }) number!: string | null;
  @Column('jsonb', { default: {} }) attributes!: Record<string, string>;
  @Column('timestamptz') joinedAt!: Date;
  /** The account whose holder was let in by a link of this course; it takes none where the account's address is proven. */
  @Column('uuid', { nullable: true }) openedFor!: PersonId | null;
  @Column('timestamptz', { nullable: true }) leftAt!: Date | null;
  /** When the registrar last listed them; null: never, so that it does not speak of them. */
  @Column('timestamptz', { nullable: true }) listedAt!: Date | null;
  /** The entry of the same person to which this one was joined. */
  @ForeignKey(() => EnrolmentRow) @Column('uuid', { nullable: true }) joinedTo!: EnrolmentId | null;
}
