import { EllipsisVertical, GripVertical } from 'lucide-react';
import {
  Button,
  GridList,
  GridListItem,
  Menu,
  MenuItem,
  MenuTrigger,
  useDragAndDrop,
} from 'react-aria-components';
import type { DropItem } from 'react-aria-components';
import { useNavigate } from 'react-router';
import { styled } from 'styled-components';
import type { HeadingView } from '@jigsaw/contract/outline';
import type { ActivityView } from '@jigsaw/contract/release';
import type { ActivityId, HeadingId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { useCourse } from '../course/index.js';
import { sayHappenings } from '../kinds/index.js';
import { Muted, Popup, Tag } from '../look/index.js';
import { KindIcon, stateLook, stateOf, stateWords } from '../release/index.js';
import { landingOf } from './landing.js';
import type { OutlineActs } from './useOutlineActs.js';

const dragType = 'application/x-jigsaw-activity';

const List = styled(GridList<ActivityView>)`
  outline: none;
  min-height: 40px;
  &[data-empty] {
    display: grid;
    align-items: center;
    padding: 0 var(--s-4) 0 46px;
    font: var(--t-13);
    color: var(--ink-2);
  }
  &[data-drop-target] {
    background: var(--wash);
    outline: 2px solid var(--ink);
    outline-offset: -2px;
  }
  .react-aria-DropIndicator[data-drop-target] {
    outline: 2px solid var(--ink);
  }
`;
const Row = styled(GridListItem)`
  display: grid;
  grid-template-columns: 24px 22px minmax(0, 1fr) minmax(0, 260px) 96px 32px;
  gap: 12px;
  align-items: center;
  min-height: 44px;
  padding: 4px var(--s-4) 4px 10px;
  border-bottom: var(--hair);
  outline-offset: -3px;
  cursor: pointer;
  &:last-child {
    border-bottom: 0;
  }
  &[data-hovered] {
    background: var(--wash);
  }
  &[data-dragging] {
    opacity: 0.45;
  }
  &[data-focus-visible] {
    outline: 2px solid var(--ink);
  }
  b {
    font: var(--h-14);
    font-size: 15px;
    overflow-wrap: anywhere;
  }
  @media (max-width: 900px) {
    grid-template-columns: 24px 22px minmax(0, 1fr) auto 32px;
    gap: 2px 10px;
    .when {
      grid-area: 2 / 3;
    }
  }
`;
const Small = styled(Button)`
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  border: 0;
  border-radius: var(--r-1);
  background: none;
  color: var(--ink-2);
  &[data-hovered] {
    background: var(--wash-2);
  }
  &[slot='drag'] {
    width: 24px;
    cursor: grab;
  }
`;

interface ActivityRowsProps {
  readonly label: string;
  /** null: under no heading. */
  readonly headingId: HeadingId | null;
  readonly activities: readonly ActivityView[];
  readonly headings: readonly HeadingView[];
  /** null: they are only looked at. */
  readonly acts: OutlineActs | null;
}

/** What stands under one heading: dragged by mouse, touch or keyboard, or moved by the menu of its row. */
export function ActivityRows({ label, headingId, activities, headings, acts }: ActivityRowsProps) {
  const { course } = useCourse();
  const navigate = useNavigate();
  const ids = activities.map(({ id }) => id);
  const put = (id: ActivityId, before: ActivityId | null | undefined) => {
    if (before !== undefined) acts?.place(id, { headingId, before });
  };
  const dropped = async (
    items: readonly DropItem[],
    beforeOf: (id: ActivityId) => ActivityId | null | undefined,
  ) => {
    for (const item of items) {
      if (item.kind !== 'text') continue;
      const id = (await item.getText(dragType)) as ActivityId;
      put(id, beforeOf(id));
    }
  };
  const { dragAndDropHooks } = useDragAndDrop({
    isDisabled: acts === null,
    getItems: (keys) =>
      [...keys].map((key) => ({
        [dragType]: String(key),
        'text/plain': activities.find(({ id }) => id === key)?.title ?? '',
      })),
    acceptedDragTypes: [dragType],
    getDropOperation: () => 'move',
    onReorder: ({ keys, target }) => {
      const [id] = [...keys] as ActivityId[];
      if (id) put(id, landingOf(ids, id, target));
    },
    onInsert: ({ items, target }) => void dropped(items, (id) => landingOf(ids, id, target)),
    onRootDrop: ({ items }) => void dropped(items, () => null),
  });
  return (
    <List
      aria-label={label}
      items={activities}
      dependencies={[headings, acts]}
      dragAndDropHooks={dragAndDropHooks}
      renderEmptyState={() => (acts ? 'Nothing here yet. Drag an activity here.' : 'Nothing here yet.')}
      {...(acts && { onAction: (id) => void navigate(`/c/${course.id}/release/${id}`) })}
    >
      {(activity) => (
        <Row id={activity.id} textValue={activity.title}>
          {acts ? (
            <Small slot="drag">
              <GripVertical size={15} aria-hidden="true" />
            </Small>
          ) : (
            <span />
          )}
          <Facts activity={activity} />
          {acts && (
            <RowMenu activity={activity} headingId={headingId} ids={ids} headings={headings} acts={acts} />
          )}
        </Row>
      )}
    </List>
  );
}

function Facts({ activity }: { readonly activity: ActivityView }) {
  const { dates } = useCourse();
  const { due } = activity.schedule;
  const state = stateOf(activity);
  return (
    <>
      <KindIcon kind={activity.kind} />
      <b>{activity.title}</b>
      <Muted className="when">
        {due ? `Due ${dates.dateTime(due)}` : sayHappenings(activity.happens, dates)}
      </Muted>
      <span>
        <Tag $look={stateLook[state]}>{stateWords[state]}</Tag>
      </span>
    </>
  );
}

interface RowMenuProps {
  readonly activity: ActivityView;
  readonly headingId: HeadingId | null;
  readonly ids: readonly ActivityId[];
  readonly headings: readonly HeadingView[];
  readonly acts: OutlineActs;
}

function RowMenu({ activity: { id, title }, headingId, ids, headings, acts }: RowMenuProps) {
  const at = ids.indexOf(id);
  const elsewhere = headings.filter((heading) => heading.id !== headingId);
  return (
    <MenuTrigger>
      <Small aria-label={`More for ${title}`}>
        <EllipsisVertical size={16} aria-hidden="true" />
      </Small>
      <Popup placement="bottom end">
        <Menu aria-label={title}>
          <MenuItem
            isDisabled={at === 0}
            onAction={() => acts.place(id, { headingId, before: sure(ids[at - 1]) })}
          >
            Move up
          </MenuItem>
          <MenuItem
            isDisabled={at === ids.length - 1}
            onAction={() => acts.place(id, { headingId, before: ids[at + 2] ?? null })}
          >
            Move down
          </MenuItem>
          {elsewhere.map((heading) => (
            <MenuItem
              key={heading.id}
              onAction={() => acts.place(id, { headingId: heading.id, before: null })}
            >
              Move under “{heading.title}”
            </MenuItem>
          ))}
          {headingId !== null && (
            <MenuItem onAction={() => acts.place(id, { headingId: null, before: null })}>
              Move to everything else
            </MenuItem>
          )}
          <MenuItem onAction={() => acts.copyLink(id)}>Copy link</MenuItem>
        </Menu>
      </Popup>
    </MenuTrigger>
  );
}
