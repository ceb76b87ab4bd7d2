import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CalendarAddressId, PersonId } from '@jigsaw/core/ids';
import { PersonRow } from '../identity/index.js';

/** An address under which someone's calendar is read without a session. */
@Entity('calendar_address')
export class CalendarAddressRow {
  @PrimaryColumn('uuid') id!: CalendarAddressId;
  @ForeignKey(() => PersonRow) @Column('uuid') @Index('calendar_address_by_person') personId!: PersonId;
  /** SHA-256: anyone who reads the table cannot read the calendar. */
  @Column('text') @Index('calendar_address_token', { unique: true }) tokenHash!: string;
  /** Which calendar it is for, as its owner calls it. */
  @Column('text') label!: string;
  @Column('timestamptz') createdAt!: Date;
}
