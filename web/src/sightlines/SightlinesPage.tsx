import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import { ticksOf } from '@jigsaw/core/sightlines';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { kindOf } from '../kinds/index.js';
import { Bar, ButtonLink, Choice, Empty, Page, Waiting } from '../look/index.js';
import { useNow } from '../page/index.js';
import { factsOf } from './factsOf.js';
import { Legend } from './Legend.js';
import { differs, linesOf } from './lines.js';
import type { SightSpot } from './SightRow.js';
import { SightGrid } from './SightGrid.js';
import { noGroup } from './SightRow.js';
import { useReadSightlinesQuery } from './sightlinesApi.js';
import { TermLine } from './TermLine.js';
import { useCells } from './useCells.js';
import { WhyPanel } from './WhyPanel.js';

const Work = styled.div`
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  min-height: 0;
  &[data-why] {
    grid-template-columns: minmax(0, 1fr) 340px;
  }
  @media (max-width: 1199px) {
    &[data-why] {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;
const Left = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-width: 0;
  min-height: 0;
`;
const all = 'all';

/** Who sees what in the course, group by group, now and at any moment of the term. */
export function SightlinesPage() {
  const { course } = useCourse();
  const read = useReadSightlinesQuery(course.id);
  if (unshown(read) !== undefined)
    return <ProblemStrip of={read.error} onRetry={() => void read.refetch()} />;
  if (!read.data) return <Waiting what="the sightlines" />;
  return <Sightlines view={read.data} />;
}

function Sightlines({ view }: { readonly view: SightlinesView }) {
  const { course } = useCourse();
  const [search, setSearch] = useSearchParams();
  const set = view.sets.find(({ setId }) => setId === search.get('set')) ?? usualSet(view);
  const [at, setAt] = useState<number | null>(null);
  const [kind, setKind] = useState(all);
  const [isOnlyDifferent, setOnlyDifferent] = useState(false);
  const [spot, setSpot] = useState<SightSpot | null>(null);
  const ticks = useMemo(() => ticksOf(factsOf(view)), [view]);
  // Nothing changes by itself between two ticks, so that the clock has to be read at these alone.
  const nextTick = ticks.find((tick) => tick.at > Date.parse(view.serverTime))?.at ?? null;
  const clock = useNow(nextTick === null ? null : new Date(nextTick).toISOString());
  // What the answer tells of has happened, also where the clock is told of it later.
  const now = Math.max(clock, Date.parse(view.serverTime));
  const lastTick = ticks.findLast((tick) => tick.at <= now)?.at ?? 0;
  const moment = at ?? Math.max(lastTick, Date.parse(view.serverTime));
  const columns = useMemo(() => (set ? [...set.groups, noGroup] : []), [set]);
  const { cells, hasFailed } = useCells(view, set?.setId ?? null, moment);
  const kinds = [...new Set(view.activities.map((activity) => activity.kind))];
  const lines = useMemo(
    () =>
      cells === null
        ? []
        : linesOf(
            view.activities,
            cells,
            moment,
            (activity, own) => (kind === all || activity.kind === kind) && (!isOnlyDifferent || differs(own)),
          ),
    [view, cells, moment, kind, isOnlyDifferent],
  );
  const choose = (setId: string) => {
    setSpot(null);
    setSearch(setId === usualSet(view)?.setId ? {} : { set: setId }, { replace: true });
  };
  return (
    <Page>
      <Bar>
        <h1>Sightlines</h1>
        {set && (
          <Choice
            label="Group set"
            isLabelHidden
            value={set.setId}
            choices={view.sets.map(({ setId, name }) => ({ id: setId, label: name }))}
            onChange={choose}
          />
        )}
        <Choice
          label="Kind"
          isLabelHidden
          value={kind}
          choices={[
            { id: all, label: 'All kinds' },
            ...kinds.map((each) => ({ id: each, label: kindOf(each)?.word ?? each })),
          ]}
          onChange={setKind}
        />
        <label>
          <input
            type="checkbox"
            checked={isOnlyDifferent}
            onChange={(event) => setOnlyDifferent(event.target.checked)}
          />{' '}
          Only what differs
        </label>
        <span className="grow" />
        <ButtonLink to={`/c/${course.id}/release`}>List</ButtonLink>
      </Bar>
      <Work data-why={spot ? '' : undefined}>
        <Left>
          <TermLine ticks={ticks} now={now} at={at} onChange={setAt} />
          {hasFailed ? (
            <ProblemStrip>The sightlines could not be worked out. Load the page again.</ProblemStrip>
          ) : set === undefined || set.groups.length === 0 ? (
            <Empty title="There are no groups yet">
              Create a group set, and this shows what each of its groups sees.
            </Empty>
          ) : cells === null ? (
            <Waiting what="who sees what" />
          ) : lines.length === 0 ? (
            <Empty
              title={view.activities.length === 0 ? 'Nothing is written yet' : 'Nothing fits these filters'}
            >
              {view.activities.length === 0 && 'What you write and release shows here, group by group.'}
            </Empty>
          ) : (
            <SightGrid key={set.setId} columns={columns} lines={lines} chosen={spot} onChoose={setSpot} />
          )}
          <Legend />
        </Left>
        {spot && set && (
          <WhyPanel view={view} setId={set.setId} spot={spot} at={moment} onClose={() => setSpot(null)} />
        )}
      </Work>
    </Page>
  );
}

/** The set whose groups have most of what was released. */
function usualSet({ sets, activities }: SightlinesView): SightlinesView['sets'][number] | undefined {
  const count = new Map<string, number>();
  for (const { release } of activities)
    for (const setId of new Set(release?.copies.flatMap((copy) => copy.setId ?? [])))
      count.set(setId, (count.get(setId) ?? 0) + 1);
  const most = (setId: string) => count.get(setId) ?? 0;
  return sets.toSorted((a, b) => most(b.setId) - most(a.setId))[0];
}
