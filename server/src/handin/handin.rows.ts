import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CopyId, EnrolmentId, FileId, HandInId } from '@jigsaw/core/ids';
import type { RichTextNode } from '@jigsaw/core/text';
import { FileRow } from '../files/index.js';
import { CopyRow } from '../release/index.js';
import { EnrolmentRow } from '../course/index.js';

/** One member's part of the group's text. Only its author writes in it, so no one can delete a teammate's. */
@Entity('part')
@Index('part_once', ['copyId', 'enrolmentId'], { unique: true })
export class PartRow {
  @PrimaryColumn('uuid') id!: string;
  @ForeignKey(() => CopyRow) @Column('uuid') copyId!: CopyId;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') enrolmentId!: EnrolmentId;
  @Column('jsonb') text!: RichTextNode;
  @Column('int') words!: number;
  @Column('int', { default: 1 }) version!: number;
  @Column('timestamptz') createdAt!: Date;
  @Column('timestamptz') updatedAt!: Date;
}

@Entity('work_file')
@Index('work_file_by_copy', ['copyId'])
export class WorkFileRow {
  /** The file's own id. */
  @ForeignKey(() => FileRow) @PrimaryColumn('uuid') fileId!: FileId;
  @ForeignKey(() => CopyRow) @Column('uuid') copyId!: CopyId;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') addedBy!: EnrolmentId;
  @Column('timestamptz') addedAt!: Date;
  /** Deleted by the person who added it; hand-ins that hold it still do. */
  @Column('timestamptz', { nullable: true }) deletedAt!: Date | null;
}

/** What was handed in, frozen. Every attempt stays. */
@Entity('hand_in')
@Index('hand_in_by_copy', ['copyId'])
@Index('hand_in_attempt_once', ['copyId', 'attempt'], { unique: true, where: `"ownerId" IS NULL` })
@Index('hand_in_attempt_once_each', ['copyId', 'ownerId', 'attempt'], {
  unique: true,
  where: `"ownerId" IS NOT NULL`,
})
export class HandInRow {
  @PrimaryColumn('uuid') id!: HandInId;
  @ForeignKey(() => CopyRow) @Column('uuid') copyId!: CopyId;
  /** null: the group's; else this student's alone. */
  @ForeignKey(() => EnrolmentRow) @Column('uuid', { nullable: true }) ownerId!: EnrolmentId | null;
  @Column('int') attempt!: number;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') handedInBy!: EnrolmentId;
  @Column('timestamptz') handedInAt!: Date;
  @Column('jsonb') parts!: { enrolmentId: string; text: RichTextNode; words: number }[];
  @Column('uuid', { array: true }) fileIds!: FileId[];
}

/** Who is credited with a hand-in: its group's members at that moment, whatever group they are in later. */
@Entity('credit')
export class CreditRow {
  @ForeignKey(() => HandInRow) @PrimaryColumn('uuid') handInId!: HandInId;
  @ForeignKey(() => EnrolmentRow)
  @PrimaryColumn('uuid')
  @Index('credit_by_enrolment')
  enrolmentId!: EnrolmentId;
}
