import { Column, Entity, ForeignKey, PrimaryColumn } from 'typeorm';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { EnrolmentRow } from '../course/index.js';

/** Moves whenever someone has seen something. */
@Entity('seen_count')
export class SeenCountRow {
  @ForeignKey(() => EnrolmentRow) @PrimaryColumn('uuid') enrolmentId!: EnrolmentId;
  @Column('bigint') count!: string;
}

/** How much of one thing someone has seen: a post, a page up to a revision, a hand-in. */
@Entity('seen')
export class SeenRow {
  @ForeignKey(() => EnrolmentRow) @PrimaryColumn('uuid') enrolmentId!: EnrolmentId;
  /** The thing's own id, whatever its kind; what is gone is simply never asked for. */
  @PrimaryColumn('uuid') subjectId!: string;
  @Column('int') version!: number;
  @Column('timestamptz') at!: Date;
}
