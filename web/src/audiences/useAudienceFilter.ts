import { skipToken } from '@reduxjs/toolkit/query';
import { useMemo } from 'react';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { useListAudiencesQuery, useWhoIsInAudienceQuery } from './audiencesApi.js';

/** Lists narrowed to a saved audience, beside whatever else they are narrowed by.
 * @param chosen what is chosen: the id of an audience, or of something else.
 * @returns the audiences to choose from, and who is in the chosen one, and which groups they are of; null: none is chosen, or it is not known yet. */
export function useAudienceFilter(courseId: string, chosen: string) {
  const audiences = useListAudiencesQuery(courseId).data?.audiences;
  const audience = audiences?.find((each) => each.id === chosen);
  const { data: members, error } = useWhoIsInAudienceQuery(
    audience
      ? {
          courseId,
          body: { include: [{ kind: 'audience', audienceId: audience.id }], exclude: [], audienceId: null },
        }
      : skipToken,
    { refetchOnMountOrArgChange: true },
  );
  const people = useMemo(
    (): ReadonlySet<EnrolmentId> | null =>
      members ? new Set(members.people.map((person) => person.enrolmentId)) : null,
    [members],
  );
  const groups = useMemo(
    (): ReadonlySet<GroupId> | null =>
      members ? new Set(members.groups.map(({ groupId }) => groupId)) : null,
    [members],
  );
  return {
    choices: (audiences ?? []).map(({ id, name }) => ({ id, name, label: `Audience ${name}` })),
    isChosen: audience !== undefined,
    people: audience ? people : null,
    groups: audience ? groups : null,
    error: audience ? error : undefined,
  };
}
