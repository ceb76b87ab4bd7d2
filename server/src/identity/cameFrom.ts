import type { Request } from 'express';

// The order matters: most browsers also name those that they descend from.
const browsers = [
  ['Edg/', 'Edge'],
  ['OPR/', 'Opera'],
  ['Firefox/', 'Firefox'],
  ['FxiOS/', 'Firefox'],
  ['Chrome/', 'Chrome'],
  ['CriOS/', 'Chrome'],
  ['Safari/', 'Safari'],
] as const;
const systems = [
  ['Android', 'Android'],
  ['iPhone', 'iPhone'],
  ['iPad', 'iPad'],
  ['Windows', 'Windows'],
  ['Mac OS', 'Mac'],
  ['Linux', 'Linux'],
] as const;

/** From which browser and system a request says it came, in words that its owner knows again: "Firefox on Linux". Never more of what it said. */
export function cameFrom(request: Pick<Request, 'headers'>): string {
  const said = request.headers['user-agent'] ?? '';
  const named = (of: readonly (readonly [string, string])[]) => of.find(([mark]) => said.includes(mark))?.[1];
  const [browser, system] = [named(browsers), named(systems)];
  if (browser && system) return `${browser} on ${system}`;
  return browser ?? system ?? 'Another program';
}
