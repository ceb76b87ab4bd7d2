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

/** Where a request comes from, as far as the network tells: an address, or the network of one where someone has billions of them (IPv6). Behind
 * proxies it is what they say, as far as `TRUST_PROXY` trusts them. */
export function clientOf({ ip = '' }: Pick<Request, 'ip'>): string {
  const plain = ip.replace(/^::ffff:(?=\d+\.)/, '');
  if (!plain.includes(':')) return plain;
  const [head = '', tail = ''] = plain.split('::');
  const parts = [head, tail].map((part) => (part === '' ? [] : part.split(':')));
  const zeros = Array<string>(Math.max(0, 8 - (parts[0]?.length ?? 0) - (parts[1]?.length ?? 0))).fill('0');
  const whole = plain.includes('::')
    ? [...(parts[0] ?? []), ...zeros, ...(parts[1] ?? [])]
    : plain.split(':');
  return `${whole.slice(0, 4).join(':')}::/64`;
}
