import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
import { CopyId, DateTime, PersonName } from './common.js';
import { GroupTag } from './sets.js';

const mostQuestions = 60;
const mostOptions = 20;
const wholeScale = 'A scale has 2 to 10 steps.';

/** Drafts are kept as they are typed: what is still missing is said before they are released, not here. */
const anyQuestion = {
  /** Made by the page, and kept for as long as the question is there: answers hang on it. */
  id: z.uuid(),
  text: z.string().overwrite(oneLine).max(500),
  isRequired: z.boolean().default(false),
};
export const Question = z.discriminatedUnion('kind', [
  z.strictObject({
    ...anyQuestion,
    kind: z.literal('choice'),
    options: z
      .array(z.strictObject({ id: z.uuid(), text: z.string().overwrite(oneLine).max(300) }))
      .max(mostOptions, `Remove choices: a question can have ${mostOptions}.`),
    isSeveral: z.boolean().default(false),
  }),
  z.strictObject({
    ...anyQuestion,
    kind: z.literal('scale'),
    steps: z.number().int(wholeScale).min(2, wholeScale).max(10, wholeScale).default(5),
    low: z.string().overwrite(oneLine).max(100).default(''),
    high: z.string().overwrite(oneLine).max(100).default(''),
  }),
  z.strictObject({ ...anyQuestion, kind: z.enum(['short', 'long']) }),
]);
export type Question = z.infer<typeof Question>;

export const QuestionnaireSettings = z.strictObject({
  /** No one, staff neither, can tell who answered what. */
  isAnonymous: z.boolean().default(false),
  questions: z
    .array(Question)
    .max(mostQuestions, `Remove questions: there can be ${mostQuestions}.`)
    .refine(
      (questions) => {
        const ids = questions.flatMap((one) => [one.id, ...(one.kind === 'choice' ? one.options.map(({ id }) => id) : [])]); // prettier-ignore
        return new Set(ids).size === ids.length;
      },
      { error: 'Two questions or choices have the same id. Remove one and add it anew.' },
    )
    .default([]),
});
export type QuestionnaireSettings = z.infer<typeof QuestionnaireSettings>;

/** By the id of the question: ids of what was chosen, the number of a step, or a text. */
export const Answers = z
  .record(z.string(), z.union([z.string(), z.number(), z.array(z.string()).readonly()]))
  .readonly();
export type Answers = z.infer<typeof Answers>;

/** What was answered in one copy, for staff. */
export const CopyAnswers = z.object({
  copyId: CopyId,
  /** null: one copy for all. */
  group: GroupTag.nullable(),
  members: z.number().int(),
  /** How many of its members, as they are now, have answered. */
  answered: z.number().int(),
  /** Who of them have not; null where it is anonymous. */
  waiting: z.array(PersonName).nullable(),
  /** Too few have answered an anonymous one to tell what. */
  isHeldBack: z.boolean(),
  /** One for each who answered, in no order where it is anonymous; by: null there, too. */
  sheets: z.array(z.object({ by: PersonName.nullable(), answers: Answers })),
});
export type CopyAnswers = z.infer<typeof CopyAnswers>;

export const QuestionnaireView = z.object({
  /** The asker's own answers; null: none yet, or no one knows which ones are theirs. */
  mine: z.object({ answers: Answers, version: z.number().int(), at: DateTime }).nullable(),
  hasAnswered: z.boolean(),
  mayAnswer: z.boolean(),
  /** For those who may read what each answered. */
  results: CopyAnswers.nullable(),
});
export type QuestionnaireView = z.infer<typeof QuestionnaireView>;

/** Of all copies that the asker may read. */
export const AllAnswers = z.object({ copies: z.array(CopyAnswers) });
export type AllAnswers = z.infer<typeof AllAnswers>;

/** @param version of one's own answers as they were read: 0: there were none.
 * @param isAnonymous what the page promised to the person who answered. */
export const GiveAnswers = z.strictObject({
  answers: Answers,
  version: z.number().int().min(0),
  isAnonymous: z.boolean(),
});
export type GiveAnswers = z.infer<typeof GiveAnswers>;
