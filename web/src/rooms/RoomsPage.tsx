import { useDeferredValue, useState } from 'react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import type { RoomItem, RoomLine, RoomLines } from '@jigsaw/contract/rooms';
import type { CopyId, GroupId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import { counted, fold } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useAudienceFilter } from '../audiences/index.js';
import { useCourse } from '../course/index.js';
import { kindOf } from '../kinds/index.js';
import {
  Bar,
  Button,
  ButtonLink,
  Choice,
  Empty,
  FindField,
  Muted,
  Page,
  Segments,
  Waiting,
} from '../look/index.js';
import { useNow } from '../page/index.js';
import {
  Answered,
  ofKind,
  RoundSoFar,
  stopsFor,
  useListRoomLinesQuery,
  useMinutes,
  useRound,
  WhereToGo,
} from '../rounds/index.js';
import { RoomTable } from './RoomTable.js';
import { Things } from './Things.js';
import { WriteTo } from './WriteTo.js';

const Common = styled.section`
  padding: 6px var(--s-4);
  border-bottom: var(--hair);
  header {
    display: flex;
    gap: 10px;
    align-items: center;
    min-height: 32px;
  }
  header + * {
    margin: 6px 0;
  }
`;
const Rest = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
`;
const Foot = styled.footer`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  min-height: 42px;
  padding: 4px var(--s-4);
  border-top: var(--hair);
  background: var(--paper);
  font: var(--t-13);
  color: var(--ink-2);
  .grow {
    flex: 1;
  }
`;

const orders = [
  { id: 'needs', label: 'Needs you first' },
  { id: 'new', label: 'New first' },
  { id: 'quiet', label: 'Quietest first' },
  { id: 'number', label: 'By number' },
] as const;
type Order = (typeof orders)[number]['id'];

const inOrder: Readonly<Record<Order, (a: RoomLine, b: RoomLine) => number>> = {
  needs: (a, b) => b.score - a.score || b.unread - a.unread,
  new: (a, b) => b.unread - a.unread,
  quiet: (a, b) => (a.latest?.at ?? '').localeCompare(b.latest?.at ?? ''),
  number: () => 0, // as they come
};

const unreadIn = (items: readonly { readonly unread: number }[]) =>
  items.reduce((sum, item) => sum + item.unread, 0);
function sayNews({ lines, common }: RoomLines): string {
  const unread = lines.filter((line) => line.unread > 0);
  const shared = unreadIn(common);
  const said = [
    unread.length > 0 &&
      `${counted(unreadIn(unread), 'unread', 'unread')} in ${counted(unread.length, 'room')}`,
    shared > 0 && `${shared} in ${unread.length > 0 ? '' : 'the '}common copies`,
  ].filter(Boolean);
  return said.length === 0 ? 'All read' : said.join(', ');
}

const firstUnread = (lines: readonly RoomLine[], common: readonly RoomItem[]) =>
  lines.find((line) => line.firstUnread !== null)?.firstUnread ??
  common.find((item) => item.unread > 0)?.copyId;

/** Time alone makes rooms need someone: something comes to be due soon, or is put off no longer. */
const whileItIsOpen = { pollingInterval: 5 * 60_000, skipPollingIfUnfocused: true } as const;

/** All rooms at a glance for staff: who needs someone, and why; where to go first; and where nothing happens. */
export function RoomsPage() {
  const { course } = useCourse();
  const rooms = useListRoomLinesQuery(course.id, whileItIsOpen);
  if (unshown(rooms) !== undefined)
    return <ProblemStrip of={rooms.error} onRetry={() => void rooms.refetch()} />;
  if (!rooms.data) return <Waiting what="the rooms" rows={10} />;
  return <AllRooms rooms={rooms.data} />;
}

const every = 'all';
const led = 'led';

interface Wanted {
  readonly setId: string;
  readonly isLed: boolean;
  /** null: whatever group it is. */
  readonly groups: ReadonlySet<GroupId> | null;
  readonly kind: string;
}
/** The rooms that are looked for, each as far as it is about what is looked for. */
const narrowed = (lines: readonly RoomLine[], { setId, isLed, groups, kind }: Wanted, now: number) =>
  lines
    .filter(({ group }) => setId === every || group.setId === setId)
    .filter((line) => !isLed || line.isLed)
    .filter(({ group }) => groups === null || groups.has(group.id))
    .filter(({ kinds }) => kind === every || kinds.includes(kind))
    .map((line) => (kind === every ? line : ofKind(line, kind, now)));

function AllRooms({ rooms }: { readonly rooms: RoomLines }) {
  const { course } = useCourse();
  const { lines, common } = rooms;
  const [chosenSet, setChosenSet] = useState(every);
  const [whose, setWhose] = useState(every);
  const [chosenKind, setChosenKind] = useState(every);
  const [order, setOrder] = useState<Order>('needs');
  const [wanted, setWanted] = useState('');
  const [isUnfolded, setUnfolded] = useState(false);
  const [minutes, setMinutes] = useMinutes();
  const [round] = useRound(course.id);
  const sought = useDeferredValue(wanted);
  const now = useNow(null);
  const audience = useAudienceFilter(course.id, whose);
  const sets = setsIn(lines);
  const kinds = [...new Set(lines.flatMap((line) => line.kinds))].map((kind) => ({ id: kind, label: kindOf(kind)?.word ?? kind })); // prettier-ignore
  const setId = sets.some(({ id }) => id === chosenSet) ? chosenSet : every;
  const kind = kinds.some(({ id }) => id === chosenKind) ? chosenKind : every;
  const found = narrowed(lines, { setId, isLed: whose === led, groups: audience.groups, kind }, now);
  const proposed = stopsFor(found.toSorted(inOrder.needs), minutes);
  const ordered = found.filter((line) => isSought(line, sought)).toSorted(inOrder[order]);
  const isWhole = order === 'needs' && sought === '';
  const quiet = isWhole ? ordered.filter(isQuiet).length : 0;
  const mayFold = quiet > 0 && quiet < ordered.length;
  const shown = mayFold && !isUnfolded ? ordered.filter((line) => !isQuiet(line)) : ordered;
  return (
    <Page>
      <Bar>
        <h1>Rooms</h1>
        {sets.length > 1 && (
          <SetChoice
            sets={[{ id: every, label: 'All sets' }, ...sets]}
            value={setId}
            onChange={setChosenSet}
          />
        )}
        <Whose lines={lines} audiences={audience.choices} value={whose} onChange={setWhose} />
        {kinds.length > 1 && (
          <Choice
            label="Kind"
            isLabelHidden
            value={kind}
            choices={[{ id: every, label: 'All kinds' }, ...kinds]}
            onChange={setChosenKind}
          />
        )}
        <span className="grow" />
        <FindField
          label="Find a member or a group"
          placeholder="Find a member or a group"
          value={wanted}
          onChange={setWanted}
          width={230}
        />
        <Choice label="Order" isLabelHidden value={order} choices={orders} onChange={setOrder} />
      </Bar>
      <Rest>
        <div>
          {audience.error !== undefined && <ProblemStrip of={audience.error} />}
          {round ? (
            <RoundSoFar lines={lines} />
          ) : (
            <WhereToGo
              stops={proposed}
              rooms={found.filter(({ needs }) => needs.length > 0).length}
              minutes={minutes}
              onMinutes={setMinutes}
            />
          )}
          {common.length > 0 && <InCommon items={common} />}
        </div>
        {lines.length === 0 ? (
          <Empty
            title="No rooms yet"
            action={
              <ButtonLink kind="main" to="../groups">
                To the groups
              </ButtonLink>
            }
          >
            Every group has a room as soon as there is a group set.
          </Empty>
        ) : shown.length > 0 ? (
          <RoomTable
            lines={shown}
            isOfSeveralSets={setsIn(shown).length > 1}
            stops={isWhole && !round ? proposed.length : 0}
          />
        ) : sought === '' ? (
          <Empty title="No room is like that">Choose fewer things above.</Empty>
        ) : (
          <Empty title="No one has that name">Try a part of a member’s or a group’s name.</Empty>
        )}
        <Below rooms={rooms} first={firstUnread(shown, common)}>
          {mayFold && (
            <>
              <span>{counted(quiet, 'room needs', 'rooms need')} no one now.</span>
              <Button isSmall aria-expanded={isUnfolded} onPress={() => setUnfolded(!isUnfolded)}>
                {isUnfolded ? 'Fold away' : quiet === 1 ? 'Show it' : 'Show them'}
              </Button>
            </>
          )}
          <WriteTo lines={shown} />
        </Below>
      </Rest>
    </Page>
  );
}

interface WhoseProps {
  readonly lines: readonly RoomLine[];
  readonly audiences: readonly { readonly id: string; readonly label: string }[];
  readonly value: string;
  readonly onChange: (value: string) => void;
}
/** Nothing where there is nothing to choose. */
function Whose({ lines, audiences, value, onChange }: WhoseProps) {
  const leads = lines.some(({ isLed }) => isLed) && !lines.every(({ isLed }) => isLed);
  const choices = [
    { id: every, label: 'All groups' },
    ...(leads ? [{ id: led, label: 'Groups you lead' }] : []),
    ...audiences,
  ];
  return choices.length > 1 ? (
    <Choice label="Whose rooms" isLabelHidden value={value} choices={choices} onChange={onChange} />
  ) : null;
}

interface BelowProps {
  readonly rooms: RoomLines;
  /** The first copy with something unread. */
  readonly first: CopyId | undefined;
  readonly children: ReactNode;
}
/** What is new in all, what one has answered, and what is folded away. */
function Below({ rooms, first, children }: BelowProps) {
  const [isShown, setShown] = useState(false);
  const answered = rooms.lines.filter((line) => line.answered.length > 0);
  const count = answered.reduce((sum, line) => sum + line.answered.length, 0);
  return (
    <div>
      {isShown && count > 0 && <Answered lines={answered} />}
      <Foot>
        <span>{sayNews(rooms)}</span>
        {first && (
          <ButtonLink isSmall to={`../copies/${first}`}>
            Read the first new
          </ButtonLink>
        )}
        <span className="grow" />
        {count > 0 && (
          <>
            <span>{counted(count, 'thing')} that you have answered.</span>
            <Button isSmall aria-expanded={isShown} onPress={() => setShown(!isShown)}>
              {isShown ? 'Fold away' : 'Show'}
            </Button>
          </>
        )}
        {children}
      </Foot>
    </div>
  );
}

/** What several groups or the class have in one copy: folded away, since it is no group's room. */
function InCommon({ items }: { readonly items: readonly RoomItem[] }) {
  const { dates } = useCourse();
  const [isShown, setShown] = useState(false);
  const unread = unreadIn(items);
  return (
    <Common aria-label="One copy for all">
      <header>
        <h2>One copy for all</h2>
        <Muted>
          {counted(items.length, 'activity', 'activities')}
          {unread > 0 && `, ${counted(unread, 'unread', 'unread')}`}
        </Muted>
        <Button isSmall aria-expanded={isShown} onPress={() => setShown(!isShown)}>
          {isShown ? 'Fold away' : 'Show'}
        </Button>
      </header>
      {isShown && <Things label="One copy for all" items={items} dates={dates} />}
    </Common>
  );
}

const mostSideBySide = 3;

interface SetChoiceProps {
  readonly sets: readonly Named[];
  readonly value: string;
  readonly onChange: (setId: string) => void;
}
function SetChoice({ sets, value, onChange }: SetChoiceProps) {
  return sets.length > mostSideBySide ? (
    <Choice label="Group set" isLabelHidden value={value} choices={sets} onChange={onChange} />
  ) : (
    <Segments label="Group set" value={value} choices={sets} onChange={onChange} />
  );
}

interface Named {
  readonly id: string;
  readonly label: string;
}
const setsIn = (lines: readonly RoomLine[]): readonly Named[] =>
  [...keyedBy(lines, ({ group }) => group.setId).values()].map(({ group }) => ({ id: group.setId, label: group.setName })); // prettier-ignore

/** No one has to go there: nothing is open, and all of it is read. */
const isQuiet = ({ needs, unread }: RoomLine) => needs.length === 0 && unread === 0;

const isSought = ({ group, members }: RoomLine, sought: string) =>
  [group.name, ...members].some((name) => fold(name).includes(fold(sought)));
