import { Archive } from 'lucide-react';
import { styled } from 'styled-components';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { problemOf } from '../api/index.js';
import { Button, useNotice } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useListGroupSetsQuery, usePutAwayGroupSetMutation } from './setsApi.js';

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
  const notice = useNotice();
  const sets = useListGroupSetsQuery(course.id);
  const [putAway, { isLoading }] = usePutAwayGroupSetMutation();
  if (!sets.data?.putAway.some((each) => each.id === set.id)) return null;
  const bringBack = async () => {
    const answer = await putAway({ setId: set.id, isPutAway: false });
    notice('error' in answer ? problemOf(answer.error).detail : `${set.name} is back`);
  };
  return (
    <Strip role="status">
      <Archive size={16} aria-hidden="true" />
      <span>{set.name} is put away: no list shows it. Its rooms, work and marks are as they were.</span>
      {course.role === 'instructor' && (
        <Button isSmall isDisabled={isLoading} onPress={() => void bringBack()}>
          Bring it back
        </Button>
      )}
    </Strip>
  );
}
