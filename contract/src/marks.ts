import { z } from 'zod';
import {
  ActivityId,
  CopyId,
  DateTime,
  DecimalString,
  EnrolmentId,
  GroupId,
  PersonName,
  Points,
  ReleaseId,
} from './common.js';
import { CopyHead } from './rooms.js';
import { GroupTag } from './sets.js';
import { Member } from './course.js';
import { LatePolicy } from './release.js';
import { Picks, Rubric } from './rubric.js';

/** changed: students were given another mark than they would be given now. */
export const MarkState = z.enum(['unmarked', 'drafted', 'released', 'changed']);

export const AdjustmentShape = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('adjusted'), by: DecimalString.nullable(), reason: z.string() }),
  z.strictObject({ kind: z.literal('separate'), mark: Points.nullable(), reason: z.string() }),
  z.strictObject({ kind: z.literal('excused'), reason: z.string() }),
]);
export type AdjustmentShape = z.infer<typeof AdjustmentShape>;

const MarkStepView = z.discriminatedUnion('code', [
  z.object({ code: z.literal('group-mark'), mark: z.string(), max: z.string() }),
  z.object({
    code: z.literal('override'),
    rubricMark: z.string().nullable(),
    mark: z.string(),
    reason: z.string(),
  }),
  z.object({ code: z.literal('late'), deduction: z.string() }),
  z.object({ code: z.literal('share'), factor: z.string(), weight: z.string() }),
  z.object({ code: z.literal('adjusted'), by: z.string(), reason: z.string() }),
  z.object({ code: z.literal('held-at'), bound: z.string() }),
  z.object({ code: z.literal('separate'), mark: z.string(), reason: z.string() }),
  z.object({ code: z.literal('excused'), reason: z.string() }),
]);
export type MarkStepView = z.infer<typeof MarkStepView>;

/** What gets one mark: a whole group, or one student. */
export const MarkUnit = z.union([z.literal('group'), EnrolmentId]);
export type MarkUnit = z.infer<typeof MarkUnit>;

/** One row of the desk's queue. */
export const DeskRow = z.object({
  copyId: CopyId,
  unit: MarkUnit,
  /** null: a copy for all. */
  group: GroupTag.nullable(),
  /** Where each student has a mark of their own. */
  student: PersonName.nullable(),
  /** Whose mark it is. */
  people: z.array(EnrolmentId),
  /** The work as it stands; null: there is none yet. */
  work: z
    .object({
      at: DateTime,
      isComplete: z.boolean(),
      lateMinutes: z.number().int(),
      deduction: z.string(),
      by: z.string(),
    })
    .nullable(),
  mark: z.object({ state: MarkState, groupMark: z.string().nullable() }),
  /** What its kind proposes, as long as no one has marked it. */
  suggested: z.string().nullable(),
  /** There is work and no mark, or new work since the mark. */
  needsYou: z.boolean(),
});
export type DeskRow = z.infer<typeof DeskRow>;

export const DeskList = z.object({
  activities: z.array(
    z.object({
      activityId: ActivityId,
      releaseId: ReleaseId,
      kind: z.string(),
      title: z.string(),
      points: z.string(),
      toMark: z.number().int(),
      unitCount: z.number().int(),
      markFor: z.enum(['group', 'student']),
    }),
  ),
});
export type DeskList = z.infer<typeof DeskList>;

export const DeskView = z.object({
  releaseId: ReleaseId,
  kind: z.string(),
  title: z.string(),
  points: z.string(),
  due: DateTime.nullable(),
  markFor: z.enum(['group', 'student']),
  /** Withdrawn from students, marks included. */
  isWithdrawn: z.boolean(),
  rows: z.array(DeskRow),
});
export type DeskView = z.infer<typeof DeskView>;

export const Evidence = z.object({ label: z.string(), value: z.string() });

/** One student whose given mark is not what they would be given now, and how they differ, in words. */
export const ChangeSince = z.object({ member: Member, says: z.string() });
export type ChangeSince = z.infer<typeof ChangeSince>;

export const MarkView = z.object({
  copy: CopyHead,
  points: z.string(),
  unit: MarkUnit,
  state: MarkState,
  /** The mark as it stands: typed, or from the rubric. */
  groupMark: z.string().nullable(),
  typedMark: z.string().nullable(),
  overrideReason: z.string(),
  picks: Picks,
  feedback: z.string(),
  lateDeduction: z.string(),
  lateMinutes: z.number().int(),
  /** Of those with time of their own: how late the group's work is for them. */
  ownLate: z.array(z.object({ enrolmentId: EnrolmentId, minutes: z.number().int(), deduction: z.string() })),
  /** What the kind would propose, and how it comes to it. */
  suggestion: z.object({ mark: z.string(), why: z.string() }).nullable(),
  version: z.number().int(),
  isStale: z.boolean(),
  beforeDue: z.boolean(),
  releasedAt: DateTime.nullable(),
  /** Who releasing it again would give something else; no one, where nothing was given. */
  changes: z.array(ChangeSince),
  members: z.array(
    z.object({
      member: Member,
      isStillInGroup: z.boolean(),
      evidence: z.array(Evidence),
      adjustment: AdjustmentShape.nullable(),
      mark: z.string().nullable(),
      steps: z.array(MarkStepView),
    }),
  ),
  /** Who changed it last, in whatever way; null: no one yet. */
  changedBy: z.string().nullable(),
  history: z.array(z.object({ at: DateTime, by: z.string(), what: z.string() })),
});
export type MarkView = z.infer<typeof MarkView>;

/** What became of a sheet by saving, releasing or recalling it. */
export const SavedMark = z.object({
  version: z.number().int(),
  state: MarkState,
  groupMark: z.string().nullable(),
  changes: z.array(ChangeSince),
  /** There is work and no mark, or new work since the mark. */
  needsYou: z.boolean(),
});
export type SavedMark = z.infer<typeof SavedMark>;

/** Everything the desk edits, saved as it is typed. A reason may still be on its way; release asks for it. */
export const SaveMark = z.strictObject({
  /** The mark itself; with a rubric, what stands in its place. */
  typedMark: Points.nullable(),
  overrideReason: z.string().max(2000),
  picks: Picks,
  feedback: z.string().max(20_000),
  adjustments: z.array(z.strictObject({ enrolmentId: EnrolmentId, adjustment: AdjustmentShape })).max(1000),
  version: z.number().int().min(0),
});
export type SaveMark = z.infer<typeof SaveMark>;

/** @param version that the marker has before them: another one is neither released nor taken back. */
export const SeenMark = z.strictObject({ version: z.number().int() });
export type SeenMark = z.infer<typeof SeenMark>;

/** One unit of a release that can be released with others, or whose suggested mark can be taken with theirs. */
export const ReadyUnit = z.object({
  copyId: CopyId,
  unit: MarkUnit,
  version: z.number().int(),
  /** The group, or the student. */
  who: PersonName,
  mark: z.string().nullable(),
  /** Who releasing it gives a mark, or another one. */
  students: z.number().int(),
  /** They have a mark of it already. */
  isChange: z.boolean(),
  /** Why it cannot be released yet. */
  lacks: z.string().nullable(),
});
export type ReadyUnit = z.infer<typeof ReadyUnit>;
export const ReadyMarks = z.object({
  toRelease: z.array(ReadyUnit),
  /** No one has marked them, and their kind proposes this mark. */
  toTake: z.array(ReadyUnit),
});
export type ReadyMarks = z.infer<typeof ReadyMarks>;

/** Several units of one release, each as the marker saw it: all of them or none. */
export const SeenUnits = z.strictObject({
  units: z
    .array(z.strictObject({ copyId: CopyId, unit: MarkUnit, version: z.number().int() }))
    .min(1)
    .max(2000),
});
export type SeenUnits = z.infer<typeof SeenUnits>;
export const MarkedMany = z.object({ units: z.number().int(), students: z.number().int() });
export type MarkedMany = z.infer<typeof MarkedMany>;

/** What is about to be changed: more time for one group or one student (null: everyone's date again), or, without it, what is in work in the activity. */
export const ForeseeMarks = z.strictObject({
  extension: z
    .union([
      z.strictObject({ groupId: GroupId, due: DateTime.nullable() }),
      z.strictObject({ enrolmentId: EnrolmentId, due: DateTime.nullable() }),
    ])
    .nullable(),
});
export type ForeseeMarks = z.infer<typeof ForeseeMarks>;

/** Whose given marks would no longer be what they would be given, and how. */
export const ForeseenMarks = z.object({
  changes: z.array(ChangeSince.extend({ group: GroupTag.nullable() })),
});
export type ForeseenMarks = z.infer<typeof ForeseenMarks>;

/** A student's own released marks: theirs and the group's, never a teammate's. */
export const MyMark = z.object({
  copyId: CopyId,
  title: z.string(),
  points: z.string(),
  /** null: a copy for all. */
  group: GroupTag.nullable(),
  markFor: z.enum(['group', 'student']),
  groupMark: z.string().nullable(),
  rubric: z.object({ rubric: Rubric, picks: Picks }).nullable(),
  mark: z.string().nullable(),
  steps: z.array(MarkStepView),
  feedback: z.string(),
  lateMinutes: z.number().int(),
  /** What being late cost then; null: not known any more. */
  latePolicy: LatePolicy.nullable(),
  handedInAt: DateTime.nullable(),
  releasedAt: DateTime,
  markedBy: z.string(),
  /** Not looked at before this moment. */
  isNew: z.boolean(),
});
export type MyMark = z.infer<typeof MyMark>;
export const MyMarks = z.object({
  marks: z.array(MyMark),
  waiting: z.array(z.object({ title: z.string(), points: z.string() })),
});
export type MyMarks = z.infer<typeof MyMarks>;

/** Marks released until this moment have been looked at. */
export const MarksSeen = z.strictObject({ until: DateTime });
export type MarksSeen = z.infer<typeof MarksSeen>;
