import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';

/** What stands in for a value in a text: `Import … students`. */
const value = '…';

/**
 * Every text of the interface as its source has it: strings, templates and what stands between tags, with `…` where a value
 * is put in.
 *
 * @param folder read with all below it, but for tests
 */
export function interfaceTexts(folder: string): Set<string> {
  const texts = new Set<string>();
  for (const file of readdirSync(folder, { recursive: true, encoding: 'utf8' })) {
    if (!/\.tsx?$/.test(file) || /\.test\.tsx?$/.test(file)) continue;
    const path = join(folder, file);
    gather(ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true), texts);
  }
  return texts;
}

function gather(node: ts.Node, texts: Set<string>): void {
  const text = textOf(node);
  if (text !== null) texts.add(text.replace(/\s+/g, ' ').trim());
  node.forEachChild((child) => gather(child, texts));
}

function textOf(node: ts.Node): string | null {
  if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return node.text;
  if (ts.isTemplateExpression(node))
    return node.head.text + node.templateSpans.map(({ literal }) => value + literal.text).join('');
  if (ts.isJsxElement(node) || ts.isJsxFragment(node)) return node.children.map(childText).join('');
  return null;
}

function childText(child: ts.JsxChild): string {
  if (ts.isJsxText(child)) return child.text;
  if (ts.isJsxExpression(child) && child.expression && ts.isStringLiteral(child.expression))
    return child.expression.text;
  return ts.isJsxExpression(child) && child.expression ? value : '';
}
