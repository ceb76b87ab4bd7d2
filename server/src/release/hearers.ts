import type { CopyId, EnrolmentId, ReleaseId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { Concerns } from '@jigsaw/core/release';
import type { CopyAccess } from './gate.js';

/** Who may hear that something changed in a copy: anyone who may read it.
 * @param owner whose it is alone, where each student hands in for themselves. */
export const hearersOf = (
  { copy, release }: Pick<CopyAccess, 'copy' | 'release'>,
  owner: EnrolmentId | null = null,
): Pick<Concerns, 'copies'> => ({
  copies: {
    releaseId: release.id,
    copyIds: [copy.id],
    ownerId: owner,
    isForStaffOnly: false,
    wasOut: false,
  },
});

/** Of a mark: staff who may read the copy, and those who were given one or had one. */
export const hearersOfMark = (
  access: Pick<CopyAccess, 'copy' | 'release'>,
  students: readonly EnrolmentId[],
): Pick<Concerns, 'copies' | 'enrolmentIds'> => ({
  copies: { ...sure(hearersOf(access).copies), isForStaffOnly: true },
  enrolmentIds: access.release.state === 'withdrawn' ? [] : students,
});

/** Of a release: all staff, and anyone who may read or know of it.
 * @param wasOut it was with them until now.
 * @param copyIds only those who may read one of these; null: it is about the whole. */
export const hearersOfRelease = (
  releaseId: ReleaseId,
  {
    wasOut = false,
    copyIds = null,
  }: { readonly wasOut?: boolean; readonly copyIds?: readonly CopyId[] | null } = {},
): Pick<Concerns, 'copies' | 'staff'> => ({
  staff: 'read-course',
  copies: { releaseId, copyIds, ownerId: null, isForStaffOnly: false, wasOut },
});
