import { childNamed, childrenNamed, element, isElement, type XmlElement } from './qti/element';
import { base, match, member, variable } from './qti/expressions';
import { bodyFrom } from './qti/body';
import { identifierOf } from './qti/identifiers';
import type { Declaration, Feedback, ItemSource } from './qti/ItemForm';
import type { RichText } from '../basics/richText';
import { plainText } from '../basics/richWords';
import type { Option } from './options';

/** What the choice kinds share when they are written as QTI, and read. */

/** A text that stands in a line where it is a plain one, as blocks where it has markup. */
export const choiceText = (rich: RichText) =>
  typeof rich === 'string' && !rich.includes('\n') ? [rich] : bodyFrom(rich);

export function choiceInteraction(
  options: readonly Option[],
  most: number,
  shuffle: boolean | undefined,
): XmlElement {
  return element(
    'choiceInteraction',
    { responseIdentifier: 'RESPONSE', shuffle: shuffle ?? false, maxChoices: most },
    ...options.map(({ id, text, pinned }) =>
      element('simpleChoice', { identifier: identifierOf(id), fixed: pinned || null }, ...choiceText(text)),
    ),
  );
}

/** The comment on an option, shown to whoever picks it. */
export function optionFeedback(
  options: readonly { id: string; comment: string }[],
  several: boolean,
): Feedback[] {
  return options.map(({ id, comment }) => {
    const picked = base('identifier', identifierOf(id));
    return {
      identifier: `PICKED${identifierOf(id)}`,
      text: comment,
      when: several ? member(picked, variable('RESPONSE')) : match(variable('RESPONSE'), picked),
    };
  });
}

export interface ReadChoices {
  options: Option[];
  shuffle: boolean;
  declaration: Declaration | undefined;
  most: number;
}

/** The choices of an item whose one interaction is a choice; null otherwise. */
export function choicesIn(source: ItemSource): ReadChoices | null {
  const [interaction, ...more] = source.interactions;
  if (interaction?.name !== 'choiceInteraction' || more.length > 0) return null;
  const options = childrenNamed(interaction, 'simpleChoice').map((choice): Option => {
    const identifier = choice.attrs.identifier ?? '';
    const inline = childNamed(choice, 'feedbackInline');
    const inside = choice.children.filter((node) => !isElement(node) || node !== inline);
    return {
      id: source.id(identifier),
      text: source.rich(inside),
      comment:
        source.feedback.get(`PICKED${identifier}`) ??
        source.feedback.get(identifier) ??
        (inline ? plainText(source.rich(inline.children)) : ''),
      ...(choice.attrs.fixed === 'true' && { pinned: true }),
    };
  });
  return {
    options,
    shuffle: interaction.attrs.shuffle === 'true',
    declaration: source.declarationOf(interaction),
    most: Number(interaction.attrs.maxChoices ?? 1),
  };
}
