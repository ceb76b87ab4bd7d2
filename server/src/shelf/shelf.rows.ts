import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { EnrolmentId, FileId, GroupId, ShelfFileId } from '@jigsaw/core/ids';
import { EnrolmentRow } from '../course/index.js';
import { FileRow } from '../files/index.js';
import { GroupRow } from '../sets/index.js';

/** A file that members of a group share. It is removed from view, never from here. */
@Entity('shelf_file')
@Index(['groupId'])
export class ShelfFileRow {
  @PrimaryColumn('uuid') id!: ShelfFileId;
  @ForeignKey(() => GroupRow) @Column('uuid') groupId!: GroupId;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') addedBy!: EnrolmentId;
  @Column('timestamptz', { nullable: true }) removedAt!: Date | null;
  @ForeignKey(() => EnrolmentRow) @Column('uuid', { nullable: true }) removedBy!: EnrolmentId | null;
}

@Entity('shelf_version')
export class ShelfVersionRow {
  @ForeignKey(() => ShelfFileRow) @PrimaryColumn('uuid') fileId!: ShelfFileId;
  @PrimaryColumn('int') number!: number;
  /** Where its bytes are. */
  @ForeignKey(() => FileRow) @Column('uuid') storedId!: FileId;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') by!: EnrolmentId;
  @Column('timestamptz') at!: Date;
  /** The version whose bytes these are again. */
  @Column('int', { nullable: true }) restored!: number | null;
}

/** Up to when someone has seen what lies on a group's shelf. */
@Entity('shelf_seen')
export class ShelfSeenRow {
  @ForeignKey(() => GroupRow) @PrimaryColumn('uuid') groupId!: GroupId;
  @ForeignKey(() => EnrolmentRow) @PrimaryColumn('uuid') enrolmentId!: EnrolmentId;
  @Column('timestamptz') upTo!: Date;
}
