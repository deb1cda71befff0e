import { openableLink } from '../../basics/link';
import { PictureRef } from '../../basics/file';
import type { RichMark, RichNode, RichText } from '../../basics/richText';
import { richDoc, simplest } from '../../basics/richWords';
import { element, isElement, type XmlElement, type XmlNode } from './element';
import { latexFrom, mathmlFrom } from './maths';

/** Marks the block that is the text with the gaps, and no part of what is asked before. */
export const gapTextClass = 'gap-text';

/** A text with its markup as the elements that QTI allows in a body (HTML and MathML). */
export function bodyFrom(rich: RichText): XmlElement[] {
  return richDoc(rich).content.map(block);
}

const htmlNames: Partial<Record<RichNode['type'], string>> = {
  paragraph: 'p',
  bulletList: 'ul',
  orderedList: 'ol',
  listItem: 'li',
  tableRow: 'tr',
  tableCell: 'td',
  tableHeader: 'th',
};

function block(node: RichNode): XmlElement {
  const inside = (node.content ?? []).map(inline);
  switch (node.type) {
    case 'blockMath':
      return mathmlFrom(node.attrs?.latex ?? '', true);
    case 'picture':
      return element('p', {}, pictureElement(node));
    case 'table':
      return element('table', {}, element('tbody', {}, ...inside));
    default: {
      const { start, colspan, rowspan } = node.attrs ?? {};
      const attrs = {
        start: start === 1 ? null : start,
        colspan: colspan === 1 ? null : colspan,
        rowspan: rowspan === 1 ? null : rowspan,
      };
      return element(htmlNames[node.type] ?? 'div', attrs, ...inside);
    }
  }
}

function inline(node: RichNode): XmlNode {
  switch (node.type) {
    case 'text':
      return (node.marks ?? []).reduce<XmlNode>(markedElement, node.text ?? '');
    case 'hardBreak':
      return element('br');
    case 'inlineMath':
      return mathmlFrom(node.attrs?.latex ?? '', false);
    default:
      return block(node);
  }
}

const markNames = { bold: 'strong', italic: 'em', subscript: 'sub', superscript: 'sup' } as const;

function markedElement(inside: XmlNode, mark: RichMark): XmlNode {
  return mark.type === 'link'
    ? element('a', { href: mark.attrs.href }, inside)
    : element(markNames[mark.type], {}, inside);
}

function pictureElement({ attrs }: RichNode): XmlElement | null {
  const picture = PictureRef.safeParse(attrs);
  return picture.success ? imageElement(picture.data) : null;
}

/** Named by its asset; the package puts the path of its file in place of that. */
export function imageElement({ asset, alt, decoration, width, height }: PictureRef): XmlElement {
  return element('img', {
    src: asset,
    alt: decoration ? '' : alt,
    width,
    height,
    role: decoration ? 'presentation' : null,
  });
}

/** What reading a body needs to know and to tell. */
export interface BodyReader {
  /** The id under which a picture of the package is found later; null when it is not there. */
  picture: (src: string) => string | null;
  /** Something that cannot be carried. */
  lose: (code: 'picture' | 'markup' | 'link', detail: string) => void;
}

/** The text of elements of a body, with the markup that is known; what is not is named and its words stay. */
export function richFrom(nodes: readonly XmlNode[], reader: BodyReader): RichText {
  const content = blocksFrom(nodes, reader);
  return content.length === 0 ? '' : simplest({ type: 'doc', content });
}

const blockNames = new Set(
  'p div ul ol table blockquote pre h1 h2 h3 h4 h5 h6 section article figure figcaption dl dt dd hr contentBody'.split(
    ' ',
  ),
);

/** Runs of inline nodes become paragraphs of their own between the blocks. */
function blocksFrom(nodes: readonly XmlNode[], reader: BodyReader): RichNode[] {
  const blocks: RichNode[] = [];
  let run: RichNode[] = [];
  const close = () => {
    const content = trimmed(run);
    if (content.length > 0) blocks.push({ type: 'paragraph', content });
    run = [];
  };
  for (const node of nodes) {
    if (isElement(node) && (blockNames.has(node.name) || isBlockMath(node))) {
      close();
      blocks.push(...blockFrom(node, reader));
    } else
      for (const each of inlinesFrom(node, [], reader))
        if (each.type === 'picture') {
          close();
          blocks.push(each);
        } else run.push(each);
  }
  close();
  return blocks;
}

const isBlockMath = (node: XmlElement) => node.name === 'math' && node.attrs.display === 'block';

function blockFrom(node: XmlElement, reader: BodyReader): RichNode[] {
  switch (node.name) {
    case 'math':
      return [{ type: 'blockMath', attrs: { latex: latexFrom(node) } }];
    case 'hr':
      return [];
    case 'ul':
    case 'ol':
      return [listFrom(node, reader)];
    case 'table':
      return [tableFrom(node, reader)];
    case 'p': {
      const inside = blocksFrom(node.children, reader);
      return inside.length === 0 ? [{ type: 'paragraph' }] : inside;
    }
    default:
      if (/^(h\d|pre|blockquote|dl)$/.test(node.name)) reader.lose('markup', node.name);
      return blocksFrom(node.children, reader);
  }
}

function listFrom(node: XmlElement, reader: BodyReader): RichNode {
  const items = node.children.filter(isElement).map((item): RichNode => {
    const inside = blocksFrom(item.name === 'li' ? item.children : [item], reader);
    return { type: 'listItem', content: inside.length > 0 ? inside : [{ type: 'paragraph' }] };
  });
  const start = Number(node.attrs.start ?? 1);
  return node.name === 'ul'
    ? { type: 'bulletList', content: items }
    : {
        type: 'orderedList',
        attrs: { start: Number.isInteger(start) && start >= 0 ? start : 1 },
        content: items,
      };
}

function tableFrom(node: XmlElement, reader: BodyReader): RichNode {
  const rows = node.children.filter(isElement).flatMap((part): XmlElement[] => {
    if (part.name === 'tr') return [part];
    if (part.name === 'caption') reader.lose('markup', 'caption');
    return part.children.filter(isElement).filter((each) => each.name === 'tr');
  });
  return {
    type: 'table',
    content: rows.map((row) => ({
      type: 'tableRow',
      content: row.children
        .filter(isElement)
        .filter((cell) => cell.name === 'td' || cell.name === 'th')
        .map((cell): RichNode => {
          const inside = blocksFrom(cell.children, reader);
          return {
            type: cell.name === 'th' ? 'tableHeader' : 'tableCell',
            attrs: { colspan: span(cell.attrs.colspan), rowspan: span(cell.attrs.rowspan) },
            content: inside.length > 0 ? inside : [{ type: 'paragraph' }],
          };
        }),
    })),
  };
}

function span(text: string | undefined): number {
  const value = Number(text ?? 1);
  return Number.isInteger(value) && value >= 1 && value <= 50 ? value : 1;
}

const marks: Record<string, RichMark['type']> = {
  b: 'bold',
  strong: 'bold',
  i: 'italic',
  em: 'italic',
  sub: 'subscript',
  sup: 'superscript',
};

function inlinesFrom(node: XmlNode, under: readonly RichMark[], reader: BodyReader): RichNode[] {
  if (!isElement(node)) {
    const text = node.replace(/[ \t\r\n]+/g, ' ');
    return text === '' ? [] : [{ type: 'text', text, ...(under.length > 0 && { marks: [...under] }) }];
  }
  const inside = (more: readonly RichMark[]) =>
    node.children.flatMap((child) => inlinesFrom(child, more, reader));
  const mark = marks[node.name];
  // As the editor has it, what stands innermost comes first.
  if (mark && mark !== 'link') return inside([{ type: mark }, ...under]);
  switch (node.name) {
    case 'br':
      return [{ type: 'hardBreak' }];
    case 'math':
      return [{ type: 'inlineMath', attrs: { latex: latexFrom(node) } }];
    case 'img':
    case 'object':
      return pictureFrom(node, reader);
    case 'a': {
      const href = openableLink(node.attrs.href ?? '');
      if (href) return inside([{ type: 'link', attrs: { href: node.attrs.href?.trim() ?? href } }, ...under]);
      if (node.attrs.href) reader.lose('link', node.attrs.href);
      return inside(under);
    }
    default:
      if (!plainInlines.has(node.name)) reader.lose('markup', node.name);
      return inside(under);
  }
}

const plainInlines = new Set('span p div label abbr cite q small'.split(' '));

function pictureFrom(node: XmlElement, reader: BodyReader): RichNode[] {
  const src = node.attrs.src ?? node.attrs.data ?? '';
  const asset = reader.picture(src);
  if (asset === null) {
    reader.lose('picture', src.startsWith('data:') ? 'written into the text' : src.slice(0, 200));
    return [];
  }
  const size = (text: string | undefined) => {
    const value = Math.round(Number(text));
    return value >= 1 && value <= 20_000 ? value : 1;
  };
  const { alt = '', role, width, height } = node.attrs;
  return [
    {
      type: 'picture',
      attrs: {
        asset,
        alt: alt.slice(0, 500),
        decoration: role === 'presentation' || role === 'none',
        width: size(width),
        height: size(height),
      },
    },
  ];
}

/** A run without white space at its ends, and without doubled spaces where marks meet. */
function trimmed(run: readonly RichNode[]): RichNode[] {
  const joined: RichNode[] = [];
  for (const node of run) {
    const before = joined.at(-1);
    const spaced =
      before === undefined || before.type === 'hardBreak' || (before.text?.endsWith(' ') ?? false);
    const text = node.type === 'text' && spaced ? node.text?.replace(/^ +/, '') : node.text;
    if (node.type === 'text' && !text) continue;
    if (node.type === 'text' && before?.type === 'text' && sameMarks(before, node))
      joined[joined.length - 1] = { ...before, text: `${before.text ?? ''}${text ?? ''}` };
    else joined.push(node.type === 'text' ? { ...node, text } : node);
  }
  const last = joined.at(-1);
  if (last?.type === 'text' && last.text?.endsWith(' ')) {
    joined.pop();
    const text = last.text.trimEnd();
    if (text) joined.push({ ...last, text });
  }
  return joined;
}

const sameMarks = (a: RichNode, b: RichNode) =>
  JSON.stringify(a.marks ?? []) === JSON.stringify(b.marks ?? []);
