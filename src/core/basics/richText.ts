import { z } from 'zod';
import { Text } from './common';
import { PictureRef } from './file';
import { openableLink } from './link';

/** A mark on a run of text. */
export const RichMark = z.discriminatedUnion('type', [
  z.object({ type: z.enum(['bold', 'italic', 'subscript', 'superscript']) }),
  z.object({
    type: z.literal('link'),
    attrs: z.object({
      href: z
        .string()
        .max(2_000)
        .refine((href) => openableLink(href) !== null),
    }),
  }),
]);
export type RichMark = z.infer<typeof RichMark>;

/** Of a picture; `exactOptionalPropertyTypes` asks for the undefined that the parser allows. */
type PictureAttrs = { [Name in keyof PictureRef]?: PictureRef[Name] | undefined };

/** What a node may hold; everything else of it is dropped. */
export interface RichNode {
  type: RichNodeType;
  content?: RichNode[] | undefined;
  /** Of a run of text. */
  text?: string | undefined;
  marks?: RichMark[] | undefined;
  attrs?:
    | ({
        latex?: string | undefined;
        start?: number | undefined;
        colspan?: number | undefined;
        rowspan?: number | undefined;
      } & PictureAttrs)
    | undefined;
}

const RichNodeType = z.enum([
  'paragraph',
  'text',
  'hardBreak',
  'bulletList',
  'orderedList',
  'listItem',
  'table',
  'tableRow',
  'tableCell',
  'tableHeader',
  'inlineMath',
  'blockMath',
  'picture',
]);
export type RichNodeType = z.infer<typeof RichNodeType>;

const span = z.number().int().min(1).max(50).optional();

export const RichNode: z.ZodType<RichNode> = z.lazy(() =>
  z.object({
    type: RichNodeType,
    content: RichNode.array().max(2_000).optional(),
    text: Text.optional(),
    marks: RichMark.array().max(10).optional(),
    attrs: z
      .object({
        latex: z.string().max(5_000).optional(),
        start: z.number().int().min(0).max(10_000).optional(),
        colspan: span,
        rowspan: span,
        ...PictureRef.partial().shape,
      })
      .optional(),
  }),
);

/** Text with markup: the document of the editor, of known nodes and marks only, never HTML. */
export const RichDoc = z.object({ type: z.literal('doc'), content: RichNode.array().max(2_000) });
export type RichDoc = z.infer<typeof RichDoc>;

/** Text that may have markup. What has none is kept as the plain text that it is. */
export const RichText = z.union([Text, RichDoc]);
export type RichText = z.infer<typeof RichText>;
