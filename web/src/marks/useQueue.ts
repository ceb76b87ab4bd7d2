import { useSearchParams } from 'react-router';
import type { DeskRow } from '@jigsaw/contract/marks';
import { useAudienceFilter } from '../audiences/index.js';

const all = 'all';
const toMark = 'to-mark';

export interface Queue {
  /** In their order. The row that is open stays, so that the hand finds it again. */
  readonly shown: readonly DeskRow[];
  readonly isNarrowed: boolean;
  readonly choices: readonly { readonly id: string; readonly label: string }[];
  readonly chosen: string;
  readonly choose: (id: string) => void;
  /** What every address of this queue ends in. */
  readonly search: string;
  /** Its people are being asked for. */
  readonly isAsking: boolean;
  readonly error: unknown;
}

/** Where the next press leads. */
export interface Next {
  readonly row: DeskRow;
  readonly to: string;
}

/** The queue of the Marking desk, narrowed to what is to mark or to a saved audience. The address keeps it.
 * @param here the place of the row that is open. */
export function useQueue(courseId: string, rows: readonly DeskRow[], here: string): Queue {
  const [params, setParams] = useSearchParams();
  const asked = params.get('show') ?? all;
  const audience = useAudienceFilter(courseId, asked);
  const { people, isChosen } = audience;
  // An audience that is gone meanwhile narrows nothing.
  const chosen = isChosen || asked === toMark ? asked : all;
  const isIn = (row: DeskRow) =>
    chosen === all || (isChosen ? row.people.some((id) => people?.has(id)) : row.needsYou);
  return {
    shown: rows.filter((row) => isIn(row) || placeOf(row) === here),
    isNarrowed: chosen !== all,
    choices: [{ id: all, label: 'All' }, { id: toMark, label: 'To mark' }, ...audience.choices],
    chosen,
    choose: (id) => setParams(id === all ? {} : { show: id }),
    search: chosen === all ? '' : `?show=${encodeURIComponent(chosen)}`,
    isAsking: isChosen && people === null && audience.error === undefined,
    error: audience.error,
  };
}

export const placeOf = ({ copyId, unit }: Pick<DeskRow, 'copyId' | 'unit'>): string => `${copyId}/${unit}`;
