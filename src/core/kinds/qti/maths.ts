import katex from 'katex';
import { element, isElement, wordsIn, type XmlElement } from './element';
import { xmlFrom } from './xml';

/** TeX as MathML, with the TeX kept beside it as an annotation (MathML Core, section 5.1). */
export function mathmlFrom(latex: string, block: boolean): XmlElement {
  const text = katex.renderToString(latex, {
    output: 'mathml',
    displayMode: block,
    throwOnError: false,
    trust: false,
    maxExpand: 200,
  });
  const start = text.indexOf('<math');
  const end = text.indexOf('</math>');
  if (start >= 0 && end >= 0) return xmlFrom(text.slice(start, end + 7), 'math');
  // What cannot be set is still carried, in its own letters.
  return element(
    'math',
    { xmlns: 'http://www.w3.org/1998/Math/MathML', display: block ? 'block' : null },
    element(
      'semantics',
      {},
      element('mtext', {}, latex),
      element('annotation', { encoding: 'application/x-tex' }, latex),
    ),
  );
}

/** The TeX of a MathML element: as annotated, or put together from its common elements. */
export function latexFrom(math: XmlElement): string {
  return (annotated(math) ?? tex(math)).trim().slice(0, 5_000);
}

function annotated(node: XmlElement): string | null {
  if (node.name === 'annotation' && /tex/i.test(node.attrs.encoding ?? '')) return wordsIn(node);
  for (const child of node.children) {
    const found = isElement(child) ? annotated(child) : null;
    if (found !== null) return found;
  }
  return null;
}

const signs: Record<string, string> = {
  '×': '\\times ',
  '⋅': '\\cdot ',
  '·': '\\cdot ',
  '÷': '\\div ',
  '±': '\\pm ',
  '−': '-',
  '≤': '\\le ',
  '≥': '\\ge ',
  '≠': '\\ne ',
  '≈': '\\approx ',
  '→': '\\to ',
  '∞': '\\infty ',
  '∑': '\\sum ',
  '∫': '\\int ',
  '√': '\\surd ',
  '°': '^{\\circ}',
  '%': '\\%',
  '{': '\\{',
  '}': '\\}',
  '\u2061': '',
  '\u2062': '',
};

function tex(node: XmlElement): string {
  const parts = node.children.filter(isElement);
  const at = (index: number) => `{${parts[index] ? tex(parts[index]) : ''}}`;
  switch (node.name) {
    case 'mi':
    case 'mn':
    case 'mo': {
      const word = wordsIn(node).trim();
      const known = [...word].map((letter) => signs[letter] ?? letter).join('');
      return node.name === 'mi' && /^[a-z]{2,}$/i.test(word) ? `\\operatorname{${word}}` : known;
    }
    case 'mtext':
      return `\\text{${wordsIn(node).replace(/[\\{}$#%&_^~]/g, '')}}`;
    case 'mspace':
      return '\\,';
    case 'mfrac':
      return `\\frac${at(0)}${at(1)}`;
    case 'msqrt':
      return `\\sqrt{${parts.map(tex).join('')}}`;
    case 'mroot':
      return `\\sqrt[${parts[1] ? tex(parts[1]) : ''}]${at(0)}`;
    case 'msup':
    case 'mover':
      return `${at(0)}^${at(1)}`;
    case 'msub':
    case 'munder':
      return `${at(0)}_${at(1)}`;
    case 'msubsup':
    case 'munderover':
      return `${at(0)}_${at(1)}^${at(2)}`;
    case 'mfenced':
      return `\\left(${parts.map(tex).join(',')}\\right)`;
    case 'annotation':
    case 'annotationXml':
      return '';
    default:
      return parts.map(tex).join('');
  }
}
