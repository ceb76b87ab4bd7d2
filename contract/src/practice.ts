import { z } from 'zod';
import { GroupId } from './common.js';

/** Practising in a group: made ready, so that everything that reaches the group has a copy to practise in. */
export const StartPractice = z.strictObject({ groupId: GroupId });
export type StartPractice = z.infer<typeof StartPractice>;

/** What was practised in a course and not cleared. */
export const PracticeView = z.object({
  /** Counts up with each clearing. */
  round: z.number().int(),
  hasTraces: z.boolean(),
});
export type PracticeView = z.infer<typeof PracticeView>;

export const RestorePractice = z.strictObject({ round: z.number().int().min(1) });
export type RestorePractice = z.infer<typeof RestorePractice>;
