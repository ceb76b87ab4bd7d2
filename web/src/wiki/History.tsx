import { styled } from 'styled-components';
import type { PageView } from '@jigsaw/contract/wiki';
import { initials, PersonName, Small } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { sayChange } from './words.js';

/** Two versions by their numbers. */
export interface Compared {
  readonly a: number;
  readonly b: number;
}

const Side = styled.aside`
  overflow: auto;
  border-left: var(--hair);
  background: var(--paper);
  h2 {
    font: var(--h-17);
    padding: 14px 18px 0;
  }
  > p {
    padding: 2px 18px 10px;
    border-bottom: var(--hair);
  }
  li {
    display: grid;
    grid-template-columns: 28px minmax(0, 1fr) auto auto;
    gap: 4px 8px;
    align-items: center;
    padding: 7px 14px 8px 18px;
    border-bottom: var(--hair);
  }
  li[data-in] {
    background: var(--hue-tint, var(--wash-2));
  }
  .who {
    display: grid;
    place-items: center;
    height: 24px;
    border: 1px solid var(--edge);
    border-radius: var(--r-1);
    font: 650 11px/1 var(--font-text);
    background: var(--surface);
  }
  .who[data-staff] {
    background: var(--ink);
    color: var(--on-ink);
  }
  b {
    font: 620 13px/17px var(--font-text);
    display: block;
  }
  i {
    display: block;
    height: 3px;
    margin-top: 3px;
    background:
      linear-gradient(var(--hue, var(--ink)) 0 0) left / var(--new) 100% no-repeat,
      linear-gradient(var(--line-2) 0 0) left / var(--long) 100% no-repeat;
  }
  button {
    width: 24px;
    height: 24px;
    border: 1px solid var(--edge);
    border-radius: var(--r-1);
    background: var(--surface);
    font: 650 11px/1 var(--font-text);
    cursor: pointer;
    padding: 0;
  }
  button[aria-pressed='true'] {
    background: var(--ink);
    border-color: var(--ink);
    color: var(--on-ink);
  }
  @media (max-width: 1100px) {
    border-left: 0;
    border-top: 1px solid var(--ink);
  }
`;

interface HistoryProps {
  readonly page: PageView;
  readonly compared: Compared | null;
  readonly onCompare: (compared: Compared) => void;
}

/** Every version with whose it is and what it changed. An A and a B picked from it are compared; picking one fills the other. */
export function History({ page, compared, onCompare }: HistoryProps) {
  const { dates } = useCourse();
  const { revisions } = page;
  const most = Math.max(...revisions.map((revision) => revision.words), 1);
  const pick = (which: 'a' | 'b', number: number) => {
    const next = {
      a: compared?.a ?? Math.max(1, (which === 'b' ? number : page.revision) - 1),
      b: compared?.b ?? page.revision,
      [which]: number,
    };
    // A is always the older of the two.
    onCompare(next.a <= next.b ? next : { a: next.b, b: next.a });
  };
  return (
    <Side aria-label="History">
      <h2>History</h2>
      <p>
        <Small>
          {revisions.length === 1
            ? '1 version.'
            : `${revisions.length} versions. Pick an A and a B to compare.`}
        </Small>
      </p>
      <ol>
        {revisions.map((revision) => {
          const isPicked = revision.number === compared?.a || revision.number === compared?.b;
          const share = (words: number) => `${Math.round((words / most) * 100)}%`;
          return (
            <li key={revision.number} data-in={isPicked || undefined}>
              <span className="who" data-staff={revision.author.isStaff || undefined} aria-hidden="true">
                {initials(revision.author.name)}
              </span>
              <span>
                <b>{sayChange(revision)}</b>
                <Small>
                  <PersonName name={revision.author.isYou ? 'You' : revision.author.name} />,{' '}
                  {dates.dateTime(revision.savedAt)}
                </Small>
                <i
                  aria-hidden="true"
                  style={
                    {
                      '--long': share(revision.words),
                      '--new': share(Math.min(revision.words, revision.added)),
                    } as never
                  }
                />
              </span>
              {revisions.length > 1 &&
                (['a', 'b'] as const).map((which) => (
                  <button
                    key={which}
                    type="button"
                    aria-pressed={compared?.[which] === revision.number}
                    aria-label={`Version ${revision.number} as ${which.toUpperCase()}`}
                    onClick={() => pick(which, revision.number)}
                  >
                    {which.toUpperCase()}
                  </button>
                ))}
            </li>
          );
        })}
      </ol>
    </Side>
  );
}
