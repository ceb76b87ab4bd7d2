import { AuditChoice, AuditTrail } from '@jigsaw/contract/audit';
import type { AuditFilter } from '@jigsaw/contract/audit';
import { api } from '../api/index.js';

/** What stands behind the `?` of an address. */
export const queryOf = (filter: AuditFilter): string => new URLSearchParams(filter).toString();

interface Asked {
  readonly courseId: string;
  readonly filter: AuditFilter;
}

export const { useReadAuditQuery, useReadAuditChoiceQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    readAudit: build.query<AuditTrail, Asked>({
      query: ({ courseId, filter }) => `courses/${courseId}/audit?${queryOf(filter)}`,
      responseSchema: AuditTrail,
      providesTags: ['Audit'],
    }),
    readAuditChoice: build.query<AuditChoice, string>({
      query: (courseId) => `courses/${courseId}/audit/choice`,
      responseSchema: AuditChoice,
      providesTags: ['Roster', 'Set', 'Placement', 'Activity'],
    }),
  }),
});
