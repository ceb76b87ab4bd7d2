import type { EntityManager } from 'typeorm';
import type { AudienceId, CourseId, EnrolmentId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import type { Audience, KeptAudience } from '@jigsaw/core/release';
import { audiencesOf, evaluated } from '@jigsaw/core/release';
import { audiencesNow } from '../audiences/index.js';

export type AudienceNow = (kept: KeptAudience) => Audience;

/** For those who see everything: who it was released to decides nothing of theirs. */
export const noOnes: AudienceNow = (kept) => evaluated(kept);

export interface Evaluator {
  readonly audienceNow: AudienceNow;
  /** What a saved one is called; for staff alone. */
  readonly audienceName: (id: AudienceId) => string | null;
}

/** Works out audiences of one course as they are now; asks nothing where none of them names a saved audience.
 * @param kept all that will be asked for.
 * @param only whether this one is in them, and no one else; null: everyone. */
export async function evaluator(
  manager: EntityManager,
  courseId: CourseId,
  kept: readonly KeptAudience[],
  only: EnrolmentId | null = null,
): Promise<Evaluator> {
  if (kept.every((audience) => audiencesOf(audience).length === 0))
    return { audienceNow: noOnes, audienceName: () => null };
  const { rows, saved } = await audiencesNow(manager, courseId, only);
  const rowById = keyedBy(rows, (row) => row.id);
  return {
    audienceNow: (audience) => evaluated(audience, saved),
    audienceName: (id) => rowById.get(id)?.name ?? null,
  };
}

export const evaluate = async (
  manager: EntityManager,
  courseId: CourseId,
  kept: KeptAudience,
): Promise<Audience> => (await evaluator(manager, courseId, [kept])).audienceNow(kept);
