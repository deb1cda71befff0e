import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import { isElement, type XmlElement, type XmlNode } from './element';
import { Refused } from '../../basics/refused';

const deepest = 100;
const longestText = 5_000_000;

/** As the library gives an ordered document: one key is the name, ':@' the attributes, '#text' a text. */
type Ordered = Record<string, unknown>;

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  trimValues: false,
  parseTagValue: false,
  parseAttributeValue: false,
  ignoreDeclaration: true,
  ignorePiTags: true,
  htmlEntities: true,
  maxNestedTags: deepest,
});

/**
 * Reads an XML document. What could reach outside of it or grow without end is refused, not worked around.
 *
 * @param place the name of the file, for messages
 * @throws {Refused} not well formed, with declared entities, too deep, too long, or with script in it
 */
export function xmlFrom(text: string, place: string): XmlElement {
  if (text.length > longestText) throw new Refused('tooLarge', place);
  if (/<!\s*(DOCTYPE|ENTITY)/i.test(text)) throw new Refused('entities', place);
  const valid = XMLValidator.validate(text, { allowBooleanAttributes: false });
  if (valid !== true) throw new Refused('notXml', `${place}, line ${valid.err.line}`, valid.err.msg);
  let ordered: Ordered[];
  try {
    ordered = parser.parse(text) as Ordered[];
  } catch (error) {
    const detail = error instanceof Error ? error.message : '';
    throw new Refused(/nested/i.test(detail) ? 'tooDeep' : 'notXml', place, detail);
  }
  const root = ordered.map(nodeFrom).find((node) => node !== null && isElement(node));
  if (!root || !isElement(root)) throw new Refused('notXml', place);
  refuseScript(root, place);
  return root;
}

function nodeFrom(entry: Ordered): XmlNode | null {
  for (const [name, content] of Object.entries(entry)) {
    if (name === '#text') return String(content);
    if (name === ':@' || !Array.isArray(content)) continue;
    const attrs = (entry[':@'] ?? {}) as Record<string, unknown>;
    return {
      name: plainName(name),
      attrs: Object.fromEntries(Object.entries(attrs).map(([key, value]) => [plainName(key), String(value)])),
      children: (content as Ordered[]).map(nodeFrom).filter((node) => node !== null),
    };
  }
  return null;
}

/** QTI 3 writes `qti-choice-interaction` and `max-choices`, QTI 2 `choiceInteraction` and `maxChoices`. */
function plainName(name: string): string {
  const local = name.includes(':') && !name.startsWith('xml:') ? name.slice(name.indexOf(':') + 1) : name;
  return local.replace(/^qti-/, '').replace(/-([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());
}

const running = new Set(['script', 'iframe', 'embed', 'applet', 'frame', 'frameset', 'link', 'base', 'form']);

function refuseScript(node: XmlElement, place: string): void {
  if (running.has(node.name.toLowerCase())) throw new Refused('script', place, `<${node.name}>`);
  for (const [name, value] of Object.entries(node.attrs)) {
    const runs = /^on[a-z]+$/i.test(name) || /^[\s\u0000-\u001f]*(javascript|vbscript)\s*:/i.test(value); // eslint-disable-line no-control-regex -- browsers skip control characters there
    if (runs) throw new Refused('script', place, name);
  }
  for (const child of node.children) if (isElement(child)) refuseScript(child, place);
}

const builder = new XMLBuilder({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  suppressEmptyNode: true,
  format: false,
  maxNestedTags: deepest,
});

/** An XML document as text. Names of QTI are written as QTI 3 does, those of HTML and MathML as they are. */
export function xmlText(root: XmlElement, own: (name: string) => boolean = isQtiName): string {
  return `<?xml version="1.0" encoding="UTF-8"?>\n${String(builder.build([ordered(root, own)]))}\n`;
}

function ordered(node: XmlNode, own: (name: string) => boolean): Ordered {
  if (!isElement(node)) return { '#text': characters(node) };
  const qti = own(node.name);
  const attrs = Object.entries(node.attrs).map(([name, value]) => [
    qti && !name.includes(':') ? dashed(name) : name.startsWith('data') ? dashed(name) : name,
    characters(value),
  ]);
  return {
    [qti ? `qti-${dashed(node.name)}` : node.name]: node.children.map((child) => ordered(child, own)),
    ':@': Object.fromEntries(attrs) as unknown,
  };
}

const dashed = (name: string) => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);

/** The characters that XML 1.0 can hold (section 2.2, Char). */
const characters = (text: string) =>
  text.replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '');

const html = new Set(
  (
    'p div span br strong b em i sub sup ul ol li table caption thead tbody tfoot tr th td a img object ' +
    'math semantics annotation mrow mi mn mo mtext mspace mfrac msup msub msubsup msqrt mroot mover munder ' +
    'munderover mtable mtr mtd mstyle mpadded mphantom menclose merror mlabeledtr mprescripts mmultiscripts none'
  ).split(' '),
);

const isQtiName = (name: string) => !html.has(name) && !name.includes(':');
