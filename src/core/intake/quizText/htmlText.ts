/** A document as the text that a quiz is read from: numbers and letters of its lists written out, what is bold or underlined marked. */

/** The text of a document's HTML. @param root the element that holds it */
export function textOfHtml(root: Element): string {
  const lines: string[] = [];
  for (const child of root.children) block(child, lines);
  return lines
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

/** Numbered on within its list; an own list below a question is its options. */
function block(element: Element, lines: string[]): void {
  const name = element.tagName.toLowerCase();
  if (name === 'ol' || name === 'ul') return list(element, lines);
  if (name === 'table') {
    for (const row of element.querySelectorAll('tr'))
      lines.push([...row.children].map((cell) => textOf(cell)).join('  '));
    lines.push('');
    return;
  }
  if (/^h[1-4]$/.test(name)) lines.push('', `## ${textOf(element)}`);
  else lines.push(marked(element));
}

function list(element: Element, lines: string[]): void {
  const above = [...lines].reverse().find((line) => line.trim() !== '') ?? '';
  // Behind a numbered question, a list is its options.
  const areOptions = /^\s*(?:\d{1,3}\s*[.)]|question\s+\d)/i.test(above);
  const numbers = lines.flatMap((line) => /^(\d{1,3})\. /.exec(line)?.[1] ?? []);
  let number = areOptions ? 0 : Number(numbers.at(-1) ?? 0);
  for (const item of element.children) {
    const inner = [...item.children].filter((child) => ['OL', 'UL'].includes(child.tagName));
    if (areOptions) lines.push(`${'abcdefghijklmnopqrstuvwxyz'.charAt(number++)}) ${marked(item)}`);
    else lines.push('', `${++number}. ${marked(item)}`);
    for (const each of inner)
      [...each.children].forEach((option, at) =>
        lines.push(`${'abcdefghijklmnopqrstuvwxyz'.charAt(at)}) ${marked(option)}`),
      );
  }
}

/** The words of an element without those of lists in it. */
const textOf = (element: Element): string =>
  [...element.childNodes]
    .map((node) => {
      if (node.nodeType === 3) return node.textContent ?? '';
      const name = node.nodeName.toLowerCase();
      if (name === 'ol' || name === 'ul') return '';
      // It is named where it stood.
      if (name === 'img') return '[picture]';
      return name === 'br' ? '\n' : textOf(node as Element);
    })
    .join('')
    .replace(/[ \t\u00a0]+/g, ' ');

/** The words, between two stars where all of them are bold or underlined. */
function marked(element: Element): string {
  const text = textOf(element).trim();
  const strong = [...element.querySelectorAll('strong, b, u')]
    .filter(
      (each) => !each.closest('ol ol, ul ul, ol ul, ul ol') || element.closest('ol ol, ul ul, ol ul, ul ol'),
    )
    .filter((each) => !each.parentElement?.closest('strong, b, u'))
    .map((each) => textOf(each))
    .join('')
    .trim();
  if (text === '' || strong === '') return text;
  const [, sign = ''] = /^((?:\(?[A-Za-z0-9]{1,2}[.):]\s*)?)/.exec(text) ?? [];
  const said = text.slice(sign.length);
  return strong === text || strong === said ? `${sign}**${said}**` : text;
}
