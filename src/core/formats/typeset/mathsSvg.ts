import { liteAdaptor } from 'mathjax-full/js/adaptors/liteAdaptor.js';
import { RegisterHTMLHandler } from 'mathjax-full/js/handlers/html.js';
import 'mathjax-full/js/input/tex/ams/AmsConfiguration.js';
import { TeX } from 'mathjax-full/js/input/tex.js';
import { mathjax } from 'mathjax-full/js/mathjax.js';
import { SVG } from 'mathjax-full/js/output/svg.js';

/** A formula as it is set, in em. */
export interface SetMaths {
  /** A picture of its own, as SVG. */
  svg: string;
  /** What is in it, for another picture: in thousandths of an em, y downwards from the line it stands on. */
  inside: string;
  w: number;
  /** Over and under the line it stands on. */
  above: number;
  below: number;
}

/** Sets a formula; null where it is none. */
export type SetMathsOf = (tex: string, display: boolean) => SetMaths | null;

// Its elements are made without a document.
const adaptor = liteAdaptor();
RegisterHTMLHandler(adaptor);
const page = mathjax.document('', {
  InputJax: new TeX({ packages: ['base', 'ams'] }),
  // Each formula has its letters as outlines: nothing else has to be there.
  OutputJax: new SVG({ fontCache: 'none' }),
});

const thousandths = 1000;

/** Sets TeX for print. It is large: it is loaded only where there are formulas. */
export const mathsSvg: SetMathsOf = (tex, display) => {
  const svg = adaptor.innerHTML(
    page.convert(tex, { display, em: 16, ex: 8 }) as Parameters<typeof adaptor.innerHTML>[0],
  );
  const [, x = '', y = '', w = '', h = ''] = /viewBox="(\S+) (\S+) (\S+) (\S+)"/.exec(svg) ?? [];
  // A mistake in it is set as a message about it: then it is printed as it was typed.
  if (!w || svg.includes('data-mml-node="merror"')) return null;
  const inside = svg.replace(/^<svg[^>]*>/, '').replace(/<\/svg>$/, '');
  return {
    svg,
    inside: x === '0' ? inside : `<g transform="translate(${-Number(x)},0)">${inside}</g>`,
    w: Number(w) / thousandths,
    above: -Number(y) / thousandths,
    below: (Number(y) + Number(h)) / thousandths,
  };
};
