import { v7 as uuid } from 'uuid';
import type { Question } from '@jigsaw/contract/questionnaire';

export const kindsOfQuestion: readonly { readonly kind: Question['kind']; readonly word: string }[] = [
  { kind: 'choice', word: 'Choice' },
  { kind: 'scale', word: 'Scale' },
  { kind: 'short', word: 'Short text' },
  { kind: 'long', word: 'Long text' },
];
export const wordOf = (kind: Question['kind']): string =>
  kindsOfQuestion.find((each) => each.kind === kind)?.word ?? '';

export const aChoice = () => ({ id: uuid(), text: '' });

/** An empty question, with what is usual for its kind. */
export function aQuestion(kind: Question['kind']): Question {
  const any = { id: uuid(), text: '', isRequired: false };
  switch (kind) {
    case 'choice':
      return { ...any, kind, options: [aChoice(), aChoice()], isSeveral: false };
    case 'scale':
      return { ...any, kind, steps: 5, low: '', high: '' };
    case 'short':
    case 'long':
      return { ...any, kind };
  }
}

/** The list with one of it so many places further down; the ends stay the ends. */
export function movedBy<Item>(items: readonly Item[], at: number, by: number): Item[] {
  const to = Math.min(Math.max(at + by, 0), items.length - 1);
  const next = [...items];
  next.splice(to, 0, ...next.splice(at, 1));
  return next;
}
