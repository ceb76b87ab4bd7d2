import { Check, Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { CourseId, PersonId, RosterChangeId } from '@jigsaw/core/ids';
import type { RosterChange } from '@jigsaw/core/roster';
import { CourseRow } from '../course/index.js';
import { PersonRow } from '../identity/index.js';
import type { Traces } from './joining.js';

export type RosterChangeKind =
  'import' | 'sync' | 'add' | 'edit' | 'drop' | 'restore' | 'join' | 'rename-attribute' | 'undo';

/** Every act on the roster, as the value that undoes it: history and undo in one. */
@Entity('roster_change')
@Index('roster_change_by_course', ['courseId', 'at'])
@Check(
  'roster_change_kind',
  `"kind" IN ('import', 'sync', 'add', 'edit', 'drop', 'restore', 'join', 'rename-attribute', 'undo')`,
)
export class RosterChangeRow {
  @PrimaryColumn('uuid') id!: RosterChangeId;
  @ForeignKey(() => CourseRow) @Column('uuid') courseId!: CourseId;
  @ForeignKey(() => PersonRow) @Column('uuid') actorId!: PersonId;
  @Column('timestamptz') at!: Date;
  @Column('text') kind!: RosterChangeKind;
  @Column('jsonb') change!: RosterChange;
  /** What moved from one entry to another when two were joined. */
  @Column('jsonb', { nullable: true }) traces!: Traces | null;
  @Column('timestamptz', { nullable: true }) undoneAt!: Date | null;
}
