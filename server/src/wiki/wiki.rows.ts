import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CopyId, EnrolmentId, PageId } from '@jigsaw/core/ids';
import type { RichTextNode } from '@jigsaw/core/text';
import { CopyRow } from '../release/index.js';
import { EnrolmentRow } from '../course/index.js';

@Entity('wiki_page')
@Index('wiki_page_by_copy', ['copyId', 'createdAt'])
export class WikiPageRow {
  @PrimaryColumn('uuid') id!: PageId;
  @ForeignKey(() => CopyRow) @Column('uuid') copyId!: CopyId;
  /** The number of its newest revision. */
  @Column('int') revision!: number;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') createdBy!: EnrolmentId;
  @Column('timestamptz') createdAt!: Date;
  @Column('timestamptz', { nullable: true }) deletedAt!: Date | null;
}

/** A page as someone saved it. Revisions are never changed. */
@Entity('wiki_revision')
@Index('wiki_revision_by_author', ['authorId'])
export class WikiRevisionRow {
  @ForeignKey(() => WikiPageRow) @PrimaryColumn('uuid') pageId!: PageId;
  @PrimaryColumn('int') number!: number;
  @Column('text') title!: string;
  @Column('jsonb') text!: RichTextNode;
  @Column('text') plain!: string;
  @Column('int') words!: number;
  /** Words added and removed against the revision before. */
  @Column('int') added!: number;
  @Column('int') removed!: number;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') authorId!: EnrolmentId;
  @Column('timestamptz') savedAt!: Date;
}
