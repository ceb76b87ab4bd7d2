import { Suspense, useState } from 'react';
import { styled } from 'styled-components';
import type { ActivityDraft, ReachView } from '@jigsaw/contract/release';
import { briefFor } from '@jigsaw/core/release';
import { apiAddress } from '../api/index.js';
import { sayHappening } from '../kinds/index.js';
import type { KindOnPages } from '../kinds/index.js';
import type { Dates } from '../look/index.js';
import { FileLinks } from '../form/index.js';
import { Emblem, hueOfGroup, Small } from '../look/index.js';
import { RubricTable } from '../rubric/index.js';
import { RichText } from '../text/index.js';
import type { ReleaseTarget } from './releaseTarget.js';

const Side = styled.aside`
  border-left: 1px solid var(--ink);
  background: var(--sunk);
  overflow: auto;
  min-height: 0;
  > header {
    padding: 12px 14px 10px;
    background: var(--paper);
    border-bottom: var(--hair);
  }
  > header > div {
    display: flex;
    flex-wrap: wrap;
    margin-top: 8px;
  }
  > header button {
    width: 30px;
    height: 36px;
    border: 0;
    background: none;
    padding: 0;
    display: grid;
    place-items: center;
    cursor: pointer;
    border-bottom: 2px solid transparent;
  }
  > header button[aria-pressed='true'] {
    background: var(--hue-tint);
    border-bottom-color: var(--ink);
    border-radius: var(--r-1) var(--r-1) 0 0;
  }
`;
const Screen = styled.article`
  margin: 16px;
  border: 1px solid var(--edge);
  border-radius: var(--r-2);
  background: var(--surface);
  overflow: hidden;
  font: var(--t-15);
  > .top {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 10px 16px;
    background: var(--hue-tint);
    color: var(--hue-ink);
    font: var(--t-12);
    border-bottom: var(--hair);
  }
  > .in {
    padding: 14px 16px 18px;
  }
  h3 {
    font: var(--h-22);
    letter-spacing: -0.015em;
    overflow-wrap: anywhere;
  }
  h4 {
    font: var(--h-14);
    margin-top: 12px;
  }
  .facts {
    font: var(--t-13);
    color: var(--ink-2);
    margin: 2px 0 10px;
  }
`;
const mostShown = 24;

interface CopyPreviewProps {
  readonly activityId: string;
  readonly draft: ActivityDraft;
  readonly kind: KindOnPages | undefined;
  readonly target: ReleaseTarget;
  readonly groups: ReachView['groups'];
  readonly dates: Dates;
}

/** What one group will see, with its own name in the blanks. */
export function CopyPreview({ activityId, draft, kind, target, groups, dates }: CopyPreviewProps) {
  const [chosen, setChosen] = useState<string | null>(null);
  const isCommon = target.mode === 'common';
  const group = isCommon ? undefined : (groups.find((each) => each.groupId === chosen) ?? groups[0]);
  const { opens, due } = draft.schedule;
  const settings = kind?.settings.safeParse(draft.settings).data ?? draft.settings;
  const happens = kind?.happens?.(kind.forGroup?.(settings, group?.groupId ?? null) ?? settings);
  const facts = [
    kind?.word,
    opens && `opens ${dates.dateTime(opens)}`,
    due && `due ${dates.dateTime(due)}`,
    happens && sayHappening(happens, dates),
    kind?.isMarked === false ? null : draft.points === null ? 'not marked' : `${draft.points || '?'} points`,
  ]
    .filter(Boolean)
    .join(' · ');
  const files = draft.files ?? [];
  const addressOf = (fileId: string) => apiAddress(`activities/${activityId}/files/${fileId}`);
  const name = group?.name ?? (isCommon ? 'everyone' : 'a group');
  return (
    <Side aria-label="What a group will see">
      <header>
        <h2>What {name} will see</h2>
        {!isCommon && (
          <div>
            {groups.slice(0, mostShown).map((each) => (
              <button
                key={each.groupId}
                type="button"
                style={hueOfGroup(each.number)}
                aria-pressed={each === group}
                aria-label={each.name}
                onClick={() => setChosen(each.groupId)}
              >
                <Emblem number={each.number} size={26} />
              </button>
            ))}
          </div>
        )}
      </header>
      <Screen style={group ? hueOfGroup(group.number) : undefined}>
        <div className="top">
          {group && <Emblem number={group.number} size={30} />}
          <span>{whoSees(target, group?.name, kind?.isWork !== false)}</span>
        </div>
        <div className="in">
          <h3>{draft.title || 'Untitled'}</h3>
          <p className="facts">{facts}</p>
          <RichText
            node={briefFor(draft.brief, {
              copyOf: group?.groupId ?? null,
              groups: group ? [group.groupId] : null,
            })}
            values={{
              groupName: group?.name ?? 'the class',
              groupNumber: group?.number ?? 0,
              memberNames: [group ? `the ${group.members} members` : 'everyone'],
            }}
          />
          {kind?.Foreseen && (
            <Suspense fallback={null}>
              <kind.Foreseen settings={draft.settings} />
            </Suspense>
          )}
          <FileLinks
            label="Attached files in the preview"
            files={files.filter(({ isPerGroup }) => !isPerGroup)}
            addressOf={addressOf}
          />
          {files.some(({ isPerGroup }) => isPerGroup) && (
            <>
              <h4>
                Files to work in <Small>{name} has its own</Small>
              </h4>
              <FileLinks
                label="Files to work in, in the preview"
                files={files.filter(({ isPerGroup }) => isPerGroup)}
                addressOf={addressOf}
              />
            </>
          )}
          {draft.rubric && draft.points !== null && (
            <div style={{ marginTop: 14 }}>
              <RubricTable rubric={draft.rubric} points={draft.points} isFolded />
            </div>
          )}
        </div>
      </Screen>
    </Side>
  );
}

function whoSees({ mode, outsiders }: ReleaseTarget, groupName: string | undefined, isWork: boolean) {
  const whose = groupName
    ? `${groupName}’s own copy.`
    : mode === 'common'
      ? 'One copy for all.'
      : 'Each group’s own copy.';
  const others =
    mode === 'common'
      ? isWork
        ? 'Everyone reads and writes in it.'
        : 'Everyone reads it.'
      : mode === 'read-along'
        ? 'The other groups read along.'
        : outsiders === 'listed'
          ? 'Others see only that it exists.'
          : 'No other group sees it.';
  return (
    <>
      <b>{whose}</b> {others}
    </>
  );
}
