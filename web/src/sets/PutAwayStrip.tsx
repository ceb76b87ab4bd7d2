import { Archive } from 'lucide-react';
import { styled } from 'styled-components';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { Button } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useListGroupSetsQuery, usePutAwayGroupSetMutation } from './setsApi.js';
import { useAct } from '../page/index.js';

const Strip = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 6px var(--s-4);
  background: var(--attn-tint);
  border-bottom: 1px solid var(--attn-line);
`;

/** Over the Board of a set that was put away and is opened by its address. */
export function PutAwayStrip({ set }: { readonly set: GroupSetView }) {
  const { course } = useCourse();
  const sets = useListGroupSetsQuery(course.id);
  const putAway = useAct(usePutAwayGroupSetMutation(), { says: () => `${set.name} is back` });
  if (!sets.data?.putAway.some((each) => each.id === set.id)) return null;
  return (
    <Strip role="status">
      <Archive size={16} aria-hidden="true" />
      <span>{set.name} is put away: no list shows it. Its rooms, work and marks are as they were.</span>
      {course.role === 'instructor' && (
        <Button
          isSmall
          isDisabled={putAway.isBusy}
          onPress={() => void putAway({ setId: set.id, isPutAway: false })}
        >
          Bring it back
        </Button>
      )}
    </Strip>
  );
}
