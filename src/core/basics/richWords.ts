import { assetsIn, lacksWords } from './fileRules';
import type { RichDoc, RichNode, RichText } from './richText';

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
