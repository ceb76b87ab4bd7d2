import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';
import { PageAddress } from './common.js';

export const ResourceSettings = z.strictObject({
  link: PageAddress.default(''),
  /** What the link is called; empty: its address. */
  linkName: z.string().overwrite(oneLine).max(200).default(''),
});
export type ResourceSettings = z.infer<typeof ResourceSettings>;
