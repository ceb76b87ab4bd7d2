import { Archive } from 'lucide-react';
import { styled } from 'styled-components';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { Button } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useListGroupSetsQuery, useArchiveGroupSetMutation } from './setsApi.js';
import { useAct } from '../page/index.js';

const Strip = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 6px var(--s-4);
  background: var(--attn-tint);
  border-bottom: 1px solid var(--attn-line);
`;

/** Over the Board of a set that was archived and is opened by its address. */
export function ArchivedStrip({ set }: { readonly set: GroupSetView }) {
  const { course } = useCourse();
  const sets = useListGroupSetsQuery(course.id);
  const archive = useAct(useArchiveGroupSetMutation(), { says: () => `${set.name} restored` });
  if (!sets.data?.archived.some((each) => each.id === set.id)) return null;
  return (
    <Strip role="status">
      <Archive size={16} aria-hidden="true" />
      <span>{set.name} is archived. Its rooms, work and marks are kept.</span>
      {course.role === 'instructor' && (
        <Button
          isSmall
          isDisabled={archive.isBusy}
          onPress={() => void archive({ setId: set.id, isArchived: false })}
        >
          Restore
        </Button>
      )}
    </Strip>
  );
}
