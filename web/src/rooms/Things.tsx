import { ChevronRight, Lock } from 'lucide-react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { LockedItem, RoomItem } from '@jigsaw/contract/rooms';
import { kindOf, sayHappening } from '../kinds/index.js';
import { PersonName, Small, Spoken, Tag } from '../look/index.js';
import type { Dates } from '../look/index.js';

const List = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 380px), 1fr));
  border: var(--hair);
  border-radius: var(--r-2);
  background: var(--surface);
  gap: 1px;
  overflow: hidden;
  &[data-in-order] {
    grid-template-columns: minmax(0, 1fr);
  }
  > li {
    background: var(--surface);
    box-shadow: 0 0 0 1px var(--line);
    display: grid;
  }
`;
const Thing = styled(Link)`
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) auto;
  gap: 2px 12px;
  align-content: center;
  min-height: 92px;
  [data-in-order] & {
    min-height: 60px;
  }
  padding: 14px 18px;
  text-decoration: none;
  outline-offset: -3px;
  &:hover {
    background: var(--wash);
  }
  > svg:first-child {
    color: var(--hue, var(--ink));
    margin-top: 1px;
  }
  b {
    display: block;
    font: 620 16px/20px var(--font-text);
    overflow-wrap: anywhere;
  }
  .says {
    font: var(--t-13);
    color: var(--ink-2);
  }
  .said {
    display: block;
    margin-top: 7px;
    padding-left: 10px;
    border-left: 2px solid var(--hue, var(--ink));
    font: var(--t-13);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .unread {
    display: grid;
    place-items: center;
    min-width: 24px;
    height: 22px;
    padding: 0 6px;
    border-radius: var(--r-1);
    background: var(--ink);
    color: var(--on-ink);
    font: 650 13px/1 var(--font-text);
    justify-self: end;
  }
`;
const LockedLine = styled.li`
  grid-template-columns: 26px minmax(0, 1fr);
  gap: 12px;
  align-content: center;
  padding: 12px 18px;
  color: var(--ink-2);
`;

/** What is in a room: what it is, where it stands, who wrote last, and how much of it is new. */
export function Things({
  items,
  locked = [],
  dates,
  label,
  isInOrder = false,
  sayWhose,
}: {
  readonly items: readonly RoomItem[];
  readonly locked?: readonly LockedItem[];
  readonly dates: Dates;
  readonly label: string;
  /** One below the other, as they were put. */
  readonly isInOrder?: boolean;
  /** Whose copy it is, where that has to be told; undefined: it need not. */
  readonly sayWhose?: (item: RoomItem) => string | undefined;
}) {
  return (
    <List aria-label={label} data-in-order={isInOrder || undefined}>
      {items.map((item) => {
        const kind = kindOf(item.kind);
        const Icon = kind?.icon ?? Lock;
        return (
          <li key={item.copyId}>
            <Thing to={`../copies/${item.copyId}`}>
              <Icon size={21} aria-hidden="true" />
              <span style={{ minWidth: 0 }}>
                <b>{item.title}</b>
                <span className="says">
                  {[
                    sayWhose?.(item),
                    kind?.word,
                    kind?.sayProgress?.(item.progress, dates),
                    item.happens && sayHappening(item.happens, dates),
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                  {item.due &&
                    item.progress.owes &&
                    ` · due ${dates.dateTime(item.due)}, ${dates.fromNow(item.due)}`}
                  {item.isExtended && ', extended'}
                </span>
                {item.latest && (
                  <span className="said">
                    {item.latest.excerpt === '' && 'From '}
                    <PersonName
                      name={!item.latest.byYou ? item.latest.by : item.latest.excerpt === '' ? 'you' : 'You'}
                    />
                    {item.latest.excerpt !== '' && `: ${item.latest.excerpt}`}
                  </span>
                )}
              </span>
              <span>
                {item.unread > 0 && (
                  <span className="unread">
                    {item.unread}
                    <Spoken> new</Spoken>
                  </span>
                )}{' '}
                {item.hasMark ? (
                  <Tag $look="solid">Marked</Tag>
                ) : item.progress.owes ? (
                  <Tag $look="needs">{kind?.owed}</Tag>
                ) : (
                  item.unread === 0 && <ChevronRight size={18} aria-hidden="true" />
                )}
              </span>
            </Thing>
          </li>
        );
      })}
      {locked.map((item, at) => (
        <LockedLine key={at}>
          <Lock size={18} aria-hidden="true" />
          <span>
            <b>{item.title}</b>
            <br />
            <Small>{item.why.slice(1, 2).join(' ')}</Small>
          </span>
        </LockedLine>
      ))}
    </List>
  );
}

/** What is still owed stands on top, then what is new. */
export const owedFirst = (a: RoomItem, b: RoomItem): number =>
  Number(b.progress.owes) - Number(a.progress.owes) || Math.sign(b.unread) - Math.sign(a.unread);
