import { Check, ChevronDown } from 'lucide-react';
import { useId, useMemo } from 'react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { z } from 'zod';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import type { Meter } from '@jigsaw/core/placing';
import { meterOf, sizeMeter } from '@jigsaw/core/placing';
import { Button, Popup, Small } from '../look/index.js';
import { useStored } from '../page/index.js';
import { capacityOf, seatingOf } from './seating.js';

const Strip = styled.section`
  display: grid;
  grid-template-columns: 248px minmax(0, 1fr);
  min-height: 44px;
  border-bottom: var(--hair);
  background: var(--surface);
  > div {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  }
  > header,
  > div > * {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 4px var(--s-3);
    border-left: var(--hair);
    min-width: 0;
    min-height: 43px;
    overflow: hidden;
  }
  > header {
    border-left: 0;
    padding-left: var(--s-4);
    justify-content: space-between;
  }
  h2 {
    font: var(--h-14);
  }
  b {
    font: 620 12px/15px var(--font-text);
    display: block;
  }
  div > div > span > * {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    display: block;
  }
  div > div > span {
    min-width: 0;
  }
  /* In a small or enlarged window it is one line that scrolls to the side. */
  @media (max-width: 900px) {
    grid-template-columns: auto minmax(0, 1fr);
    > div {
      display: flex;
      overflow-x: auto;
    }
    > div > * {
      flex: none;
      width: 240px;
    }
  }
`;

const [width, height] = [96, 28];
const mostMeters = 3;
const size = 'Size';

/** How evenly the groups are made: one bar a group in their order, a line at the goal, and what it comes to in words. */
export function Balance({ board }: { readonly board: BoardView }) {
  const all = useMemo(() => metersOf(board), [board]);
  const { isShown, setShown } = useShown(
    board,
    all.map((each) => each.name),
  );
  const meters = all.filter((each) => isShown(each.name));
  if (board.groups.length < 2 || board.students.every((student) => student.seats.length === 0)) return null;
  return (
    <Strip aria-label="Balance">
      <header>
        <h2>Balance</h2>
        {all.length > meters.length || all.length > mostMeters + 1 ? (
          <MenuTrigger>
            <Button kind="quiet" isSmall aria-label="What is measured">
              {meters.length} of {all.length}
              <ChevronDown size={13} aria-hidden="true" />
            </Button>
            <Popup>
              <Menu
                aria-label="What is measured"
                selectionMode="multiple"
                selectedKeys={meters.map((each) => each.name)}
                onSelectionChange={(keys) =>
                  setShown(keys === 'all' ? all.map((each) => each.name) : [...keys].map(String))
                }
              >
                {all.map(({ name }) => (
                  <MenuItem
                    key={name}
                    id={name}
                    textValue={name}
                    style={{ display: 'flex', gap: 8, alignItems: 'center' }}
                  >
                    {isShown(name) ? <Check size={14} aria-hidden="true" /> : <span style={{ width: 14 }} />}
                    {name}
                  </MenuItem>
                ))}
              </Menu>
            </Popup>
          </MenuTrigger>
        ) : (
          <Small>one bar a group, 1 to {board.groups.length}</Small>
        )}
      </header>
      <div>
        {meters.map(({ name, meter }) => (
          <div key={name} title={meter.finding}>
            <Bars meter={meter} />
            <span>
              <b>{name}</b>
              <Small>{meter.finding}</Small>
            </span>
          </div>
        ))}
      </div>
    </Strip>
  );
}

function Bars({ meter: { bars, goal } }: { readonly meter: Meter }) {
  const most = Math.max(goal, ...bars.map((bar) => bar.value ?? 0)) || 1;
  const step = width / bars.length;
  const stripes = useId();
  const y = (value: number) => height - (value / most) * (height - 2);
  return (
    <svg aria-hidden="true" width={width} height={height} style={{ flex: 'none' }}>
      {/* Out of the even: striped, as a rule that falls short is. */}
      <pattern id={stripes} width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="2" height="4" fill="var(--ink)" />
      </pattern>
      {bars.map((bar, at) => (
        <rect
          key={bar.id}
          x={at * step}
          y={y(bar.value ?? 0)}
          width={Math.max(1, step - 1)}
          height={Math.max(bar.value === null ? 0 : 1, height - y(bar.value ?? 0))}
          fill={bar.isOut ? `url(#${stripes})` : 'var(--ink-3)'}
          stroke={bar.isOut ? 'var(--ink)' : 'none'}
        />
      ))}
      <line x1={0} x2={width} y1={y(goal)} y2={y(goal)} stroke="var(--ink)" />
    </svg>
  );
}

/** Which meters are shown: the first few, until someone chooses; kept in this browser. */
function useShown(board: BoardView, names: readonly string[]) {
  const [chosen, setShown] = useStored(`balance ${board.set.id}`, z.array(z.string()));
  const usual = [...names.slice(0, mostMeters), size];
  return {
    isShown: (name: string) => (chosen ?? usual).includes(name),
    setShown,
  };
}

/** Every attribute that can be measured, those that show most first; sizes last. */
function metersOf(board: BoardView): { name: string; meter: Meter }[] {
  const seating = seatingOf(board);
  const members = board.groups.map((group) => ({ group, own: sure(seating.get(group.id)) }));
  const attributes = board.attributes.flatMap(({ name, kind }) => {
    const meter = meterOf(
      kind,
      members.map(({ group, own }) => ({
        id: group.id,
        name: group.name,
        values: own.map((student) => student.attributes[name]),
      })),
    );
    return meter ? [{ name, meter, kind }] : [];
  });
  // What can be evened out comes first: a category of few kinds, a number, common time.
  const kindsIn = (name: string) => new Set(board.students.map((student) => student.attributes[name])).size;
  const ranked = attributes.sort((a, b) => kindsIn(a.name) - kindsIn(b.name));
  const freeTime = ranked.findIndex((each) => each.kind === 'half-days');
  if (freeTime >= mostMeters) ranked.splice(mostMeters - 1, 0, ...ranked.splice(freeTime, 1));
  const sizes = sizeMeter(
    members.map(({ group, own }) => ({
      id: group.id,
      name: group.name,
      members: own.length,
      capacity: capacityOf(board, group),
    })),
  );
  return [...ranked, { name: size, meter: sizes }];
}
