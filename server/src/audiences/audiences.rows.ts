import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { Terms } from '@jigsaw/core/audiences';
import type { AudienceId, CourseId } from '@jigsaw/core/ids';
import { CourseRow } from '../course/index.js';

/** A named combination of sets, groups, people and values, kept by reference: who is in it is worked out when asked. */
@Entity('saved_audience')
export class SavedAudienceRow {
  @PrimaryColumn('uuid') id!: AudienceId;
  @ForeignKey(() => CourseRow) @Column('uuid') @Index('saved_audience_by_course') courseId!: CourseId;
  @Column('text') name!: string;
  @Column('jsonb') terms!: Terms;
  @Column('int', { default: 1 }) version!: number;
  @Column('timestamptz') createdAt!: Date;
  /** null: it is there. */
  @Column('timestamptz', { nullable: true }) deletedAt!: Date | null;
}
