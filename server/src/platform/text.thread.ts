import { countWords } from '@jigsaw/core/text';
import { compare, countChanges } from '@jigsaw/core/wiki';
import { yieldToOthers } from './yielding.js';

yieldToOthers();

export interface Changed {
  readonly added: number;
  readonly removed: number;
}

export type TextTask =
  | { readonly kind: 'words'; readonly text: string }
  | { readonly kind: 'changes'; readonly before: string; readonly after: string };

/** What takes long on a long text. */
export default function work(task: TextTask): number | Changed {
  return task.kind === 'words' ? countWords(task.text) : countChanges(compare(task.before, task.after));
}
