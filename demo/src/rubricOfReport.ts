import { sure } from '@jigsaw/core/lists';
const level = (id: string, name: string, points: string, description: string) => ({
  id,
  name,
  points,
  description,
});
const criterion = (
  id: string,
  name: string,
  description: string,
  ...says: readonly [string, string, string, string]
) => ({
  id,
  name,
  description,
  weight: '1',
  levels: [
    level('thin', 'Thin', '2', says[0]),
    level('basic', 'Basic', '4', says[1]),
    level('sound', 'Sound', '6', says[2]),
    level('strong', 'Strong', '8', says[3]),
  ],
});

/** Five criteria of 8 each: 40 points. */
export const reportRubric = {
  criteria: [
    criterion(
      'method',
      'Method',
      'and controls',
      'No control',
      'Control, not used',
      'Control used',
      'Control argued',
    ),
    criterion(
      'kinetics',
      'Kinetics',
      'rates, fit',
      'Values only',
      'Rate, no error',
      'Rate and fit',
      'Fit and limits',
    ),
    criterion(
      'meaning',
      'Interpretation',
      'what it means',
      'Restates',
      'One cause',
      'Causes weighed',
      'Tests a rival',
    ),
    criterion(
      'sensory',
      'Sensory',
      'panel evidence',
      'Anecdote',
      'Scores',
      'Scores tied to data',
      'Design argued',
    ),
    criterion(
      'writing',
      'Writing',
      'and figures',
      'Hard to follow',
      'Clear in parts',
      'Clear',
      'Clear and brief',
    ),
  ],
};

export type ReportPoints = readonly [string, string, string, string, string];

/** Points by criterion, in the order above, with something said where there is something to say. */
export const picksFor = (points: ReportPoints, comments: Readonly<Record<string, string>> = {}) =>
  Object.fromEntries(
    reportRubric.criteria.map(({ id }, at) => [
      id,
      { points: sure(points[at]), comment: comments[id] ?? '' },
    ]),
  );
