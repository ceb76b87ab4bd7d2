import type { MarkStepView } from '@jigsaw/contract/marks';

/** One step on the way to a mark, in words for the person it is about. */
export function sayStep(step: MarkStepView, markFor: 'group' | 'student' = 'group'): string {
  switch (step.code) {
    case 'group-mark':
      return `${markFor === 'group' ? 'The group’s mark' : 'The mark'} is ${step.mark} of ${step.max}.`;
    case 'override':
      return step.rubricMark === null
        ? `Set by hand: ${step.reason}`
        : `Set by hand instead of the rubric’s ${step.rubricMark}: ${step.reason}`;
    case 'late':
      return `${step.deduction} points less, because it was late.`;
    case 'share':
      return `Times the share of ${step.factor}.`;
    case 'adjusted':
      return `${signed(step.by)} for you: ${step.reason}`;
    case 'held-at':
      return step.bound === '0' ? 'Never below 0.' : `Never above ${step.bound}.`;
    case 'separate':
      return `Your separate mark, ${step.mark}: ${step.reason}`;
    case 'excused':
      return `Excused: ${step.reason}`;
  }
}

export const signed = (value: string): string => (value.startsWith('-') ? `−${value.slice(1)}` : `+${value}`);
