import { PaperContent } from '../../model/paper';
import type { PictureRef } from '../../basics/file';

type Kept = ReadonlyMap<string, Pick<PictureRef, 'asset' | 'width' | 'height'>>;

/**
 * A paper of a package in which the pictures are named as they are kept, with the size that they have. Pictures that
 * are not kept are taken out.
 */
export function withPictures(paper: PaperContent, kept: Kept): PaperContent {
  return PaperContent.parse(replaced(paper, kept));
}

function replaced(value: unknown, kept: Kept): unknown {
  if (Array.isArray(value))
    return value.filter((each) => !isLost(each, kept)).map((each) => replaced(each, kept));
  if (value === null || typeof value !== 'object') return value;
  const entries = Object.entries(value).filter(([, inside]) => !isLostRef(inside, kept));
  const inside = Object.fromEntries(entries.map(([name, each]) => [name, replaced(each, kept)]));
  const picture = 'asset' in value && typeof value.asset === 'string' ? kept.get(value.asset) : undefined;
  return { ...inside, ...picture };
}

/** A picture node whose picture is not kept. */
const isLost = (node: unknown, kept: Kept) =>
  node !== null &&
  typeof node === 'object' &&
  'type' in node &&
  node.type === 'picture' &&
  'attrs' in node &&
  isLostRef(node.attrs, kept);

const isLostRef = (value: unknown, kept: Kept) =>
  value !== null &&
  typeof value === 'object' &&
  'asset' in value &&
  typeof value.asset === 'string' &&
  !kept.has(value.asset);
