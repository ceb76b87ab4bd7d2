import { Plus } from 'lucide-react';
import { useState } from 'react';
import { styled } from 'styled-components';
import type { HeadingView, OutlineView } from '@jigsaw/contract/outline';
import type { ActivityView } from '@jigsaw/contract/release';
import type { ActivityId } from '@jigsaw/core/ids';
import { keyedBy, shifted } from '@jigsaw/core/lists';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Bar, Button, ButtonLink, Empty, Muted, Page, Scroll, Shifts, Waiting } from '../look/index.js';
import { useListActivitiesQuery } from '../release/index.js';
import { ActivityRows } from './ActivityRows.js';
import { useReadOutlineQuery } from './outlineApi.js';
import { TitleField } from './TitleField.js';
import { useOutlineActs } from './useOutlineActs.js';
import type { OutlineActs } from './useOutlineActs.js';

const Section = styled.section`
  background: var(--surface);
  border-bottom: var(--hair);
  > header {
    display: flex;
    align-items: center;
    gap: 4px;
    min-height: 44px;
    padding: 4px var(--s-4);
    background: var(--paper);
    border-bottom: var(--hair);
  }
  h2 {
    font: var(--h-17);
    margin-right: auto;
    min-width: 0;
    overflow-wrap: anywhere;
  }
`;
const Adding = styled.div`
  padding: 10px var(--s-4);
  border-bottom: var(--hair);
`;

/** All activities in their order, drafts too; instructors arrange them. */
export function OutlineForStaff() {
  const { course } = useCourse();
  const outline = useReadOutlineQuery(course.id);
  const list = useListActivitiesQuery(course.id);
  const failed = [outline, list].find((read) => unshown(read) !== undefined);
  if (failed) return <ProblemStrip of={failed.error} onRetry={() => void failed.refetch()} />;
  if (!outline.data || !list.data) return <Waiting what="the outline" />;
  return <Arranged outline={outline.data} activities={list.data.activities} />;
}

function Arranged({
  outline,
  activities,
}: {
  readonly outline: OutlineView;
  readonly activities: readonly ActivityView[];
}) {
  const { course } = useCourse();
  const [isAdding, setAdding] = useState(false);
  const byId = keyedBy(activities, ({ id }) => id);
  const acts = useOutlineActs(outline, (id) => byId.get(id)?.title ?? 'Activity');
  const mayArrange = course.role === 'instructor';
  const { headings, loose } = outline;
  const shown = (ids: readonly ActivityId[]) => ids.flatMap((id) => byId.get(id) ?? []);
  const rows = (heading: HeadingView | null) => (
    <ActivityRows
      label={heading?.title ?? 'Everything else'}
      headingId={heading?.id ?? null}
      activities={shown(heading?.activityIds ?? loose)}
      headings={headings}
      acts={mayArrange ? acts : null}
    />
  );
  const add = (
    <Button onPress={() => setAdding(true)}>
      <Plus size={16} aria-hidden="true" />
      New heading
    </Button>
  );
  return (
    <Page>
      <Bar>
        <h1>Outline</h1>
        <Muted>The order in which everyone sees the course; students see only what is released to them</Muted>
        <span className="grow" />
        {mayArrange && add}
        <ButtonLink to={`/c/${course.id}/release`}>List</ButtonLink>
        <ButtonLink to={`/c/${course.id}/release/week`}>Week</ButtonLink>
      </Bar>
      <Scroll>
        {headings.length + activities.length === 0 && !isAdding && (
          <Empty title="Nothing to arrange yet" action={mayArrange && add}>
            Headings such as “Week 1” and the activities under them are shown here in their order.
          </Empty>
        )}
        {headings.map((heading, at) => (
          <Section key={heading.id} aria-label={heading.title}>
            <HeadingLine heading={heading} at={at} headings={headings} acts={mayArrange ? acts : null} />
            {rows(heading)}
          </Section>
        ))}
        {isAdding && (
          <Adding>
            <TitleField
              label="Title of the new heading"
              onSave={acts.create}
              onClose={() => setAdding(false)}
            />
          </Adding>
        )}
        {(loose.length > 0 || headings.length > 0) && (
          <Section aria-label="Everything else">
            <header>
              <h2>Everything else</h2>
            </header>
            {rows(null)}
          </Section>
        )}
      </Scroll>
    </Page>
  );
}

interface HeadingLineProps {
  readonly heading: HeadingView;
  readonly at: number;
  readonly headings: readonly HeadingView[];
  /** null: it is only looked at. */
  readonly acts: OutlineActs | null;
}

function HeadingLine({ heading, at, headings, acts }: HeadingLineProps) {
  const [isRenaming, setRenaming] = useState(false);
  const { title } = heading;
  if (acts && isRenaming)
    return (
      <header>
        <TitleField
          label={`New title of ${title}`}
          title={title}
          onSave={(next) => acts.rename(heading, next)}
          onClose={() => setRenaming(false)}
        />
      </header>
    );
  return (
    <header>
      <h2>{title}</h2>
      {acts && (
        <>
          <Shifts
            at={at}
            count={headings.length}
            up={`Move ${title} up`}
            down={`Move ${title} down`}
            onShift={(by) => {
              const ids = shifted(headings, at, by).map(({ id }) => id);
              acts.moveHeading(heading.id, ids[ids.indexOf(heading.id) + 1] ?? null);
            }}
          />
          <Button kind="quiet" isSmall aria-label={`Rename ${title}`} onPress={() => setRenaming(true)}>
            Rename
          </Button>
          <Button kind="quiet" isSmall aria-label={`Delete ${title}`} onPress={() => acts.remove(heading)}>
            Delete
          </Button>
        </>
      )}
    </header>
  );
}
