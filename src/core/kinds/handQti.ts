import { element, type XmlElement } from './qti/element';
import { bodyFrom } from './qti/body';
import type { SchemeGroup, SchemeLine } from './schemeLine';

/**
 * What a scorer goes by: the model answer, and the scheme with its points in brackets. Groups of lines stand in blocks of
 * their own, named after how they count, with their words and their cap above.
 */
export function scorerRubric({
  modelAnswer,
  scheme,
  schemeGroups = [],
}: {
  modelAnswer: string;
  scheme: SchemeLine[];
  schemeGroups?: SchemeGroup[] | undefined;
}): XmlElement[] {
  const block = (name: string, ...inside: XmlElement[]) =>
    element(
      'rubricBlock',
      { use: 'scoring', view: 'scorer', class: name },
      element('contentBody', {}, ...inside),
    );
  const known = new Set(schemeGroups.map(({ id }) => id));
  const listOf = (lines: readonly SchemeLine[]) =>
    element('ul', {}, ...lines.map(({ text, points }) => element('li', {}, `${text} (${points})`)));
  const loose = scheme.filter(({ groupId }) => !known.has(groupId ?? ''));
  return [
    ...(modelAnswer.trim() ? [block('model-answer', ...bodyFrom(modelAnswer))] : []),
    ...(scheme.length > 0
      ? [
          block(
            'scheme',
            ...(loose.length > 0 ? [listOf(loose)] : []),
            ...schemeGroups.map((group) =>
              element(
                'div',
                { class: group.as },
                element(
                  'p',
                  {},
                  group.cap === undefined ? group.text : `${group.text} (at most ${group.cap})`.trim(),
                ),
                listOf(scheme.filter(({ groupId }) => groupId === group.id)),
              ),
            ),
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
