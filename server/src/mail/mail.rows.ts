import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CourseId, MailId, PersonId } from '@jigsaw/core/ids';
import type { MailText } from '@jigsaw/core/mail';

/** A message as it would have gone: the stand-in for a mail server keeps it in place of sending it. */
@Entity('mail')
@Index('mail_by_course', ['courseId', 'at'])
@Index('mail_by_person', ['personId'])
export class MailRow {
  @PrimaryColumn('uuid') id!: MailId;
  @ForeignKey('CourseRow') @Column('uuid') courseId!: CourseId;
  @ForeignKey('PersonRow') @Column('uuid') personId!: PersonId;
  @Column('timestamptz') at!: Date;
  @Column('text') toName!: string;
  @Column('text') toAddress!: string;
  @Column('jsonb') text!: MailText;
}
