import type { Question } from './questions.js';

/** Ids of what was chosen, the number of a step, or a text. */
export type Answer = string | number | readonly string[];
/** By the id of the question. */
export type Answers = Readonly<Record<string, Answer>>;

export const longestShort = 500;
/** Some thousand words; a class of hundreds still is one page to read. */
export const longestLong = 20_000;

/** A blank text and a choice of nothing are no answers. */
export const isAnswered = (answer: Answer | undefined): answer is Answer =>
  answer !== undefined &&
  (typeof answer === 'number' || (typeof answer === 'string' ? answer.trim() !== '' : answer.length > 0));

/** The answers to these questions, without those that are blank. */
export const onlyAnswered = (questions: readonly Question[], answers: Answers): Answers =>
  Object.fromEntries(
    questions.flatMap(({ id }) => {
      const answer = Object.hasOwn(answers, id) ? answers[id] : undefined;
      return isAnswered(answer) ? [[id, answer]] : [];
    }),
  );

/** What has to be mended before answers can be sent, by question, in the order of the questions. */
export function faultsOf(questions: readonly Question[], given: Answers): ReadonlyMap<string, string> {
  const answers = onlyAnswered(questions, given);
  const faults = new Map<string, string>();
  for (const question of questions) {
    const why = faultOf(question, answers[question.id]);
    if (why !== null) faults.set(question.id, why);
  }
  return faults;
}

function faultOf(question: Question, answer: Answer | undefined): string | null {
  if (answer === undefined) return question.isRequired ? 'Answer this question.' : null;
  switch (question.kind) {
    case 'choice': {
      if (!isChoice(answer)) return 'Choose from the list.';
      const known = new Set(question.options.map(({ id }) => id));
      if (!answer.every((id) => known.has(id)) || new Set(answer).size < answer.length)
        return 'Choose from the list.';
      return answer.length > 1 && !question.isSeveral ? 'Choose one.' : null;
    }
    case 'scale':
      return typeof answer === 'number' && Number.isInteger(answer) && answer >= 1 && answer <= question.steps
        ? null
        : 'Choose a step.';
    case 'short':
    case 'long': {
      const most = question.kind === 'short' ? longestShort : longestLong;
      if (typeof answer !== 'string') return 'Write an answer.';
      return answer.length > most ? `Shorten this to ${most.toLocaleString('en')} characters.` : null;
    }
  }
}

const isChoice = (answer: Answer): answer is readonly string[] => typeof answer === 'object';

/** How often each choice or step was chosen, in their order.
 * @param sheets the answers of each person.
 * @returns counts: empty for texts; middle: the median step, the lower of two, null where there is none. */
export function tally(
  question: Question,
  sheets: readonly Answers[],
): { readonly answered: number; readonly counts: readonly number[]; readonly middle: number | null } {
  const answers = sheets.flatMap((sheet) => {
    const answer = sheet[question.id];
    return isAnswered(answer) ? [answer] : [];
  });
  const answered = answers.length;
  if (question.kind === 'choice') {
    const countOf = new Map<string, number>();
    for (const answer of answers)
      if (isChoice(answer)) for (const id of answer) countOf.set(id, (countOf.get(id) ?? 0) + 1);
    return { answered, counts: question.options.map(({ id }) => countOf.get(id) ?? 0), middle: null };
  }
  if (question.kind === 'scale') {
    const steps = answers.filter((answer) => typeof answer === 'number').toSorted((a, b) => a - b);
    const counts = Array.from({ length: question.steps }, () => 0);
    for (const step of steps) counts[step - 1] = (counts[step - 1] ?? 0) + 1;
    return { answered, counts, middle: steps[Math.ceil(steps.length / 2) - 1] ?? null };
  }
  return { answered, counts: [], middle: null };
}

/** An answer as a file tells it. */
export function sayAnswer(question: Question, answer: Answer | undefined): string {
  if (!isAnswered(answer)) return '';
  if (!isChoice(answer)) return String(answer);
  if (question.kind !== 'choice') return '';
  const chosen = new Set(answer);
  return question.options
    .filter(({ id }) => chosen.has(id))
    .map(({ text }) => text)
    .join('; ');
}

/** Of how many answers it can no longer be told whose they are. */
export const leastAnonymous = 3;

/** Whether answers are still kept from staff, since so few could be told apart. */
export const isHeldBack = (isAnonymous: boolean, answered: number): boolean =>
  isAnonymous && answered < leastAnonymous;
