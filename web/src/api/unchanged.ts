import type { Asked, Query } from './query.js';

interface Held {
  readonly mark: string;
  readonly data: unknown;
}
/** What the server answered last, by address, with the mark that it gave its answer. The browser keeps nothing of it: anyone who comes to the same machine
 * later finds nothing. */
let held = new Map<string, Held>();
const mostHeld = 60;

/** Someone else may use this page now. */
export const forgetAnswers = (): void => {
  held = new Map();
};

/** Asks, and names the answer that is here. One that is as it was is not sent again, and is the same object again. */
export function holdingAnswers(ask: Query): Query {
  return async (request, context, extra) => {
    const address = plainAddressOf(request);
    if (address === null) return ask(request, context, extra);
    // What is unchanged is what was named, whatever came, or was forgotten, since.
    const own = held;
    const here = own.get(address);
    const answer = await ask(here ? naming(here.mark, address) : request, context, extra);
    if (here && answer.error?.status === 304) return { data: here.data, meta: answer.meta };
    const mark = answer.error ? null : answer.meta?.response?.headers.get('ETag');
    if (mark) hold(own, address, { mark, data: answer.data });
    return answer;
  };
}

/** null: it is no plain read. */
function plainAddressOf(request: Asked): string | null {
  if (typeof request === 'string') return request;
  const { url, method = 'GET', params, headers } = request;
  return method === 'GET' && params === undefined && headers === undefined ? url : null;
}

// Browsers ask for a whole answer with "no-cache" wherever a page names a mark itself.
const naming = (mark: string, url: string): Asked => ({
  url,
  headers: { 'If-None-Match': mark, 'Cache-Control': 'max-age=0' },
});

function hold(own: Map<string, Held>, address: string, answer: Held): void {
  own.delete(address);
  own.set(address, answer);
  const [oldest] = own.keys();
  if (own.size > mostHeld && oldest !== undefined) own.delete(oldest);
}
