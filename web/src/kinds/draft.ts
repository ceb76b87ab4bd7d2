import type { ActivityDraft } from '@jigsaw/contract/release';
import { emptyText } from '@jigsaw/core/text';
import type { KindOnPages } from './kind.js';

/** A new draft of one kind, with what is usual for it. */
export const draftOfKind = (
  kind: KindOnPages,
  title = `Untitled ${kind.word.toLowerCase()}`,
): ActivityDraft => ({
  kind: kind.name,
  title,
  brief: emptyText,
  points: kind.usualPoints,
  rubric: null,
  schedule: { opens: null, due: null, closes: null },
  latePolicy: { graceMinutes: 15, stepPercent: 10, periodMinutes: 1440, capPercent: 50 },
  settings: kind.settings.parse({}) as ActivityDraft['settings'],
});
