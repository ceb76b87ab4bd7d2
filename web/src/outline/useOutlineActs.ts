import type { HeadingView, OutlineView, PlaceActivity } from '@jigsaw/contract/outline';
import type { ActivityId, HeadingId } from '@jigsaw/core/ids';
import { useCourse } from '../course/index.js';
import { useAct, useCopy } from '../page/index.js';
import {
  useCreateHeadingMutation,
  useDeleteHeadingMutation,
  useMoveHeadingMutation,
  usePlaceActivityMutation,
  useRenameHeadingMutation,
  useRestoreHeadingMutation,
} from './outlineApi.js';

export interface OutlineActs {
  /** @returns whether it is there now. */
  readonly create: (title: string) => Promise<boolean>;
  readonly rename: (heading: HeadingView, title: string) => Promise<boolean>;
  readonly moveHeading: (headingId: HeadingId, before: HeadingId | null) => void;
  readonly remove: (heading: HeadingView) => void;
  readonly place: (activityId: ActivityId, to: PlaceActivity) => void;
  readonly copyLink: (activityId: ActivityId) => void;
}

/** What instructors do with the outline; every act has its way back.
 * @param titleOf of an activity. */
export function useOutlineActs(outline: OutlineView, titleOf: (id: ActivityId) => string): OutlineActs {
  const { course } = useCourse();
  const courseId = course.id;
  const create = useAct(useCreateHeadingMutation());
  const rename = useAct(useRenameHeadingMutation());
  const moveHeadingBack = useAct(useMoveHeadingMutation());
  const moveHeading = useAct(useMoveHeadingMutation(), {
    says: (_answer, { headingId }) => `“${headingTitle(headingId)}” moved`,
    undo:
      ({ was }, asked) =>
      () =>
        moveHeadingBack({ ...asked, ...was }),
  });
  const restore = useAct(useRestoreHeadingMutation(), { says: () => 'Heading restored' });
  const remove = useAct(useDeleteHeadingMutation(), {
    says: (_answer, { headingId }) => `“${headingTitle(headingId)}” deleted. Its activities stay.`,
    undo: (_answer, asked) => () => restore(asked),
  });
  const placeBack = useAct(usePlaceActivityMutation());
  const place = useAct(usePlaceActivityMutation(), {
    says: (answer, { activityId, headingId }) => sayPlaced(titleOf(activityId), answer.outline, headingId),
    undo:
      ({ was }, asked) =>
      () =>
        placeBack({ ...asked, ...was }),
  });
  const copy = useCopy();
  const headingTitle = (id: HeadingId) => outline.headings.find((each) => each.id === id)?.title ?? 'Heading';
  return {
    create: async (title) => (await create({ courseId, title })) !== null,
    rename: async ({ id: headingId, version }, title) =>
      (await rename({ courseId, headingId, title, version: version ?? 0 })) !== null,
    moveHeading: (headingId, before) => void moveHeading({ courseId, headingId, before }),
    remove: ({ id: headingId }) => void remove({ courseId, headingId }),
    place: (activityId, to) => void place({ courseId, activityId, ...to }),
    copyLink: (activityId) =>
      void copy(
        `${window.location.origin}/c/${courseId}/go/activity/${activityId}`,
        'Link copied. It leads each student to their own group’s copy.',
        'Open the activity and copy the address.',
      ),
  };
}

function sayPlaced(title: string, { headings }: OutlineView, headingId: HeadingId | null): string {
  const under = headings.find((heading) => heading.id === headingId);
  return under ? `“${title}” moved under “${under.title}”` : `“${title}” moved`;
}
