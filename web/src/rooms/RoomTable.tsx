import { Fragment, memo, useState } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { RoomLine, RoomNeed } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { daysShown } from '@jigsaw/core/rooms';
import { counted } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { useLines, useNow } from '../page/index.js';
import type { Dates } from '../look/index.js';
import { Emblem, hueOfGroup, PersonName, Small, Spoken, Tag } from '../look/index.js';
import { sayNeed } from '../rounds/index.js';
import { Trace } from './Trace.js';

const rowHeight = 48;

const Frame = styled.div`
  overflow: auto;
  background: var(--surface);
  [role='row'] {
    display: grid;
    grid-template-columns: minmax(190px, 1.3fr) minmax(240px, 2fr) 56px minmax(160px, 1.2fr) 118px;
    column-gap: 18px;
    align-items: center;
    padding: 0 var(--s-4);
    border-bottom: var(--hair);
  }
  > [role='rowgroup']:first-child {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--surface);
    font: 600 11px/30px var(--font-text);
    color: var(--ink-2);
    [role='row'] {
      border-bottom: 1px solid var(--ink);
    }
  }
  > [role='rowgroup']:last-child {
    position: relative;
  }
  [data-line] {
    position: absolute;
    left: 0;
    right: 0;
    height: ${rowHeight}px;
  }
  /* So far one comes in the time that one has. */
  [data-line][data-last-stop] {
    border-bottom: 1px solid var(--ink);
  }
  [data-line]:hover {
    background: var(--wash);
  }
  [role='rowheader'] {
    display: grid;
    grid-template-columns: 32px minmax(0, 1fr);
    column-gap: 10px;
    align-items: center;
    text-decoration: none;
    b {
      font: var(--h-17);
      font-size: 16px;
      line-height: 20px;
    }
    &:hover b {
      text-decoration: underline;
    }
  }
  [role='rowheader'] span,
  [role='cell'] {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    display: block;
    font: var(--t-12);
    color: var(--ink-2);
    overflow: hidden;
    text-overflow: ellipsis;
  }
  @media (max-width: 820px) {
    [role='row'] {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    [role='row'] > :nth-child(n + 4),
    [role='row'] > :nth-child(2) {
      display: none;
    }
  }
`;

interface RoomTableProps {
  readonly lines: readonly RoomLine[];
  /** Each says of which set it is. */
  readonly isOfSeveralSets: boolean;
  /** So many from the first on are the stops of a round. */
  readonly stops: number;
}

/** A line for each room; only those in view are drawn, so that two hundred cost what twenty do. */
export function RoomTable({ lines, isOfSeveralSets, stops }: RoomTableProps) {
  const { dates } = useCourse();
  const now = useNow(null);
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const virtual = useLines({
    count: lines.length,
    linePx: rowHeight,
    scroller,
    beyond: 4,
    keyOf: (index) => sure(lines[index]).group.id,
  });
  return (
    <Frame ref={setScroller} role="table" aria-label="Rooms" aria-rowcount={lines.length + 1}>
      <div role="rowgroup">
        <div role="row" aria-rowindex={1}>
          <span role="columnheader">Room</span>
          <span role="columnheader">Needs you</span>
          <span role="columnheader">New</span>
          <span role="columnheader">Last</span>
          <span role="columnheader">{daysShown} days, to today</span>
        </div>
      </div>
      <div role="rowgroup" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, key, start }) => (
          <Line
            key={key}
            line={sure(lines[index])}
            index={index}
            top={start}
            dates={dates}
            now={now}
            isOfSeveralSets={isOfSeveralSets}
            isLastStop={index === stops - 1}
          />
        ))}
      </div>
    </Frame>
  );
}

interface LineProps {
  readonly line: RoomLine;
  readonly index: number;
  readonly top: number;
  readonly dates: Dates;
  /** Milliseconds. */
  readonly now: number;
  readonly isOfSeveralSets: boolean;
  readonly isLastStop: boolean;
}
const Line = memo(function Line({ line, index, top, dates, now, isOfSeveralSets, isLastStop }: LineProps) {
  const { group, members, needs, unread, firstUnread, latest, days } = line;
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      data-line={index}
      data-last-stop={isLastStop || undefined}
      style={{ ...hueOfGroup(group.number), transform: `translateY(${top}px)` }}
    >
      <Link role="rowheader" to={`../room/${group.id}`} title={members.join(', ')}>
        <Emblem number={group.number} size={32} />
        <span>
          <b>{group.name}</b>
          <small>
            {isOfSeveralSets && `${group.setName}: `}
            {members.length === 0 && 'No one yet'}
            {members.map((name, at) => (
              <Fragment key={at}>
                {at > 0 && ', '}
                <PersonName name={name} />
              </Fragment>
            ))}
          </small>
        </span>
      </Link>
      <span role="cell">
        <Needs needs={needs} groupId={group.id} dates={dates} now={now} />
      </span>
      <span role="cell">
        {firstUnread ? (
          <Link to={`../copies/${firstUnread}`}>
            <Tag $look="solid">{unread}</Tag>
            <Spoken> new in {group.name}</Spoken>
          </Link>
        ) : (
          <Small>none</Small>
        )}
      </span>
      <span role="cell">
        {latest ? (
          <>
            <PersonName name={latest.by} /> in <Link to={`../copies/${latest.copyId}`}>{latest.title}</Link>
            <small>{dates.fromNow(latest.at)}</small>
          </>
        ) : (
          <Small>{line.items === 0 ? 'Nothing released yet' : 'Nothing written yet'}</Small>
        )}
      </span>
      <span role="cell">
        <Trace days={days} />
      </span>
    </div>
  );
});

/** The most pressing thing, where it is answered, and how many more there are. */
function Needs({
  needs,
  groupId,
  dates,
  now,
}: Pick<LineProps, 'dates' | 'now'> & { readonly needs: readonly RoomNeed[]; readonly groupId: string }) {
  const [first, ...more] = needs;
  if (!first) return <Small>nothing open</Small>;
  const { tag, look, says, to } = sayNeed(first, groupId, dates, now);
  const said = needs.map((need) => {
    const each = sayNeed(need, groupId, dates, now);
    return `${each.tag}: ${each.says}`;
  });
  return (
    <span title={said.join('\n')}>
      <Tag $look={look}>{tag}</Tag> <Link to={`../${to}`}>{says}</Link>
      {more.length > 0 && <Small> and {counted(more.length, 'more', 'more')}</Small>}
    </span>
  );
}
