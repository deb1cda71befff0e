import { element } from '../qti/element';
import type { QtiKind } from '../qti/ItemForm';
import { plainText } from '../../basics/richWords';
import { choicesIn, optionFeedback } from '../choiceQti';
import { identifierOf } from '../qti/identifiers';
import type { TrueFalse } from './schema';

/** True or false: a choice between the two. */
export const trueFalseQti: QtiKind<TrueFalse> = {
  turn: 10,
  write: ({ key, commentTrue, commentFalse }) => ({
    declarations: [
      {
        identifier: 'RESPONSE',
        cardinality: 'single',
        baseType: 'identifier',
        correct: key === null ? [] : [identifierOf(String(key))],
      },
    ],
    interactions: [
      element(
        'choiceInteraction',
        { responseIdentifier: 'RESPONSE', shuffle: false, maxChoices: 1 },
        element('simpleChoice', { identifier: identifierOf('true') }, 'True'),
        element('simpleChoice', { identifier: identifierOf('false') }, 'False'),
      ),
    ],
    scoring: 'match',
    feedback: optionFeedback(
      [
        { id: 'true', comment: commentTrue },
        { id: 'false', comment: commentFalse },
      ],
      false,
    ),
  }),
  read: (source) => {
    const choices = choicesIn(source);
    if (choices?.options.length !== 2 || choices.declaration?.cardinality === 'multiple') return null;
    const called = (words: string) =>
      choices.options.find(({ text }) => plainText(text).trim().toLowerCase() === words);
    const [isTrue, isFalse] = [called('true'), called('false')];
    if (!isTrue || !isFalse || source.scoring === 'map') return null;
    const right = choices.declaration?.correct[0];
    return {
      kind: 'trueFalse',
      key: right === undefined ? null : source.id(right) === isTrue.id,
      commentTrue: isTrue.comment,
      commentFalse: isFalse.comment,
    };
  },
};
