import { namesTogether } from '../text/index.js';

/** What stands for something else in a message to many, by how it is typed. */
export const wordsToFill = ['{first name}', '{name}', '{group}'] as const;
type WordToFill = (typeof wordsToFill)[number];

/** Who gets a message: someone, or a group. */
export interface Filled {
  /** In a group's copy, the names of its members. */
  readonly names: readonly string[];
  readonly groups: readonly string[];
}

/** A message as one of its readers gets it: `{first name}`, `{name}` and `{group}` give way to their own. All else in braces stays as it was typed. */
export function fillIn(text: string, { names, groups }: Filled): string {
  const said: Record<WordToFill, string> = {
    '{first name}': namesTogether(names.map(firstName)),
    '{name}': namesTogether(names),
    '{group}': groups.length === 0 ? 'your group' : namesTogether(groups),
  };
  return text.replace(anyWord, (typed) => said[typed.toLowerCase() as WordToFill]);
}

/** Those of the words to fill that a text has. */
export const placeholdersIn = (text: string): readonly WordToFill[] => {
  const typed = new Set([...text.matchAll(anyWord)].map(([word]) => word.toLowerCase()));
  return wordsToFill.filter((word) => typed.has(word));
};

const anyWord = new RegExp(wordsToFill.join('|'), 'gi');

/** What comes before the first blank; all of a name that has none, as names in Chinese or Korean have not. */
const firstName = (name: string): string => name.split(' ')[0] ?? name;
