import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CopyId, EnrolmentId } from '@jigsaw/core/ids';
import type { Answers } from '@jigsaw/core/questionnaire';
import { EnrolmentRow } from '../course/index.js';
import { CopyRow } from '../release/index.js';

/** That someone has answered; what, is on a sheet. */
@Entity('answered')
export class AnsweredRow {
  @ForeignKey(() => CopyRow) @PrimaryColumn('uuid') copyId!: CopyId;
  @ForeignKey(() => EnrolmentRow) @PrimaryColumn('uuid') enrolmentId!: EnrolmentId;
}

/** What one person answered. An anonymous sheet says neither whose it is nor when it came, and its id does not tell the order either. */
@Entity('answer_sheet')
@Index('answer_sheet_of_person', ['copyId', 'enrolmentId'], { unique: true })
export class AnswerSheetRow {
  @PrimaryColumn('uuid') id!: string;
  @ForeignKey(() => CopyRow) @Column('uuid') copyId!: CopyId;
  @ForeignKey(() => EnrolmentRow) @Column('uuid', { nullable: true }) enrolmentId!: EnrolmentId | null;
  @Column('jsonb') answers!: Answers;
  @Column('int') version!: number;
  @Column('timestamptz', { nullable: true }) at!: Date | null;
}
