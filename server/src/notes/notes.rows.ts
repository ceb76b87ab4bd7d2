import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { EnrolmentId, GroupId, NoteId } from '@jigsaw/core/ids';
import { EnrolmentRow } from '../course/index.js';
import { GroupRow } from '../sets/index.js';

/** What someone of the staff noted about a group or one of its members. No student ever reads it. */
@Entity('staff_note')
@Index(['groupId'])
export class NoteRow {
  @PrimaryColumn('uuid') id!: NoteId;
  @ForeignKey(() => GroupRow) @Column('uuid') groupId!: GroupId;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') authorId!: EnrolmentId;
  /** null: the group as a whole. */
  @ForeignKey(() => EnrolmentRow) @Column('uuid', { nullable: true }) aboutId!: EnrolmentId | null;
  @Column('text') text!: string;
  @Column('timestamptz') createdAt!: Date;
  @Column('timestamptz', { nullable: true }) editedAt!: Date | null;
  @Column('timestamptz', { nullable: true }) deletedAt!: Date | null;
  @Column('int') version!: number;
}
