import { childrenNamed, childElements, element, type XmlElement } from './qti/element';
import { identifierOf } from './qti/identifiers';
import type { ItemForm, ItemSource } from './qti/ItemForm';
import { plainText } from '../basics/richWords';
import type { PairItem, PairsQuestion } from './pairs';

/** Items put to targets: a match interaction, each right pair giving its part, a wrong one taking it where so asked. */
export function pairsForm({ kind, items, targets, key, wrongTakesOff }: PairsQuestion): ItemForm {
  const keyed = items.filter((item) => key[item.id] !== undefined);
  const step = 1 / Math.max(1, keyed.length);
  const right = keyed.map((item) => `${identifierOf(item.id)} ${identifierOf(key[item.id] ?? '')}`);
  const entries = right.map((pair) => ({ key: pair, value: step }));
  const choice = (most: number) => (row: PairItem) =>
    element('simpleAssociableChoice', { identifier: identifierOf(row.id), matchMax: most }, row.text);
  return {
    declarations: [
      {
        identifier: 'RESPONSE',
        cardinality: 'multiple',
        baseType: 'directedPair',
        correct: right,
        mapping:
          right.length === 0
            ? undefined
            : wrongTakesOff
              ? { entries, otherwise: -step, lower: 0 }
              : { entries },
      },
    ],
    interactions: [
      element(
        'matchInteraction',
        { responseIdentifier: 'RESPONSE', shuffle: true, maxAssociations: 0 },
        element('simpleMatchSet', {}, ...items.map(choice(1))),
        element('simpleMatchSet', {}, ...targets.map(choice(kind === 'categories' ? 0 : 1))),
      ),
    ],
    scoring: 'map',
  };
}

/** The fields of a question of pairs, from a match or an associate interaction; null where it is of another form. */
export function pairsIn(source: ItemSource) {
  const [interaction, ...more] = source.interactions;
  if (!interaction || more.length > 0) return null;
  const sets =
    interaction.name === 'matchInteraction' ? matchSets(interaction) : associateSets(source, interaction);
  if (!sets) return null;
  const declaration = source.declarationOf(interaction);
  const gaining =
    declaration?.mapping?.entries.filter(({ value }) => value > 0).map((entry) => entry.key) ?? [];
  const pairs = (declaration?.correct.length ? declaration.correct : gaining).map((pair) =>
    pair.split(/\s+/),
  );
  const key: Record<string, string> = {};
  for (const [one = '', other = ''] of pairs) {
    const [from, to] = sets.items.some(({ attrs }) => attrs.identifier === one) ? [one, other] : [other, one];
    if (key[source.id(from)] !== undefined) source.lose('severalTargets');
    else key[source.id(from)] = source.id(to);
  }
  const row = (choice: XmlElement): PairItem => ({
    id: source.id(choice.attrs.identifier ?? ''),
    text: plainText(source.rich(choice.children)),
  });
  const shared = sets.targets.some(({ attrs }) => attrs.matchMax !== '1');
  const taken = Object.values(key);
  return {
    sorting: shared && new Set(taken).size < taken.length,
    shared,
    fields: {
      items: sets.items.map(row),
      targets: sets.targets.map(row),
      key,
      wrongTakesOff: (declaration?.mapping?.otherwise ?? 0) < 0,
    },
  };
}

interface Sets {
  items: XmlElement[];
  targets: XmlElement[];
}

function matchSets(interaction: XmlElement): Sets | null {
  const [items, targets, ...more] = childrenNamed(interaction, 'simpleMatchSet').map(childElements);
  return items && targets && more.length === 0 ? { items, targets } : null;
}

/** Where the right pairs of an associate interaction part its choices in two, they are items and targets. */
function associateSets(source: ItemSource, interaction: XmlElement): Sets | null {
  if (interaction.name !== 'associateInteraction') return null;
  const pairs = (source.declarationOf(interaction)?.correct ?? []).map((pair) => pair.split(/\s+/));
  const [firsts, seconds] = [new Set(pairs.map(([a]) => a)), new Set(pairs.map(([, b]) => b))];
  if (pairs.length === 0 || [...firsts].some((each) => seconds.has(each))) return null;
  const choices = childrenNamed(interaction, 'simpleAssociableChoice');
  const items = choices.filter(({ attrs }) => firsts.has(attrs.identifier));
  return { items, targets: choices.filter((choice) => !items.includes(choice)) };
}
