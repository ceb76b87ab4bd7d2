import { z } from 'zod';
import { sure } from '@jigsaw/core/lists';
import { ActivityId, CopyId, DateTime, EnrolmentId, GroupId, GroupSetId, ReleaseId } from './common.js';
import { MarkUnit } from './marks.js';

/** What one student has of one copy of an assignment. */
export const GradebookCell = z.object({
  state: z.enum(['released', 'excused', 'drafted', 'to-mark', 'missing', 'open']),
  mark: z.string().nullable(),
  /** What the mark is out of: for a released one, the points of then. */
  points: z.string(),
  /** They would be given something else now. */
  isChanged: z.boolean(),
  copyId: CopyId,
  unit: MarkUnit,
  isLate: z.boolean(),
  /** The group whose copy it is, told where they have several; null: this is all they have, or it is for everyone. */
  group: z.string().nullable(),
});
export type GradebookCell = z.infer<typeof GradebookCell>;

const GradebookActivity = z.object({
  activityId: ActivityId,
  releaseId: ReleaseId,
  /** null: the class. */
  setId: GroupSetId.nullable(),
  markFor: z.enum(['group', 'student']),
  kind: z.string(),
  title: z.string(),
  points: z.string(),
  due: DateTime.nullable(),
  /** Withdrawn from students, marks included. */
  isWithdrawn: z.boolean(),
});

const GradebookStudent = z.object({
  enrolmentId: EnrolmentId,
  name: z.string(),
  familyName: z.string().nullable(),
  reading: z.string().nullable(),
  number: z.string().nullable(),
  groups: z.array(
    z.object({ setId: GroupSetId, groupId: GroupId, number: z.number().int(), name: z.string() }),
  ),
});

/** Students by activities. */
export interface Gradebook {
  readonly activities: readonly z.infer<typeof GradebookActivity>[];
  readonly students: readonly (z.infer<typeof GradebookStudent> & {
    /** For each of `activities`, in their order, what they have of it: one for each copy that counts for them; none: they were in no group that it
     * was released to. */
    readonly cells: readonly (readonly GradebookCell[])[];
  })[];
}

/** A gradebook as it is sent: what the members of a group have in common is in it once. */
export const FoldedGradebook = z.object({
  activities: z.array(GradebookActivity),
  cells: z.array(GradebookCell),
  students: z.array(GradebookStudent.extend({ cells: z.array(z.array(z.int())) })),
});
export type FoldedGradebook = z.infer<typeof FoldedGradebook>;

/** @param book in which equal cells are one object. */
export function foldGradebook({ activities, students }: Gradebook): FoldedGradebook {
  const places = new Map<GradebookCell, number>();
  const placeOf = (cell: GradebookCell): number => {
    const known = places.get(cell);
    if (known !== undefined) return known;
    places.set(cell, places.size);
    return places.size - 1;
  };
  const folded = students.map((student) => ({
    ...student,
    cells: student.cells.map((cells) => cells.map(placeOf)),
  }));
  return { activities: [...activities], cells: [...places.keys()], students: folded };
}

export const unfoldGradebook = ({ activities, cells, students }: FoldedGradebook): Gradebook => ({
  activities,
  students: students.map((student) => ({
    ...student,
    cells: student.cells.map((places) => places.map((place) => sure(cells[place]))),
  })),
});
