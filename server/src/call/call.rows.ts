import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CopyId, EnrolmentId, VisitId } from '@jigsaw/core/ids';
import { EnrolmentRow } from '../course/index.js';
import { CopyRow } from '../release/index.js';

/** Someone was in a call. */
@Entity('call_visit')
@Index('call_visit_by_copy', ['copyId', 'cameAt'])
export class CallVisitRow {
  @PrimaryColumn('uuid') id!: VisitId;
  @ForeignKey(() => CopyRow) @Column('uuid') copyId!: CopyId;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') enrolmentId!: EnrolmentId;
  @Column('timestamptz') cameAt!: Date;
  /** When their page was last heard of. */
  @Column('timestamptz') seenAt!: Date;
  /** null: they did not say that they leave. */
  @Column('timestamptz', { nullable: true }) leftAt!: Date | null;
}

/** Where the door of a call leads, once someone has said so. */
@Entity('call_door')
export class CallDoorRow {
  @ForeignKey(() => CopyRow) @PrimaryColumn('uuid') copyId!: CopyId;
  @Column('text') address!: string;
  @Column('int') version!: number;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') changedBy!: EnrolmentId;
}
