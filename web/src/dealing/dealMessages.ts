import type { Deal, DealProblem, Dealt, Looks, Why } from '@jigsaw/core/dealing';
import { askWhy, dealing } from '@jigsaw/core/dealing';

/** What takes more than a moment to work out. */
export type Question =
  /** `looks`: only these of its looks; left out: the usual ones. */
  | { readonly kind: 'deal'; readonly problem: DealProblem; readonly looks?: Looks }
  /** Why this deal leaves this rule, by its place, short. */
  | { readonly kind: 'why'; readonly problem: DealProblem; readonly deal: Deal; readonly rule: number };

export type Told =
  | { readonly kind: 'going'; readonly part: number; readonly best: Deal | null }
  | { readonly kind: 'dealt'; readonly dealt: Dealt }
  | { readonly kind: 'why'; readonly why: Why }
  /** It came to nothing, and why. */
  | { readonly kind: 'given-up'; readonly detail: string };

type Answer = Exclude<Told, { kind: 'going' }>;

/** Works it out, and tells how far it is and at last the answer. */
export function answer(question: Question, hear: (told: Told) => void): void {
  const run = reasoningOf(question);
  for (;;) {
    const next = run.next();
    hear(next.value);
    if (next.done) return;
  }
}

function* reasoningOf(question: Question): Generator<Told, Answer> {
  if (question.kind === 'why') {
    const run = askWhy(question.problem, question.deal, question.rule);
    for (;;) {
      const next = run.next();
      if (next.done) return { kind: 'why', why: next.value };
      yield { kind: 'going', part: next.value.part, best: null };
    }
  }
  const run = dealing(question.problem, question.looks);
  for (;;) {
    const next = run.next();
    if (next.done) return { kind: 'dealt', dealt: next.value };
    yield { kind: 'going', ...next.value };
  }
}
