import { Fragment, memo, useState } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { RoomLine } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { useCourse } from '../course/index.js';
import { useLines } from '../page/index.js';
import type { Dates } from '../look/index.js';
import { Emblem, hueOfGroup, PersonName, Small, Spoken, Tag } from '../look/index.js';

const rowHeight = 48;

const Frame = styled.div`
  overflow: auto;
  background: var(--surface);
  [role='row'] {
    display: grid;
    grid-template-columns: minmax(220px, 2fr) 92px minmax(170px, 1.2fr) minmax(200px, 1.6fr);
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
    [role='row'] > :nth-child(n + 3) {
      display: none;
    }
  }
`;

/** A line for each room; only those in view are drawn, so that two hundred cost what twenty do. */
export function RoomTable({ lines }: { readonly lines: readonly RoomLine[] }) {
  const { dates } = useCourse();
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
          <span role="columnheader">New</span>
          <span role="columnheader">Missing</span>
          <span role="columnheader">Last</span>
        </div>
      </div>
      <div role="rowgroup" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, key, start }) => (
          <Line key={key} line={sure(lines[index])} index={index} top={start} dates={dates} />
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
}
const Line = memo(function Line({ line, index, top, dates }: LineProps) {
  const { group, members, unread, firstUnread, missing, latest } = line;
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      data-line={index}
      style={{ ...hueOfGroup(group.number), transform: `translateY(${top}px)` }}
    >
      <Link role="rowheader" to={`../room/${group.id}`} title={members.join(', ')}>
        <Emblem number={group.number} size={32} />
        <span>
          <b>{group.name}</b>
          <small>
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
        {firstUnread ? (
          <Link to={`../copies/${firstUnread}`}>
            <Tag $look="solid">{unread}</Tag>
            <Spoken> new in {group.name}</Spoken>
          </Link>
        ) : (
          <Small>none</Small>
        )}
      </span>
      <span role="cell" title={missing.join(', ')}>
        {missing.length > 0 && (
          <>
            <Tag $look="warn">{missing.length} missing</Tag>
            <small>{missing.at(-1)}</small>
          </>
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
    </div>
  );
});
