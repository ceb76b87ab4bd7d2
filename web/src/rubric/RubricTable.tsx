import { styled } from 'styled-components';
import type { Picks, Rubric } from '@jigsaw/contract/rubric';
import { levelOf, mostOf } from '@jigsaw/core/marks';

const Frame = styled.details`
  border: var(--hair);
  border-radius: var(--r-2);
  background: var(--surface);
  summary {
    cursor: pointer;
    padding: 10px 16px;
    font-weight: 620;
  }
  summary small {
    font: var(--t-13);
    color: var(--ink-2);
    margin-left: 8px;
  }
  > div {
    overflow-x: auto;
    border-top: var(--hair);
  }
  table {
    width: 100%;
    min-width: 560px;
    border-collapse: collapse;
    font: var(--t-13);
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 8px 12px;
    border-bottom: var(--hair);
    border-left: var(--hair);
  }
  tr > :first-child {
    border-left: 0;
    width: 22%;
  }
  tr:last-child > * {
    border-bottom: 0;
  }
  th {
    font: 650 14px/18px var(--font-text);
  }
  td b {
    display: block;
  }
  td small,
  th small {
    display: block;
    font: var(--t-12);
    color: var(--ink-2);
  }
  td[data-picked] {
    background: var(--ink);
    color: var(--on-ink);
  }
  td[data-picked] small {
    color: inherit;
  }
  .said {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    color: var(--ink);
    margin-top: 4px;
    padding-left: 8px;
    border-left: 2px solid var(--ink);
  }
`;

interface RubricTableProps {
  readonly rubric: Rubric;
  readonly points: string;
  /** What was given and said, once marks are released. */
  readonly picks?: Picks;
  readonly isFolded?: boolean;
}

/** The rubric as students see it: before they hand in, and afterwards with what was picked and said. */
export function RubricTable({ rubric, points, picks, isFolded }: RubricTableProps) {
  const weights = rubric.criteria.map((criterion) => criterion.weight);
  const isWeighed = weights.some((weight) => Number(weight) !== Number(weights[0]));
  return (
    <Frame open={!isFolded}>
      <summary>
        {picks ? 'How it was marked' : 'How it will be marked'}
        <small>
          {rubric.criteria.length} criteria, {points} points in all
        </small>
      </summary>
      <div>
        <table>
          <tbody>
            {rubric.criteria.map((criterion) => {
              const pick = picks?.[criterion.id];
              const picked = levelOf(criterion, pick?.points ?? null);
              return (
                <tr key={criterion.id}>
                  <th scope="row">
                    {criterion.name}
                    {criterion.description && <small>{criterion.description}</small>}
                    {isWeighed && <small>counts {criterion.weight} times</small>}
                    {pick?.points != null && (
                      <small>
                        {pick.points} of {mostOf(criterion)}
                      </small>
                    )}
                    {pick?.comment && <p className="said">{pick.comment}</p>}
                  </th>
                  {criterion.levels.map((level) => (
                    <td
                      key={level.id}
                      data-picked={picked?.id === level.id || undefined}
                      aria-current={picked?.id === level.id || undefined}
                    >
                      <b>
                        {level.name} <small>{level.points}</small>
                      </b>
                      <small>{level.description}</small>
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </Frame>
  );
}
