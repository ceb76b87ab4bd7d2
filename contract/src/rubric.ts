import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
import { sure } from '@jigsaw/core/lists';
import { Points } from './common.js';

const Weight = Points.refine((value) => Number(value) > 0, 'A weight must be above 0.');
const RowId = z.string().min(1).max(40);

const Level = z.strictObject({
  id: RowId,
  name: z.string().overwrite(oneLine).max(80),
  description: z.string().max(600),
  points: Points,
});
const Criterion = z
  .strictObject({
    id: RowId,
    name: z.string().overwrite(oneLine).min(1, 'Give each criterion a name.').max(120),
    description: z.string().max(600),
    weight: Weight,
    levels: z.array(Level).min(2, 'A criterion needs at least 2 levels.').max(8),
  })
  .refine(
    ({ levels }) =>
      levels.every((level, at) => at === 0 || Number(sure(levels[at - 1]).points) < Number(level.points)),
    {
      path: ['levels'],
      error: 'Levels go from the fewest points to the most.',
    },
  );

/** Criteria by levels; students see it before they hand in. */
export const Rubric = z
  .strictObject({ criteria: z.array(Criterion).min(1, 'A rubric needs at least 1 criterion.').max(20) })
  .refine(
    ({ criteria }) => new Set(criteria.map((criterion) => criterion.id)).size === criteria.length,
    'Each criterion has an id of its own.',
  );
export type Rubric = z.infer<typeof Rubric>;

/** What was given by criterion; null points: not picked yet. */
export const Picks = z.record(
  RowId,
  z.strictObject({ points: Points.nullable(), comment: z.string().max(4000) }),
);
export type Picks = z.infer<typeof Picks>;
