import { Column, Entity, ForeignKey, PrimaryColumn } from 'typeorm';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import type { Need, StopAnswer, StopSubject } from '@jigsaw/core/rooms';
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

/** What someone of the staff said to a stop. It is about what was there up to `upTo`. */
@Entity('stop_answer')
export class StopAnswerRow {
  @ForeignKey(() => EnrolmentRow) @PrimaryColumn('uuid') enrolmentId!: EnrolmentId;
  /** Ids of what may be gone; then no one asks for it. */
  @PrimaryColumn('uuid') groupId!: GroupId;
  @PrimaryColumn('text') code!: Need['code'];
  @PrimaryColumn('uuid') subjectId!: StopSubject;
  @Column('text') said!: StopAnswer;
  @Column('timestamptz') upTo!: Date;
  @Column('timestamptz') at!: Date;
}
