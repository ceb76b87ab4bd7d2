import type { z } from 'zod';
import type { ActivityContent, ActivityDraft, AttachedFile } from '@jigsaw/contract/release';
import type { LatePolicy } from '@jigsaw/core/handin';
import { briefElsewhere } from '@jigsaw/core/release';
import { startingWithArticle } from '@jigsaw/core/text';
import { json } from '../platform/json.js';
import { problems } from '../platform/problems.js';
import { plainDecimalOrNull } from './decimals.js';
import type { Kinds } from './kinds.js';
import type { ActivityRow } from './release.rows.js';

/** What is written in an activity, as its row has it. */
export function contentOf(activity: ActivityRow, kinds: Kinds): ActivityContent {
  return {
    kind: activity.kind,
    title: activity.title,
    brief: activity.brief,
    files: [...activity.files],
    points: plainDecimalOrNull(activity.points),
    rubric: activity.rubric as ActivityContent['rubric'],
    schedule: {
      opens: activity.opens?.toISOString() ?? null,
      due: activity.due?.toISOString() ?? null,
      closes: activity.closes?.toISOString() ?? null,
    },
    latePolicy: activity.latePolicy,
    settings: kinds.settingsOf(activity) as ActivityContent['settings'],
  };
}

/** What someone typed, as it is kept.
 * @throws invalid-input for settings that its kind does not know. */
export function contentOfDraft(draft: z.output<typeof ActivityDraft>, kinds: Kinds): ActivityContent {
  const { opens, due, closes } = draft.schedule;
  const settings = kinds.check(draft.kind, draft.settings);
  if (!kinds.of(draft).isWork && (draft.points !== null || due !== null))
    throw problems.invalidInput(
      `${startingWithArticle(draft.kind)} has no points and no due date. Remove them, or choose another kind.`,
    );
  if (!kinds.of(draft).isMarked && draft.points !== null)
    throw problems.invalidInput(
      `${startingWithArticle(draft.kind)} has no points. Remove them, or choose another kind.`,
    );
  return {
    ...draft,
    points: plainDecimalOrNull(draft.points),
    schedule: { opens: instant(opens), due: instant(due), closes: instant(closes) },
    settings,
  };
}

/** @param isElsewhere in another course, which has other groups. */
export const contentOfCopy = (
  content: ActivityContent,
  kinds: Kinds,
  { isElsewhere, keepsDates }: { readonly isElsewhere: boolean; readonly keepsDates: boolean },
): ActivityContent => ({
  ...content,
  brief: isElsewhere ? briefElsewhere(content.brief) : content.brief,
  settings: isElsewhere ? forNoGroup(content, kinds) : content.settings,
  schedule: keepsDates ? content.schedule : { opens: null, due: null, closes: null },
});

function forNoGroup({ kind, settings }: ActivityContent, kinds: Kinds): ActivityContent['settings'] {
  const of = kinds.of({ kind });
  const left = of.forGroup?.(of.settings.parse(settings), null);
  return left === undefined ? settings : (left as ActivityContent['settings']);
}

export interface ContentColumns {
  readonly kind: string;
  readonly title: string;
  readonly brief: object;
  readonly files: AttachedFile[];
  readonly points: string | null;
  readonly rubric: object | null;
  readonly opens: Date | null;
  readonly due: Date | null;
  readonly closes: Date | null;
  readonly latePolicy: LatePolicy;
  readonly settings: object;
}

export function columnsOf(content: ActivityContent): ContentColumns {
  const { opens, due, closes } = content.schedule;
  return {
    kind: content.kind,
    title: content.title,
    brief: json(content.brief),
    files: content.files,
    points: content.points,
    rubric: content.rubric && json(content.rubric),
    opens: dateOrNull(opens),
    due: dateOrNull(due),
    closes: dateOrNull(closes),
    latePolicy: content.latePolicy,
    settings: json(content.settings),
  };
}

/** The activity as it would be with this in it. */
export const withContent = (activity: ActivityRow, content: ActivityContent): ActivityRow =>
  withColumns(activity, columnsOf(content));
export const withColumns = (activity: ActivityRow, columns: object): ActivityRow =>
  Object.assign(Object.create(null) as ActivityRow, activity, columns);

const instant = (at: string | null) => (at === null ? null : new Date(at).toISOString());
const dateOrNull = (at: string | null) => (at === null ? null : new Date(at));
