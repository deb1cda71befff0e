/** An element of an XML document, with its names as QTI 2.x writes them: `choiceInteraction`, `maxChoices`. */
export interface XmlElement {
  name: string;
  attrs: Record<string, string>;
  children: XmlNode[];
}
export type XmlNode = XmlElement | string;

type Attrs = Record<string, string | number | boolean | null | undefined>;

/** An element to write; attributes that are null or undefined are left out. */
export function element(
  name: string,
  attrs: Attrs = {},
  ...children: readonly (XmlNode | null)[]
): XmlElement {
  const given = Object.entries(attrs).filter(([, value]) => value !== null && value !== undefined);
  return {
    name,
    attrs: Object.fromEntries(given.map(([key, value]) => [key, String(value)])),
    children: children.filter((child) => child !== null),
  };
}

export const isElement = (node: XmlNode): node is XmlElement => typeof node !== 'string';

export const childElements = (parent: XmlElement) => parent.children.filter(isElement);

export function childrenNamed(parent: XmlElement, ...names: readonly string[]): XmlElement[] {
  return childElements(parent).filter((child) => names.includes(child.name));
}

export const childNamed = (parent: XmlElement | undefined, name: string) =>
  parent && childrenNamed(parent, name)[0];

/** All elements of these names within, in the order of the document. */
export function within(parent: XmlElement, ...names: readonly string[]): XmlElement[] {
  return childElements(parent).flatMap((child) => [
    ...(names.includes(child.name) ? [child] : []),
    ...within(child, ...names),
  ]);
}

/** The words within, as they stand. */
export function wordsIn(node: XmlNode | undefined): string {
  if (node === undefined) return '';
  return isElement(node) ? node.children.map(wordsIn).join('') : node;
}

/** A number in an attribute or text; null when there is none. */
export function numberIn(text: string | undefined): number | null {
  if (text === undefined || text.trim() === '') return null;
  const value = Number(text);
  return Number.isFinite(value) ? value : null;
}
