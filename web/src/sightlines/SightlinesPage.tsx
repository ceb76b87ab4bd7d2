import { useDeferredValue, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import { changesOf, ticksOf } from '@jigsaw/core/sightlines';
import { fold } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useToCheck } from '../checks/index.js';
import { useCourse } from '../course/index.js';
import { Bar, ButtonLink, Choice, Empty, FindField, Page, Waiting } from '../look/index.js';
import { useNow } from '../page/index.js';
import type { ColumnsBy, SightColumn, SightSpot } from './columns.js';
import { audiences, columnsBy, columnsOf, students, usualSet } from './columns.js';
import { factsOf } from '@jigsaw/contract/sightFacts';
import { Legend } from './Legend.js';
import { everyLine, linesOf } from './lines.js';
import { SightGrid } from './SightGrid.js';
import { SightOutput } from './SightOutput.js';
import { useReadSightlinesQuery } from './sightlinesApi.js';
import { SightTools } from './SightTools.js';
import { TermLine } from './TermLine.js';
import { useCells, useSight } from './useSight.js';
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
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  min-width: 0;
  min-height: 0;
`;

/** Who sees what in the course, group by group, student by student or by saved audience, now and at any moment of the term. */
export function SightlinesPage() {
  const { course } = useCourse();
  const read = useReadSightlinesQuery(course.id);
  if (unshown(read) !== undefined)
    return <ProblemStrip of={read.error} onRetry={() => void read.refetch()} />;
  if (!read.data) return <Waiting what="the sightlines" />;
  return <Sightlines view={read.data} />;
}

function Sightlines({ view }: { readonly view: SightlinesView }) {
  const { course, dates } = useCourse();
  const [search, setSearch] = useSearchParams();
  const { by, chosenBy, all } = useColumns(view, search.get('by'));
  const [at, setAt] = useState<number | null>(null);
  const [wanted, setWanted] = useState(everyLine);
  const [words, setWords] = useState('');
  const [spot, setSpot] = useState<SightSpot | null>(null);
  const { ticks, now, moment } = useTerm(view, at);
  const toCheck = useToCheck();
  const sight = useSight(view);
  const told = useCells(sight, view, all, chosenBy, moment);
  // The slider goes on while the matrix follows.
  const shown = useDeferredValue(told !== null && 'answer' in told ? told.answer : null);
  const { columns, lines } = useMemo(() => {
    if (shown === null) return { columns: [], lines: [] };
    const found = foundIn(shown.columns, words);
    const { activities } = shown;
    const cells = shown.cells.map((line) => found.map(({ at }) => line[at]).filter((cell) => cell !== undefined)); // prettier-ignore
    return {
      columns: found.map(({ column }) => column),
      lines: linesOf({ activities, sets: view.sets }, cells, moment, wanted, toCheck),
    };
  }, [shown, words, view.sets, moment, wanted, toCheck]);
  const column = spot && shown?.columns.find(({ key }) => key === spot.column);
  const when = at === null ? `now, ${dates.dateTime(new Date(now).toISOString())}` : dates.dateTime(new Date(at).toISOString()); // prettier-ignore
  const choose = (chosen: string) => {
    setSpot(null);
    setWords('');
    setSearch(chosen === usualSet(view)?.setId ? {} : { by: chosen }, { replace: true });
  };
  const isShown = lines.length > 0 && columns.length > 0;
  return (
    <Page>
      <Bar>
        <h1>Sightlines</h1>
        <Choice
          label="Columns"
          isLabelHidden
          value={chosenBy}
          choices={[
            ...view.sets.map(({ setId, name }) => ({ id: setId, label: name })),
            { id: students, label: 'Students one by one' },
            ...(view.audiences.length > 0 || by?.kind === 'audiences'
              ? [{ id: audiences, label: 'Saved audiences' }]
              : []),
          ]}
          onChange={choose}
        />
        <FindField {...finding(by)} value={words} onChange={setWords} width={170} />
        <span className="grow" />
        <SightOutput lines={lines} columns={columns} when={when} />
        <ButtonLink to={`/c/${course.id}/release`}>List</ButtonLink>
      </Bar>
      <Work data-why={column ? '' : undefined}>
        <Left>
          <TermLine ticks={ticks} now={now} at={at} onChange={setAt} />
          <SightTools
            view={view}
            shown={lines.filter(({ kind }) => kind === 'activity').length}
            hasToCheck={toCheck.size > 0}
            wanted={wanted}
            onChange={setWanted}
          />
          {told !== null && 'hasFailed' in told ? (
            <ProblemStrip>The sightlines could not be worked out. Load the page again.</ProblemStrip>
          ) : all.length === 0 || (by?.kind === 'set' && by.set.groups.length === 0) ? (
            <NoColumns by={by} />
          ) : shown === null ? (
            <Waiting what="who sees what" />
          ) : isShown ? (
            <SightGrid
              key={chosenBy}
              columns={columns}
              lines={lines}
              chosen={spot}
              toCheck={toCheck}
              isNow={at === null}
              onChoose={setSpot}
            />
          ) : view.activities.length === 0 ? (
            <Empty title="Nothing is written yet">
              What you write and release shows here, group by group.
            </Empty>
          ) : (
            <Empty title={columns.length === 0 ? `No one here is called “${words}”` : 'Nothing fits these filters'} /> // prettier-ignore
          )}
          <Legend />
        </Left>
        {spot && column && (
          <WhyPanel
            view={view}
            sight={sight}
            spot={spot}
            column={column}
            at={moment}
            toCheck={toCheck.get(spot.activityId) ?? []}
            isNow={at === null}
            onClose={() => setSpot(null)}
          />
        )}
      </Work>
    </Page>
  );
}

function useColumns(view: SightlinesView, chosen: string | null) {
  return useMemo(() => {
    const by = columnsBy(view, chosen);
    const chosenBy: string = by?.kind === 'set' ? by.set.setId : (by?.kind ?? '');
    return { by, chosenBy, all: columnsOf(view, by) };
  }, [view, chosen]);
}

/** The ticks of the term, the time that it is, and the moment that is shown: the last change before it, since between two nothing changes. */
function useTerm(view: SightlinesView, at: number | null) {
  const { ticks, changes } = useMemo(() => {
    const facts = factsOf(view);
    return { ticks: ticksOf(facts), changes: changesOf(facts) };
  }, [view]);
  const served = Date.parse(view.serverTime);
  const next = changes.find((change) => change > served) ?? null;
  const clock = useNow(next === null ? null : new Date(next).toISOString());
  // What the answer tells of has happened, also where the clock is told of it later.
  const now = Math.max(clock, served);
  const shown = at ?? now;
  const moment = changes.findLast((change) => change <= shown) ?? (changes[0] ?? shown) - 1;
  return { ticks, now, moment };
}

/** The columns of which every word of a search is part of the name, each with its place. */
function foundIn(columns: readonly SightColumn[], words: string) {
  const sought = fold(words).split(/\s+/);
  return columns.flatMap((column, at) => {
    const name = fold(column.name);
    return sought.every((word) => name.includes(word)) ? [{ column, at }] : [];
  });
}

function finding(by: ColumnsBy | null) {
  const label = by?.kind === 'students' ? 'Find a student' : by?.kind === 'audiences' ? 'Find an audience' : 'Find a group'; // prettier-ignore
  return { label, placeholder: label };
}

function NoColumns({ by }: { readonly by: ColumnsBy | null }) {
  if (by?.kind === 'students')
    return <Empty title="There are no students yet">Import people, and this shows what each of them sees.</Empty>; // prettier-ignore
  if (by?.kind === 'audiences')
    return <Empty title="There are no saved audiences">Save one, and this shows what the people in it see.</Empty>; // prettier-ignore
  return (
    <Empty title="There are no groups yet">
      Create a group set, and this shows what each of its groups sees.
    </Empty>
  );
}
