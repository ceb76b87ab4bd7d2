import { useLayoutEffect, useRef, useState } from 'react';
import type { EventSettings, OwnTime } from '@jigsaw/contract/calendar';
import { keyedBy } from '@jigsaw/core/lists';
import { useCourse } from '../course/index.js';
import { sayTimes } from '../kinds/index.js';
import { Button, Emblem, GroupLines, Small, Tag, useNotice } from '../look/index.js';
import type { NamedGroup } from '../text/index.js';
import { InTurnSheet } from './InTurnSheet.js';
import { OwnTimeSheet } from './OwnTimeSheet.js';

interface OwnTimesProps {
  readonly settings: EventSettings;
  readonly groups: readonly NamedGroup[];
  readonly onChange: (own: OwnTime[]) => void;
}

/** Groups for which it is at another time or place, and the ways to give them one. */
export function OwnTimes({ settings, groups, onChange }: OwnTimesProps) {
  const { dates } = useCourse();
  const notice = useNotice();
  const [changing, setChanging] = useState<OwnTime | 'new' | null>(null);
  const [isInTurn, setIsInTurn] = useState(false);
  const latest = useRef(onChange);
  useLayoutEffect(() => {
    latest.current = onChange;
  });
  const groupById = keyedBy(groups, ({ id }) => id);
  const own = settings.own.toSorted((a, b) => a.starts.localeCompare(b.starts));
  const before = settings.own;
  const set = (next: OwnTime[], says: string) => {
    onChange(next);
    notice(says, { label: 'Undo', do: () => latest.current(before) });
  };
  const nameOf = ({ groupId }: OwnTime) => groupById.get(groupId)?.name ?? 'A group that does not get this';
  const others = groups.filter(({ id }) => !before.some(({ groupId }) => groupId === id));
  return (
    <>
      {own.length > 0 && (
        <GroupLines
          aria-label="At times of their own"
          tabIndex={0}
          style={{ maxHeight: 380, overflow: 'auto' }}
        >
          {own.map((each) => {
            const group = groupById.get(each.groupId);
            return (
              <li key={each.groupId}>
                {group ? <Emblem number={group.number} size={22} /> : <span />}
                <span>
                  <b>
                    <bdi>{nameOf(each)}</bdi>
                  </b>
                  , {sayTimes(each.starts, each.ends, dates)}
                  {each.place !== '' && `, ${each.place}`} {each.isCancelled && <Tag>Cancelled</Tag>}
                </span>
                <span>
                  <Button
                    kind="quiet"
                    isSmall
                    onPress={() => setChanging(each)}
                    aria-label={`Edit time of ${nameOf(each)}`}
                  >
                    Edit
                  </Button>
                  <Button
                    kind="quiet"
                    isSmall
                    onPress={() =>
                      set(
                        before.filter(({ groupId }) => groupId !== each.groupId),
                        `${nameOf(each)} comes when all do`,
                      )
                    }
                    aria-label={`Remove time of ${nameOf(each)}`}
                  >
                    Remove
                  </Button>
                </span>
              </li>
            );
          })}
        </GroupLines>
      )}
      <div className="row">
        {groups.length === 0 ? (
          <Small>Once groups get it, each can have a time and a place of its own.</Small>
        ) : (
          <>
            {others.length > 0 && (
              <Button kind="quiet" isSmall onPress={() => setChanging('new')}>
                Another time for a group…
              </Button>
            )}
            <Button kind="quiet" isSmall onPress={() => setIsInTurn(true)}>
              One group after another…
            </Button>
            {own.length > 1 && (
              <Button kind="quiet" isSmall onPress={() => set([], 'All groups come at the same time')}>
                Remove all
              </Button>
            )}
          </>
        )}
      </div>
      {changing !== null && (
        <OwnTimeSheet
          settings={settings}
          groups={changing === 'new' ? others : groups}
          known={changing === 'new' ? null : changing}
          onSet={(time) => {
            const rest = before.filter(({ groupId }) => groupId !== time.groupId);
            set([...rest, time], `${nameOf(time)} comes ${sayTimes(time.starts, time.ends, dates)}`);
            setChanging(null);
          }}
          onClose={() => setChanging(null)}
        />
      )}
      {isInTurn && (
        <InTurnSheet
          settings={settings}
          groups={groups}
          onSet={(times) => {
            set(times, 'Groups come one after another');
            setIsInTurn(false);
          }}
          onClose={() => setIsInTurn(false)}
        />
      )}
    </>
  );
}
