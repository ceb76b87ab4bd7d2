import isEqual from 'fast-deep-equal';

/** What is written in an activity. Dates are ISO 8601, points a decimal string. */
export interface Content {
  readonly title: string;
  readonly brief: unknown;
  readonly files: unknown;
  readonly points: string | null;
  readonly rubric: unknown;
  readonly schedule: {
    readonly opens: string | null;
    readonly due: string | null;
    readonly closes: string | null;
  };
  readonly latePolicy: unknown;
  readonly settings: unknown;
}

const parts = [
  'title',
  'brief',
  'files',
  'opens',
  'due',
  'closes',
  'points',
  'latePolicy',
  'rubric',
  'settings',
] as const;
export type ContentPart = (typeof parts)[number];

/** Which parts of an activity another content changes, in the order in which people read them. */
export function partsChanged(before: Content, after: Content): ContentPart[] {
  return parts.filter((part) => !isEqual(valueOf(before, part), valueOf(after, part)));
}

function valueOf(content: Content, part: ContentPart): unknown {
  if (part !== 'opens' && part !== 'due' && part !== 'closes') return content[part];
  const at = content.schedule[part];
  return at === null ? null : Date.parse(at);
}
