import { parseAst } from 'vite';

const made = new Set(['CallExpression', 'NewExpression', 'ObjectExpression', 'ArrayExpression']);

/**
 * Core does nothing when it is imported. Bundlers can't know that of a schema, since it is made by calls: this says it,
 * so that a page gets only those schemas, kinds and tables of core that it uses. Without it, each page that asks one
 * function of core carries all of Zod.
 *
 * @returns {import('vite').Plugin}
 */
export function coreIsPure() {
  return {
    name: 'core-is-pure',
    apply: 'build',
    enforce: 'post',
    transform(code, id) {
      if (!/\/src\/core\/[^?]*\.ts$/.test(id)) return null;
      return { code: withoutEffects(code), map: null };
    },
  };
}

/** The code of a module, each constant that its top level makes by a call made by a call that may be left out. */
export function withoutEffects(code) {
  const values = parseAst(code)
    .body.map((node) => (node.type === 'ExportNamedDeclaration' ? node.declaration : node))
    .filter((node) => node?.type === 'VariableDeclaration')
    .flatMap(({ declarations }) => declarations)
    .map(({ init }) => init)
    .filter((init) => init && made.has(init.type));
  return values
    .reverse()
    .reduce(
      (text, { start, end }) =>
        `${text.slice(0, start)}/* @__PURE__ */ (() => (${text.slice(start, end)}))()${text.slice(end)}`,
      code,
    );
}
