import { useState } from 'react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import type { CheckFound, CheckList, CheckView } from '@jigsaw/contract/checks';
import { useCourse } from '../course/index.js';
import { Button, Small, useFontsOf } from '../look/index.js';
import { useAct } from '../page/index.js';
import { useTakeUpCheckMutation } from './checksApi.js';
import { DismissSheet } from './DismissSheet.js';
import type { CheckNames } from './sayCheck.js';
import { namesOf, sayCheck } from './sayCheck.js';

const List = styled.ul`
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 4px 16px;
    align-items: center;
    padding: 12px var(--s-4);
    border-bottom: var(--hair);
    background: var(--surface);
    border-left: 4px solid var(--attn);
  }
  li[data-dismissed] {
    border-left-color: var(--edge);
  }
  b {
    font: var(--h-14);
    font-size: 15px;
    overflow-wrap: anywhere;
  }
  p {
    color: var(--ink-2);
    font: var(--t-13);
    overflow-wrap: anywhere;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    justify-content: flex-end;
    gap: 8px;
  }
  @media (max-width: 900px) {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
    .acts {
      justify-content: flex-start;
    }
  }
`;

/** What mends something, or where it is mended; null: there is no such place. */
export type FixOf = (found: CheckFound, names: CheckNames) => ReactNode;

interface CheckLinesProps {
  readonly label: string;
  readonly list: CheckList;
  readonly shown: readonly CheckView[];
  readonly fixOf: FixOf;
}

/** What is to be checked, each with what mends it, or why it may stay. */
export function CheckLines({ label, list, shown, fixOf }: CheckLinesProps) {
  const names = namesOf(list);
  const [asked, setAsked] = useState<{ readonly id: string; readonly title: string } | null>(null);
  return (
    <>
      <List aria-label={label}>
        {shown.map((check) => (
          <Line key={check.id} check={check} names={names} fixOf={fixOf} onDismiss={setAsked} />
        ))}
      </List>
      {asked && <DismissSheet {...asked} onClose={() => setAsked(null)} />}
    </>
  );
}

interface LineProps {
  readonly check: CheckView;
  readonly names: CheckNames;
  readonly fixOf: FixOf;
  readonly onDismiss: (check: { readonly id: string; readonly title: string }) => void;
}
function Line({ check: { id, found, dismissed }, names, fixOf, onDismiss }: LineProps) {
  const { course, dates } = useCourse();
  const takeUp = useAct(useTakeUpCheckMutation());
  const { title, detail } = sayCheck(found, names, dates);
  useFontsOf(`${title} ${detail}`);
  return (
    <li data-dismissed={dismissed ? '' : undefined}>
      <div>
        <b>{title}</b>
        <p>{detail}</p>
        {dismissed && (
          <Small>
            Dismissed by {dismissed.by}, {dates.dateTime(dismissed.at)}: <bdi>{dismissed.reason}</bdi>
          </Small>
        )}
      </div>
      <div className="acts">
        {dismissed ? (
          <Button
            kind="quiet"
            aria-label={`Check again: ${title}`}
            onPress={() => void takeUp({ courseId: course.id, id })}
          >
            Check again
          </Button>
        ) : (
          <>
            {fixOf(found, names)}
            <Button kind="quiet" aria-label={`Dismiss: ${title}`} onPress={() => onDismiss({ id, title })}>
              Dismiss…
            </Button>
          </>
        )}
      </div>
    </li>
  );
}
