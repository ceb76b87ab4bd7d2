const hourMs = 3_600_000;

/** An end follows its start, as long as it was; an hour where nothing is known. */
export function endAfter(
  next: string | null,
  { starts, ends }: { readonly starts: string | null; readonly ends: string | null },
): string | null {
  const lasts = starts !== null && ends !== null ? Date.parse(ends) - Date.parse(starts) : hourMs;
  return next === null ? ends : new Date(Date.parse(next) + Math.max(lasts, 60_000)).toISOString();
}
