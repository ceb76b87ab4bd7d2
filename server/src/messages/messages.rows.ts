import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { Recipients } from '@jigsaw/contract/messages';
import type { CourseId, EnrolmentId, GroupId, MessageId, SendingId, ThreadId } from '@jigsaw/core/ids';
import { CourseRow, EnrolmentRow } from '../course/index.js';
import { GroupRow } from '../sets/index.js';

/** One message as it was sent off, to one or to many. */
@Entity('message_sending')
@Index(['courseId'])
export class SendingRow {
  @PrimaryColumn('uuid') id!: SendingId;
  @ForeignKey(() => CourseRow) @Column('uuid') courseId!: CourseId;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') by!: EnrolmentId;
  @Column('timestamptz') at!: Date;
  @Column('text') subject!: string;
  /** As typed, before names are filled in. */
  @Column('text') text!: string;
  /** Who was chosen. */
  @Column('jsonb') to!: Recipients;
  @Column('text') kind!: 'people' | 'groups';
  /** How many people, or groups, got it. */
  @Column('int') count!: number;
  @Column('timestamptz', { nullable: true }) removedAt!: Date | null;
}

/** What one person, or a group, and staff write to one another about one thing. */
@Entity('message_thread')
@Index(['courseId', 'lastAt'])
export class ThreadRow {
  @PrimaryColumn('uuid') id!: ThreadId;
  @ForeignKey(() => CourseRow) @Column('uuid') courseId!: CourseId;
  @Column('text') subject!: string;
  /** Either this person, or a group. */
  @Index() @ForeignKey(() => EnrolmentRow) @Column('uuid', { nullable: true }) withId!: EnrolmentId | null;
  @Index() @ForeignKey(() => GroupRow) @Column('uuid', { nullable: true }) groupId!: GroupId | null;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') startedBy!: EnrolmentId;
  /** Its first message went to others too. */
  @Index() @ForeignKey(() => SendingRow) @Column('uuid', { nullable: true }) sendingId!: SendingId | null;
  /** Of the last message; they are counted from 1. */
  @Column('int') lastNumber!: number;
  @Column('timestamptz') lastAt!: Date;
}

@Entity('message')
@Index(['threadId', 'number'], { unique: true })
@Index('message_by_students', ['threadId'], { where: 'NOT "isByStaff"' })
export class MessageRow {
  @PrimaryColumn('uuid') id!: MessageId;
  @ForeignKey(() => ThreadRow) @Column('uuid') threadId!: ThreadId;
  @Column('int') number!: number;
  @ForeignKey(() => EnrolmentRow) @Column('uuid') authorId!: EnrolmentId;
  @Column('boolean') isByStaff!: boolean;
  @Column('timestamptz') at!: Date;
  @Column('text') text!: string;
  @Column('timestamptz', { nullable: true }) removedAt!: Date | null;
  @ForeignKey(() => EnrolmentRow) @Column('uuid', { nullable: true }) removedBy!: EnrolmentId | null;
}

/** Up to which message someone has read a thread. */
@Entity('message_seen')
export class MessageSeenRow {
  @ForeignKey(() => ThreadRow) @PrimaryColumn('uuid') threadId!: ThreadId;
  @ForeignKey(() => EnrolmentRow) @PrimaryColumn('uuid') enrolmentId!: EnrolmentId;
  @Column('int') upTo!: number;
}
