import { createElement, useEffect, useRef, type ReactNode } from 'react';
import { openableLink } from '@/core/basics/link';
import type { RichMark, RichNode, RichText } from '@/core/basics/richText';
import { wholePicture } from '@/core/basics/fileRules';
import { Picture } from './Picture';
import styles from './Rich.module.css';

/** Text with its markup, drawn from its document: never from a string of HTML. */
export function Rich({ text }: { text: RichText }) {
  if (typeof text === 'string') return <span className="keepLines">{text}</span>;
  return <span className={styles.rich}>{drawn(text.content)}</span>;
}

function drawn(nodes: readonly RichNode[] | undefined): ReactNode {
  return nodes?.map((node, index) => <Node key={index} node={node} />);
}

// Elements inside a line of text, so that they may stand within a paragraph or a label.
const blocks: Partial<Record<RichNode['type'], [element: string, className?: string | undefined]>> = {
  paragraph: ['span', styles.paragraph],
  bulletList: ['ul', styles.list],
  orderedList: ['ol', styles.list],
  listItem: ['li'],
  tableRow: ['tr'],
};

function Node({ node }: { node: RichNode }) {
  const { type, attrs, content } = node;
  switch (type) {
    case 'text':
      return marked(node.text ?? '', node.marks ?? []);
    case 'hardBreak':
      return <br />;
    case 'inlineMath':
    case 'blockMath':
      return <Maths latex={attrs?.latex ?? ''} block={type === 'blockMath'} />;
    case 'picture':
      return <RichPicture attrs={attrs} />;
    case 'table':
      return (
        <table className={styles.table}>
          <tbody>{drawn(content)}</tbody>
        </table>
      );
    case 'tableCell':
    case 'tableHeader':
      return createElement(
        type === 'tableHeader' ? 'th' : 'td',
        { colSpan: attrs?.colspan, rowSpan: attrs?.rowspan },
        drawn(content),
      );
    default: {
      const [element, className] = blocks[type] ?? ['span'];
      const start = type === 'orderedList' ? attrs?.start : undefined;
      return createElement(element, { className, ...(start !== undefined && { start }) }, drawn(content));
    }
  }
}

/** A picture in a text; one without its bytes or its size is not drawn. */
function RichPicture({ attrs }: Pick<RichNode, 'attrs'>) {
  const picture = wholePicture(attrs);
  return picture && <Picture picture={picture} />;
}

function marked(text: string, marks: readonly RichMark[]): ReactNode {
  return marks.reduce<ReactNode>((inside, mark) => {
    switch (mark.type) {
      case 'bold':
        return <strong>{inside}</strong>;
      case 'italic':
        return <em>{inside}</em>;
      case 'subscript':
        return <sub>{inside}</sub>;
      case 'superscript':
        return <sup>{inside}</sup>;
      case 'link': {
        const href = openableLink(mark.attrs.href);
        return href ? (
          <a href={href} target="_blank" rel="noopener noreferrer" referrerPolicy="no-referrer">
            {inside}
          </a>
        ) : (
          inside
        );
      }
    }
  }, text);
}

/** Maths set by KaTeX, which builds its elements itself; loaded only where there is any. */
export function Maths({ latex, block }: { latex: string; block: boolean }) {
  const place = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    let here = true;
    void import('./katex').then(({ default: katex }) => {
      if (here && place.current)
        katex.render(latex, place.current, {
          displayMode: block,
          throwOnError: false,
          trust: false,
          maxExpand: 200,
        });
    });
    return () => {
      here = false;
    };
  }, [latex, block]);
  return (
    <span ref={place} className={block ? styles.blockMath : undefined}>
      {latex}
    </span>
  );
}
