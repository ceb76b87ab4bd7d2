import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { ActivityId, HeadingId } from '../ids/index.js';
import type { Outline } from './outline.js';
import { headingMoved, outlineOf, placed, seenIn } from './outline.js';

const activity = (name: string) => name as ActivityId;
const heading = (name: string) => name as HeadingId;
const all = ['log', 'memo', 'report', 'tasting', 'wiki'].map(activity);
const outline = outlineOf(
  [{ id: heading('milk') }, { id: heading('salt') }],
  [
    { activityId: activity('report'), headingId: heading('salt') },
    { activityId: activity('log'), headingId: heading('milk') },
    { activityId: activity('memo'), headingId: heading('salt') },
    { activityId: activity('wiki'), headingId: heading('deleted') },
    { activityId: activity('deleted'), headingId: heading('milk') },
  ],
  all,
);
const said = ({ headings, loose }: Outline) =>
  [...headings.map(({ id, activityIds }) => `${id}: ${activityIds.join(' ')}`), `: ${loose.join(' ')}`].join(' | '); // prettier-ignore

describe('an outline', () => {
  it('has each activity once: under its heading, or under none', () =>
    expect(said(outline)).toBe('milk: log | salt: report memo | : wiki tasting'));

  it('takes an activity elsewhere: before another, to the end, under no heading', () => {
    const to = (id: string, headingId: string | null, before: string | null) =>
      said(placed(outline, activity(id), { headingId: headingId && heading(headingId), before: before && activity(before) } as never) ?? outline); // prettier-ignore
    expect(to('log', 'salt', 'memo')).toBe('milk:  | salt: report log memo | : wiki tasting');
    expect(to('memo', 'salt', 'report')).toBe('milk: log | salt: memo report | : wiki tasting');
    expect(to('tasting', 'milk', null)).toBe('milk: log tasting | salt: report memo | : wiki');
    expect(to('report', null, 'tasting')).toBe('milk: log | salt: memo | : wiki report tasting');
    // What stood there was moved by someone else.
    expect(to('report', 'milk', 'memo')).toBe('milk: log report | salt: memo | : wiki tasting');
  });

  it('takes a heading elsewhere with what is under it', () => {
    expect(said(headingMoved(outline, heading('salt'), heading('milk')) ?? outline)).toBe(
      'salt: report memo | milk: log | : wiki tasting',
    );
    expect(said(headingMoved(outline, heading('milk'), null) ?? outline)).toBe(
      'salt: report memo | milk: log | : wiki tasting',
    );
  });

  it('does not know what is not in it', () => {
    expect(placed(outline, activity('other'), { headingId: null, before: null })).toBeNull();
    expect(placed(outline, activity('log'), { headingId: heading('other'), before: null })).toBeNull();
    expect(headingMoved(outline, heading('other'), null)).toBeNull();
  });

  it('has no heading for someone who sees nothing under it', () => {
    expect(said(seenIn(outline, new Set(['memo', 'tasting'].map(activity))))).toBe('salt: memo | : tasting');
    expect(seenIn(outline, new Set())).toEqual({ headings: [], loose: [] });
  });
});

describe('whatever is moved in an outline', () => {
  const ids = Array.from({ length: 6 }, (_, at) => activity(`a${at}`));
  const headingIds = Array.from({ length: 3 }, (_, at) => heading(`h${at}`));
  const headingOrNone = fc.constantFrom(...headingIds, null);
  const anOutline = fc
    .array(fc.record({ activityId: fc.constantFrom(...ids), headingId: headingOrNone }), { maxLength: 8 })
    .map((places) => [...new Map(places.map((place) => [place.activityId, place])).values()])
    .map((places) => outlineOf(headingIds.map((id) => ({ id })), places, ids)); // prettier-ignore
  const idsOf = ({ headings, loose }: Outline) => [...headings.flatMap((each) => each.activityIds), ...loose];
  const placeOf = ({ headings, loose }: Outline, id: ActivityId) => {
    const under = headings.find(({ activityIds }) => activityIds.includes(id));
    const list = under?.activityIds ?? loose;
    return { headingId: under?.id ?? null, before: list[list.indexOf(id) + 1] ?? null };
  };

  it('loses nothing, doubles nothing, keeps the order of the others, and can be taken back', () =>
    fc.assert(
      fc.property(
        anOutline,
        fc.constantFrom(...ids),
        headingOrNone,
        fc.constantFrom(...ids, null),
        (before, id, headingId, next) => {
          const after = placed(before, id, { headingId, before: next });
          if (after === null) throw new Error('It is in it.');
          expect(idsOf(after).toSorted()).toEqual(ids);
          const others = ids.filter((each) => each !== id);
          expect(seenIn(after, new Set(others))).toEqual(seenIn(before, new Set(others)));
          expect(placeOf(after, id).headingId).toBe(headingId);
          expect(placed(after, id, placeOf(before, id))).toEqual(before);
        },
      ),
    ));
});
