import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
import { CalendarAddressId, DateTime } from './common.js';
import { Moment } from './release.js';

export const EventSettings = z
  .strictObject({
    starts: Moment.nullable().default(null),
    ends: Moment.nullable().default(null),
    /** A room, or the address of a meeting. */
    place: z.string().overwrite(oneLine).max(300).default(''),
    isCancelled: z.boolean().default(false),
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
