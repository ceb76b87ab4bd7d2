import type { ImportPreview, PreviewRowView } from '@jigsaw/contract/import';
import { sure } from '@jigsaw/core/lists';
import { counted, fold } from '@jigsaw/core/text';
import { Button, FootBar, Small } from '../look/index.js';
import type { SaidOfLine } from './useImport.js';

interface FootProps {
  readonly preview: ImportPreview;
  readonly leftOut: ReadonlySet<number>;
  /** Faulty rows that are not skipped. */
  readonly open: readonly Extract<PreviewRowView, { kind: 'problem' }>[];
  readonly missing: ImportPreview['missing'];
  /** Those of the missing who leave the course. */
  readonly leaving: ImportPreview['missing'];
  readonly isBusy: boolean;
  readonly onSayOfLines: (what: SaidOfLine, lines: readonly number[], isSo: boolean) => void;
  readonly onSkipAll: () => void;
  readonly onRemoveAll: () => void;
  readonly onCancel: () => void;
  readonly onImport: () => void;
}

/** What the import does as it stands, and what can be said of many rows by one press. */
export function ImportFoot({
  preview,
  leftOut,
  open,
  missing,
  leaving,
  isBusy,
  onSayOfLines,
  onSkipAll,
  onRemoveAll,
  onCancel,
  onImport,
}: FootProps) {
  const readdressed = open.filter((row) => row.mayBe?.isAlike);
  const withRole = preview.rows.filter(
    (row) => 'otherRole' in row && row.otherRole?.isTaken === false && !leftOut.has(row.line),
  );
  const taken = preview.rows.filter((row) => !leftOut.has(row.line));
  const count = taken.filter((row) => row.kind === 'new' || row.kind === 'changed').length;
  const made = leftOut.size === 0 ? preview.newGroups : stillNamed(preview.newGroups, taken);
  const why =
    preview.columnProblem ??
    (open.length > 0
      ? `${counted(open.length, 'row needs', 'rows need')} you first`
      : count + leaving.length === 0
        ? 'Nothing differs from the roster'
        : null);
  return (
    <FootBar data-acts>
      <span>
        Nothing has changed yet. All rows are imported together, or none.
        {made.map((each) => ` ${sayNewGroups(each)}`)}
      </span>
      <span className="grow" />
      {readdressed.length > 1 && (
        <Button
          kind="quiet"
          onPress={() =>
            onSayOfLines(
              'newAddresses',
              readdressed.map((row) => row.line),
              true,
            )
          }
        >
          Update {readdressed.length} addresses
        </Button>
      )}
      {withRole.length > 1 && (
        <Button
          kind="quiet"
          onPress={() =>
            onSayOfLines(
              'newRoles',
              withRole.map((row) => row.line),
              true,
            )
          }
        >
          Update {withRole.length} roles
        </Button>
      )}
      {open.length > 1 && (
        <Button kind="quiet" onPress={onSkipAll}>
          Skip all {open.length}
        </Button>
      )}
      {missing.length > 1 && leaving.length < missing.length && (
        <Button kind="quiet" onPress={onRemoveAll}>
          Remove all {missing.length} not in the file
        </Button>
      )}
      <Button onPress={onCancel}>Cancel import</Button>
      {why && <Small>{why}</Small>}
      <Button kind="main" isDisabled={why !== null || isBusy} onPress={onImport}>
        {isBusy ? 'One moment…' : sayDoing(count, leaving.length)}
      </Button>
    </FootBar>
  );
}

/** The new groups that a row names which is not skipped. */
function stillNamed(
  newGroups: ImportPreview['newGroups'],
  rows: readonly PreviewRowView[],
): ImportPreview['newGroups'] {
  const named = new Set(
    rows.flatMap((row) =>
      row.kind === 'problem' ? [] : row.person.places.map((place) => fold(place.group)),
    ),
  );
  return newGroups
    .map((each) => ({ ...each, groups: each.groups.filter((group) => named.has(fold(group))) }))
    .filter((each) => each.groups.length > 0);
}

const sayDoing = (rows: number, leaving: number): string => {
  const importing = `Import ${counted(rows, 'row')}`;
  if (leaving === 0) return importing;
  return rows === 0 ? `Remove ${leaving}` : `${importing}, remove ${leaving}`;
};

/** “New set Bench teams with 12 groups.” */
function sayNewGroups({ set, isNew, groups }: ImportPreview['newGroups'][number]): string {
  const named =
    groups.length > 4
      ? `${groups.length} groups, ${sure(groups[0])} to ${sure(groups.at(-1))}`
      : groups.join(', ');
  if (set === null) return `New, a group for each section: ${named}.`;
  return isNew ? `New set ${set}: ${named}.` : `New in ${set}: ${named}.`;
}
