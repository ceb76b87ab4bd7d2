import { styled } from 'styled-components';
import type { BoardStudent } from '@jigsaw/contract/placing';
import type { BoardGroup } from '@jigsaw/contract/sets';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { Emblem, PersonName, Small } from '../look/index.js';

const Frame = styled.section`
  padding: 8px 8px 10px;
  border-top: var(--hair);
  h3 {
    padding: 0 6px 4px;
    font: 650 12px/16px var(--font-text);
    color: var(--ink-2);
  }
  button {
    display: flex;
    align-items: center;
    gap: 6px;
    width: 100%;
    min-height: 28px;
    padding: 2px 6px;
    border: 0;
    border-radius: var(--r-1);
    background: none;
    font: var(--t-13);
    text-align: left;
    cursor: pointer;
    outline-offset: -2px;
  }
  button:hover {
    background: var(--wash);
  }
  button > span {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const hitsShown = 8;

interface PlacedHitsProps {
  readonly hits: readonly BoardStudent[];
  readonly groups: readonly BoardGroup[];
  readonly onJump: (groupId: GroupId, student: EnrolmentId) => void;
}

/** Students that a search found in groups, each with the group; a press goes there and selects them. */
export function PlacedHits({ hits, groups, onJump }: PlacedHitsProps) {
  if (hits.length === 0) return null;
  return (
    <Frame aria-label="Found in groups">
      <h3>In groups</h3>
      {hits.slice(0, hitsShown).map((student) => {
        const group = groups.find((each) => each.id === student.seats[0]?.groupId);
        return (
          group && (
            <button
              key={student.enrolmentId}
              type="button"
              onClick={() => onJump(group.id, student.enrolmentId)}
            >
              <span>
                <PersonName name={student.name} reading={student.reading} />
              </span>
              {group.topic === null && <Emblem number={group.number} size={18} />}
              <Small>{group.name}</Small>
            </button>
          )
        );
      })}
      {hits.length > hitsShown && <Small>and {hits.length - hitsShown} more</Small>}
    </Frame>
  );
}

/** Brings a student of a group into view and into the focus, so that the next key is for them. */
export function showInGroup(groupId: GroupId, student: EnrolmentId): void {
  const card = document.querySelector<HTMLElement>(`[data-group="${groupId}"]`);
  (card as Partial<HTMLElement> | null)?.scrollIntoView?.({ block: 'nearest' });
  // A card far down draws its members once it is in view.
  const focus = (framesLeft: number) => {
    const row = card?.querySelector<HTMLElement>(`[data-key="${student}"]`);
    if (!row && framesLeft > 0) requestAnimationFrame(() => focus(framesLeft - 1));
    else (row ?? card)?.focus({ preventScroll: true });
  };
  requestAnimationFrame(() => focus(framesUntilDrawn));
}
const framesUntilDrawn = 60;
