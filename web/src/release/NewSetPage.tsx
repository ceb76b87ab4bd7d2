import { useState } from 'react';
import type { FormEvent, ReactNode } from 'react';
import { RadioGroup, TextField } from 'react-aria-components';
import { useNavigate } from 'react-router';
import { styled } from 'styled-components';
import type { CreateGroupSet } from '@jigsaw/contract/setUp';
import type { SignUpSettings } from '@jigsaw/contract/sets';
import type { RosterView } from '@jigsaw/contract/roster';
import type { GroupSetId } from '@jigsaw/core/ids';
import { expertTables, tableName } from '@jigsaw/core/dealing';
import type { ExpertTables } from '@jigsaw/core/dealing';
import { mostGroups, namesFor, sayForecast, sizesByCount, sizesBySize } from '@jigsaw/core/sets';
import { problemOf, ProblemStrip } from '../api/index.js';
import {
  Bar,
  Button,
  ButtonLink,
  Choice,
  Emblem,
  Field,
  Input,
  Label,
  Option,
  Page,
  Part,
  Scroll,
  Small,
  Waiting,
} from '../look/index.js';
import { useReadRosterQuery } from '../roster/index.js';
import { useCourse } from '../course/index.js';
import { activitiesOf, EachGets, forecastLine, GiftLines } from './ActivitiesForGroups.js';
import type { Gift } from './ActivitiesForGroups.js';
import type { Next, ReadyState } from './SetReadyPage.js';
import { SignUpFields } from '../sets/index.js';
import {
  Tickbox,
  useCopyGroupSetMutation,
  useListGroupSetsQuery,
  usePutAwayGroupSetMutation,
} from '../sets/index.js';
import { useCreateGroupSetMutation, useDeriveExpertsMutation } from './setUpApi.js';
import { counted } from '@jigsaw/core/text';
import { useAct } from '../page/index.js';

const Work = styled.form`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 404px;
  min-height: 100%;
`;
const Parts = styled.div`
  background: var(--surface);
`;
const Narrow = styled(Part)`
  > div {
    gap: 12px;
    max-width: 640px;
  }
`;
const Shapes = styled(RadioGroup)`
  display: grid;
  gap: 8px;
`;
const ShapeRow = styled.div`
  display: grid;
  gap: 8px;
`;
const FigureRow = styled(TextField)`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  padding: 0 12px 4px;
  &[data-idle] {
    color: var(--ink-3);
  }
  input {
    width: 72px;
    text-align: right;
    font-weight: 650;
  }
`;
const Forecast = styled.aside`
  border-left: 1px solid var(--ink);
  background: var(--sunk);
  /* What will be made, and the way to make it, stay in view however far the form goes. */
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
`;

type Fill = 'hand' | 'deal' | 'sign-up' | 'hand-in' | 'file' | 'copy' | 'experts';
const fillSays: Readonly<Record<Fill, string>> = {
  hand: 'all to be placed by you',
  deal: 'dealt out in the next step',
  'sign-up': 'each choosing a place',
  'hand-in': 'naming their partners when they hand in',
  file: 'placed as in a file in the next step',
  copy: 'as in another set',
  experts: 'each at the table of a topic',
};
type By = 'count' | 'spread' | 'fill';
const mostNamesShown = 60;

/** By count or by size, with what will come of it shown before anything is made. */
export function NewSetPage() {
  const { course } = useCourse();
  const navigate = useNavigate();
  const sets = useListGroupSetsQuery(course.id);
  const putAway = useAct(usePutAwayGroupSetMutation());
  const [create, { isLoading, error }] = useCreateGroupSetMutation();
  const [name, setName] = useState('');
  const [by, setBy] = useState<By>('spread');
  const [count, setCount] = useState('12');
  const [size, setSize] = useState('4');
  const [pattern, setPattern] = useState('Group {n}');
  const [pasted, setPasted] = useState('');
  const [capacity, setCapacity] = useState('');
  const [fill, setFill] = useState<Fill>('hand');
  const [copyOf, setCopyOf] = useState<GroupSetId | null>(null);
  const [isSeveral, setSeveral] = useState(false);
  const [copy, copying] = useCopyGroupSetMutation();
  const [topics, setTopics] = useState('');
  const [seed] = useState(() => Math.floor(Math.random() * 10_000));
  const [derive, deriving] = useDeriveExpertsMutation();
  const roster = useReadRosterQuery(course.id, { skip: fill !== 'experts' });
  const [gifts, setGifts] = useState<readonly Gift[]>([]);
  const [signUp, setSignUp] = useState<SignUpSettings>({ opens: null, closes: null, showsNames: true });
  if (!sets.data) return <Waiting what="the class" />;

  const { students } = sets.data;
  const original = sets.data.sets.find((set) => set.id === copyOf) ?? sets.data.sets[0];
  const experts =
    fill === 'experts' && original && roster.data && topicsIn(topics).length > 0
      ? expertsOf(roster.data, original.id, topicsIn(topics), capacity, seed)
      : null;
  const isMade = fill !== 'copy' && fill !== 'hand-in' && fill !== 'experts'; // its groups are made now, in number and size as written
  const asked = Number(by === 'count' ? count : size);
  const forecast = by === 'count' ? sizesByCount(students, asked) : sizesBySize(students, asked, by);
  const names = forecast.ok
    ? namesFor(Math.min(forecast.sizes.length, mostNamesShown), pattern, pasted.split('\n'))
    : [];
  const tooMany = forecast.ok && forecast.sizes.length > mostGroups;
  const problem = error && problemOf(error);

  const bringBack = async (setId: string) => {
    if (await putAway({ setId, isPutAway: false })) void navigate(`../groups/${setId}`);
  };
  const make = () => {
    const equipped = gifts.length > 0 && { activities: activitiesOf(gifts) };
    if (fill === 'copy') return copy({ setId: original!.id, body: { name, withMembers: true, ...equipped } });
    if (fill === 'experts')
      return derive({
        setId: original!.id,
        body: {
          name,
          topics: topicsIn(topics),
          most: capacity === '' ? null : Number(capacity),
          seed,
          ...equipped,
        },
      });
    const shape: CreateGroupSet['shape'] =
      fill === 'hand-in'
        ? { by: 'hand-in' }
        : by === 'count'
          ? { by: 'count', groups: asked }
          : { by: 'size', size: asked, how: by };
    const body = {
      name,
      shape,
      capacity: capacity === '' ? null : Number(capacity),
      pattern,
      names: pasted.split('\n').filter((line) => line.trim() !== ''),
      isExclusive: !isSeveral || fill === 'sign-up',
      signUp: fill === 'sign-up' ? signUp : null,
      ...equipped,
    };
    return create({ courseId: course.id, body });
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const answer = await make();
    if (!('data' in answer) || !answer.data) return;
    const { id, activities } = answer.data;
    const next: Next = fill === 'deal' || fill === 'file' ? fill : 'board';
    if (activities.length > 0)
      void navigate(`../groups/${id}/ready`, { state: { activities, next } satisfies ReadyState });
    else void navigate(`../groups/${id}${next === 'board' ? '' : `?${next}`}`);
  };
  const groupCount = isMade
    ? forecast.ok
      ? forecast.sizes.length
      : 0
    : fill === 'copy'
      ? (original?.groupCount ?? 0)
      : fill === 'experts'
        ? (experts?.tables.length ?? 0)
        : null;
  return (
    <Page>
      <Bar>
        <h1>New group set</h1>
        <span className="grow" />
        <ButtonLink kind="quiet" to="../groups">
          Leave it
        </ButtonLink>
      </Bar>
      <Scroll>
        <Work onSubmit={(event) => void submit(event)}>
          <Parts>
            <SetPart title="What" says="For which purpose">
              <Field
                label="Name of the set"
                placeholder="Bench teams"
                value={name}
                onChange={setName}
                isRequired
                autoFocus
                fault={problem?.issues?.find((issue) => issue.path === 'name')?.message}
              />
            </SetPart>
            <SetPart title="Filling" says="Who sits where">
              <Shapes aria-label="How it is filled" value={fill} onChange={(value) => setFill(value as Fill)}>
                <Option value="hand">
                  By hand on the Board: drag students, or select them and type the number of a group
                </Option>
                <Option value="deal">
                  Dealt out: at random, in roster order or alphabetically; you see the groups before they
                  stand
                </Option>
                <Option value="sign-up">
                  By the students: each chooses a place, first come, never more than there are
                </Option>
                <Option value="file">
                  From a file with a column for the person and one for the group; you see what it does first
                </Option>
                <Option value="copy" isDisabled={!original}>
                  As in another set: the same groups with the same people, then on its own
                </Option>
                <Option value="experts" isDisabled={!original}>
                  Expert tables: one for each topic, with somebody from every group of another set
                </Option>
                <Option value="hand-in">
                  When they hand in: students name their partners then, up to as many as you say
                </Option>
              </Shapes>
              {fill === 'sign-up' && (
                <SignUpFields
                  value={signUp}
                  onChange={(next) => (next ? setSignUp(next) : setFill('hand'))}
                />
              )}
              {fill === 'sign-up' && capacity === '' && (
                <Small>No limit is set below: everybody could choose the same group.</Small>
              )}
              {fill === 'experts' && original && (
                <>
                  <Choice
                    label="Home groups"
                    value={original.id}
                    choices={sets.data.sets.map((set) => ({ id: set.id, label: set.name }))}
                    onChange={setCopyOf}
                  />
                  <Field
                    label="Topics, one a line"
                    lines={4}
                    value={topics}
                    onChange={setTopics}
                    placeholder={'Salt\nTemperature\nPackaging'}
                  />
                  <Figure
                    label="People at a table at most; more make parallel ones"
                    value={capacity}
                    onChange={(value) => setCapacity(value.replace(/\D/g, ''))}
                    isUsed
                  />
                </>
              )}
              {fill === 'copy' && original && (
                <Choice
                  label="Which set"
                  value={original.id}
                  choices={sets.data.sets.map((set) => ({ id: set.id, label: set.name }))}
                  onChange={setCopyOf}
                />
              )}
              {fill === 'hand-in' && (
                <Figure
                  label="People in a group at most"
                  value={capacity}
                  onChange={(value) => setCapacity(value.replace(/\D/g, ''))}
                  isUsed
                />
              )}
              {isMade && fill !== 'sign-up' && (
                <Tickbox>
                  <input
                    type="checkbox"
                    checked={isSeveral}
                    onChange={(event) => setSeveral(event.target.checked)}
                  />
                  <span>
                    A student may be in several of its groups <Small>Else everybody has one place.</Small>
                  </span>
                </Tickbox>
              )}
            </SetPart>
            {isMade && (
              <>
                <SetPart title="How many" says={`${students} students`}>
                  <Shapes aria-label="How many groups" value={by} onChange={(value) => setBy(value as By)}>
                    <ShapeRow>
                      <Option value="spread">Groups of about the same size, as even as can be</Option>
                      <Option value="fill">Full groups, and one with whoever is left</Option>
                      <Figure
                        label="Members in a group"
                        value={size}
                        onChange={setSize}
                        isUsed={by !== 'count'}
                      />
                    </ShapeRow>
                    <ShapeRow>
                      <Option value="count">Exactly so many groups</Option>
                      <Figure
                        label="Number of groups"
                        value={count}
                        onChange={setCount}
                        isUsed={by === 'count'}
                      />
                    </ShapeRow>
                  </Shapes>
                  <Figure
                    label="Places in each group, if there is a limit"
                    value={capacity}
                    onChange={(value) => setCapacity(value.replace(/\D/g, ''))}
                    isUsed
                  />
                </SetPart>
                <SetPart title="Names" says="Change them any time">
                  <Field
                    label="Pattern"
                    value={pattern}
                    onChange={setPattern}
                    hint="{n} becomes the number, {A} the letter"
                  />
                  <Field
                    label="Or paste names, one a line"
                    lines={4}
                    value={pasted}
                    onChange={setPasted}
                    placeholder={'Crock\nCarboy\nAmphora'}
                  />
                </SetPart>
              </>
            )}
            <SetPart title="Each gets" says="With the set, if you like">
              <EachGets gifts={gifts} onChange={setGifts} />
            </SetPart>
            {sets.data.putAway.length > 0 && (
              <SetPart title="Put away" says="Brought back as they were">
                {sets.data.putAway.map((each) => (
                  <div
                    key={each.id}
                    style={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center' }}
                  >
                    <b>{each.name}</b>
                    <Button
                      isSmall
                      onPress={() => void bringBack(each.id)}
                      aria-label={`Bring ${each.name} back`}
                    >
                      Bring it back
                    </Button>
                  </div>
                ))}
              </SetPart>
            )}
          </Parts>
          <Forecast aria-label="Forecast" aria-live="polite">
            <div>
              {isMade ? (
                <>
                  <h2>{forecast.ok ? sayForecast(forecast.sizes) : 'What will be made'}</h2>
                  {forecast.ok ? (
                    <p>
                      {students} students, {fillSays[fill]}.
                      {forecast.emptyGroups > 0 &&
                        ` ${forecast.emptyGroups} groups stay empty: there are more groups than students.`}
                      {capacity !== '' &&
                        forecast.sizes[0]! > Number(capacity) &&
                        ` The largest would have ${forecast.sizes[0]} of ${capacity} places.`}
                    </p>
                  ) : (
                    <p>Write a whole number above 0.</p>
                  )}
                  {forecast.ok && (
                    <ol>
                      {names.map((each, at) => (
                        <li key={at}>
                          <Emblem number={at + 1} size={26} />
                          <b>{each}</b>
                          <span>{forecast.sizes[at]}</span>
                        </li>
                      ))}
                    </ol>
                  )}
                  {forecast.ok && forecast.sizes.length > mostNamesShown && (
                    <p>and {forecast.sizes.length - mostNamesShown} more</p>
                  )}
                </>
              ) : fill === 'experts' ? (
                <Experts experts={experts} homeSet={original?.name ?? 'another set'} />
              ) : fill === 'copy' ? (
                <>
                  <h2>
                    {original
                      ? `${original.groupCount} groups, as in ${original.name}`
                      : 'No set to copy yet'}
                  </h2>
                  {original && (
                    <p>{`${students - original.unplaced} of ${students} students keep their places. Changes in one of the sets do not change the other.`}</p>
                  )}
                </>
              ) : (
                <>
                  <h2>No groups yet</h2>
                  <p>
                    {`${students} students, ${fillSays['hand-in']}${capacity === '' ? '' : `, at most ${capacity} together`}. `}
                    You may make groups on the Board meanwhile.
                  </p>
                </>
              )}
              {gifts.length > 0 && (
                <>
                  <h2 style={{ marginTop: 20 }}>Each group gets</h2>
                  <p>Private to each; the others do not know of it.</p>
                  <GiftLines gifts={gifts} groups={groupCount} />
                </>
              )}
              {(problem || copying.error || deriving.error) && (
                <ProblemStrip of={error ?? copying.error ?? deriving.error} />
              )}
              <div style={{ marginTop: 16, display: 'flex', justifyContent: 'flex-end' }}>
                <Button
                  type="submit"
                  kind="main"
                  isDisabled={
                    (isMade && (!forecast.ok || tooMany)) ||
                    (fill === 'experts' && !experts) ||
                    isLoading ||
                    copying.isLoading ||
                    deriving.isLoading ||
                    name.trim() === ''
                  }
                >
                  {!isMade
                    ? 'Make the set'
                    : forecast.ok
                      ? `Make ${forecast.sizes.length} groups`
                      : 'Make groups'}
                </Button>
              </div>
            </div>
          </Forecast>
        </Work>
      </Scroll>
    </Page>
  );
}

const topicsIn = (text: string): string[] => [
  ...new Set(
    text
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean),
  ),
];

/** As the server will make them of the same groups. */
function expertsOf(
  { sets, entries }: RosterView,
  setId: GroupSetId,
  topics: readonly string[],
  most: string,
  seed: number,
): ExpertTables {
  const groups = sets.find((set) => set.id === setId)?.groups ?? [];
  const homes = groups.map((group) => ({
    name: group.name,
    members: entries
      .flatMap((entry) => (entry.groups.some((own) => own.groupId === group.id) ? [entry.enrolmentId] : []))
      .sort(),
  }));
  return expertTables({ homes, topics, most: most === '' ? null : Math.max(1, Number(most)), seed });
}

function Experts({ experts, homeSet }: { readonly experts: ExpertTables | null; readonly homeSet: string }) {
  if (!experts) {
    return (
      <>
        <h2>One table a topic</h2>
        <p>Name the topics: every group of {homeSet} sends somebody to each.</p>
      </>
    );
  }
  const { tables, lacking } = experts;
  return (
    <>
      <h2>{counted(tables.length, 'table')}</h2>
      <p>
        Everybody in a group of {homeSet} has a topic.
        {lacking.length > 0 &&
          ` ${lacking.length === 1 ? 'One group is' : `${lacking.length} groups are`} smaller than the number of topics: ${lacking
            .slice(0, 3)
            .map((each) => `${each.home} has nobody for ${each.topics.join(' and ')}`)
            .join('; ')}${lacking.length > 3 ? '; and others' : ''}.`}
      </p>
      <ol>
        {tables.map((table, at) => (
          <li key={at}>
            <Emblem number={at + 1} size={26} />
            <b>{tableName(table)}</b>
            <span>{table.members.length}</span>
          </li>
        ))}
      </ol>
    </>
  );
}

function SetPart({
  title,
  says,
  children,
}: {
  readonly title: string;
  readonly says: string;
  readonly children: ReactNode;
}) {
  return (
    <Narrow>
      <header>
        <h2>{title}</h2>
        <p>{says}</p>
      </header>
      <div>{children}</div>
    </Narrow>
  );
}

/** A whole number on a line of its own. One that does not count at the moment stays, and steps back. */
function Figure({
  label,
  value,
  onChange,
  isUsed,
}: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly isUsed: boolean;
}) {
  return (
    <FigureRow
      value={value}
      onChange={onChange}
      inputMode="numeric"
      isDisabled={!isUsed}
      data-idle={!isUsed || undefined}
    >
      <Label>{label}</Label>
      <Input />
    </FigureRow>
  );
}
