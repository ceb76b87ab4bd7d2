import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
import { only } from '@jigsaw/core/lists';
import { inOrder } from '@jigsaw/core/release';
import {
  ActivityId,
  AudienceId,
  CopyId,
  DateTime,
  EnrolmentId,
  FileId,
  GroupId,
  GroupSetId,
  Points,
  ReleaseId,
} from './common.js';
import { Rubric } from './rubric.js';
import type { RichText } from './text.js';
import { Brief, StoredRichText } from './text.js';

/** A moment that someone chose. A year that is half typed is none. */
export const Moment = DateTime.refine(
  (at) => at >= '2000' && at < '2200',
  'Enter a four-digit year, like 2026.',
);

const millis = (at: string | null) => (at === null ? null : Date.parse(at));

export const Schedule = z
  .strictObject({ opens: Moment.nullable(), due: Moment.nullable(), closes: Moment.nullable() })
  .refine(
    ({ opens, due, closes }) => inOrder({ opens: millis(opens), due: millis(due), closes: millis(closes) }),
    {
      path: ['due'],
      error: 'Opens, due and closes must come in that order.',
    },
  );
export type Schedule = z.infer<typeof Schedule>;

export const ScheduleView = z.object({
  opens: DateTime.nullable(),
  due: DateTime.nullable(),
  closes: DateTime.nullable(),
});

export const LatePolicy = z.strictObject({
  graceMinutes: z.number().int().min(0).max(10_080),
  stepPercent: z.number().int().min(0).max(100),
  periodMinutes: z.number().int().min(1).max(10_080),
  capPercent: z.number().int().min(0).max(100),
});
export type LatePolicy = z.infer<typeof LatePolicy>;

/** A kind of activity by its registered name. Which there are is the registry's to say. */
export const KindName = z.string().regex(/^[a-z][a-z-]{1,39}$/);

/** What a kind alone knows; checked by the kind's own schema. */
export const KindSettings = z.record(z.string(), z.unknown());
export type KindSettings = z.infer<typeof KindSettings>;

/** A file that staff attached for everyone who gets the activity. Its id says which; the rest is told of it. */
export const AttachedFile = z.strictObject({
  id: FileId,
  name: z.string().max(255),
  mediaType: z.string().max(200),
  sizeBytes: z.number().int(),
  /** Each copy has its own, which those in it change; otherwise all read the same. */
  isPerGroup: z.boolean(),
});
export type AttachedFile = z.infer<typeof AttachedFile>;

/** What is written once for all copies. */
export const ActivityDraft = z.strictObject({
  kind: KindName,
  title: z.string().overwrite(oneLine).min(1, 'Give it a title.').max(200),
  brief: Brief,
  files: z.array(AttachedFile).max(20, '20 files are the most. Put some of them into one.').default([]),
  /** null: it is not marked. */
  points: Points.refine((value) => Number(value) > 0, 'Points must be above 0.').nullable(),
  rubric: Rubric.nullable(),
  schedule: Schedule,
  latePolicy: LatePolicy,
  settings: KindSettings,
});
export type ActivityDraft = Omit<z.input<typeof ActivityDraft>, 'brief'> & { readonly brief: RichText };
const draft = Object.keys(ActivityDraft.shape) as (keyof ActivityDraft)[];
/** What is written in an activity, without what became of it. */
export const draftOf = (activity: ActivityDraft): ActivityDraft => only(activity, draft);

export const EditActivity = ActivityDraft.extend({ version: z.number().int() });
export type EditActivity = ActivityDraft & { readonly version: number };

/** A copy for another set is called the same; one to write further is told apart by its title. */
export const CopyActivity = z.strictObject({ keepsTitle: z.boolean().default(false) }).prefault({});
export type CopyActivity = z.output<typeof CopyActivity>;

/** Activities of other courses that the asker releases in, as drafts of this one. */
export const CopyFromCourse = z.strictObject({
  activityIds: z.array(ActivityId).min(1, 'Choose some activities.').max(200),
  keepsDates: z.boolean(),
});
export type CopyFromCourse = z.infer<typeof CopyFromCourse>;

/** What is done to several activities at once: all of it or nothing. Each has an act that takes it back. */
export const ManyAct = z.discriminatedUnion('kind', [
  /** All dates, and those of exceptions, so many days later; negative: earlier. */
  z.strictObject({
    kind: z.literal('move'),
    days: z
      .number()
      .int()
      .min(-730)
      .max(730)
      .refine((days) => days !== 0, 'Choose a number of days other than 0.'),
  }),
  z.strictObject({ kind: z.literal('withdraw') }),
  /** As it was before it was withdrawn. */
  z.strictObject({ kind: z.literal('release-again') }),
  z.strictObject({ kind: z.literal('copy') }),
  z.strictObject({ kind: z.literal('delete') }),
  z.strictObject({ kind: z.literal('restore') }),
]);
export type ManyAct = z.infer<typeof ManyAct>;

export const ChangeMany = z.strictObject({
  activities: z
    .array(z.strictObject({ id: ActivityId, version: z.number().int() }))
    .min(1, 'Choose some activities.')
    .max(500),
  act: ManyAct,
});
export type ChangeMany = z.infer<typeof ChangeMany>;

export const ReleaseMode = z.enum(['own', 'read-along', 'common']);
export type ReleaseMode = z.infer<typeof ReleaseMode>;

const AudienceEntry = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('class') }),
  z.strictObject({ kind: z.literal('set'), setId: GroupSetId }),
  z.strictObject({ kind: z.literal('group'), setId: GroupSetId, groupId: GroupId }),
  z.strictObject({ kind: z.literal('person'), enrolmentId: EnrolmentId }),
  z.strictObject({ kind: z.literal('audience'), audienceId: AudienceId }),
  z.strictObject({ kind: z.literal('staff') }),
]);
/** Who gets it: sets, groups, people, saved audiences, the class, together; without these people. Kept by reference, so that it follows moves. */
export const ReleasedTo = z.strictObject({
  include: z.array(AudienceEntry).min(1, 'Choose who gets it.').max(2000).readonly(),
  exclude: z.array(EnrolmentId).max(5000).readonly(),
});
export type ReleasedTo = z.infer<typeof ReleasedTo>;

/** What people outside the audience learn: nothing, or that it exists. */
export const OutsiderRule = z.enum(['hidden', 'listed']);
export type OutsiderRule = z.infer<typeof OutsiderRule>;

export const ReleaseStateView = z.object({
  state: z.enum(['draft', 'scheduled', 'live', 'closed', 'withdrawn']),
  at: DateTime.nullable(),
});

export const ReleaseView = z.object({
  id: ReleaseId,
  to: ReleasedTo,
  /** What its sets are called, in its order. */
  setNames: z.array(z.string()),
  /** What its saved audiences are called, in its order. */
  audienceNames: z.array(z.string()),

  mode: ReleaseMode,
  outsiders: OutsiderRule,
  state: ReleaseStateView,
  groups: z.number().int(),
  students: z.number().int(),
});
export type ReleaseView = z.infer<typeof ReleaseView>;

/** More time for one group, with its reason. */
export const ExtensionView = z.object({
  groupId: GroupId,
  number: z.number().int(),
  name: z.string(),
  due: DateTime,
  /** null: when it closes for all. */
  closes: DateTime.nullable(),
  reason: z.string(),
});
export type ExtensionView = z.infer<typeof ExtensionView>;

/** More time for one student, whichever group they are in. */
export const StudentExtensionView = ExtensionView.omit({ groupId: true, number: true }).extend({
  enrolmentId: EnrolmentId,
  /** Where they sit now. */
  groups: z.array(GroupId),
});
export type StudentExtensionView = z.infer<typeof StudentExtensionView>;

export const GrantExtension = z
  .strictObject({
    due: Moment,
    /** null, or left out: when it closes for all. */
    closes: Moment.nullable().default(null),
    reason: z.string().trim().min(1, 'Give a reason for the extension.').max(500),
  })
  .refine(({ due, closes }) => inOrder({ opens: null, due: millis(due), closes: millis(closes) }), {
    path: ['closes'],
    error: 'Choose a closing time after the due time.',
  });
export type GrantExtension = z.input<typeof GrantExtension>;

/** What is written in an activity, as it is kept. */
export const ActivityContent = z.object({
  kind: z.string(),
  title: z.string(),
  brief: StoredRichText,
  files: z.array(AttachedFile),
  points: z.string().nullable(),
  rubric: Rubric.nullable(),
  schedule: ScheduleView,
  latePolicy: LatePolicy,
  settings: KindSettings,
});
export type ActivityContent = z.infer<typeof ActivityContent>;

/** When and where something takes place. */
export const Happening = z.object({
  starts: DateTime,
  ends: DateTime,
  place: z.string(),
  isCancelled: z.boolean(),
});
export type Happening = z.infer<typeof Happening>;
/** @param whose the group that has it at this time alone; null: for all that get it. */
export const HappeningView = Happening.extend({ whose: z.string().nullable() });
export type HappeningView = z.infer<typeof HappeningView>;

/** What its groups have, and what is being changed in it meanwhile. */
export const ActivityView = ActivityContent.extend({
  id: ActivityId,
  version: z.number().int(),
  updatedAt: DateTime,
  /** As it is to be once someone makes it visible; null: nothing is being changed. */
  inWork: ActivityContent.nullable(),
  release: ReleaseView.nullable(),
  extensions: z.array(ExtensionView),
  studentExtensions: z.array(StudentExtensionView),
  /** When and where it takes place: for all, and for groups at their own time. */
  happens: z.array(HappeningView),
});
export type ActivityView = z.infer<typeof ActivityView>;
export const ActivityList = z.object({ activities: z.array(ActivityView) });
export type ActivityList = z.infer<typeof ActivityList>;

/** The activities as they are now; copies: the new drafts. What was deleted is named by its id and version. */
export const ManyChanged = z.object({
  activities: z.array(ActivityView),
  deleted: z.array(z.object({ id: ActivityId, version: z.number().int() })),
});
export type ManyChanged = z.infer<typeof ManyChanged>;

export const ReleaseRequest = z.strictObject({
  to: ReleasedTo,
  mode: ReleaseMode,
  outsiders: OutsiderRule,
  /** Later than now: scheduled. null: at once. */
  goesLiveAt: Moment.nullable(),
  /** What the person had in view when they pressed: a draft edited meanwhile is not released unseen. */
  version: z.number().int(),
});
export type ReleaseRequest = z.infer<typeof ReleaseRequest>;

/** @param version what the person had in view: other changes are neither made visible nor dropped. */
export const SeenActivity = z.strictObject({ version: z.number().int() });
export type SeenActivity = z.infer<typeof SeenActivity>;

const Reach = z.strictObject({ to: ReleasedTo, outsiders: OutsiderRule });
/** Others than before, after release; copies of groups that are left out stay and close to them.
 * `was`: who got it when the person who changes that looked. */
export const ChangeReach = Reach.extend({ was: Reach });
export type ChangeReach = z.infer<typeof ChangeReach>;

export const ReachRequest = z.strictObject({ to: ReleasedTo, mode: ReleaseMode, outsiders: OutsiderRule });
export type ReachRequest = z.infer<typeof ReachRequest>;

const Named = z.object({ enrolmentId: EnrolmentId, name: z.string() });

/** Who of the class sees what, told in words, before and after release. */
export const ReachView = z.object({
  /** Every group of its sets; the class has none. */
  groups: z.array(
    z.object({
      groupId: GroupId,
      setId: GroupSetId,
      number: z.number().int(),
      name: z.string(),
      members: z.number().int(),
      isIn: z.boolean(),
      copyId: CopyId.nullable(),
    }),
  ),
  students: z.number().int(),
  outside: z.array(z.object({ name: z.string(), reading: z.string().nullable(), why: z.array(z.string()) })),
  /** Who are in several of the groups that get a copy, and so get several copies, and several marks. */
  several: z.array(
    z.object({ name: z.string(), reading: z.string().nullable(), groups: z.array(z.string()) }),
  ),
  /** Who are in it by name, and who are left out by name. */
  named: z.array(Named),
  leftOut: z.array(Named),
});
export type ReachView = z.infer<typeof ReachView>;

/** Several pieces of released work that fall due on one day for the same students. */
export const CollisionView = z.object({
  /** As calendars in the course's time zone show it. */
  day: z.iso.date(),
  activityIds: z.array(ActivityId),
  students: z.number().int(),
  /** All of them, where they are few; else none. */
  names: z.array(z.string()),
});
export type CollisionView = z.infer<typeof CollisionView>;
export const CollisionList = z.object({ collisions: z.array(CollisionView) });
export type CollisionList = z.infer<typeof CollisionList>;

export const Lateness = z.object({ minutes: z.number().int(), deduction: z.string() });
export type Lateness = z.infer<typeof Lateness>;

export const WorkState = z.enum(['not-started', 'in-work', 'done', 'changed-since']);
export type WorkState = z.infer<typeof WorkState>;

/** How far the asker's work (or, for staff, the group's) is in one copy. What it is called is the kind's to say. */
export const Progress = z.object({
  state: WorkState,
  /** Counted for the asker alone, not for the group. */
  isYours: z.boolean(),
  /** The asker still has something to do here. */
  owes: z.boolean(),
  /** Handed in, or last written, at. */
  at: DateTime.nullable(),
  late: Lateness.nullable(),
  /** Of so many things asked, where the kind counts them. */
  done: z.number().int().nullable(),
  asked: z.number().int().nullable(),
});
export type Progress = z.infer<typeof Progress>;
