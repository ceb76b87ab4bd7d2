import type { KindOnPages } from './kind.js';

const registered: KindOnPages[] = [];

/** The kinds that there are, in the order in which they are offered. They are registered where the application starts, so that no page knows
 * which there are. */
export const kinds: readonly KindOnPages[] = registered;

export function registerKind<Settings>(kind: KindOnPages<Settings>): void {
  registered.push(kind as KindOnPages); // the caller of a kind gives it settings that its own schema has parsed
}

/** A kind by its name; one that this page does not know yet, after an update, has none. */
export const kindOf = (name: string): KindOnPages | undefined => kinds.find((kind) => kind.name === name);
