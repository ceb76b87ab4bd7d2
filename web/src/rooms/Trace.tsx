const barPx = { width: 6, gap: 2, height: 22 } as const;

/** A bar for each day, as high as much was written on it; a line where nothing was. */
export function Trace({ days }: { readonly days: readonly number[] }) {
  const most = Math.max(4, ...days);
  const all = days.reduce((sum, count) => sum + count, 0);
  return (
    <svg
      role="img"
      aria-label={`${all} written in ${days.length} days, ${days.at(-1) ?? 0} of it today`}
      width={days.length * (barPx.width + barPx.gap)}
      height={barPx.height}
    >
      {days.map((count, at) => {
        const height = count === 0 ? 1.5 : Math.max(3, Math.sqrt(count / most) * barPx.height);
        return (
          <rect
            key={at}
            x={at * (barPx.width + barPx.gap)}
            y={barPx.height - height}
            width={barPx.width}
            height={height}
            fill={count === 0 ? 'var(--edge)' : 'var(--hue)'}
          />
        );
      })}
    </svg>
  );
}
