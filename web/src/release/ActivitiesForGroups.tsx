import { Plus, X } from 'lucide-react';
import { css, styled } from 'styled-components';
import type { NewSetActivity } from '@jigsaw/contract/setUp';
import { sure } from '@jigsaw/core/lists';
import { draftOfKind, kindOf, kinds } from '../kinds/index.js';
import type { KindOnPages } from '../kinds/index.js';
import { Button, DateTimeField, Field, Segments, Small } from '../look/index.js';
import { useCourse } from '../course/index.js';

/** Something that each group of a new set is to get. */
export interface Gift {
  readonly key: number;
  readonly kind: string;
  readonly title: string;
  readonly due: string | null;
  readonly isReleased: boolean;
}

const Offered = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;
const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: end;
  padding: 10px 12px 12px;
  border: var(--hair);
  border-radius: var(--r-2);
  background: var(--paper);
  > .when {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: end;
  }
`;

interface ActivitiesForGroupsProps {
  readonly gifts: readonly Gift[];
  readonly onChange: (gifts: readonly Gift[]) => void;
}

/** What each group gets with the set: chosen from the kinds that there are, each with its title and, if wanted, when it is due. */
export function ActivitiesForGroups({ gifts, onChange }: ActivitiesForGroupsProps) {
  const { course } = useCourse();
  const put = (gift: Gift) => onChange(gifts.map((each) => (each.key === gift.key ? gift : each)));
  return (
    <>
      {gifts.map((gift) => {
        const kind = sure(kindOf(gift.kind));
        const label = gift.title.trim() || kind.word;
        return (
          <Row key={gift.key} role="group" aria-label={label}>
            <Field
              label={kind.word}
              value={gift.title}
              onChange={(title) => put({ ...gift, title })}
              placeholder={kind.says}
              autoFocus={gift.title === ''}
            />
            <Button
              kind="quiet"
              isIconOnly
              aria-label={`Without ${label}`}
              onPress={() => onChange(gifts.filter((each) => each.key !== gift.key))}
            >
              <X size={15} aria-hidden="true" />
            </Button>
            <div className="when">
              {kind.isWork && (
                <DateTimeField
                  label="Due, if it is"
                  value={gift.due}
                  timeZone={course.timeZone}
                  onChange={(due) => put({ ...gift, due })}
                />
              )}
              <Segments
                label={`When ${label} is released`}
                value={gift.isReleased ? 'now' : 'draft'}
                choices={[
                  { id: 'now', label: 'Released with the set' },
                  { id: 'draft', label: 'A draft to write out' },
                ]}
                onChange={(when) => put({ ...gift, isReleased: when === 'now' })}
              />
            </div>
          </Row>
        );
      })}
      <Offered>
        {kinds.filter(isReadyAtOnce).map((kind) => (
          <Button
            key={kind.name}
            isSmall
            aria-label={`Add: ${kind.word}`}
            onPress={() =>
              onChange([
                ...gifts,
                // What is handed in needs a task first; a place to talk or write can be there at once.
                {
                  key: Math.max(0, ...gifts.map((each) => each.key)) + 1,
                  kind: kind.name,
                  title: '',
                  due: null,
                  isReleased: !kind.isHandedIn,
                },
              ])
            }
          >
            <Plus size={13} aria-hidden="true" />
            <kind.icon size={15} aria-hidden="true" />
            {kind.word}
          </Button>
        ))}
      </Offered>
      {gifts.length === 0 && <Small>A private copy for each group. More can be released at any time.</Small>}
    </>
  );
}

/** What has to be written out first is not offered here: an event without a time, a notice without a text. */
const isReadyAtOnce = (kind: KindOnPages) =>
  (kind.isWork || kind.isStanding === true) && !kind.notReady?.(kind.settings.parse({}));

/** As the server is asked for it; what has no title is called by its kind. */
export function activitiesOf(gifts: readonly Gift[]): NewSetActivity[] {
  return gifts.map((gift) => {
    const kind = sure(kindOf(gift.kind));
    const draft = draftOfKind(kind, gift.title.trim() || kind.word);
    return {
      draft: { ...draft, schedule: { ...draft.schedule, due: gift.due } },
      isReleased: gift.isReleased,
    };
  });
}

/** One thing that there will be, in the forecast of a set. */
export const forecastLine = css`
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  min-height: 34px;
  padding: 3px 10px;
  background: var(--surface);
  border: var(--hair);
  border-radius: var(--r-2);
`;
const Lines = styled.ul`
  margin-top: 8px;
  display: grid;
  gap: 4px;
  li {
    ${forecastLine}
  }
  b {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

interface GiftLinesProps {
  readonly gifts: readonly { readonly kind: string; readonly title: string; readonly isReleased: boolean }[];
  /** null: groups come to be later. */
  readonly groups: number | null;
}

/** "12 copies, live at once": what there will be of each. */
export function GiftLines({ gifts, groups }: GiftLinesProps) {
  return (
    <Lines>
      {gifts.map((gift, at) => {
        const kind = kindOf(gift.kind);
        return (
          <li key={at}>
            {kind && <kind.icon size={16} aria-label={kind.word} />}
            <b>{gift.title.trim() || kind?.word}</b>
            <Small>
              {!gift.isReleased
                ? 'a draft'
                : groups === null
                  ? 'one for each group'
                  : groups === 1
                    ? '1 copy, live'
                    : `${groups} copies, live`}
            </Small>
          </li>
        );
      })}
    </Lines>
  );
}
