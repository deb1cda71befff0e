import { element, type XmlElement } from './qti/element';
import { bodyFrom } from './qti/body';
import type { SchemeLine } from './schemeLine';

/** What a scorer goes by: the model answer, and the scheme with its points in brackets. */
export function scorerRubric({
  modelAnswer,
  scheme,
}: {
  modelAnswer: string;
  scheme: SchemeLine[];
}): XmlElement[] {
  const block = (name: string, ...inside: XmlElement[]) =>
    element(
      'rubricBlock',
      { use: 'scoring', view: 'scorer', class: name },
      element('contentBody', {}, ...inside),
    );
  return [
    ...(modelAnswer.trim() ? [block('model-answer', ...bodyFrom(modelAnswer))] : []),
    ...(scheme.length > 0
      ? [
          block(
            'scheme',
            element('ul', {}, ...scheme.map(({ text, points }) => element('li', {}, `${text} (${points})`))),
          ),
        ]
      : []),
  ];
}

/** A response that a person scores. */
export const handScored = (identifier: string, baseType: 'string' | 'file') => ({
  identifier,
  cardinality: 'single' as const,
  baseType,
  correct: [],
});
