import type { StopState } from './round.js';

const how: Readonly<Record<StopState, string>> = {
  open: 'open',
  settled: 'settled',
  done: 'done',
  later: 'put off',
  'not-needed': 'not needed',
};
/** How a stop stands, in a word. */
export const sayHow = (state: StopState): string => how[state];

/** How many of some stops stand how: "2 settled, 1 put off, 1 left". */
export function sayStops(stops: readonly { readonly state: StopState }[]): string {
  const counts = new Map<StopState, number>();
  for (const { state } of stops) counts.set(state, (counts.get(state) ?? 0) + 1);
  return (['settled', 'done', 'later', 'not-needed', 'open'] as const)
    .flatMap((state) => {
      const count = counts.get(state);
      return count ? [`${count} ${state === 'open' ? 'left' : sayHow(state)}`] : [];
    })
    .join(', ');
}
