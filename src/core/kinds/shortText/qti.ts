import { element } from '../qti/element';
import { base, match, variable } from '../qti/expressions';
import type { ItemSource, MapEntry, QtiKind } from '../qti/ItemForm';
import type { AcceptedAnswer, ShortText } from './schema';
import type { Forgive } from '../forgiving';

/** A text typed in: a text entry whose mapping gives each accepted answer its share. */
export const shortTextQti: QtiKind<ShortText> = {
  turn: 60,
  write: ({ accepted, forgive }) => ({
    declarations: [
      {
        identifier: 'RESPONSE',
        cardinality: 'single',
        baseType: 'string',
        correct: bestOf(accepted),
        mapping: accepted.length === 0 ? undefined : { entries: entriesOf(accepted, forgive) },
      },
    ],
    interactions: [
      element(
        'p',
        {},
        element('textEntryInteraction', { responseIdentifier: 'RESPONSE', expectedLength: 40 }),
      ),
    ],
    scoring: 'map',
    feedback: accepted.map(({ text, comment }, index) => ({
      identifier: `ANSWER_${index + 1}`,
      text: comment,
      when: match(variable('RESPONSE'), base('string', text)),
    })),
  }),
  read: (source) => {
    const [interaction, ...more] = source.interactions;
    if (interaction?.name !== 'textEntryInteraction' || more.length > 0) return null;
    const declaration = source.declarationOf(interaction);
    if (source.scoring === 'other') source.lose('scoring');
    return {
      kind: 'shortText',
      ...acceptedIn(declaration, source.max, (index) => source.feedback.get(`ANSWER_${index + 1}`) ?? ''),
    };
  },
};

/** The answer to show as the right one. */
export const bestOf = (accepted: readonly AcceptedAnswer[]) => {
  const best = accepted.find((each) => each.share === 1 && each.match !== 'containsAll' && each.text.trim());
  return best ? [best.text] : [];
};

/** Accepted answers as a mapping; `worth` is what a full one gives. */
export function entriesOf(accepted: readonly AcceptedAnswer[], forgive: Forgive, worth = 1): MapEntry[] {
  return accepted
    .filter((each) => each.match !== 'containsAll' && each.text.trim())
    .map(({ text, share }) => ({ key: text, value: share * worth, caseSensitive: !forgive.case }));
}

/** Accepted answers from a mapping, or from the correct response where there is none. */
export function acceptedIn(
  declaration: ReturnType<ItemSource['declarationOf']>,
  max: number,
  comment: (index: number) => string,
): { accepted: AcceptedAnswer[]; forgive: Forgive } {
  const entries: MapEntry[] =
    declaration?.mapping?.entries ??
    (declaration?.correct ?? []).map((key) => ({ key, value: max, caseSensitive: false }));
  const share = (value: number) => Number(Math.min(1, Math.max(0, value / max)).toPrecision(12));
  return {
    accepted: entries.slice(0, 100).map(({ key, value }, index) => ({
      id: `answer${index}`,
      text: key,
      share: share(value),
      comment: comment(index),
    })),
    forgive: { case: entries.every((entry) => entry.caseSensitive === false), spaces: true, accents: true },
  };
}
