import { z } from 'zod';
import { oneLine } from '@jigsaw/core/text';

const Page = z.url({ protocol: /^https?$/ });
const isPage = (link: string): boolean => Page.safeParse(link).success;

/** Only what a browser opens as a page; empty: none. */
const Link = z
  .string()
  .overwrite(oneLine)
  .max(2000)
  .refine(
    (link) => link === '' || isPage(link),
    'Enter a whole address that begins with https:// or http://.',
  );

export const ResourceSettings = z.strictObject({
  link: Link.default(''),
  /** What the link is called; empty: its address. */
  linkName: z.string().overwrite(oneLine).max(200).default(''),
});
export type ResourceSettings = z.infer<typeof ResourceSettings>;
