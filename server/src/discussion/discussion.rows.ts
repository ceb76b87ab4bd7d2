import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CopyId, EnrolmentId, PostId } from '@jigsaw/core/ids';
import type { RichTextNode } from '@jigsaw/core/text';
import { CopyRow } from '../release/index.js';
import { EnrolmentRow } from '../course/index.js';

/** One thing said in one copy. A post without a parent opens a thread. */
@Entity('post')
@Index('post_by_copy', ['copyId', 'createdAt'])
@Index('post_by_thread', ['threadId'])
export class PostRow {
  @PrimaryColumn('uuid') id!: PostId;
  @ForeignKey(() => CopyRow) @Column('uuid') copyId!: CopyId;
  /** The post that opened the thread; its own id if it is that post. */
  @Column('uuid') threadId!: PostId;
  @ForeignKey(() => PostRow) @Column('uuid', { nullable: true }) parentId!: PostId | null;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') authorId!: EnrolmentId;
  @Column('jsonb') text!: RichTextNode;
  @Column('text') plain!: string;
  @Column('int') words!: number;
  /** Counts up with every edit. */
  @Column('int', { default: 1 }) version!: number;
  /** When something happened to it last, in the order of all that happened in its copy. */
  @Column('int', { default: 0 }) turn!: number;
  @Column('timestamptz') createdAt!: Date;
  @Column('timestamptz', { nullable: true }) editedAt!: Date | null;
  /** Deleted: its text is shown to no one, and it can be restored. */
  @Column('timestamptz', { nullable: true }) deletedAt!: Date | null;
  @ForeignKey(() => EnrolmentRow) @Column('uuid', { nullable: true }) deletedBy!: EnrolmentId | null;
}
