import type { SightlinesView } from '@jigsaw/contract/sightlines';
import type { ActivityId } from '@jigsaw/core/ids';
import type { SightCell, SightFacts, SightOf, Why } from '@jigsaw/core/sightlines';
import { cellsAt, whyOf } from '@jigsaw/core/sightlines';
import { factsOf } from '@jigsaw/contract/sightFacts';

export type Cells = readonly (readonly SightCell[])[];

/** Cells on their way from the worker: thousands of them are some dozens of different ones. */
export interface PackedCells {
  readonly different: readonly SightCell[];
  /** For each activity, in its order, which of these each column has. */
  readonly lines: readonly Uint32Array[];
}

/** What a worker is asked: the facts once, then what follows from them for as many moments as someone likes. */
export function sightWork() {
  let facts: SightFacts | null = null;
  return {
    load(view: SightlinesView): void {
      facts = factsOf(view);
    },
    cells(columns: readonly SightOf[], at: number): PackedCells {
      const different: SightCell[] = [];
      const places = new Map<string, number>();
      const placeOf = (cell: SightCell): number => {
        const name = nameOfCell(cell);
        const known = places.get(name);
        if (known !== undefined) return known;
        places.set(name, different.length);
        return different.push(cell) - 1;
      };
      const lines = (facts === null ? [] : cellsAt(facts, columns, at)).map((line) => Uint32Array.from(line, placeOf)); // prettier-ignore
      return { different, lines };
    },
    why: (activityId: ActivityId, of: SightOf, at: number): Why | null =>
      facts === null ? null : whyOf(facts, activityId, of, at),
  };
}

const nameOfCell = ({ code, from, members, see, laterMs, isClosed }: SightCell): string =>
  `${code} ${from} ${members} ${see} ${laterMs} ${isClosed}`;

/** Unpacks answers so that a cell which is as before is the very same one, and is not drawn again. */
export function unpacker(): (packed: PackedCells) => Cells {
  const known = new Map<string, SightCell>();
  return ({ different, lines }) => {
    const cells = different.map((cell) => {
      const name = nameOfCell(cell);
      const same = known.get(name) ?? cell;
      known.set(name, same);
      return same;
    });
    return lines.map((line) => Array.from(line, (place) => cells[place] as SightCell));
  };
}
