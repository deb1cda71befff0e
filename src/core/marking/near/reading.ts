import { listsOf, plain, type LanguageLists } from './languages';

/** What a marker reads of an answer, as far as two answers are held against each other by it. */
export interface Reading {
  /** The words that carry it, in their order. */
  words: string[];
  /** The same with the poles between them: what is up, left or more. */
  order: string[];
  /** What has to be the same in both, as one text: whether it denies, its numbers with their units, its directions. */
  guard: string;
  /** What stands before and after each word that cannot be turned around. */
  sides: ReadonlyMap<string, { before: string[]; after: string[] }>;
  /** How often each run of three letters occurs in its words. */
  trigrams: ReadonlyMap<string, number>;
}

/** Words of any script, numbers with their signs and fractions, and signs of reckoning. */
const token =
  /\p{N}+(?:[.,:/]\p{N}+)*|n['’]t(?!\p{L})|[\p{L}\p{M}]+?(?=n['’]t(?!\p{L}))|[\p{L}\p{M}]+|[+*×÷=<>%°±−-]/gu;

/** Units by what they are called, in SI and at sea: SI Brochure, 9th edition, tables 4 and 8; the rest common practice, no source. */
const units: Record<string, string> = Object.fromEntries(
  [
    'm metre metres meter meters',
    'km kilometre kilometres kilometer kilometers kilometros',
    'cm centimetre centimetres centimeter zentimeter',
    'mm millimetre millimetres millimeter',
    'nm nmi sm seemeile seemeilen',
    'kn kt knot knots knoten noeuds nudos',
    'kg kilo kilos kilogram kilograms kilogramm',
    'g gram grams gramm grammes gramos',
    't tonne tonnes tonnen toneladas',
    's sec second seconds sekunde sekunden secondes segundos',
    'min minute minutes minuten minutos',
    'h hr hour hours stunde stunden heure heures hora horas',
    'day days tag tage jour jours dia dias',
    '° degree degrees grad degre degres grados',
    '% percent prozent pourcent',
    'n newton newtons',
    'j joule joules',
    'w watt watts',
    'v volt volts',
    'mile miles meile meilen milla millas',
    'ft foot feet fuss pied pieds',
  ].flatMap((line) => line.split(' ').map((name, _at, [unit = '']) => [name, unit])),
);

/** Reads an answer in its language: its code by BCP 47. */
export function readingOf(text: string, language: string): Reading {
  const lists = listsOf(language);
  const tokens = plain(text).match(token) ?? [];
  const said: Said = { order: [], amounts: [], denies: false, turns: [] };
  for (let at = 0; at < tokens.length; at++) at += take(tokens, at, lists, said);
  const { order, amounts, denies, turns } = said;
  const words = order.filter((each) => !isPole(each));
  const sides = new Map(
    turns.map(({ at, by }) => [by, { before: order.slice(0, at), after: order.slice(at) }]),
  );
  const poles = [...new Set(order.filter(isPole))].sort();
  const guard = [denies ? 'not' : '', amounts.sort().join(' '), poles.join(' ')].join('|');
  return { words, order, guard, sides, trigrams: trigramsOf(words) };
}

interface Said {
  order: string[];
  amounts: string[];
  denies: boolean;
  turns: { at: number; by: string }[];
}

/** Reads the token at a place into what was said. @returns how many tokens after it were read along */
function take(tokens: readonly string[], at: number, lists: LanguageLists, said: Said): number {
  const each = tokens[at] ?? '';
  const number = numberOf(each, lists);
  if (number !== null) {
    const { unit, tokens: read } = unitAt(tokens, at + 1);
    said.amounts.push(number + unit);
    return read;
  }
  if (lists.connectives.has(each) && said.order.length > 0)
    said.turns.push({ at: said.order.length, by: each });
  const pole = lists.poles.get(each);
  const sign = signs[each] ?? (/^[^\p{L}]$/u.test(each) ? each : undefined);
  // French denies with two words: how many there are says nothing.
  if (lists.negations.has(each)) said.denies = true;
  else if (pole !== undefined) said.order.push(poleMark + pole);
  else if (sign !== undefined) {
    // A dash between words is none, before a number it is its sign; that two sides are equal is often left out.
    const dash = sign === '−' && !/^\p{N}/u.test(tokens[at + 1] ?? '') && each !== 'minus';
    if (!dash && sign !== '=') said.amounts.push(sign);
  } else if (!lists.function.has(each)) said.order.push(each);
  return 0;
}

/** Signs of reckoning in words. */
const signs: Record<string, string> = {
  ...{ x: '×', '*': '×', times: '×', mal: '×', fois: '×' },
  ...{ plus: '+', '-': '−', minus: '−' },
};

const poleMark = '~';
/** Whether what was read is a pole and no word. */
export const isPole = (read: string) => read.startsWith(poleMark);

function numberOf(text: string, lists: LanguageLists): string | null {
  if (/^\p{N}/u.test(text)) return text.replace(',', '.').replace(/\.0+$/, '');
  return lists.numbers.get(text) ?? null;
}

/** The unit that begins at a place: "km/h" is that of one and of the other, "° C" is a degree. */
function unitAt(tokens: readonly string[], at: number): { unit: string; tokens: number } {
  const unit = units[tokens[at] ?? ''];
  if (unit === undefined) return { unit: '', tokens: 0 };
  const next = tokens[at + 1] ?? '';
  return unit === '°' && /^[cf]$/.test(next) ? { unit, tokens: 2 } : { unit, tokens: 1 };
}

function trigramsOf(words: readonly string[]): Map<string, number> {
  const all = new Map<string, number>();
  for (const word of words) {
    const letters = [...` ${word} `];
    for (let at = 0; at + 3 <= letters.length; at++) {
      const three = letters.slice(at, at + 3).join('');
      all.set(three, (all.get(three) ?? 0) + 1);
    }
  }
  return all;
}
