import { sumBy } from 'remeda';

/**
 * A small processor of items, written from the QTI specification alone and sharing no code with the product, to check
 * what the product writes. Sections are those of "QTI 2.1 Assessment Test, Section, and Item Information Model" (IMS,
 * 2012), whose response processing QTI 3.0 keeps: 8 (response processing), 15.1 (general expressions), 15.4 (operators).
 */

type Value = (string | number | boolean)[] | null;

/** Runs the response processing of an item over responses, by their identifiers. */
export function processed(
  item: Document,
  responses: Record<string, string[]>,
): { score: number; feedback: string[] } {
  const outcomes: Record<string, Value> = {};
  const find = (parent: Element, name: string) =>
    [...parent.children].filter((child) => child.localName === name);
  const words = (element: Element | undefined) => element?.textContent?.trim() ?? '';
  const root = item.documentElement;
  const declarations = new Map(
    find(root, 'qti-response-declaration').map((each) => [each.getAttribute('identifier') ?? '', each]),
  );
  for (const each of find(root, 'qti-outcome-declaration')) {
    const value = each.querySelector('qti-value');
    outcomes[each.getAttribute('identifier') ?? ''] = value ? [Number(words(value))] : null;
  }
  const typed = (baseType: string | null, text: string) =>
    baseType === 'float' || baseType === 'integer' ? Number(text) : text;
  const responseOf = (identifier: string): Value => {
    const given = responses[identifier] ?? [];
    const type = declarations.get(identifier)?.getAttribute('base-type') ?? null;
    return given.length === 0 ? null : given.map((each) => typed(type, each));
  };
  const variable = (identifier: string): Value =>
    declarations.has(identifier) ? responseOf(identifier) : (outcomes[identifier] ?? null);
  const correct = (identifier: string): Value => {
    const declaration = declarations.get(identifier);
    const values = [...(declaration?.querySelectorAll('qti-correct-response > qti-value') ?? [])];
    const type = declaration?.getAttribute('base-type') ?? null;
    return values.length === 0 ? null : values.map((value) => typed(type, words(value)));
  };
  /** 15.1.5 mapResponse, and 6.3 mapping with its bounds: each mapped once, what is not mapped by default. */
  const mapResponse = (identifier: string): number => {
    const mapping = declarations.get(identifier)?.querySelector('qti-mapping');
    const otherwise = Number(mapping?.getAttribute('default-value') ?? 0);
    const entries = [...(mapping?.querySelectorAll('qti-map-entry') ?? [])];
    const given = new Set((responseOf(identifier) ?? []).map(String));
    let sum = 0;
    for (const each of given) {
      const entry = entries.find((candidate) => {
        const key = candidate.getAttribute('map-key') ?? '';
        return candidate.getAttribute('case-sensitive') === 'false'
          ? key.toLowerCase() === each.toLowerCase()
          : key === each;
      });
      sum += entry ? Number(entry.getAttribute('mapped-value')) : otherwise;
    }
    const [lower, upper] = ['lower-bound', 'upper-bound'].map((name) => mapping?.getAttribute(name));
    if (lower != null) sum = Math.max(sum, Number(lower));
    return upper == null ? sum : Math.min(sum, Number(upper));
  };
  const number = (value: Value) => Number(value?.[0]);
  const evaluated = (expression: Element): Value => {
    const parts = [...expression.children];
    const at = (index: number): Value => {
      const part = parts[index];
      return part ? evaluated(part) : null;
    };
    const identifier = expression.getAttribute('identifier') ?? '';
    const compared = (test: (a: number, b: number) => boolean): Value => {
      const [a, b] = [at(0), at(1)];
      return a === null || b === null ? null : [test(number(a), number(b))];
    };
    switch (expression.localName) {
      case 'qti-base-value':
        return [typed(expression.getAttribute('base-type'), words(expression))];
      case 'qti-variable':
        return variable(identifier);
      case 'qti-correct':
        return correct(identifier);
      case 'qti-map-response':
        return [mapResponse(identifier)];
      case 'qti-multiple':
        return parts.flatMap((part) => evaluated(part) ?? []);
      case 'qti-is-null':
        return [at(0) === null];
      case 'qti-and':
        return [parts.every((part) => evaluated(part)?.[0] === true)];
      case 'qti-sum':
        return [sumBy(parts, (part) => number(evaluated(part)))];
      case 'qti-gte':
        return compared((a, b) => a >= b);
      case 'qti-lte':
        return compared((a, b) => a <= b);
      case 'qti-gt':
        return compared((a, b) => a > b);
      case 'qti-lt':
        return compared((a, b) => a < b);
      case 'qti-member': {
        const [one, all] = [at(0), at(1)];
        return one === null || all === null ? null : [all.includes(one[0] ?? '')];
      }
      // 15.4.10 match: same values; the order counts only where the cardinality is ordered.
      case 'qti-match': {
        const [a, b] = [at(0), at(1)];
        if (a === null || b === null) return null;
        const ordered =
          declarations.get(parts[0]?.getAttribute('identifier') ?? '')?.getAttribute('cardinality') ===
          'ordered';
        const line = (value: (string | number | boolean)[]) =>
          (ordered ? value : [...value].sort()).join('\u0000');
        return [line(a) === line(b)];
      }
      // 15.4.13 equal: absolute [y−t0, y+t1]; relative [y(1−t0/100), y(1+t1/100)]; the bounds are included.
      case 'qti-equal': {
        const [x, y] = [at(0), at(1)];
        if (x === null || y === null) return null;
        const [first = 0, second = first] = (expression.getAttribute('tolerance') ?? '')
          .split(' ')
          .filter(Boolean)
          .map(Number);
        const mode = expression.getAttribute('tolerance-mode');
        const [from, to] =
          mode === 'absolute'
            ? [number(y) - first, number(y) + second]
            : mode === 'relative'
              ? [number(y) * (1 - first / 100), number(y) * (1 + second / 100)]
              : [number(y), number(y)];
        return [number(x) >= Math.min(from, to) && number(x) <= Math.max(from, to)];
      }
      default:
        throw new Error(`not known to the processor: ${expression.localName}`);
    }
  };
  const run = (rules: readonly Element[]): void => {
    for (const rule of rules) {
      if (rule.localName === 'qti-set-outcome-value') {
        const [value] = [...rule.children];
        outcomes[rule.getAttribute('identifier') ?? ''] = value ? evaluated(value) : null;
      } else if (rule.localName === 'qti-response-condition') {
        const branch = [...rule.children].find((each) => {
          const [condition] = [...each.children];
          return each.localName === 'qti-response-else' || (condition && evaluated(condition)?.[0] === true);
        });
        const inside = branch ? [...branch.children] : [];
        run(branch?.localName === 'qti-response-else' ? inside : inside.slice(1));
      } else throw new Error(`not known to the processor: ${rule.localName}`);
    }
  };
  const [rules] = find(root, 'qti-response-processing');
  const template = rules?.getAttribute('template') ?? '';
  // Appendix B, the standard templates: match_correct gives 1 for a match, map_response the mapped value, 0 for none.
  if (template.endsWith('/match_correct.xml')) {
    const [a, b] = [responseOf('RESPONSE'), correct('RESPONSE')];
    const ordered = declarations.get('RESPONSE')?.getAttribute('cardinality') === 'ordered';
    const line = (value: Value) => JSON.stringify(ordered ? value : [...(value ?? [])].sort());
    outcomes.SCORE = [a !== null && line(a) === line(b) ? 1 : 0];
  } else if (template.endsWith('/map_response.xml'))
    outcomes.SCORE = [responseOf('RESPONSE') === null ? 0 : mapResponse('RESPONSE')];
  else if (template) throw new Error(`no standard template: ${template}`);
  else run([...(rules?.children ?? [])]);
  return { score: number(outcomes.SCORE ?? [0]), feedback: (outcomes.FEEDBACK ?? []).map(String) };
}
