import type { z } from 'zod';

const most = (count: number | bigint) => count.toLocaleString('en');

/** What is wrong with a value, where its schema has no sentence of its own. What a page sends has one; this is for other programs, and for pages gone wrong. */
export function sayIssue(issue: z.core.$ZodRawIssue): string {
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined
        ? 'Something is missing here.'
        : 'A value here is of another kind than is expected.';
    case 'too_big':
      if (issue.origin === 'string') return `${most(issue.maximum)} characters are the most.`;
      return issue.origin === 'array'
        ? `${most(issue.maximum)} entries are the most.`
        : `${most(issue.maximum)} is the most.`;
    case 'too_small':
      if (issue.origin === 'string') return `${most(issue.minimum)} characters are the least.`;
      return issue.origin === 'array'
        ? `${most(issue.minimum)} entries are the least.`
        : `${most(issue.minimum)} is the least.`;
    case 'unrecognized_keys':
      return 'There is an unknown field here.';
    case 'invalid_format':
      return 'A text here does not have the form that is expected.';
    default:
      return 'A value here is none of those that are possible.';
  }
}
