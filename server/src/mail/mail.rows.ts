import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CourseId, MailId, PersonId } from '@jigsaw/core/ids';
import type { MailText } from '@jigsaw/core/mail';

/** A message; the stand-in for a mail server puts it into a folder in place of sending it. */
@Entity('mail')
@Index('mail_by_course', ['courseId', 'at'])
@Index('mail_by_person', ['personId'])
@Index('mail_to_carry', ['at'], { where: '"carriedAt" IS NULL' })
export class MailRow {
  @PrimaryColumn('uuid') id!: MailId;
  /** null: no course wrote it. */
  @ForeignKey('CourseRow') @Column('uuid', { nullable: true }) courseId!: CourseId | null;
  @ForeignKey('PersonRow') @Column('uuid') personId!: PersonId;
  @Column('timestamptz') at!: Date;
  @Column('text') toName!: string;
  @Column('text') toAddress!: string;
  /** A personal link is in it until it is carried, and not after. */
  @Column('jsonb') text!: MailText;
  @Column('timestamptz', { nullable: true }) carriedAt!: Date | null;
}
