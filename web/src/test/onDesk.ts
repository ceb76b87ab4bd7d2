import type { DeskRow, MarkView } from '@jigsaw/contract/marks';
import { aGroup, aHandIn, at, aWork, courseId, id } from './data.js';
import { inCourse, showPage } from './showPage.js';

export const releaseId = id<'release'>('release');

export const copyId = id<'copy'>('copy');

export const markPath = `copies/${copyId}/marks/group`;

export const aRow = (more: Partial<DeskRow> = {}): DeskRow => ({
  copyId,
  unit: 'group',
  group: aGroup(),
  student: null,
  people: [],
  work: { at, isComplete: true, lateMinutes: 160, deduction: '2', by: 'Noor' },
  mark: { state: 'unmarked', groupMark: null },
  suggested: null,
  needsYou: true,
  ...more,
});

export const carboy = aRow({ copyId: id('carboy'), group: aGroup('Carboy', 2), work: null, needsYou: false });

export const desk = (
  mark: MarkView,
  rows = [aRow(), carboy],
  more = {},
  role: 'instructor' | 'observer' = 'instructor',
) =>
  showPage(
    inCourse(`marks/${releaseId}/${copyId}/group`),
    {
      [`GET courses/${courseId}/desk`]: {
        activities: [
          {
            activityId: id('report'),
            releaseId,
            kind: 'assignment',
            title: 'Ferment report',
            points: '40',
            toMark: 1,
            unitCount: 2,
            markFor: 'group',
          },
        ],
      },
      [`GET releases/${releaseId}/desk`]: {
        releaseId,
        kind: 'assignment',
        title: 'Ferment report',
        points: '40',
        due: at,
        markFor: 'group',
        isWithdrawn: false,
        rows,
      },
      [`GET ${markPath}`]: mark,
      [`GET copies/${copyId}/work`]: aWork({ mayHandIn: false, handIns: [aHandIn()], state: 'done' }),
      ...more,
    },
    role,
  );
