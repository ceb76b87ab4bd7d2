import { useMemo, useState } from 'react';
import { RadioGroup, ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupId } from '@jigsaw/core/ids';
import type { Place } from '@jigsaw/core/placing';
import { sayForecast } from '@jigsaw/core/sets';
import { counted } from '@jigsaw/core/text';
import { Button, Emblem, Field, Label, Option, Segments, Sheet, Small } from '../look/index.js';
import { deal } from './dealOut.js';
import type { Order, Who } from './dealOut.js';
import { DealtPreview } from './DealtPreview.js';
import { membersOf } from './seating.js';
import type { Chosen } from './seating.js';

const Choices = styled(RadioGroup)`
  display: grid;
  gap: 6px;
  margin-bottom: 12px;
  > label[data-rac],
  > span:first-child {
    margin-bottom: 2px;
  }
`;
const Ordered = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 8px;
  margin-bottom: 4px;
  > :first-child {
    display: grid;
    gap: 4px;
    flex: none;
  }
  > :nth-child(2) {
    width: 84px;
  }
`;
const orders: readonly { readonly id: Order; readonly label: string }[] = [
  { id: 'random', label: 'At random' },
  { id: 'roster', label: 'Roster order' },
  { id: 'alphabet', label: 'Alphabetical' },
];
const hints: Record<Order, string> = {
  random: 'The same seed gives the same groups again, on any machine.',
  roster: 'By student number, one group after the other in turn.',
  alphabet: 'By family name, one group after the other in turn.',
};
const mostSeeds = 10_000;
const someSeed = () => String(Math.floor(Math.random() * mostSeeds));

const Groups = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  max-height: 132px;
  overflow: auto;
  padding: 2px;
  button {
    display: flex;
    align-items: center;
    gap: 5px;
    height: 28px;
    padding: 0 8px 0 3px;
    border: 1px solid var(--line);
    border-radius: var(--r-2);
    background: none;
    color: var(--ink-3);
    font: var(--t-12);
    cursor: pointer;
  }
  button svg {
    opacity: 0.35;
  }
  button[data-selected] {
    border-color: var(--ink);
    background: var(--surface);
    color: var(--ink);
  }
  button[data-selected] svg {
    opacity: 1;
  }
`;

interface DealSheetProps {
  readonly board: BoardView;
  readonly selected: Chosen;
  readonly onDeal: (place: Place, says: string) => void;
  readonly onClose: () => void;
}

/** Gives out places in some order, with what comes of it before anything happens. One step of the Board: undone like any other. */
export function DealSheet({ board, selected, onDeal, onClose }: DealSheetProps) {
  const unplaced = membersOf(board, null).length;
  const [who, setWho] = useState<Who>(selected.size > 0 ? 'selected' : unplaced > 0 ? 'unplaced' : 'all');
  const [into, setInto] = useState<ReadonlySet<GroupId>>(
    () => new Set(board.groups.flatMap((group) => (group.isLocked ? [] : [group.id]))),
  );
  const [order, setOrder] = useState<Order>('random');
  const [seed, setSeed] = useState(someSeed);
  const dealt = useMemo(
    () => deal(board, who, order, Number(seed) || 0, selected, into),
    [board, who, order, seed, selected, into],
  );
  const count = new Set(dealt.place.moves.map((move) => move.student)).size;
  const students = count === 1 ? 'student' : 'students';
  return (
    <Sheet title="Deal places" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (count === 0) return;
          onDeal(
            dealt.place,
            `${count} ${students} dealt ${order === 'random' ? `at random, seed ${seed}` : order === 'roster' ? 'in roster order' : 'alphabetically'}`,
          );
          onClose();
        }}
      >
        <Choices value={who} onChange={(next) => setWho(next as Who)}>
          <Label>Who</Label>
          {selected.size > 0 && (
            <Option value="selected">
              <b>The {selected.size} selected</b>
              <Small>Spread over the groups that you choose below.</Small>
            </Option>
          )}
          <Option value="unplaced" isDisabled={unplaced === 0}>
            <b>The {unplaced} unplaced</b>
            <Small>People already placed stay where they are.</Small>
          </Option>
          <Option value="all">
            <b>Everyone again</b>
            <Small>All places are dealt again. Locked groups stay as they are.</Small>
          </Option>
        </Choices>
        <Ordered>
          <div>
            <Label as="span">In which order</Label>
            <Segments label="In which order" value={order} choices={orders} onChange={setOrder} />
          </div>
          {order === 'random' && (
            <>
              <Field
                label="Seed"
                inputMode="numeric"
                value={seed}
                onChange={(next) => setSeed(next.replace(/\D/g, '').slice(0, 9))}
              />
              <Button onPress={() => setSeed(someSeed())}>Deal again</Button>
            </>
          )}
        </Ordered>
        <Small>{hints[order]}</Small>
        <div style={{ marginTop: 12, display: 'grid', gap: 4 }}>
          <Label id="into-which">Into which groups</Label>
          <Groups
            aria-labelledby="into-which"
            selectionMode="multiple"
            selectedKeys={into}
            onSelectionChange={(keys) => setInto(new Set([...keys] as GroupId[]))}
          >
            {board.groups.map((group) => (
              <ToggleButton key={group.id} id={group.id} isDisabled={group.isLocked}>
                <Emblem number={group.number} size={22} />
                {group.name}
              </ToggleButton>
            ))}
          </Groups>
        </div>
        <p style={{ marginTop: 12 }} role="status">
          <b>{sayForecast(dealt.sizes)}</b>
          {dealt.left > 0 &&
            ` ${counted(dealt.left, 'student finds', 'students find')} no room and ${dealt.left === 1 ? 'stays' : 'stay'} unplaced.`}
        </p>
        <DealtPreview board={board} place={dealt.place} />
        <footer>
          <Button onPress={onClose}>Cancel</Button>
          <Button kind="main" type="submit" isDisabled={count === 0}>
            {count === 0 ? 'No one would move' : `Deal ${count} ${students}`}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
