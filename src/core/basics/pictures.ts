import type { PictureRef } from './file';
import { wholePicture } from './fileRules';
import { plainText } from './richWords';
import { RichDoc, type RichNode, type RichText } from './richText';

/** A text as it is printed: its words, and its pictures beneath. */

/** The words of a text without those that stand for its pictures. */
export const printedText = (rich: RichText): string =>
  typeof rich === 'string'
    ? rich
    : plainText({ ...rich, content: rich.content.flatMap(withoutPictures) }).trim();

function withoutPictures(node: RichNode): RichNode[] {
  if (drawable(node)) return [];
  return [node.content ? { ...node, content: node.content.flatMap(withoutPictures) } : node];
}

/** The pictures of a text, in their order. */
export const picturesIn = (rich: RichText): PictureRef[] =>
  typeof rich === 'string' ? [] : rich.content.flatMap(picturesOf);

function picturesOf(node: RichNode): PictureRef[] {
  const own = drawable(node);
  return own ? [own] : (node.content ?? []).flatMap(picturesOf);
}

const drawable = ({ type, attrs }: RichNode) => (type === 'picture' ? wholePicture(attrs) : null);

/** Something with each text in it, however deep, as its words alone. */
export function inWords<T>(value: T): T {
  const walk = (each: unknown): unknown => {
    if (Array.isArray(each)) return each.map(walk);
    if (each === null || typeof each !== 'object') return each;
    const doc = RichDoc.safeParse(each);
    if (doc.success) return plainText(doc.data);
    return Object.fromEntries(Object.entries(each).map(([name, inside]) => [name, walk(inside)]));
  };
  // A text is a document or its words: what holds it is what it was.
  return walk(value) as T;
}
