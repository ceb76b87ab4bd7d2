import { useState } from 'react';
import type { ImportPreview, PreviewRowView } from '@jigsaw/contract/import';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { Button, PersonName, Small, Tag } from '../look/index.js';
import { useLines } from '../page/index.js';
import { MendForm } from './MendForm.js';
import type { SaidOfLine } from './useImport.js';

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
  readonly onSayOfLine: (what: SaidOfLine, line: number, isSo: boolean) => void;
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

type GoodRowView = Exclude<PreviewRowView, { kind: 'problem' }>;

function GoodRow({
  place,
  row,
  choices,
}: {
  readonly place: Place;
  readonly row: GoodRowView;
  readonly choices: Choices;
}) {
  const { person, line } = row;
  const isOut = choices.leftOut.has(line);
  const otherRole = row.kind === 'new' ? null : row.otherRole;
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
  const stays =
    otherRole && !otherRole.isTaken && person.role
      ? `listed as ${otherRole.told}, stays ${person.role}`
      : null;
  return (
    <tr {...place} data-kind={row.kind} data-out={isOut || undefined}>
      <td>{line}</td>
      <td>
        {isOut ? <Tag>Skipped</Tag> : kindWords[row.kind]}{' '}
        {choices.mends.has(line) && <Tag>as corrected</Tag>}
      </td>
      <td>
        <b>
          <PersonName name={person.name} reading={person.reading} />
        </b>{' '}
        <Small>{person.email}</Small>
      </td>
      <td className="wrap">
        <Small>{[...details, stays].filter(Boolean).join(' · ')}</Small>
      </td>
      <td>
        <RowActs row={row} choices={choices} otherRole={otherRole} isOut={isOut} />
      </td>
    </tr>
  );
}

interface RowActsProps {
  readonly row: GoodRowView;
  readonly choices: Choices;
  readonly otherRole: Extract<PreviewRowView, { kind: 'unchanged' }>['otherRole'];
  readonly isOut: boolean;
}

/** What can be said of a row that needs no one: each press is taken back by the one that stands there after it. */
function RowActs({ row: { kind, line, person, ...row }, choices, otherRole, isOut }: RowActsProps) {
  const act = (label: string, name: string, onPress: () => void) => (
    <Button kind="quiet" isSmall onPress={onPress} aria-label={name}>
      {label}
    </Button>
  );
  if (isOut) return act('Import it after all', `Import line ${line} after all`, () => choices.onToggle(line));
  return (
    <span className="acts">
      {choices.mends.has(line) &&
        act('As in the file', `Line ${line} as in the file`, () => choices.onMend(line, null))}
      {'hasNewAddress' in row &&
        row.hasNewAddress &&
        act('Different person', `Line ${line} is a different person`, () =>
          choices.onSayOfLine('newAddresses', line, false),
        )}
      {otherRole &&
        (otherRole.isTaken
          ? act('Keep role', `Keep the role of ${person.name}`, () =>
              choices.onSayOfLine('newRoles', line, false),
            )
          : act(`Make ${otherRole.told}`, `Make ${person.name} ${otherRole.told}`, () =>
              choices.onSayOfLine('newRoles', line, true),
            ))}
      {kind !== 'unchanged' && act('Skip', `Skip line ${line}`, () => choices.onToggle(line))}
    </span>
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
                  onPress={() => choices.onSayOfLine('newAddresses', line, true)}
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
        <span className="acts">
          <Button
            isSmall
            onPress={() => choices.onDrop(person.enrolmentId)}
            aria-label={isOut ? `Keep ${person.name}` : `Remove ${person.name}`}
          >
            {isOut ? 'Keep' : 'Remove'}
          </Button>
        </span>
      </td>
    </tr>
  );
}

const sayLeaving = (groups: readonly string[]) =>
  groups.length === 0 ? 'Work and marks are kept' : `Leaves ${groups.join(', ')}; work and marks are kept`;
