import { ListBox, ListBoxItem } from 'react-aria-components';
import { styled } from 'styled-components';
import type { BoardView } from '@jigsaw/contract/placing';
import { topicLetter } from '@jigsaw/core/dealing';
import { counted } from '@jigsaw/core/text';
import { Emblem, hueOfGroup, Small, Tag } from '../look/index.js';
import type { ExpertBoard } from './experts.js';
import { sayCells, sayHome } from './experts.js';
import { HomeCells, topicsBeside } from './HomeCells.js';

const Frame = styled.section`
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
  > header {
    padding: 10px var(--s-4) 8px;
    border-bottom: var(--hair);
    display: grid;
    gap: 6px;
  }
  > header > div {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 8px;
  }
`;
const Letters = styled.p`
  display: flex;
  gap: 3px;
  justify-content: flex-end;
  font: 650 11px/14px var(--font-text);
  color: var(--ink-2);
  span {
    width: 20px;
    text-align: center;
  }
  span:first-child {
    width: auto;
    flex: 1;
    text-align: left;
    font-weight: 500;
  }
`;
const List = styled(ListBox)`
  flex: 1;
  overflow: auto;
  outline: none;
`;
const Row = styled(ListBoxItem)`
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  min-height: 44px;
  padding: 4px var(--s-4) 4px 10px;
  border-bottom: var(--hair);
  cursor: pointer;
  outline-offset: -2px;
  content-visibility: auto;
  contain-intrinsic-size: auto 44px;
  &[data-selected] {
    background: var(--hue-tint);
    box-shadow: inset 3px 0 var(--hue);
  }
  &[data-many] {
    grid-template-columns: 28px minmax(0, 1fr);
  }
  &[data-many] > :last-child {
    grid-column: 1 / -1;
  }
  b,
  b + span {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  b {
    font: 620 13px/16px var(--font-text);
  }
`;

interface ExpertHomesProps {
  readonly board: BoardView;
  readonly experts: ExpertBoard;
  /** The number of the home group whose people are marked at the tables; null: none. */
  readonly picked: number | null;
  readonly onPick: (number: number | null) => void;
}

/** The home groups as rows: how many of each go to which topic, and which topics no one of theirs learns. */
export function ExpertHomes({ board, experts, picked, onPick }: ExpertHomesProps) {
  const { topics, homeSet } = board;
  const { homes, gaps } = experts;
  const small = homes.filter((home) => home.isSmall).length;
  const isMany = topics.length > topicsBeside;
  return (
    <Frame aria-label="Home groups">
      <header>
        <div>
          <Small>{homeSet ? `of ${homeSet.name}` : ''}</Small>
          {gaps > 0 ? (
            <Tag $look="needs">{counted(gaps, 'gap')}</Tag>
          ) : (
            <Small>{small === 0 ? 'no gaps' : `${small} too small for all`}</Small>
          )}
        </div>
        {!isMany && (
          <Letters>
            <span>people at topic</span>
            {topics.map((topic, at) => (
              <span key={at} title={topic.name}>
                {topicLetter(at)}
              </span>
            ))}
          </Letters>
        )}
      </header>
      <List
        aria-label="Home groups"
        selectionMode="single"
        selectedKeys={picked === null ? [] : [picked]}
        onSelectionChange={(keys) => {
          const [next] = keys === 'all' ? [] : [...keys];
          onPick(next === undefined ? null : Number(next));
        }}
        items={homes.map((home) => ({ ...home, id: home.number }))}
        dependencies={[topics]}
        renderEmptyState={() => (
          <Small style={{ display: 'block', padding: 16 }}>No one has a home group yet.</Small>
        )}
      >
        {(item) => {
          const home = item as (typeof homes)[number] & { id: number };
          return (
            <Row
              id={home.id}
              textValue={`${home.name}: ${sayHome(home)}`}
              aria-label={`${home.name}: ${sayHome(home)}. ${sayCells(home, topics)}`}
              style={hueOfGroup(home.number)}
              data-many={isMany || undefined}
            >
              <Emblem number={home.number} size={28} />
              <span style={{ minWidth: 0 }}>
                <b>{home.name}</b>
                <Small>{sayHome(home)}</Small>
              </span>
              <HomeCells
                topics={topics.map((topic) => topic.name)}
                counts={home.at.map((tables) => tables.length)}
              />
            </Row>
          );
        }}
      </List>
    </Frame>
  );
}
