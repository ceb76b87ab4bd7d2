import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
import { CalendarAddressId, DateTime, GroupId } from './common.js';
import { Moment } from './release.js';

/** A room, or the address of a meeting. */
const Place = z.string().overwrite(oneLine).max(300).default('');

/** When and where it is for one group: a place that is left empty is that of all. */
const OwnTime = z
  .strictObject({
    groupId: GroupId,
    starts: Moment,
    ends: Moment,
    place: Place,
    isCancelled: z.boolean().default(false),
  })
  .refine(({ starts, ends }) => Date.parse(ends) > Date.parse(starts), {
    path: ['ends'],
    error: 'Choose an end after the start.',
  });
export type OwnTime = z.infer<typeof OwnTime>;

export const EventSettings = z
  .strictObject({
    starts: Moment.nullable().default(null),
    ends: Moment.nullable().default(null),
    place: Place,
    isCancelled: z.boolean().default(false),
    /** At other times or places for these groups. */
    own: z
      .array(OwnTime)
      .max(1000, 'It can be at a time of their own for 1000 groups at most.')
      .refine((own) => new Set(own.map(({ groupId }) => groupId)).size === own.length, {
        error: 'A group can have one time of its own. Remove the second.',
      })
      .default([]),
  })
  .refine(({ starts, ends }) => starts === null || ends === null || Date.parse(ends) > Date.parse(starts), {
    path: ['ends'],
    error: 'Choose an end after the start.',
  });
export type EventSettings = z.infer<typeof EventSettings>;

/** An address under which a calendar reads what someone has to keep. */
export const CalendarAddress = z.object({ id: CalendarAddressId, label: z.string(), createdAt: DateTime });
export type CalendarAddress = z.infer<typeof CalendarAddress>;
export const CalendarAddresses = z.object({ addresses: z.array(CalendarAddress) });
export type CalendarAddresses = z.infer<typeof CalendarAddresses>;

/** @param label which calendar it is for, as its owner calls it. */
export const AddCalendarAddress = z.strictObject({
  label: z.string().overwrite(oneLine).min(1, 'Say which calendar it is for, like “Phone”.').max(60),
});
export type AddCalendarAddress = z.infer<typeof AddCalendarAddress>;

/** The address itself is told this once. */
export const NewCalendarAddress = CalendarAddresses.extend({ url: z.string() });
export type NewCalendarAddress = z.infer<typeof NewCalendarAddress>;
