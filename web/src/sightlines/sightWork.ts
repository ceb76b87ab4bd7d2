import type { SightlinesView } from '@jigsaw/contract/sightlines';
import type { GroupSetId } from '@jigsaw/core/ids';
import type { SightCell, SightFacts } from '@jigsaw/core/sightlines';
import { cellsAt } from '@jigsaw/core/sightlines';
import { factsOf } from './factsOf.js';

export type Cells = readonly (readonly SightCell[])[];

/** What a worker is asked: the facts once, then cells for as many moments as someone likes. */
export function sightWork() {
  let facts: SightFacts | null = null;
  return {
    load(view: SightlinesView): void {
      facts = factsOf(view);
    },
    cells: (setId: GroupSetId, at: number): Cells => (facts === null ? [] : cellsAt(facts, setId, at)),
  };
}
