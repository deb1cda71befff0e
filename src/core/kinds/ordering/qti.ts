import { childrenNamed, element } from '../qti/element';
import { identifierOf } from '../qti/identifiers';
import type { QtiKind } from '../qti/ItemForm';
import { plainText } from '../../basics/richWords';
import type { Ordering } from './schema';

/** An order interaction, matched with the correct order. The items stand by their names, so that it is not given away. */
export const orderingQti: QtiKind<Ordering> = {
  turn: 90,
  write: ({ items }) => ({
    declarations: [
      {
        identifier: 'RESPONSE',
        cardinality: 'ordered',
        baseType: 'identifier',
        correct: items.map(({ id }) => identifierOf(id)),
      },
    ],
    interactions: [
      element(
        'orderInteraction',
        { responseIdentifier: 'RESPONSE', shuffle: true },
        ...items
          .toSorted((a, b) => (a.text < b.text ? -1 : 1))
          .map(({ id, text }) => element('simpleChoice', { identifier: identifierOf(id) }, text)),
      ),
    ],
    scoring: 'match',
  }),
  read: (source) => {
    const [interaction, ...more] = source.interactions;
    if (interaction?.name !== 'orderInteraction' || more.length > 0) return null;
    const choices = childrenNamed(interaction, 'simpleChoice');
    const right = source.declarationOf(interaction)?.correct ?? [];
    const place = (identifier: string | undefined) => right.indexOf(identifier ?? '');
    const asked = choices.filter(({ attrs }) => right.length === 0 || place(attrs.identifier) >= 0);
    if (right.length === 0) source.lose('noOrder');
    if (source.scoring === 'other' || source.scoring === 'map') source.lose('scoring');
    return {
      kind: 'ordering',
      items: asked
        .toSorted((a, b) => place(a.attrs.identifier) - place(b.attrs.identifier))
        .map((choice) => ({
          id: source.id(choice.attrs.identifier ?? ''),
          text: plainText(source.rich(choice.children)),
        })),
      rule: 'exact',
    };
  },
};
