import { identifierOf } from '../qti/identifiers';
import type { QtiKind } from '../qti/ItemForm';
import { choiceInteraction, choicesIn, optionFeedback } from '../choiceQti';
import type { OneChoice } from './schema';

/** One of several: a choice interaction of at most one, matched with the correct response. */
export const oneChoiceQti: QtiKind<OneChoice> = {
  turn: 20,
  write: ({ options, key, shuffle }) => ({
    declarations: [
      {
        identifier: 'RESPONSE',
        cardinality: 'single',
        baseType: 'identifier',
        correct: key === null ? [] : [identifierOf(key)],
      },
    ],
    interactions: [choiceInteraction(options, 1, shuffle)],
    scoring: 'match',
    feedback: optionFeedback(options, false),
  }),
  read: (source) => {
    const choices = choicesIn(source);
    if (!choices || choices.declaration?.cardinality === 'multiple') return null;
    const { options, shuffle, declaration } = choices;
    const best = declaration?.mapping?.entries
      .filter(({ value }) => value > 0)
      .toSorted((a, b) => b.value - a.value);
    if (source.scoring === 'map' && best && best.length > 1) source.lose('partPoints');
    if (source.scoring === 'other') source.lose('scoring');
    const key = declaration?.correct[0] ?? best?.[0]?.key;
    return {
      kind: 'oneChoice',
      options,
      key: key === undefined ? null : source.id(key),
      ...(shuffle && { shuffle }),
    };
  },
};
