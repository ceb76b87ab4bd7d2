import { useEffect, useState } from 'react';

/** How far the server's clock is ahead of this machine's. */
let aheadMs = 0;

/** The server's clock decides; what is shown of it follows it, whatever this machine's says.
 * @param iso the moment at which the server answered */
export function noteServerTime(iso: string): void {
  aheadMs = Date.parse(iso) - Date.now();
}

const serverNow = (): number => Date.now() + aheadMs;
const tickMs = 20_000;

/** The time on the server, in milliseconds: told anew every few seconds, and at each of these moments.
 * @param moments ISO 8601; null: there is none */
export function useNow(...moments: readonly (string | null)[]): number {
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const waits = moments
      .map((at) => (at === null ? 0 : Date.parse(at) - serverNow()))
      .filter((wait) => wait > 0);
    const timer = setTimeout(() => setNow(serverNow()), Math.min(tickMs, ...waits) + 20);
    return () => clearTimeout(timer);
  });
  return now;
}
