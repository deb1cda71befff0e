import { element } from '../qti/element';
import { base, isNull, mapResponse, setScore, sum, variable } from '../qti/expressions';
import { identifierOf } from '../qti/identifiers';
import type { Declaration, ItemSource, QtiKind, Scoring } from '../qti/ItemForm';
import { choiceInteraction, choicesIn, optionFeedback, type ReadChoices } from '../choiceQti';
import type { PartPointsRule, SeveralChoices } from './schema';

/** Several of several: a choice interaction, matched with the correct response or mapped by its rule. */
export const severalChoicesQti: QtiKind<SeveralChoices> = {
  turn: 30,
  write: (question) => ({
    declarations: [
      {
        identifier: 'RESPONSE',
        cardinality: 'multiple',
        baseType: 'identifier',
        correct: question.key.map(identifierOf),
        mapping: mappingOf(question),
      },
    ],
    interactions: [choiceInteraction(question.options, 0, question.shuffle)],
    scoring: scoringOf(question),
    feedback: optionFeedback(question.options, true),
  }),
  read: (source) => {
    const choices = choicesIn(source);
    return choices && { kind: 'severalChoices', ...shuffled(choices), ...ruleIn(source, choices) };
  },
};

const shuffled = ({ options, shuffle }: ReadChoices) => ({ options, ...(shuffle && { shuffle }) });

/** What each option gives under the rule; together they are the share of the points. */
function mappingOf({ options, key, rule, weights }: SeveralChoices): Declaration['mapping'] {
  if (key.length === 0 || rule === 'allOrNothing') return undefined;
  const step = 1 / (rule === 'everyOption' ? options.length : key.length);
  const value = (id: string) => (rule === 'weights' ? (weights?.[id] ?? 0) : key.includes(id) ? step : -step);
  const entries = options.map(({ id }) => ({ key: identifierOf(id), value: value(id) }));
  return rule === 'everyOption' ? { entries } : { entries, lower: 0, upper: 1 };
}

/** Every option counts: what is rightly left alone gives as well, unless nothing was answered at all. */
function scoringOf({ rule, options, key }: SeveralChoices): Scoring {
  if (rule === 'allOrNothing') return 'match';
  if (rule !== 'everyOption') return 'map';
  const leftAlone = (options.length - key.length) / Math.max(1, options.length);
  return [
    element(
      'responseCondition',
      {},
      element('responseIf', {}, isNull(variable('RESPONSE')), setScore(base('float', 0))),
      element('responseElse', {}, setScore(sum(base('float', leftAlone), mapResponse('RESPONSE')))),
    ),
  ];
}

function ruleIn(source: ItemSource, { options, declaration }: ReadChoices) {
  const correct = (declaration?.correct ?? []).map(source.id);
  const { mapping } = declaration ?? {};
  if (source.scoring === 'other') source.lose('scoring');
  if (source.scoring !== 'map' || !mapping) return { key: correct, rule: 'allOrNothing' as PartPointsRule };
  const values = new Map(mapping.entries.map(({ key, value }) => [source.id(key), value / source.max]));
  const worth = ({ id }: { id: string }) => values.get(id) ?? (mapping.otherwise ?? 0) / source.max;
  const gaining = options.filter((option) => worth(option) > 0).map(({ id }) => id);
  const key = correct.length > 0 ? correct : gaining;
  const step = 1 / Math.max(1, key.length);
  const plain = options.every(
    (option) => Math.abs(worth(option) - (key.includes(option.id) ? step : -step)) < 1e-9,
  );
  if (plain && mapping.lower === 0) return { key, rule: 'rightMinusWrong' as PartPointsRule };
  const within = (value: number) => Number(Math.min(1, Math.max(-1, value)).toPrecision(12));
  return {
    key,
    rule: 'weights' as PartPointsRule,
    weights: Object.fromEntries(options.map((option) => [option.id, within(worth(option))])),
  };
}
