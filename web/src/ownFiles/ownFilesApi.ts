import { OwnFiles } from '@jigsaw/contract/ownFiles';
import type { RestoreOwnVersion } from '@jigsaw/contract/ownFiles';
import { api } from '../api/index.js';

export interface RestoredVersion {
  readonly copyId: string;
  readonly originalId: string;
  readonly body: RestoreOwnVersion;
}

export const { useRestoreOwnFileMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    restoreOwnFile: build.mutation<OwnFiles, RestoredVersion>({
      query: ({ copyId, originalId, body }) => ({
        url: `copies/${copyId}/own-files/${originalId}/restore`,
        method: 'POST',
        body,
      }),
      responseSchema: OwnFiles,
      invalidatesTags: ['Copy'],
    }),
  }),
});
