import type { Access, Part } from './decide.js';

/** Who may do what in a copy of one kind of activity while it is open. What is not listed, no one may. */
export interface KindRules<Act extends string = string> {
  readonly acts: Readonly<Record<Act, readonly Exclude<Part, 'reader'>[]>>;
}

/** Readers never do anything, and no one does anything in what is closed to them, whatever the kind says. */
export function mayAct<Act extends string>(
  rules: KindRules<Act>,
  act: Act,
  { access, part }: { readonly access: Access; readonly part: Part },
): boolean {
  return access === 'open' && part !== 'reader' && rules.acts[act].includes(part);
}
