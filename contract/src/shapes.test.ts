import { describe, expect, it } from '@jest/globals';
import { DiscussionSettings } from './discussion.js';
import { CreateGroupSet } from './setUp.js';
import { AssignmentSettings, FolderSettings } from './handin.js';
import { SaveMark } from './marks.js';
import { Schedule } from './release.js';
import { CreateCourse } from './course.js';
import { Rubric } from './rubric.js';
import { WikiSettings } from './wiki.js';

const faults = (parsed: {
  success: boolean;
  error?: { issues: { path: PropertyKey[]; message: string }[] } | undefined;
}) => parsed.error?.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`) ?? [];

describe('what the edge says of a fault', () => {
  it('names the field and what to do', () => {
    expect(
      faults(CreateCourse.safeParse({ code: ' ', title: 'T', term: '', timeZone: 'Mars/Olympus' })),
    ).toEqual([
      'code: Give the course a short code, like FER 220.',
      'timeZone: Choose a time zone from the list.',
    ]);
    expect(
      faults(
        CreateGroupSet.safeParse({
          name: 'S',
          shape: { by: 'size', size: 0, how: 'spread' },
          capacity: 0,
          pattern: '',
          names: [],
        }),
      ),
    ).toEqual(['shape.size: A group has at least 1 member.', 'capacity: A group holds at least 1.']);
  });

  it('keeps marks decimals: no more than two places, no exponents, no commas', () => {
    const sheet = (typedMark: string) =>
      SaveMark.safeParse({
        typedMark,
        overrideReason: '',
        picks: {},
        feedback: '',
        adjustments: [],
        version: 0,
      }).success;
    expect(['31.5', '0', '40', '7.25'].every(sheet)).toBe(true);
    expect(['31,5', '1e3', '7.255', '-1', '', 'NaN', '123456'].some(sheet)).toBe(false);
  });

  it('keeps dates in order, whichever are given', () => {
    const [first, second] = ['2026-11-01T00:00:00.000Z', '2026-11-02T00:00:00.000Z'];
    expect(Schedule.safeParse({ opens: first, due: second, closes: null }).success).toBe(true);
    expect(Schedule.safeParse({ opens: second, due: null, closes: first }).success).toBe(false);
    expect(Schedule.safeParse({ opens: null, due: null, closes: null }).success).toBe(true);
    expect(Schedule.safeParse({ opens: 'yesterday', due: null, closes: null }).success).toBe(false);
  });

  it('takes a rubric whose levels rise and whose weights count, and says what is wrong with any other', () => {
    const level = (points: string) => ({ id: points, name: 'Sound', description: '', points });
    const rubric = (weight: string, ...points: string[]) =>
      Rubric.safeParse({
        criteria: [{ id: 'c', name: 'Method', description: '', weight, levels: points.map(level) }],
      });
    expect(rubric('1', '0', '2.5', '4').success).toBe(true);
    expect(faults(rubric('0', '0', '4'))).toEqual(['criteria.0.weight: A weight must be above 0.']);
    expect(faults(rubric('1', '4', '2'))).toEqual([
      'criteria.0.levels: Levels go from the fewest points to the most.',
    ]);
    expect(faults(rubric('1', '4'))).toEqual(['criteria.0.levels: A criterion needs at least 2 levels.']);
    expect(faults(Rubric.safeParse({ criteria: [] }))).toEqual([
      'criteria: A rubric needs at least 1 criterion.',
    ]);
  });

  it('reads the settings of every kind from nothing, as its defaults', () => {
    for (const settings of [AssignmentSettings, FolderSettings, DiscussionSettings, WikiSettings])
      expect(settings.safeParse({}).success).toBe(true);
    expect(faults(FolderSettings.safeParse({ mostFiles: 300, types: ['.PDF'] }))).toEqual([
      'mostFiles: 50 files are the most.',
      'types.0: Endings are letters and figures, like pdf.',
    ]);
  });

  it('takes no field that it does not know', () =>
    expect(
      CreateCourse.safeParse({ code: 'A', title: 'T', term: '', timeZone: 'UTC', isAdmin: true }).success,
    ).toBe(false));
});
