import {
  childrenNamed,
  childElements,
  element,
  isElement,
  within,
  wordsIn,
  type XmlElement,
  type XmlNode,
} from '../qti/element';
import { gapTextClass } from '../qti/body';
import { identifierOf } from '../qti/identifiers';
import type { Declaration, ItemSource, QtiKind } from '../qti/ItemForm';
import { plainText } from '../../basics/richWords';
import { acceptedIn, bestOf, entriesOf } from '../shortText/qti';
import { gapsInText, segmentsOf } from './gapText';
import type { Gap, Gaps } from './schema';

/** A text with gaps: text entries and inline choices within it, each giving its part of the points. */
export const gapsQti: QtiKind<Gaps> = {
  turn: 50,
  write: (question) => {
    const asked = gapsInText(question.text, question.gaps);
    return {
      declarations: asked.map((gap) => declarationOf(gap, question, 1 / asked.length)),
      interactions: [element('div', { class: gapTextClass }, ...textWithGaps(question))],
      scoring: 'map',
    };
  },
  read: (source) => gapMatchIn(source) ?? entriesIn(source),
};

const responseOf = (gap: Gap) => `GAP_${gap.number}`;

function declarationOf(gap: Gap, { forgive }: Gaps, worth: number): Declaration {
  const identifier = responseOf(gap);
  if (gap.filledBy === 'typing')
    return {
      identifier,
      cardinality: 'single',
      baseType: 'string',
      correct: bestOf(gap.accepted),
      mapping: { entries: entriesOf(gap.accepted, forgive, worth) },
    };
  const right = gap.key === null ? [] : [identifierOf(gap.key)];
  return {
    identifier,
    cardinality: 'single',
    baseType: 'identifier',
    correct: right,
    mapping: { entries: right.map((key) => ({ key, value: worth })) },
  };
}

/** The text as paragraphs, an interaction in place of each gap. */
function textWithGaps({ text, gaps }: Gaps): XmlElement[] {
  return text
    .split('\n')
    .map((line) =>
      element(
        'p',
        {},
        ...segmentsOf(line, gaps).map((segment): XmlNode =>
          'text' in segment ? segment.text : gapInteraction(segment.gap),
        ),
      ),
    );
}

function gapInteraction(gap: Gap): XmlElement {
  const responseIdentifier = responseOf(gap);
  if (gap.filledBy === 'typing') return element('textEntryInteraction', { responseIdentifier });
  return element(
    'inlineChoiceInteraction',
    { responseIdentifier, shuffle: false },
    ...gap.options.map(({ id, text }) =>
      element('inlineChoice', { identifier: identifierOf(id) }, plainText(text)),
    ),
  );
}

/** Text entries and inline choices; a single entry only where words go on after it. */
function entriesIn(source: ItemSource): ReturnType<QtiKind<Gaps>['read']> {
  const { interactions } = source;
  const known = interactions.every(
    ({ name }) => name === 'textEntryInteraction' || name === 'inlineChoiceInteraction',
  );
  if (!known || interactions.length > 50) return null;
  const [only] = interactions;
  if (interactions.length === 1 && only?.name === 'textEntryInteraction' && !wordsFollow(source.body, only))
    return null;
  const share = source.max / interactions.length;
  const read = interactions.map((interaction, index) => gapFrom(source, interaction, index + 1, share));
  const blocks = gapBlocks(source);
  // What is the text with the gaps is no part of what is asked before it.
  blocks.forEach((block) => (block.attrs = { ...block.attrs, class: gapTextClass }));
  return {
    kind: 'gaps',
    text: textOf(blocks, interactions),
    gaps: read.map(({ gap }) => gap),
    forgive: read.find(({ forgive }) => forgive)?.forgive ?? { case: true, spaces: true, accents: true },
  };
}

/** The blocks of the body that gaps stand in, and those between them. */
function gapBlocks(source: ItemSource): XmlElement[] {
  const blocks = childElements(source.body).filter(({ name }) => name !== 'rubricBlock');
  const names = source.interactions.map(({ name }) => name);
  const holds = (block: XmlElement) => within(block, ...names).length > 0 || names.includes(block.name);
  const first = blocks.findIndex(holds);
  return blocks.slice(first, blocks.findLastIndex(holds) + 1);
}

function textOf(blocks: readonly XmlElement[], interactions: readonly XmlElement[]): string {
  const words = (node: XmlNode): string => {
    if (!isElement(node)) return node.replace(/\s+/g, ' ');
    const at = interactions.indexOf(node);
    if (at >= 0) return `[${at + 1}]`;
    const inside = node.children.map(words).join('');
    return /^(p|div|li|tr|h\d)$/.test(node.name) ? `${inside.trim()}\n` : node.name === 'br' ? '\n' : inside;
  };
  return blocks
    .map(words)
    .join('')
    .replace(/\n{2,}/g, '\n')
    .trim();
}

function wordsFollow(body: XmlElement, interaction: XmlElement): boolean {
  let seen = false;
  const walk = (node: XmlNode): boolean => {
    if (!isElement(node)) return seen && node.trim() !== '';
    if (node === interaction) return ((seen = true), false);
    return node.children.some(walk);
  };
  return childElements(body)
    .filter((block) => within(block, interaction.name).includes(interaction))
    .some(walk);
}

function gapFrom(source: ItemSource, interaction: XmlElement, number: number, max: number) {
  const declaration = source.declarationOf(interaction);
  const id = `gap${number}`;
  if (interaction.name === 'textEntryInteraction') {
    const most = Math.max(0, ...(declaration?.mapping?.entries ?? []).map(({ value }) => value));
    const { accepted, forgive } = acceptedIn(declaration, most || max, () => '');
    return {
      gap: { id, number, filledBy: 'typing', accepted, options: [], key: null } satisfies Gap,
      forgive,
    };
  }
  const best = declaration?.mapping?.entries.toSorted((a, b) => b.value - a.value)[0]?.key;
  const right = declaration?.correct[0] ?? best;
  const options = childrenNamed(interaction, 'inlineChoice').map((choice) => ({
    id: source.id(choice.attrs.identifier ?? ''),
    text: wordsIn(choice).trim(),
    comment: '',
  }));
  const key = right === undefined ? null : source.id(right);
  return {
    gap: { id, number, filledBy: 'picking', accepted: [], options, key } satisfies Gap,
    forgive: null,
  };
}

/** A gap match: every gap is picked from the same words. */
function gapMatchIn(source: ItemSource): ReturnType<QtiKind<Gaps>['read']> {
  const [interaction, ...more] = source.interactions;
  if (interaction?.name !== 'gapMatchInteraction' || more.length > 0) return null;
  const places = within(interaction, 'gap');
  if (within(interaction, 'gapImg').length > 0 || places.length === 0 || places.length > 50) return null;
  const declaration = source.declarationOf(interaction);
  const pairs = (
    declaration?.correct.length
      ? declaration.correct
      : (declaration?.mapping?.entries ?? []).map(({ key }) => key)
  ).map((pair) => pair.split(/\s+/));
  const words = childrenNamed(interaction, 'gapText').map((choice) => ({
    id: source.id(choice.attrs.identifier ?? ''),
    text: wordsIn(choice).trim(),
    comment: '',
  }));
  const gaps = places.map((place, index): Gap => {
    const right = pairs.find(([, to]) => to === place.attrs.identifier)?.[0];
    const options = words.map((word) => ({ ...word, id: `${word.id}.${index + 1}`.slice(0, 64) }));
    const key = right === undefined ? null : `${source.id(right)}.${index + 1}`.slice(0, 64);
    return { id: `gap${index + 1}`, number: index + 1, filledBy: 'picking', accepted: [], options, key };
  });
  const text = childElements(interaction).filter(({ name }) => name !== 'gapText' && name !== 'prompt');
  return {
    kind: 'gaps',
    text: textOf(text, places),
    gaps,
    forgive: { case: true, spaces: true, accents: true },
  };
}
