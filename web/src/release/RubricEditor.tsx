import { Plus, X } from 'lucide-react';
import { styled } from 'styled-components';
import { v7 as uuid } from 'uuid';
import { Rubric } from '@jigsaw/contract/rubric';
import { mostOf } from '@jigsaw/core/marks';
import { ProblemStrip } from '../api/index.js';
import { Button, Small, useNotice } from '../look/index.js';

const Frame = styled.div`
  overflow-x: auto;
  border: var(--hair);
  border-radius: var(--r-2);
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    padding: 5px 6px;
    border-bottom: var(--hair);
    vertical-align: top;
    text-align: left;
    font: var(--t-12);
  }
  th input {
    font-weight: 650;
  }
  input,
  textarea {
    width: 100%;
    min-width: 64px;
    border: 1px solid transparent;
    border-radius: var(--r-1);
    background: none;
    padding: 3px 5px;
    font: inherit;
    resize: none;
    field-sizing: content;
  }
  textarea {
    min-height: 36px;
    color: var(--ink-2);
  }
  input:hover,
  textarea:hover {
    border-color: var(--line-2);
  }
  input:focus,
  textarea:focus {
    border-color: var(--ink);
    background: var(--surface);
  }
  .figure {
    width: 52px;
    min-width: 52px;
    border-color: var(--line-2);
    font-weight: 650;
    text-align: center;
  }
  .name {
    font-weight: 650;
    color: var(--ink);
  }
`;

interface RubricEditorProps {
  readonly rubric: Rubric | null;
  readonly points: string;
  readonly onChange: (rubric: Rubric | null) => void;
}

const newLevels = (names: readonly string[], step = 2) =>
  names.map((name, at) => ({ id: uuid(), name, description: '', points: String((at + 1) * step) }));
const newCriterion = (name: string, levels = newLevels(['Thin', 'Basic', 'Sound', 'Strong'])) => ({
  id: uuid(),
  name,
  description: '',
  weight: '1',
  levels,
});
const tidy = (text: string) => text.replace(',', '.');

/** Criteria by levels, edited in place. What is not a rubric yet stays on the page and is said; it is saved once it is one. */
export default function RubricEditor({ rubric, points, onChange }: RubricEditorProps) {
  const notice = useNotice();
  if (!rubric) {
    return (
      <div className="row">
        <Small>The marker gives one mark for the whole work.</Small>
        <Button
          isSmall
          onPress={() =>
            onChange({ criteria: [newCriterion('First criterion'), newCriterion('Second criterion')] })
          }
        >
          Add rubric
        </Button>
      </div>
    );
  }
  const { criteria } = rubric;
  type Criterion = (typeof criteria)[number];
  const fault = Rubric.safeParse(rubric).error?.issues[0]?.message;
  const change = (id: string, part: Partial<Criterion>) =>
    onChange({ criteria: criteria.map((each) => (each.id === id ? { ...each, ...part } : each)) });
  const changeLevel = (criterion: Criterion, at: number, part: Partial<Criterion['levels'][number]>) =>
    change(criterion.id, {
      levels: criterion.levels.map((level, index) => (index === at ? { ...level, ...part } : level)),
    });
  const columns = criteria[0]?.levels ?? [];
  /** A column is a level of every criterion; its name is shared. */
  const rename = (at: number, name: string) =>
    onChange({
      criteria: criteria.map((each) => ({
        ...each,
        levels: each.levels.map((level, index) => (index === at ? { ...level, name } : level)),
      })),
    });
  const addLevel = () =>
    onChange({
      criteria: criteria.map((each) => ({
        ...each,
        levels: [
          ...each.levels,
          { id: uuid(), name: 'New level', description: '', points: String(Number(mostOf(each)) + 2) },
        ],
      })),
    });
  const remove = (next: Rubric | null, what: string) => {
    onChange(next);
    notice(`${what} removed`, { label: 'Undo', do: () => onChange(rubric) });
  };
  return (
    <>
      {fault && <ProblemStrip>{fault} Until then the rubric is not saved.</ProblemStrip>}
      <Frame>
        <table>
          <thead>
            <tr>
              <th>Criterion</th>
              <th>Counts</th>
              {columns.map((level, at) => (
                <th key={level.id}>
                  <input
                    aria-label={`Name of level ${at + 1}`}
                    value={level.name}
                    onChange={(event) => rename(at, event.target.value)}
                  />
                </th>
              ))}
              <th>
                {columns.length < 8 && (
                  <Button kind="quiet" isSmall isIconOnly aria-label="Add a level" onPress={addLevel}>
                    <Plus size={14} aria-hidden="true" />
                  </Button>
                )}
              </th>
            </tr>
          </thead>
          <tbody>
            {criteria.map((criterion, row) => (
              <tr key={criterion.id}>
                <td style={{ minWidth: 130 }}>
                  <input
                    className="name"
                    aria-label={`Criterion ${row + 1}`}
                    value={criterion.name}
                    onChange={(event) => change(criterion.id, { name: event.target.value })}
                  />
                  <textarea
                    rows={2}
                    aria-label={`What criterion ${row + 1} is about`}
                    placeholder="what it is about"
                    value={criterion.description}
                    onChange={(event) => change(criterion.id, { description: event.target.value })}
                  />
                </td>
                <td>
                  <input
                    className="figure"
                    inputMode="decimal"
                    aria-label={`Weight of ${criterion.name}`}
                    value={criterion.weight}
                    onChange={(event) => change(criterion.id, { weight: tidy(event.target.value) })}
                  />
                </td>
                {criterion.levels.map((level, at) => (
                  <td key={level.id} style={{ minWidth: 104 }}>
                    <input
                      className="figure"
                      inputMode="decimal"
                      aria-label={`Points of ${criterion.name}, ${level.name}`}
                      value={level.points}
                      onChange={(event) => changeLevel(criterion, at, { points: tidy(event.target.value) })}
                    />
                    <textarea
                      rows={2}
                      aria-label={`${criterion.name}, ${level.name}`}
                      placeholder="what this level shows"
                      value={level.description}
                      onChange={(event) => changeLevel(criterion, at, { description: event.target.value })}
                    />
                  </td>
                ))}
                <td>
                  {criteria.length > 1 && (
                    <Button
                      kind="quiet"
                      isSmall
                      isIconOnly
                      aria-label={`Remove ${criterion.name}`}
                      onPress={() =>
                        remove(
                          { criteria: criteria.filter((each) => each.id !== criterion.id) },
                          criterion.name,
                        )
                      }
                    >
                      <X size={14} aria-hidden="true" />
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Frame>
      <div className="row">
        {criteria.length < 20 && (
          <Button
            isSmall
            onPress={() =>
              onChange({
                criteria: [
                  ...criteria,
                  newCriterion(
                    'New criterion',
                    columns.length > 0
                      ? columns.map((level) => ({ ...level, id: uuid(), description: '' }))
                      : undefined,
                  ),
                ],
              })
            }
          >
            Add a criterion
          </Button>
        )}
        {columns.length > 2 && (
          <Button
            kind="quiet"
            isSmall
            onPress={() =>
              remove(
                { criteria: criteria.map((each) => ({ ...each, levels: each.levels.slice(0, -1) })) },
                columns.at(-1)?.name ?? 'The level',
              )
            }
          >
            Remove last level
          </Button>
        )}
        <Button kind="quiet" isSmall onPress={() => remove(null, 'Rubric')}>
          Remove rubric
        </Button>
        <Small>
          The best of every criterion comes to {points || '?'} points. Students see it before they hand in.
        </Small>
      </div>
    </>
  );
}
