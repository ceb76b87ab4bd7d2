import { useMemo, useState } from 'react';
import { styled } from 'styled-components';
import { keyedBy } from '@jigsaw/core/lists';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Bar, Button, ButtonLink, Empty, Muted, Page, Scroll, Waiting } from '../look/index.js';
import type { FixOf } from '../checks/index.js';
import { CheckLines, useListChecksQuery } from '../checks/index.js';
import { CheckFix } from './CheckFix.js';
import { useListActivitiesQuery } from './releaseApi.js';

const Folded = styled.div`
  padding: 12px var(--s-4);
`;

/** What in the course looks as if it were not meant so, with what mends it. */
export function ChecksPage() {
  const { course } = useCourse();
  // What is amiss changes with every move: never what was known a minute ago.
  const read = useListChecksQuery(course.id, { refetchOnMountOrArgChange: true });
  const activities = useListActivitiesQuery(course.id);
  const [isUnfolded, setUnfolded] = useState(false);
  const byId = useMemo(
    () => keyedBy(activities.data?.activities ?? [], ({ id }) => id as string),
    [activities.data],
  );
  const refused = unshown(read) ?? unshown(activities);
  if (refused !== undefined)
    return (
      <ProblemStrip of={refused} onRetry={() => void Promise.all([read.refetch(), activities.refetch()])} />
    );
  if (!read.data || !activities.data) return <Waiting what="what is to be checked" />;
  const open = read.data.checks.filter(({ dismissed }) => dismissed === null);
  const dismissed = read.data.checks.filter((check) => check.dismissed !== null);
  const fixOf: FixOf = (found, names) => (
    <CheckFix found={found} names={names} activityOf={(id) => byId.get(id)} />
  );
  const lines = { list: read.data, fixOf };
  return (
    <Page>
      <Bar>
        <h1>To check</h1>
        <Muted>What looks as if you did not mean it</Muted>
        <span className="grow" />
        <ButtonLink to={`/c/${course.id}/release/sightlines`}>Sightlines</ButtonLink>
        <ButtonLink to={`/c/${course.id}/release`}>Back to Release</ButtonLink>
      </Bar>
      <Scroll>
        {open.length === 0 ? (
          <Empty title="Nothing to check">
            Who gets it, dates, rubrics and texts of everything written here look as they should.
          </Empty>
        ) : (
          <CheckLines label="To check" shown={open} {...lines} />
        )}
        {dismissed.length > 0 && (
          <Folded>
            <Button kind="quiet" isSmall aria-expanded={isUnfolded} onPress={() => setUnfolded(!isUnfolded)}>
              {dismissed.length} dismissed
            </Button>
          </Folded>
        )}
        {isUnfolded && <CheckLines label="Dismissed" shown={dismissed} {...lines} />}
      </Scroll>
    </Page>
  );
}
