import { useState } from 'react';
import { Dialog, DialogTrigger } from 'react-aria-components';
import type { BoardView } from '@jigsaw/contract/placing';
import { nameByPattern, resizeGroups, sayForecast, sizesByCount } from '@jigsaw/core/sets';
import type { Resizing } from '@jigsaw/core/sets';
import { counted } from '@jigsaw/core/text';
import { Button, Field, Popup, Small } from '../look/index.js';
import { useAct } from '../page/index.js';
import { added, asItIs, useEditGroupsMutation } from '../placing/index.js';

/** How large the groups are that are dealt into, to be chosen here: groups are added, or locked, until they fit. */
export function GroupSize({ board }: { readonly board: BoardView }) {
  const { set } = board;
  const open = board.groups.filter((group) => !group.isLocked);
  const [size, setSize] = useState<string | null>(null); // null: as it is
  const resize = useResize(board);
  const wanted = Number(size ?? set.capacity ?? 4);
  const plan = wanted > 0 ? planFor(board, wanted) : null;
  return (
    <DialogTrigger>
      <Button kind="quiet">
        {counted(open.length, 'group')}
        {set.capacity === null ? '' : ` of ${set.capacity}`}…
      </Button>
      <Popup placement="bottom end">
        <Dialog aria-label="Size of the groups" style={{ padding: 8, width: 280, outline: 'none' }}>
          {({ close }) => (
            <form
              style={{ display: 'grid', gap: 8 }}
              onSubmit={(event) => {
                event.preventDefault();
                if (!plan) return;
                close();
                setSize(null);
                void resize(plan, wanted);
              }}
            >
              <Field
                label="Students per group"
                inputMode="numeric"
                value={size ?? String(wanted)}
                onChange={(text) => setSize(text.replace(/\D/g, '').slice(0, 3))}
              />
              {plan && <Small role="status">{sayPlan(plan)}</Small>}
              <Button type="submit" kind="main" isDisabled={!plan}>
                Use groups of {wanted > 0 ? wanted : '…'}
              </Button>
            </form>
          )}
        </Dialog>
      </Popup>
    </DialogTrigger>
  );
}

function planFor({ groups, students }: BoardView, size: number): Resizing {
  const members = new Map<string, number>();
  for (const student of students)
    for (const { groupId } of student.seats) members.set(groupId, (members.get(groupId) ?? 0) + 1);
  return resizeGroups(
    groups.map((group) => ({ isLocked: group.isLocked, members: members.get(group.id) ?? 0 })),
    students.length,
    size,
  );
}

/** “16 groups of 3. 4 groups are added.” */
function sayPlan({ dealt, groups, added: more, unlocked, locked, beyond }: Resizing): string {
  const forecast = sizesByCount(dealt, groups);
  return [
    forecast.ok ? `${sayForecast(forecast.sizes)}.` : '',
    more > 0 ? `${counted(more, 'group is', 'groups are')} added.` : '',
    unlocked.length > 0 ? `${counted(unlocked.length, 'empty group is', 'empty groups are')} unlocked.` : '',
    locked.length > 0
      ? `${counted(locked.length, 'empty group is', 'empty groups are')} locked, so no one is dealt into ${locked.length === 1 ? 'it' : 'them'}.`
      : '',
    beyond > 0
      ? `${counted(beyond, 'group', 'groups')} more ${beyond === 1 ? 'has' : 'have'} members and ${beyond === 1 ? 'stays' : 'stay'}. Remove them on the Board first for fewer groups.`
      : '',
  ]
    .filter((sentence) => sentence !== '')
    .join(' ');
}

/** Resizes the set in one act, with its way back. */
function useResize(board: BoardView) {
  const { set } = board;
  const wereLocked = new Map(board.groups.map((group) => [group.id, group.isLocked]));
  const mutation = useEditGroupsMutation();
  const back = useAct(mutation);
  const resize = useAct(mutation, {
    says: (_answer, { body }) => `Groups of ${body.capacity ?? 'any size'}`,
    undo:
      ({ groups }) =>
      () =>
        back({
          setId: set.id,
          body: {
            groups: groups.flatMap((group) => {
              const isLocked = wereLocked.get(group.id);
              return isLocked === undefined ? [] : [{ ...asItIs(group), isLocked }];
            }),
            removed: groups.filter((group) => !wereLocked.has(group.id)).map((group) => group.id),
            capacity: set.capacity,
          },
        }),
  });
  return (plan: Resizing, size: number) => {
    const last = Math.max(0, ...board.groups.map((group) => group.number));
    return resize({
      setId: set.id,
      body: {
        groups: [
          ...board.groups.map((group, at) => ({
            ...asItIs(group),
            isLocked: plan.locked.includes(at) || (group.isLocked && !plan.unlocked.includes(at)),
          })),
          ...Array.from({ length: plan.added }, (_, at) => added(nameByPattern('', last + at + 1))),
        ],
        removed: [],
        capacity: size,
      },
    });
  };
}
