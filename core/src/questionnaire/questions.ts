import { counted } from '../text/index.js';

interface AnyQuestion {
  readonly id: string;
  readonly text: string;
  /** Whether it has to be answered before the answers can be sent. */
  readonly isRequired: boolean;
}
export interface ChoiceQuestion extends AnyQuestion {
  readonly kind: 'choice';
  readonly options: readonly { readonly id: string; readonly text: string }[];
  /** Whether several can be chosen. */
  readonly isSeveral: boolean;
}
export interface ScaleQuestion extends AnyQuestion {
  readonly kind: 'scale';
  /** How many steps there are; they are numbered from 1. */
  readonly steps: number;
  /** What the first and the last step mean. */
  readonly low: string;
  readonly high: string;
}
export interface TextQuestion extends AnyQuestion {
  readonly kind: 'short' | 'long';
}
export type Question = ChoiceQuestion | ScaleQuestion | TextQuestion;

export interface Asks {
  readonly isAnonymous: boolean;
  readonly questions: readonly Question[];
}

/** What is missing before people can be asked, in words; null: nothing. */
export function notReadyToAsk({ questions }: Asks): string | null {
  if (questions.length === 0) return 'Add a question.';
  for (const [index, question] of questions.entries()) {
    const which = `question ${index + 1}`;
    if (question.text.trim() === '') return `Write ${which}.`;
    if (question.kind !== 'choice') continue;
    if (question.options.length < 2) return `Give ${which} at least two choices.`;
    if (question.options.some(({ text }) => text.trim() === ''))
      return `Write or remove the empty choice of ${which}.`;
  }
  return null;
}

/** Why questions cannot be changed like this once people have answered; null: they can. What was answered has to stay true: wording can be
 * corrected, questions and choices added and put in another order. */
export function whyNotChanged(before: Asks, after: Asks): string | null {
  const orCopy = 'Correct the wording, add to it, or make a copy.';
  if (before.isAnonymous !== after.isAnonymous)
    return `People have answered already, so it stays ${before.isAnonymous ? 'anonymous' : 'with names'}. ${orCopy}`;
  const next = new Map(after.questions.map((question) => [question.id, question]));
  for (const [index, question] of before.questions.entries()) {
    const why = whyNotOther(question, next.get(question.id));
    if (why !== null) return `People have answered already, so question ${index + 1} ${why}. ${orCopy}`;
  }
  return null;
}

function whyNotOther(before: Question, after: Question | undefined): string | null {
  if (!after) return 'stays';
  if (before.kind === 'scale' && after.kind === 'scale')
    return before.steps === after.steps ? null : `keeps its ${counted(before.steps, 'step')}`;
  if (before.kind === 'choice' && after.kind === 'choice') {
    const kept = new Set(after.options.map(({ id }) => id));
    if (!before.options.every(({ id }) => kept.has(id))) return 'keeps its choices';
    return before.isSeveral && !after.isSeveral ? 'keeps several choices' : null;
  }
  return before.kind === after.kind ? null : 'stays of its kind';
}
