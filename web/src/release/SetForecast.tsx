import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { tableName } from '@jigsaw/core/dealing';
import { mostGroups, namesFor, sayForecast } from '@jigsaw/core/sets';
import { counted } from '@jigsaw/core/text';
import { Emblem, hueOfGroup } from '../look/index.js';
import { HomeCells, topicsBeside } from '../placing/index.js';
import { forecastLine, GiftLines } from './ActivitiesForGroups.js';
import { forecastOf, isTooMany, makesGroups } from './setForm.js';
import type { Fill, ForeseenTables, SetForm } from './setForm.js';

const Frame = styled.aside`
  border-left: 1px solid var(--ink);
  background: var(--sunk);
  /* What will be created, and the way to make it, stay in view however far the form goes. */
  > div {
    position: sticky;
    top: 0;
    display: flex;
    flex-direction: column;
    max-height: calc(100vh - 104px);
    overflow: auto;
    padding: 20px;
  }
  h2 {
    margin-bottom: 4px;
  }
  ol {
    margin-top: 16px;
    display: grid;
    gap: 4px;
    min-height: 76px;
    overflow: auto;
  }
  ol > li {
    ${forecastLine}
  }
  p {
    color: var(--ink-2);
  }
  h3 {
    margin-top: 16px;
  }
  ol[aria-label] {
    margin-top: 6px;
  }
  ol[data-chips] {
    display: flex;
    flex: none;
    flex-wrap: wrap;
    max-height: 132px;
  }
  ol[data-chips] > li {
    grid-template-columns: auto minmax(0, 1fr) auto;
  }
  li[data-many] > :last-child {
    grid-column: 2 / -1;
  }
`;
/** A table has no hue: hues are of the home groups. */
const Tile = styled.span`
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  border: 1.5px solid var(--ink);
  border-radius: var(--r-1);
  font: 650 12px/1 var(--font-text);
`;

const fillSays: Readonly<Record<Fill, string>> = {
  hand: 'all to be placed by you',
  deal: 'dealt out in the next step',
  'sign-up': 'each choosing a place',
  'hand-in': 'naming their partners when they hand in',
  file: 'placed as in a file in the next step',
  copy: 'as in another set',
  experts: 'each at the table of a topic',
};
const mostNamesShown = 60;

interface SetForecastProps {
  readonly form: SetForm;
  readonly students: number;
  readonly original: GroupSetView | undefined;
  readonly experts: ForeseenTables | null;
  /** What went wrong, and the way to make it. */
  readonly children: ReactNode;
}

/** What will come of it, before anything is made. */
export function SetForecast({ form, students, original, experts, children }: SetForecastProps) {
  return (
    <Frame aria-label="Forecast" aria-live="polite">
      <div>
        {makesGroups(form) ? (
          <Groups form={form} students={students} />
        ) : form.fill === 'experts' ? (
          <Experts experts={experts} homeSet={original?.name ?? 'another set'} />
        ) : form.fill === 'copy' ? (
          <>
            <h2>
              {original ? `${original.groupCount} groups, as in ${original.name}` : 'No set to copy yet'}
            </h2>
            {original && (
              <p>{`${students - original.unplaced} of ${students} students keep their places. Changes in one of the sets do not change the other.`}</p>
            )}
          </>
        ) : (
          <>
            <h2>No groups yet</h2>
            <p>
              {`${students} students, ${fillSays['hand-in']}${form.capacity === '' ? '' : `, at most ${form.capacity} together`}. `}
              You can also add groups on the Board.
            </p>
          </>
        )}
        {form.gifts.length > 0 && (
          <>
            <h2 style={{ marginTop: 20 }}>Each group gets</h2>
            <p>Private to each group. Other groups do not see it.</p>
            <GiftLines gifts={form.gifts} groups={groupsOf(form, students, original, experts)} />
          </>
        )}
        {children}
      </div>
    </Frame>
  );
}

/** How many there will be; null: no one knows yet. */
function groupsOf(
  form: SetForm,
  students: number,
  original: GroupSetView | undefined,
  experts: ForeseenTables | null,
): number | null {
  if (form.fill === 'copy') return original?.groupCount ?? 0;
  if (form.fill === 'experts') return experts?.tables.length ?? 0;
  if (form.fill === 'hand-in') return null;
  const forecast = forecastOf(form, students);
  return forecast.ok ? forecast.sizes.length : 0;
}

function Groups({ form, students }: { readonly form: SetForm; readonly students: number }) {
  const forecast = forecastOf(form, students);
  if (!forecast.ok) {
    return (
      <>
        <h2>What will be created</h2>
        <p>Write a whole number above 0.</p>
      </>
    );
  }
  const { sizes, emptyGroups } = forecast;
  const names = namesFor(Math.min(sizes.length, mostNamesShown), form.pattern, form.pasted.split('\n'));
  return (
    <>
      <h2>{sayForecast(sizes)}</h2>
      <p>
        {students} students, {fillSays[form.fill]}.
        {isTooMany(forecast) && ` A set holds at most ${mostGroups} groups.`}
        {emptyGroups > 0 && ` ${emptyGroups} groups stay empty: there are more groups than students.`}
        {form.capacity !== '' &&
          (sizes[0] ?? 0) > Number(form.capacity) &&
          ` The largest would have ${sizes[0]} of ${form.capacity} places.`}
      </p>
      <ol>
        {names.map((each, at) => (
          <li key={at}>
            <Emblem number={at + 1} size={26} />
            <b>{each}</b>
            <span>{sizes[at]}</span>
          </li>
        ))}
      </ol>
      {sizes.length > mostNamesShown && <p>and {sizes.length - mostNamesShown} more</p>}
    </>
  );
}

function Experts({
  experts,
  homeSet,
}: {
  readonly experts: ForeseenTables | null;
  readonly homeSet: string;
}) {
  if (!experts) {
    return (
      <>
        <h2>One table per topic</h2>
        <p>Name the topics: every group of {homeSet} sends someone to each.</p>
      </>
    );
  }
  const { tables, lacking, homes, topics } = experts;
  return (
    <>
      <h2>{counted(tables.length, 'table')}</h2>
      <p>
        Everyone in a group of {homeSet} has a topic.
        {lacking.length > 0 &&
          ` ${lacking.length === 1 ? 'One group is' : `${lacking.length} groups are`} smaller than the number of topics: ${lacking
            .slice(0, 3)
            .map((each) => `${each.home} has no one for ${each.topics.join(' and ')}`)
            .join('; ')}${lacking.length > 3 ? '; and others' : ''}.`}
      </p>
      <ol data-chips>
        {tables.map((table, at) => (
          <li key={at}>
            <Tile aria-hidden="true">{at + 1}</Tile>
            <b>{tableName(table)}</b>
            <span>{table.members.length}</span>
          </li>
        ))}
      </ol>
      <h3>Who goes to which topic</h3>
      <ol aria-label="Home groups">
        {homes.map(({ number, name, counts }) => (
          <li key={number} style={hueOfGroup(number)} data-many={topics.length > topicsBeside || undefined}>
            <Emblem number={number} size={26} />
            <b>{name}</b>
            <HomeCells topics={topics} counts={counts} />
          </li>
        ))}
      </ol>
    </>
  );
}
