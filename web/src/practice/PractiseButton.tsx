import type { GroupId } from '@jigsaw/core/ids';
import { rememberWay, useCourse, useMaySitIn } from '../course/index.js';
import { practiceAddress } from '../api/index.js';
import { Button } from '../look/index.js';
import { useAct } from '../page/index.js';
import { useStartPracticeMutation } from './practiceApi.js';

/** Goes on as the practice student, as a member of a group, once everything is ready there. */
function usePractise(): (groupId: GroupId) => Promise<void> {
  const { course } = useCourse();
  const start = useAct(useStartPracticeMutation());
  return async (groupId) => {
    if (!(await start({ courseId: course.id, groupId }))) return;
    rememberWay();
    window.location.assign(practiceAddress(groupId, `/c/${course.id}/room`));
  };
}

/** Nothing for those who may not. */
export function PractiseButton({ groupId, name }: { readonly groupId: GroupId; readonly name: string }) {
  const practise = usePractise();
  if (!useMaySitIn()) return null;
  return (
    <Button isSmall aria-label={`Practise in ${name}`} onPress={() => void practise(groupId)}>
      Practise here
    </Button>
  );
}
