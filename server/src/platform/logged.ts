/** An error as it may stand in a log: its kind, code and where it came from. Messages, queries and parameters hold what people wrote. */
export function loggedError(error: unknown): { name: string; code?: string; stack?: string[] } {
  if (!(error instanceof Error)) return { name: typeof error };
  const { code } = error as { code?: unknown };
  const stack = error.stack?.split('\n').filter((line) => /^\s+at /.test(line));
  return {
    name: error.name,
    ...(typeof code === 'string' ? { code } : {}),
    ...(stack ? { stack: stack.map((line) => line.trim()) } : {}),
  };
}
