import type { ActivityId, HeadingId } from '../ids/index.js';
import { groupedBy } from '../lists/index.js';

export interface Heading {
  readonly id: HeadingId;
  readonly activityIds: readonly ActivityId[];
}

/** The order in which a course shows its activities: headings with what stands under them, and after these what stands under none. */
export interface Outline<Of extends Heading = Heading> {
  readonly headings: readonly Of[];
  readonly loose: readonly ActivityId[];
}

/** Where someone put an activity; headingId null: under no heading. */
export interface Place {
  readonly activityId: ActivityId;
  readonly headingId: HeadingId | null;
}

/** @param headings in their order, as they are without what stands under them.
 * @param places in their order. What was put under a heading that is not there any more stands under none.
 * @param all activities of the course: what no one put anywhere follows in this order under no heading, and what is not among them is left out. */
export function outlineOf<Of extends Omit<Heading, 'activityIds'>>(
  headings: readonly Of[],
  places: readonly Place[],
  all: readonly ActivityId[],
): Outline<Of & Heading> {
  const isThere = new Set(all);
  const headingIds = new Set(headings.map(({ id }) => id));
  const known = places.filter(({ activityId }) => isThere.has(activityId));
  const under = groupedBy(known, ({ headingId }) => (headingId && headingIds.has(headingId) ? headingId : null)); // prettier-ignore
  const idsUnder = (headingId: HeadingId | null) => (under.get(headingId) ?? []).map(({ activityId }) => activityId); // prettier-ignore
  const isPut = new Set(known.map(({ activityId }) => activityId));
  return {
    headings: headings.map((heading) => ({ ...heading, activityIds: idsUnder(heading.id) })),
    loose: [...idsUnder(null), ...all.filter((id) => !isPut.has(id))],
  };
}

/** The outline with one activity elsewhere.
 * @param to headingId null: under no heading; before null, or no longer there: at the end.
 * @returns null: there is no such activity or heading in it. */
export function placed<Of extends Heading>(
  outline: Outline<Of>,
  activityId: ActivityId,
  to: { readonly headingId: HeadingId | null; readonly before: ActivityId | null },
): Outline<Of> | null {
  const isIn = (ids: readonly ActivityId[]) => ids.includes(activityId);
  if (!isIn(outline.loose) && !outline.headings.some((heading) => isIn(heading.activityIds))) return null;
  if (to.headingId !== null && !outline.headings.some(({ id }) => id === to.headingId)) return null;
  const next = (ids: readonly ActivityId[], isHere: boolean) => {
    const others = ids.filter((id) => id !== activityId);
    return isHere ? inserted(others, activityId, to.before) : others;
  };
  return {
    headings: outline.headings.map((heading) => ({
      ...heading,
      activityIds: next(heading.activityIds, heading.id === to.headingId),
    })),
    loose: next(outline.loose, to.headingId === null),
  };
}

/** The outline with one heading, and what stands under it, elsewhere.
 * @param before null, or no longer there: at the end.
 * @returns null: there is no such heading. */
export function headingMoved<Of extends Heading>(
  outline: Outline<Of>,
  headingId: HeadingId,
  before: HeadingId | null,
): Outline<Of> | null {
  const moved = outline.headings.find(({ id }) => id === headingId);
  if (!moved) return null;
  const others = outline.headings.filter((heading) => heading !== moved);
  return { ...outline, headings: inserted(others, moved, others.find(({ id }) => id === before) ?? null) };
}

/** What someone who sees only these activities sees of it: a heading under which they see nothing does not exist for them. */
export const seenIn = <Of extends Heading>(
  { headings, loose }: Outline<Of>,
  seen: ReadonlySet<ActivityId>,
): Outline<Of> => {
  const only = (ids: readonly ActivityId[]) => ids.filter((id) => seen.has(id));
  return {
    headings: headings
      .map((heading) => ({ ...heading, activityIds: only(heading.activityIds) }))
      .filter(({ activityIds }) => activityIds.length > 0),
    loose: only(loose),
  };
};

function inserted<Item>(others: readonly Item[], item: Item, before: Item | null): readonly Item[] {
  const at = before === null ? -1 : others.indexOf(before);
  return at === -1 ? [...others, item] : [...others.slice(0, at), item, ...others.slice(at)];
}
