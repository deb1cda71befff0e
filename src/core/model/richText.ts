import { z } from 'zod';
import { Text } from './common';
import { assetsIn, lacksWords, PictureRef } from './file';
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

const RichNode: z.ZodType<RichNode> = z.lazy(() =>
  z.object({
    type: RichNodeType,
    content: RichNode.array().max(2_000).optional(),
    text: z.string().max(50_000).optional(),
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

/** The words of a text, without its markup: blocks on lines of their own, cells with tabs between, maths as TeX. */
export function plainText(rich: RichText): string {
  return typeof rich === 'string' ? rich : blocksText(rich.content);
}

function blocksText(nodes: readonly RichNode[]): string {
  return nodes.map(nodeText).join('\n');
}

function nodeText(node: RichNode): string {
  const content = node.content ?? [];
  switch (node.type) {
    case 'text':
      return node.text ?? '';
    case 'hardBreak':
      return '\n';
    case 'inlineMath':
    case 'blockMath':
      return node.attrs?.latex ?? '';
    case 'picture':
      return node.attrs?.alt ?? '';
    case 'paragraph':
      return content.map(nodeText).join('');
    case 'tableRow':
      return content.map(nodeText).join('\t');
    default:
      return blocksText(content);
  }
}

/** A document as it is kept: plain text where it has no markup at all. */
export function simplest(doc: RichDoc): RichText {
  const plain = doc.content.every(
    (block) =>
      block.type === 'paragraph' &&
      (block.content ?? []).every(
        (node) => node.type === 'hardBreak' || (node.type === 'text' && (node.marks ?? []).length === 0),
      ),
  );
  return plain ? blocksText(doc.content) : doc;
}

/** A text as a document, for the editor: each line a paragraph. */
export function richDoc(rich: RichText): RichDoc {
  if (typeof rich !== 'string') return rich;
  const content = rich.split('\n').map((line): RichNode => ({
    type: 'paragraph',
    ...(line !== '' && { content: [{ type: 'text', text: line }] }),
  }));
  return { type: 'doc', content };
}

/** True when there is nothing to read in it. */
export function isEmptyRich(rich: RichText): boolean {
  return plainText(rich).trim() === '' && assetsIn(rich).size === 0;
}

/** The pictures in a text that lack the words that who cannot see them needs. */
export function picturesWithoutText(rich: RichText): number {
  if (typeof rich === 'string') return 0;
  const within = (nodes: readonly RichNode[]): number =>
    nodes.reduce((sum, { type, attrs, content }) => {
      const lacking =
        type === 'picture' && lacksWords({ alt: attrs?.alt ?? '', decoration: attrs?.decoration ?? false });
      return sum + (lacking ? 1 : 0) + within(content ?? []);
    }, 0);
  return within(rich.content);
}
