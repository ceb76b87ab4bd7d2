import { Column, Entity, ForeignKey, PrimaryColumn } from 'typeorm';
import type { CopyId, EnrolmentId, FileId } from '@jigsaw/core/ids';
import { EnrolmentRow } from '../course/index.js';
import { FileRow } from '../files/index.js';
import { CopyRow } from '../release/index.js';

/** What someone made of an attached file in one copy. The file itself is version 0 and has no row. */
@Entity('own_file_version')
export class OwnVersionRow {
  @ForeignKey(() => CopyRow) @PrimaryColumn('uuid') copyId!: CopyId;
  /** The file as it was attached. */
  @ForeignKey(() => FileRow) @PrimaryColumn('uuid') originalId!: FileId;
  @PrimaryColumn('int') number!: number;
  @ForeignKey(() => FileRow) @Column('uuid') fileId!: FileId;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') by!: EnrolmentId;
  @Column('timestamptz') at!: Date;
  /** The version whose bytes these are again. */
  @Column('int', { nullable: true }) restored!: number | null;
}
