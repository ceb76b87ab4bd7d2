import { z } from 'zod';

export const NoticeSettings = z.strictObject({ hasReplies: z.boolean().default(true) });
export type NoticeSettings = z.infer<typeof NoticeSettings>;
