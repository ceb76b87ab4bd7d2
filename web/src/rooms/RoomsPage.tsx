import { useDeferredValue, useState } from 'react';
import { styled } from 'styled-components';
import type { RoomItem, RoomLine, RoomLines } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { counted, fold } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse } from '../course/index.js';
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
import { RoomTable } from './RoomTable.js';
import { useListRoomLinesQuery } from './roomsApi.js';
import { Things } from './Things.js';

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
const Folded = styled.footer`
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 42px;
  padding: 4px var(--s-4);
  border-top: var(--hair);
  background: var(--paper);
  font: var(--t-13);
  color: var(--ink-2);
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

/** All rooms at a glance for staff: where something is new or missing, and where nothing happens. */
export function RoomsPage() {
  const { course } = useCourse();
  const rooms = useListRoomLinesQuery(course.id);
  const [chosenSet, setChosenSet] = useState<string | null>(null);
  const [order, setOrder] = useState<Order>('needs');
  const [wanted, setWanted] = useState('');
  const [isUnfolded, setUnfolded] = useState(false);
  const sought = useDeferredValue(wanted);
  if (unshown(rooms) !== undefined)
    return <ProblemStrip of={rooms.error} onRetry={() => void rooms.refetch()} />;
  if (!rooms.data) return <Waiting what="the rooms" rows={10} />;
  const { lines, common } = rooms.data;
  const sets = setsIn(lines);
  const setId = sets.find((set) => set.id === chosenSet)?.id ?? sets[0]?.id;
  const found = lines
    .filter((line) => line.group.setId === setId && isSought(line, sought))
    .sort(inOrder[order]);
  const quiet = order === 'needs' && sought === '' ? found.filter(isQuiet).length : 0;
  const isFolded = !isUnfolded && quiet > 0 && quiet < found.length;
  const shown = isFolded ? found.filter((line) => !isQuiet(line)) : found;
  const first = firstUnread(shown, common);
  return (
    <Page>
      <Bar>
        <h1>Rooms</h1>
        <Muted>{sayNews(rooms.data)}</Muted>
        {sets.length > 1 && <SetChoice sets={sets} value={sure(setId)} onChange={setChosenSet} />}
        <span className="grow" />
        <FindField
          label="Find a member or a group"
          placeholder="Find a member or a group"
          value={wanted}
          onChange={setWanted}
          width={250}
        />
        <Choice label="Order" isLabelHidden value={order} choices={orders} onChange={setOrder} />
        {first && (
          <ButtonLink kind="main" to={`../copies/${first}`}>
            Read the first new
          </ButtonLink>
        )}
      </Bar>
      <Rest>
        <div>{common.length > 0 && <InCommon items={common} />}</div>
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
        ) : shown.length === 0 ? (
          <Empty title="No one has that name">Try a part of a member’s or a group’s name.</Empty>
        ) : (
          <RoomTable lines={shown} />
        )}
        {quiet > 0 && quiet < found.length && (
          <Folded>
            <span>{counted(quiet, 'room needs', 'rooms need')} no one now.</span>
            <Button isSmall aria-expanded={isUnfolded} onPress={() => setUnfolded(!isUnfolded)}>
              {isUnfolded ? 'Fold them away' : quiet === 1 ? 'Show it' : 'Show them'}
            </Button>
          </Folded>
        )}
      </Rest>
    </Page>
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
  readonly sets: readonly NamedSet[];
  readonly value: string;
  readonly onChange: (setId: string) => void;
}
function SetChoice({ sets, value, onChange }: SetChoiceProps) {
  const choices = sets.map(({ id, name }) => ({ id, label: name }));
  return sets.length > mostSideBySide ? (
    <Choice label="Group set" isLabelHidden value={value} choices={choices} onChange={onChange} />
  ) : (
    <Segments label="Group set" value={value} choices={choices} onChange={onChange} />
  );
}

interface NamedSet {
  readonly id: string;
  readonly name: string;
}
/** Sets with work in them come first. */
function setsIn(lines: readonly RoomLine[]): readonly NamedSet[] {
  const sets = new Map<string, { id: string; name: string; hasWork: boolean }>();
  for (const { group, items } of lines) {
    const set = sets.get(group.setId) ?? { id: group.setId, name: group.setName, hasWork: false };
    sets.set(group.setId, { ...set, hasWork: set.hasWork || items > 0 });
  }
  return [...sets.values()].sort((a, b) => Number(b.hasWork) - Number(a.hasWork));
}

/** No one has to go there: nothing is open, and all of it is read. */
const isQuiet = ({ needs, unread }: RoomLine) => needs.length === 0 && unread === 0;

const isSought = ({ group, members }: RoomLine, sought: string) =>
  [group.name, ...members].some((name) => fold(name).includes(fold(sought)));
