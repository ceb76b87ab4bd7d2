import { z } from 'zod';
import type { RichTextNode } from '@jigsaw/core/text';
import { plainText } from '@jigsaw/core/text';
import { GroupId, PageId } from './common.js';

/** What the editor can make. Anything else (scripts, frames, styles) has no form here at all. */
const blockTypes = [
  'paragraph',
  'heading',
  'bulletList',
  'orderedList',
  'listItem',
  'blockquote',
  'horizontalRule',
] as const;
const deepest = 12;
const mostCharacters = 200_000;

const safeLink = z
  .string()
  .max(2000)
  .regex(/^(https?:|mailto:)/i, 'Links start with https, http or mailto.');

/** Whether a link can be kept: pages and addresses, nothing that runs. */
export const isSafeLink = (href: string): boolean => safeLink.safeParse(href).success;

const Mark = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('bold') }),
  z.strictObject({ type: z.literal('italic') }),
  z.object({ type: z.literal('link'), attrs: z.object({ href: safeLink }) }),
  z.object({ type: z.literal('pageLink'), attrs: z.object({ pageId: PageId }) }),
]);

const marks = z.array(Mark).max(4).optional();

const Inline = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('text'),
    text: z.string().min(1),
    marks,
  }),
  z.object({ type: z.literal('hardBreak') }),
  z.strictObject({
    type: z.literal('placeholder'),
    attrs: z.strictObject({ what: z.enum(['group-name', 'group-members', 'group-number']) }),
    marks,
  }),
]);

const BlockShape = z.object({
  type: z.enum(blockTypes),
  attrs: z
    .object({ level: z.number().int().min(2).max(4).optional(), start: z.number().int().optional() })
    .optional(),
  content: z.array(z.unknown()).max(5000).optional(),
});

/** Lines that only some groups read; a brief can hold them, nothing else can. */
const OnlyForShape = z.object({
  type: z.literal('onlyFor'),
  attrs: z.strictObject({ groupIds: z.array(GroupId).max(2000) }),
  content: z.array(z.unknown()).min(1).max(5000),
});
const InBrief = z.union([OnlyForShape, BlockShape]);
type Shapes = typeof InBrief | typeof BlockShape;

function checkNode(
  value: unknown,
  depth: number,
  context: z.RefinementCtx,
  shapes: Shapes,
): RichTextNode | null {
  const inline = Inline.safeParse(value);
  if (inline.success) return inline.data;
  const block = shapes.safeParse(value);
  if (!block.success || depth > deepest) {
    context.addIssue({ code: 'custom', message: 'The text holds something that cannot be kept here.' });
    return null;
  }
  const { content, ...rest } = block.data;
  if (content === undefined) return rest;
  return { ...rest, content: content.flatMap((child) => checkNode(child, depth + 1, context, shapes) ?? []) };
}

const textOf = (shapes: Shapes) =>
  z
    .object({ type: z.literal('doc'), content: z.array(z.unknown()).max(5000) })
    .transform((doc, context): RichTextNode => {
      const tooLong = () => {
        context.addIssue({
          code: 'custom',
          message: 'The text is too long: 200,000 characters are the most.',
        });
        return z.NEVER;
      };
      if (JSON.stringify(doc).length > mostCharacters * 4) return tooLong();
      const text = {
        type: 'doc',
        content: doc.content.flatMap((node) => checkNode(node, 0, context, shapes) ?? []),
      };
      return plainText(text).length > mostCharacters ? tooLong() : text;
    })
    .meta({ type: 'object', description: 'Editor document (JSON)' });

/** The editor's document: known blocks and marks only, links checked, never HTML. */
export const RichText = textOf(BlockShape);
export type RichText = RichTextNode;

/** What is written for all copies, with lines for some groups in it. */
export const Brief = textOf(InBrief);

/** Rich text on its way out was checked on its way in. */
export const StoredRichText = z
  .custom<RichTextNode>((value) => typeof value === 'object' && value !== null)
  .meta({ type: 'object' });
