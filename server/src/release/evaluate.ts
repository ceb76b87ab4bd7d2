import type { EntityManager } from 'typeorm';
import type { CourseId, EnrolmentId } from '@jigsaw/core/ids';
import type { Audience, KeptAudience } from '@jigsaw/core/release';
import { audiencesOf, evaluated } from '@jigsaw/core/release';
import { audiencesNow } from '../audiences/index.js';

/** Works out audiences of one course as they are now; asks nothing where none of them names a saved audience.
 * @param kept all that will be asked for.
 * @param only whether this one is in them, and no one else; null: everyone. */
export async function evaluator(
  manager: EntityManager,
  courseId: CourseId,
  kept: readonly KeptAudience[],
  only: EnrolmentId | null = null,
): Promise<(audience: KeptAudience) => Audience> {
  if (kept.every((audience) => audiencesOf(audience).length === 0))
    return (audience) => evaluated(audience, () => ({ people: new Map(), groups: new Map() }));
  const { saved } = await audiencesNow(manager, courseId, only);
  return (audience) => evaluated(audience, saved);
}

export const evaluate = async (
  manager: EntityManager,
  courseId: CourseId,
  kept: KeptAudience,
  only: EnrolmentId | null = null,
): Promise<Audience> => (await evaluator(manager, courseId, [kept], only))(kept);
