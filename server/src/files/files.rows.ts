import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { FileId } from '@jigsaw/core/ids';

/** Bytes, kept once however often they are handed in. Without a sha256 it is still arriving. */
@Entity('blob')
export class BlobRow {
  @PrimaryColumn('uuid') id!: string;
  @Column('text', { nullable: true }) @Index('blob_content', { unique: true }) sha256!: string | null;
  @Column('bigint') sizeBytes!: string;
  @Column('timestamptz') startedAt!: Date;
}

@Entity('blob_chunk')
export class BlobChunkRow {
  @ForeignKey(() => BlobRow) @PrimaryColumn('uuid') blobId!: string;
  @PrimaryColumn('int') position!: number;
  @Column('bytea') bytes!: Buffer;
}

/** A file as a person gave it: their name for some bytes. */
@Entity('file')
export class FileRow {
  @PrimaryColumn('uuid') id!: FileId;
  @ForeignKey(() => BlobRow) @Column('uuid') @Index('file_by_blob') blobId!: string;
  @Column('text') name!: string;
  @Column('text') mediaType!: string;
  @Column('bigint') sizeBytes!: string;
  @Column('text') sha256!: string;
  @Column('timestamptz') createdAt!: Date;
}
