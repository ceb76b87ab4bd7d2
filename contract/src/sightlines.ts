import { z } from 'zod';
import {
  ActivityId,
  AudienceId,
  CopyId,
  CourseId,
  DateTime,
  EnrolmentId,
  GroupId,
  GroupSetId,
  Role,
} from './common.js';
import { OutsiderRule, ReleaseMode, ScheduleView } from './release.js';

const Time = z.object({ due: DateTime, closes: DateTime.nullable() });
const Seat = z.object({ groupId: GroupId, setId: GroupSetId });

/** An audience with who its saved ones reach now. */
export const SightAudience = z.object({
  include: z.array(
    z.discriminatedUnion('kind', [
      z.object({ kind: z.literal('class') }),
      z.object({ kind: z.literal('staff') }),
      z.object({ kind: z.literal('set'), setId: GroupSetId }),
      z.object({ kind: z.literal('group'), ...Seat.shape }),
      z.object({ kind: z.literal('person'), enrolmentId: EnrolmentId }),
      z.object({
        kind: z.literal('audience'),
        audienceId: AudienceId,
        name: z.string(),
        people: z.array(EnrolmentId),
        groups: z.array(Seat),
      }),
    ]),
  ),
  exclude: z.array(EnrolmentId),
});
export type SightAudience = z.infer<typeof SightAudience>;

/** All that decides who sees what in a course, for those who release in it. What follows from it is the decision function's to say. */
export const SightlinesView = z.object({
  courseId: CourseId,
  people: z.array(
    z.object({
      enrolmentId: EnrolmentId,
      name: z.string(),
      reading: z.string().nullable(),
      role: Role,
      leftAt: DateTime.nullable(),
      leads: z.array(GroupId),
      seesOnlyLed: z.boolean(),
    }),
  ),
  seats: z.array(Seat.extend({ enrolmentId: EnrolmentId, from: DateTime, until: DateTime.nullable() })),
  sets: z.array(
    z.object({
      setId: GroupSetId,
      name: z.string(),
      groups: z.array(z.object({ groupId: GroupId, number: z.number().int(), name: z.string() })),
    }),
  ),
  activities: z.array(
    z.object({
      activityId: ActivityId,
      title: z.string(),
      kind: z.string(),
      /** null: it was never released. */
      release: z
        .object({
          state: z.enum(['draft', 'scheduled', 'live', 'closed', 'withdrawn']),
          at: DateTime.nullable(),
          mode: ReleaseMode,
          outsiders: OutsiderRule,
          audience: SightAudience,
          ownTime: z.array(Time.extend({ enrolmentId: EnrolmentId })),
          copies: z.array(
            z.object({
              copyId: CopyId,
              groupId: GroupId.nullable(),
              setId: GroupSetId.nullable(),
              extension: Time.nullable(),
            }),
          ),
        })
        .nullable(),
      schedule: ScheduleView,
    }),
  ),
  /** Saved ones, and the students that they reach now. */
  audiences: z.array(z.object({ audienceId: AudienceId, name: z.string(), people: z.array(EnrolmentId) })),
  serverTime: DateTime,
});
export type SightlinesView = z.infer<typeof SightlinesView>;
