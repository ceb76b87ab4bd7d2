import { Check, Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type {
  ActivityId,
  CopyId,
  CourseId,
  EnrolmentId,
  FileId,
  GroupId,
  GroupSetId,
  PersonId,
  ReleaseId,
} from '@jigsaw/core/ids';
import type { ActivityContent, AttachedFile } from '@jigsaw/contract/release';
import type { LatePolicy } from '@jigsaw/core/handin';
import type { Rubric } from '@jigsaw/core/marks';
import type { KeptAudience, OutsiderRule, ReleaseMode } from '@jigsaw/core/release';
import type { RichTextNode } from '@jigsaw/core/text';
import { GroupRow, GroupSetRow } from '../sets/index.js';
import { PersonRow } from '../identity/index.js';
import { FileRow } from '../files/index.js';
import { CourseRow, EnrolmentRow } from '../course/index.js';

/** What is written once for all copies. */
@Entity('activity')
@Check(
  'activity_dates',
  `("opens" IS NULL OR "due" IS NULL OR "opens" <= "due") AND ("due" IS NULL OR "closes" IS NULL OR "due" <= "closes")`,
)
export class ActivityRow {
  @PrimaryColumn('uuid') id!: ActivityId;
  @ForeignKey(() => CourseRow) @Column('uuid') @Index('activity_by_course') courseId!: CourseId;
  /** The name of a registered kind; what it alone knows is in `settings`. */
  @Column('text') kind!: string;
  @Column('text') title!: string;
  @Column('jsonb') brief!: RichTextNode;
  /** Attached for all to read, in their order. */
  @Column('jsonb', { default: [] }) files!: readonly AttachedFile[];
  /** null: it is not marked. */
  @Column('numeric', { precision: 7, scale: 2, nullable: true }) points!: string | null;
  @Column('jsonb', { nullable: true }) rubric!: Rubric | null;
  @Column('jsonb', { default: {} }) settings!: Record<string, unknown>;
  @Column('timestamptz', { nullable: true }) opens!: Date | null;
  @Column('timestamptz', { nullable: true }) due!: Date | null;
  @Column('timestamptz', { nullable: true }) closes!: Date | null;
  @Column('jsonb') latePolicy!: LatePolicy;
  /** Once groups have it: what is changed in it, and is seen by staff alone until they make it visible. */
  @Column('jsonb', { nullable: true }) inWork!: ActivityContent | null;
  @Column('int', { default: 1 }) version!: number;
  /** When a draft was deleted; null: it is there. */
  @Column('timestamptz', { nullable: true }) deletedAt!: Date | null;
  @Column('timestamptz') createdAt!: Date;
  @Column('timestamptz') updatedAt!: Date;
}

/** A file that was uploaded for an activity, also where it is no longer attached. */
@Entity('activity_file')
export class ActivityFileRow {
  @ForeignKey(() => ActivityRow) @PrimaryColumn('uuid') activityId!: ActivityId;
  @ForeignKey(() => FileRow) @PrimaryColumn('uuid') fileId!: FileId;
}

/** Who it goes to, how and from when. */
@Entity('release')
export class ReleaseRow {
  @PrimaryColumn('uuid') id!: ReleaseId;
  @ForeignKey(() => ActivityRow)
  @Column('uuid')
  @Index('release_once', { unique: true })
  activityId!: ActivityId;
  @ForeignKey(() => CourseRow) @Column('uuid') @Index('release_by_course') courseId!: CourseId;
  @Column('text') mode!: ReleaseMode;
  @Column('jsonb') audience!: KeptAudience;
  @Column('text') outsiders!: OutsiderRule;
  @Column('text') state!: 'draft' | 'scheduled' | 'live' | 'closed' | 'withdrawn';
  /** When it goes live (scheduled) or since when it is in its state. */
  @Column('timestamptz', { nullable: true }) stateAt!: Date | null;
  /** Up to when the course was told of what it does by itself: going live, opening, closing. */
  @Column('timestamptz', { default: () => 'now()' }) toldUntil!: Date;
  @Column('int', { default: 1 }) version!: number;
}

/** What one group works in; groupId null is the common copy. */
@Entity('copy')
@Index('copy_once', ['releaseId', 'groupId'], { unique: true, where: `"practiceRound" IS NULL` })
@Index('copy_for_all_once', ['releaseId'], {
  unique: true,
  where: `"groupId" IS NULL AND "practiceRound" IS NULL`,
})
@Index('copy_of_practice_once', ['releaseId', 'groupId', 'practiceRound'], {
  unique: true,
  where: `"practiceRound" IS NOT NULL`,
})
@Index('copy_of_practice_for_all_once', ['releaseId', 'practiceRound'], {
  unique: true,
  where: `"groupId" IS NULL AND "practiceRound" IS NOT NULL`,
})
export class CopyRow {
  @PrimaryColumn('uuid') id!: CopyId;
  @ForeignKey(() => ReleaseRow) @Column('uuid') releaseId!: ReleaseId;
  @ForeignKey(() => GroupRow)
  @Column('uuid', { nullable: true })
  @Index('copy_by_group')
  groupId!: GroupId | null;
  /** The set of its group. */
  @ForeignKey(() => GroupSetRow) @Column('uuid', { nullable: true }) setId!: GroupSetId | null;
  /** Of a copy in which the practice student alone works: between which two clearings it was made; null: it is a group's, as any. */
  @Column('int', { nullable: true }) practiceRound!: number | null;
}

/** A copy that is itself the news: no one works in it, so that it is new until it was read. */
@Entity('announced')
export class AnnouncedRow {
  @ForeignKey(() => CopyRow) @PrimaryColumn('uuid') copyId!: CopyId;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') by!: EnrolmentId;
  @Column('timestamptz') at!: Date;
  /** Counts up when what is in it changes: then it is new again. */
  @Column('int', { default: 1 }) edition!: number;
}

/** More time for one group. It hangs on the activity, so that it can be granted before release and outlives a withdrawal. */
@Entity('extension')
export class ExtensionRow {
  @ForeignKey(() => ActivityRow) @PrimaryColumn('uuid') activityId!: ActivityId;
  @ForeignKey(() => GroupRow) @PrimaryColumn('uuid') groupId!: GroupId;
  @Column('timestamptz') due!: Date;
  /** null: when it closes for all. */
  @Column('timestamptz', { nullable: true }) closes!: Date | null;
  @Column('text') reason!: string;
  @ForeignKey(() => PersonRow) @Column('uuid') grantedBy!: PersonId;
  @Column('timestamptz') grantedAt!: Date;
}

/** More time for one student, whichever group they are in. */
@Entity('student_extension')
export class StudentExtensionRow {
  @ForeignKey(() => ActivityRow) @PrimaryColumn('uuid') activityId!: ActivityId;
  @ForeignKey(() => EnrolmentRow) @PrimaryColumn('uuid') enrolmentId!: EnrolmentId;
  @Column('timestamptz') due!: Date;
  /** null: when it closes for all. */
  @Column('timestamptz', { nullable: true }) closes!: Date | null;
  @Column('text') reason!: string;
  @ForeignKey(() => PersonRow) @Column('uuid') grantedBy!: PersonId;
  @Column('timestamptz') grantedAt!: Date;
}
