import { Link } from 'react-router';
import { styled } from 'styled-components';
import { shifted } from '@jigsaw/core/lists';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, ButtonLink, Shifts, Small, Waiting } from '../look/index.js';
import { useAct } from '../page/index.js';
import { useArchiveGroupSetMutation, useListGroupSetsQuery, useOrderGroupSetsMutation } from './setsApi.js';

const List = styled.ol`
  display: grid;
  gap: 4px;
  li {
    display: flex;
    align-items: center;
    gap: 8px;
    min-height: 38px;
    padding: 3px 8px 3px 12px;
    border: var(--hair);
    border-radius: var(--r-2);
  }
  li > a {
    flex: 1;
    min-width: 0;
    font-weight: 600;
    overflow-wrap: anywhere;
  }
  li > small {
    color: var(--ink-2);
    white-space: nowrap;
  }
`;

/** The sets in the order of their tabs, and those that were archived. */
export function SetOrderList({ mayChange }: { readonly mayChange: boolean }) {
  const { course } = useCourse();
  const sets = useListGroupSetsQuery(course.id);
  const order = useAct(useOrderGroupSetsMutation());
  const restore = useAct(useArchiveGroupSetMutation(), { says: (set) => `${set.name} restored` });
  if (unshown(sets) !== undefined)
    return (
      <div>
        <ProblemStrip of={sets.error} onRetry={() => void sets.refetch()} />
      </div>
    );
  if (!sets.data)
    return (
      <div>
        <Waiting what="the group sets" rows={3} />
      </div>
    );
  const { sets: shown, archived } = sets.data;
  return (
    <div>
      {shown.length === 0 && (
        <p>
          No group sets yet.{' '}
          {mayChange && (
            <ButtonLink isSmall to="../groups/new">
              Create group set
            </ButtonLink>
          )}
        </p>
      )}
      <List aria-label="Group sets">
        {shown.map((set, at) => (
          <li key={set.id}>
            <Link to={`../groups/${set.id}`}>{set.name}</Link>
            <small>{counted(set.groupCount, 'group')}</small>
            {mayChange && (
              <Shifts
                at={at}
                count={shown.length}
                up={`Move ${set.name} up`}
                down={`Move ${set.name} down`}
                isDisabled={order.isBusy}
                onShift={(by) =>
                  void order({ courseId: course.id, setIds: shifted(shown, at, by).map((each) => each.id) })
                }
              />
            )}
          </li>
        ))}
      </List>
      {archived.length > 0 && (
        <>
          <Small>Archived</Small>
          <List aria-label="Archived group sets">
            {archived.map((set) => (
              <li key={set.id}>
                <Link to={`../groups/${set.id}`}>{set.name}</Link>
                {mayChange && (
                  <Button
                    isSmall
                    isDisabled={restore.isBusy}
                    onPress={() => void restore({ setId: set.id, isArchived: false })}
                  >
                    Restore
                  </Button>
                )}
              </li>
            ))}
          </List>
        </>
      )}
    </div>
  );
}
