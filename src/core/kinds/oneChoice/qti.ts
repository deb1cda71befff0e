import { identifierOf } from '../qti/identifiers';
import type { QtiKind } from '../qti/ItemForm';
import { choiceInteraction, choicesIn, optionFeedback } from '../choiceQti';
import type { OneChoice } from './schema';

/** One of several: a choice interaction of at most one, matched with the correct response. */
export const oneChoiceQti: QtiKind<OneChoice> = {
  turn: 20,
  write: ({ options, key, also = [], shuffle }) => ({
    declarations: [
      {
        identifier: 'RESPONSE',
        cardinality: 'single',
        baseType: 'identifier',
        correct: key === null ? [] : [identifierOf(key)],
        ...(also.length > 0 && {
          mapping: {
            entries: [...(key === null ? [] : [{ id: key, share: 1 }]), ...also].map(({ id, share }) => ({
              key: identifierOf(id),
              value: share,
            })),
            otherwise: 0,
          },
        }),
      },
    ],
    interactions: [choiceInteraction(options, 1, shuffle)],
    scoring: also.length > 0 ? 'map' : 'match',
    feedback: optionFeedback(options, false),
  }),
  read: (source) => {
    const choices = choicesIn(source);
    if (!choices || choices.declaration?.cardinality === 'multiple') return null;
    const { options, shuffle, declaration } = choices;
    const best = declaration?.mapping?.entries
      .filter(({ value }) => value > 0)
      .toSorted((a, b) => b.value - a.value);
    if (source.scoring === 'other') source.lose('scoring');
    const key = declaration?.correct[0] ?? best?.[0]?.key;
    const most = best?.[0]?.value ?? 1;
    // What gives points besides the key is taken as well, for its share of the most.
    const also =
      source.scoring === 'map'
        ? (best ?? [])
            .filter((entry) => entry.key !== key)
            .map((entry) => ({ id: source.id(entry.key), share: Math.min(1, entry.value / most) }))
        : [];
    return {
      kind: 'oneChoice',
      options,
      key: key === undefined ? null : source.id(key),
      ...(also.length > 0 && { also }),
      ...(shuffle && { shuffle }),
    };
  },
};
