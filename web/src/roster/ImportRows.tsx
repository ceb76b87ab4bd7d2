import { useState } from 'react';
import type { ImportPreview, PreviewRowView } from '@jigsaw/contract/roster';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { Button, PersonName, Small, Tag } from '../look/index.js';
import { useLines } from '../page/index.js';

/** A row of the file, or someone of the course who is in none of them. */
export type ImportRow =
  PreviewRowView | { readonly kind: 'missing'; readonly person: ImportPreview['missing'][number] };

interface Choices {
  readonly columns: ImportPreview['columns'];
  readonly leftOut: ReadonlySet<number>;
  readonly onToggle: (line: number) => void;
  readonly drop: ReadonlySet<EnrolmentId>;
  readonly onDrop: (id: EnrolmentId) => void;
  readonly mends: ReadonlyMap<number, readonly string[]>;
  readonly onMend: (line: number, cells: readonly string[] | null) => void;
  /** Whether the person of a line is the one who has the number, under a new address. */
  readonly onNewAddress: (line: number, hasNewAddress: boolean) => void;
}

interface ImportRowsProps extends Choices {
  readonly rows: readonly ImportRow[];
  readonly scroller: HTMLDivElement | null;
}

/** Only the rows in view are in the page; the space of the others is held by one row above and one below. */
export function ImportRows({ rows, scroller, ...choices }: ImportRowsProps) {
  const virtual = useLines({ count: rows.length, linePx: 29, scroller, beyond: 12 });
  const shown = virtual.getVirtualItems();
  const above = shown[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (shown.at(-1)?.end ?? 0);
  return (
    <table aria-rowcount={rows.length + 1}>
      <thead>
        <tr aria-rowindex={1}>
          <th>Line</th>
          <th>What happens</th>
          <th>Person</th>
          <th>Details</th>
          <th aria-label="Choice" />
        </tr>
      </thead>
      <tbody>
        {above > 0 && <tr aria-hidden="true" style={{ height: above }} />}
        {shown.map(({ index }) => {
          const row = sure(rows[index]);
          const place = { ref: virtual.measureElement, 'data-index': index, 'aria-rowindex': index + 2 };
          if (row.kind === 'missing')
            return (
              <MissingRow key={row.person.enrolmentId} place={place} person={row.person} choices={choices} />
            );
          if (row.kind === 'problem')
            return <FaultyRow key={row.line} place={place} row={row} choices={choices} />;
          return <GoodRow key={row.line} place={place} row={row} choices={choices} />;
        })}
        {below > 0 && <tr aria-hidden="true" style={{ height: below }} />}
      </tbody>
    </table>
  );
}

interface Place {
  readonly ref: (element: HTMLElement | null) => void;
  readonly 'data-index': number;
  readonly 'aria-rowindex': number;
}

const kindWords = { new: 'Added', changed: 'Changed', unchanged: 'Unchanged' } as const;

function GoodRow({
  place,
  row,
  choices,
}: {
  readonly place: Place;
  readonly row: Exclude<PreviewRowView, { kind: 'problem' }>;
  readonly choices: Choices;
}) {
  const { person, line } = row;
  const details =
    row.kind === 'changed'
      ? row.changes.map(
          (change) => `${change.field}: ${change.from || 'nothing'} → ${change.to || 'nothing'}`,
        )
      : [
          person.number,
          person.role,
          ...person.places.map((place) => place.group),
          ...Object.entries(person.attributes).map(([key, value]) => `${key} ${value}`),
        ];
  return (
    <tr {...place} data-kind={row.kind}>
      <td>{line}</td>
      <td>
        {kindWords[row.kind]} {choices.mends.has(line) && <Tag>as corrected</Tag>}
      </td>
      <td>
        <b>
          <PersonName name={person.name} reading={person.reading} />
        </b>{' '}
        <Small>{person.email}</Small>
      </td>
      <td className="wrap">
        <Small>{details.filter(Boolean).join(' · ')}</Small>
      </td>
      <td>
        {choices.mends.has(line) && (
          <Button
            kind="quiet"
            isSmall
            onPress={() => choices.onMend(line, null)}
            aria-label={`Line ${line} as in the file`}
          >
            As in the file
          </Button>
        )}
        {row.kind === 'changed' && row.hasNewAddress && (
          <Button
            kind="quiet"
            isSmall
            onPress={() => choices.onNewAddress(line, false)}
            aria-label={`Line ${line} is a different person`}
          >
            Different person
          </Button>
        )}
      </td>
    </tr>
  );
}

function FaultyRow({
  place,
  row,
  choices,
}: {
  readonly place: Place;
  readonly row: Extract<PreviewRowView, { kind: 'problem' }>;
  readonly choices: Choices;
}) {
  const { line, cells, sentences, mayBe } = row;
  const [isMending, setMending] = useState(false);
  const isOut = choices.leftOut.has(line);
  return (
    <tr {...place} data-kind="problem" data-out={isOut || undefined}>
      <td>{line}</td>
      <td>{isOut ? <Tag>Skipped</Tag> : <Tag $look="needs">Needs you</Tag>}</td>
      <td colSpan={3} className="wrap">
        <div className="fault">
          <span>{sentences.join(' ')}</span>
          {!isMending && (
            <span className="acts">
              {!isOut && mayBe !== null && (
                <Button
                  // Another name may be another person with a number that was used before.
                  kind={mayBe.isAlike ? 'main' : 'plain'}
                  isSmall
                  onPress={() => choices.onNewAddress(line, true)}
                  aria-label={`Line ${line} is ${mayBe.name}, with a new address`}
                >
                  Same person, new address
                </Button>
              )}
              {!isOut && (
                <Button isSmall onPress={() => setMending(true)} aria-label={`Correct line ${line}`}>
                  Correct…
                </Button>
              )}
              <Button
                isSmall
                onPress={() => choices.onToggle(line)}
                aria-label={isOut ? `Import line ${line} after all` : `Skip line ${line}`}
              >
                {isOut ? 'Import it after all' : 'Skip'}
              </Button>
            </span>
          )}
          {!isMending && <code>{cells.join(' │ ').slice(0, 120)}</code>}
        </div>
        {isMending && (
          <MendForm
            line={line}
            cells={cells}
            faultyCell={row.faultyCell}
            columns={choices.columns}
            onUse={(next) => {
              setMending(false);
              choices.onMend(line, next);
            }}
            onLeave={() => setMending(false)}
          />
        )}
      </td>
    </tr>
  );
}

interface MendFormProps {
  readonly line: number;
  readonly cells: readonly string[];
  /** Which cell is at fault, and so where the reader begins; null: none in particular. */
  readonly faultyCell: number | null;
  readonly columns: ImportPreview['columns'];
  readonly onUse: (cells: string[]) => void;
  readonly onLeave: () => void;
}

/** One row's cells, to be put right here; the file itself stays as it is. */
function MendForm({ line, cells, faultyCell, columns, onUse, onLeave }: MendFormProps) {
  const [draft, setDraft] = useState(() => columns.map((_, at) => cells[at] ?? ''));
  return (
    <form
      aria-label={`Line ${line}`}
      onKeyDown={(event) => event.key === 'Escape' && onLeave()}
      onSubmit={(event) => {
        event.preventDefault();
        onUse(draft);
      }}
    >
      {columns.map(
        (column, at) =>
          column.meaning !== 'left-out' && (
            <label key={at}>
              {column.heading}
              <input
                value={draft[at]}
                autoFocus={at === (faultyCell ?? 0)}
                aria-invalid={at === faultyCell || undefined}
                onChange={(event) =>
                  setDraft(draft.map((each, index) => (index === at ? event.target.value : each)))
                }
              />
            </label>
          ),
      )}
      <Button kind="main" isSmall type="submit">
        Use this
      </Button>
      <Button kind="quiet" isSmall onPress={onLeave}>
        Cancel
      </Button>
    </form>
  );
}

function MissingRow({
  place,
  person,
  choices,
}: {
  readonly place: Place;
  readonly person: ImportPreview['missing'][number];
  readonly choices: Choices;
}) {
  const isOut = choices.drop.has(person.enrolmentId);
  return (
    <tr {...place} data-kind="missing" data-out={isOut || undefined}>
      <td />
      <td>
        {isOut ? (
          <Tag $look="needs">{person.isDropped ? 'Not listed, leaves' : 'Leaves'}</Tag>
        ) : (
          'Not in file, stays'
        )}
      </td>
      <td>
        <b>
          <PersonName name={person.name} />
        </b>{' '}
        <Small>{person.email}</Small>
      </td>
      <td>
        <Small>{isOut ? sayLeaving(person.groups) : person.groups.join(', ')}</Small>
      </td>
      <td>
        <Button
          isSmall
          onPress={() => choices.onDrop(person.enrolmentId)}
          aria-label={isOut ? `Keep ${person.name}` : `Remove ${person.name}`}
        >
          {isOut ? 'Keep' : 'Remove'}
        </Button>
      </td>
    </tr>
  );
}

const sayLeaving = (groups: readonly string[]) =>
  groups.length === 0 ? 'Work and marks are kept' : `Leaves ${groups.join(', ')}; work and marks are kept`;
