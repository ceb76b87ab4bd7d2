interface Logged {
  readonly name: string;
  readonly code?: string;
  readonly message?: string;
  readonly stack?: readonly string[];
}

const longestMessage = 300;

/** An error as it may stand in a log: its kind, code, what it says without what people wrote, and where it came from. Queries and parameters never do.
 * @param given the error; or what the logger made of it, with the error as `raw`. */
export function loggedError(given: unknown): Logged {
  const raw = (given as { raw?: unknown } | null)?.raw;
  const error = raw instanceof Error ? raw : given;
  if (!(error instanceof Error)) return { name: typeof error };
  const { code } = error as { code?: unknown };
  const stack = error.stack?.split('\n').filter((line) => /^\s+at /.test(line));
  return {
    name: error.name,
    ...(typeof code === 'string' ? { code } : {}),
    message: withoutValues(error.message),
    ...(stack ? { stack: stack.map((line) => line.trim()) } : {}),
  };
}

const ofTheSchema = /\b(relation|column|constraint|table|index|function|type) "\w{1,60}"/g;

/** What the database calls its own stays; whatever else stands in quotes or brackets, and addresses, may be someone's. */
function withoutValues(message: string): string {
  const own: string[] = [];
  const kept = message.replace(ofTheSchema, (name) => {
    own.push(name);
    return '\u0001';
  });
  return kept
    .replace(/"[^"]*"|“[^”]*”|'[^']*'|\([^)]*\)/g, '…')
    .replace(/\S+@\S+/g, '…')
    .replaceAll('\u0001', () => own.shift() ?? '')
    .replace(/\s+/g, ' ')
    .slice(0, longestMessage);
}

/** The path of a request, without what stands behind its `?`. The address of a calendar is a key in itself, and is not kept. */
export const loggedPath = (url: string): string =>
  (url.split('?')[0] ?? '').replace(/^((?:\/(?:sit-in|practise)\/[^/]*)?\/api\/calendars\/).*/, '$1…');
