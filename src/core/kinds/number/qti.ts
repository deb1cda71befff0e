import { childElements, childNamed, element, numberIn, wordsIn, type XmlElement } from '../qti/element';
import { and, base, gte, lte, scoreBranches, variable } from '../qti/expressions';
import type { ItemSource, QtiKind } from '../qti/ItemForm';
import { boundsOf } from './acceptedNumbers';
import type { AcceptedNumber, NumberQuestion } from './schema';

/** A number typed in: a text entry of a float, with a rule for each accepted number, the most generous first. */
export const numberQti: QtiKind<NumberQuestion> = {
  turn: 40,
  write: ({ accepted }) => {
    const filled = accepted.filter((each) => boundsOf(each) !== null).toSorted((a, b) => b.share - a.share);
    const exact = filled.find((each) => each.share === 1 && each.form !== 'range') ?? filled[0];
    return {
      declarations: [
        {
          identifier: 'RESPONSE',
          cardinality: 'single',
          baseType: 'float',
          correct: exact?.value == null ? [] : [String(exact.value)],
        },
      ],
      interactions: [
        element(
          'p',
          {},
          element('textEntryInteraction', { responseIdentifier: 'RESPONSE', expectedLength: 12 }),
        ),
      ],
      scoring: scoreBranches(filled.map((each) => ({ when: conditionOf(each), score: each.share }))),
      feedback: filled.map((each, index) => ({
        identifier: `ANSWER_${index + 1}`,
        text: each.comment,
        when: conditionOf(each),
      })),
    };
  },
  read: (source) => {
    const [interaction, ...more] = source.interactions;
    if (interaction?.name !== 'textEntryInteraction' || more.length > 0) return null;
    const declaration = source.declarationOf(interaction);
    if (declaration?.baseType !== 'float' && declaration?.baseType !== 'integer') return null;
    return {
      kind: 'number',
      accepted: acceptedIn(source, declaration),
      unitAsked: 'none',
      units: [],
      figures: null,
    };
  },
};

/** True for a number that is taken: `equal` with its tolerance (QTI 3.0 ASI, qti-equal), or between two ends. */
function conditionOf({ form, value, tolerance, upTo }: AcceptedNumber): XmlElement {
  const response = variable('RESPONSE');
  const number = base('float', value ?? 0);
  if (form === 'range') return and(gte(response, number), lte(response, base('float', upTo ?? 0)));
  if (form === 'exact') return element('equal', { toleranceMode: 'exact' }, response, number);
  return element(
    'equal',
    { toleranceMode: form === 'percent' ? 'relative' : 'absolute', tolerance: `${tolerance} ${tolerance}` },
    response,
    number,
  );
}

function acceptedIn(
  source: ItemSource,
  declaration: NonNullable<ReturnType<ItemSource['declarationOf']>>,
): AcceptedNumber[] {
  const rules = source.branches.flatMap(({ when, score }) => {
    const form = formIn(when, declaration.correct[0]);
    return form && score > 0 ? [{ ...form, share: share(score / source.max) }] : [];
  });
  const mapped = (declaration.mapping?.entries ?? []).flatMap(({ key, value }) => {
    const number = numberIn(key);
    return number === null ? [] : [{ ...exact(number), share: share(value / source.max) }];
  });
  const [right] = declaration.correct;
  const alone = numberIn(right) === null ? [] : [{ ...exact(Number(right)), share: 1 }];
  const found = rules.length > 0 ? rules : mapped.length > 0 ? mapped : alone;
  if (source.scoring === 'other' && rules.length === 0) source.lose('scoring');
  return found.map((each, index) => ({
    ...each,
    id: `number${index}`,
    comment: source.feedback.get(`ANSWER_${index + 1}`) ?? '',
  }));
}

type Form = Pick<AcceptedNumber, 'form' | 'value' | 'tolerance' | 'upTo'>;

const share = (value: number) => Number(Math.min(1, Math.max(0, value)).toPrecision(12));

const exact = (value: number): Form => ({ form: 'exact', value, tolerance: 0, upTo: null });

/** What a condition takes, where it is of a form that is known. */
function formIn(when: XmlElement, right: string | undefined): Form | null {
  const numbersIn = (node: XmlElement) =>
    childElements(node).flatMap((part) => {
      const value =
        part.name === 'correct'
          ? numberIn(right)
          : part.name === 'baseValue'
            ? numberIn(wordsIn(part))
            : null;
      return value === null ? [] : [value];
    });
  if (when.name === 'equal' || when.name === 'match') {
    const [value] = numbersIn(when);
    if (value === undefined) return null;
    const [tolerance = 0] = (when.attrs.tolerance ?? '').split(/\s+/).filter(Boolean).map(Number);
    if (when.attrs.toleranceMode === 'absolute') return { form: 'plusMinus', value, tolerance, upTo: null };
    if (when.attrs.toleranceMode === 'relative') return { form: 'percent', value, tolerance, upTo: null };
    return exact(value);
  }
  if (when.name !== 'and') return null;
  const low = childNamed(when, 'gte') ?? childNamed(when, 'gt');
  const high = childNamed(when, 'lte') ?? childNamed(when, 'lt');
  const [from] = low ? numbersIn(low) : [];
  const [upTo] = high ? numbersIn(high) : [];
  return from === undefined || upTo === undefined ? null : { form: 'range', value: from, tolerance: 0, upTo };
}
