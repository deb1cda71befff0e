import { sum, sumBy } from 'remeda';
import type { SchemeGroup, SchemeLine } from '../../kinds/schemeLine';
import { kindNamed, Question } from '../../kinds';
import { emptyQuestionFields } from '../../kinds/QuestionKind';
import { plainText } from '../../basics/richWords';
import { gapTextClass, richFrom, type BodyReader } from '../../kinds/qti/body';
import {
  childElements,
  childNamed,
  childrenNamed,
  element,
  isElement,
  numberIn,
  within,
  wordsIn,
  type XmlElement,
  type XmlNode,
} from '../../kinds/qti/element';
import { idFor } from '../../kinds/qti/identifiers';
import type { Declaration, ItemSource, LossCode } from '../../kinds/qti/ItemForm';
import { withKept } from './kept';
import { qtiKinds } from './kinds';

/** A question as it was read from an item, with what all its points were in the item. */
export interface ReadItem {
  question: Question;
  max: number;
}

/**
 * Reads an item: as one question or, where it asks in several ways that no kind puts together, as one a way. None,
 * with the reason lost, where no kind of question fits.
 *
 * @param lose called for everything in it that cannot be carried
 */
export function questionsFrom(
  item: XmlElement,
  picture: BodyReader['picture'],
  lose: (code: LossCode, detail: string) => void,
): ReadItem[] {
  const body = childNamed(item, 'itemBody');
  if (!body) return (lose('unreadItem', ''), []);
  const source = sourceFrom(item, body, { picture, lose });
  if (item.attrs.adaptive === 'true') lose('adaptive', '');
  if (childrenNamed(item, 'templateDeclaration', 'templateProcessing').length > 0) lose('template', '');
  if (source.interactions.length === 0) return (lose('noInteraction', ''), []);
  const one = fitted(item, source);
  if (one) return [{ ...one, question: withKept(one.question, item, lose) }];
  if (source.interactions.length > 1) {
    const several = apart(source, body).map((part) => fitted(item, part));
    lose('split', String(several.filter((each) => each !== null).length));
    return several.filter((each) => each !== null);
  }
  return [];
}

/** The item as a question of the first kind that fits. */
function fitted(item: XmlElement, source: ItemSource): ReadItem | null {
  for (const { read } of qtiKinds) {
    const own = read(source);
    if (!own) continue;
    const question = whole(item, source, own);
    return question && { question, max: source.max };
  }
  if (source.interactions.length === 1) source.lose('interaction', source.interactions[0]?.name ?? '');
  return null;
}

/** The item as several, one for each of its interactions with what stands before it. */
function apart(source: ItemSource, body: XmlElement): ItemSource[] {
  const { interactions } = source;
  const held = (node: XmlNode) =>
    (isElement(node) ? [node, ...within(node, ...interactions.map(({ name }) => name))] : []).filter((each) =>
      interactions.includes(each),
    );
  const spread = (nodes: readonly XmlNode[]): XmlNode[] =>
    nodes.flatMap((node) => (isElement(node) && held(node).length > 1 ? spread(node.children) : [node]));
  const runs: XmlNode[][] = [[]];
  for (const node of spread(body.children)) {
    runs.at(-1)?.push(node);
    if (held(node).length > 0) runs.push([]);
  }
  const after = runs.length > interactions.length ? (runs.pop() ?? []) : [];
  runs.at(-1)?.push(...after);
  return runs.map((children) => {
    const inside = children.flatMap(held);
    const mapping = inside[0] && source.declarationOf(inside[0]);
    const most = mapping?.mapping ? mostOf(mapping) : 0;
    return {
      ...source,
      body: { ...body, children },
      interactions: inside,
      max: source.scoring === 'map' && most > 0 ? most : source.max / interactions.length,
      scoring: source.scoring === 'other' && mapping && mapping.correct.length > 0 ? 'match' : source.scoring,
    };
  });
}

function whole(item: XmlElement, source: ItemSource, own: { kind: Question['kind'] }): Question | null {
  const { feedback } = source;
  const general = (name: RegExp) => [...feedback].find(([identifier]) => name.test(identifier))?.[1] ?? '';
  loseFeedback(item, source);
  const notes = rubrics(item, 'author');
  const commentPart = general(/^part(ial(ly)?)?$/i);
  const link = within(item, 'modalFeedback').flatMap((each) => within(each, 'a'))[0];
  const parsed = Question.safeParse({
    ...kindNamed(own.kind).empty(() => 'unnamed'),
    ...emptyQuestionFields,
    id: idFor(item.attrs.identifier ?? ''),
    stem: stemOf(source),
    commentRight: general(/^(right|correct)$/i),
    commentWrong: general(/^(wrong|incorrect)$/i),
    ...(commentPart && { commentPart }),
    ...(link?.attrs.href && {
      link: { href: link.attrs.href.slice(0, 500), text: wordsIn(link).slice(0, 500) },
    }),
    note: notes.map((each) => plainText(source.rich(each.children))).join('\n'),
    ...own,
  });
  return parsed.success
    ? parsed.data
    : (source.lose('unreadItem', parsed.error.issues[0]?.message ?? ''), null);
}

const generalComment = /^(part(ial(ly)?)?|right|correct|wrong|incorrect)$/i;

/** Comments under conditions that no field here stands for. */
function loseFeedback(item: XmlElement, source: ItemSource): void {
  const choices = new Set(within(item, 'simpleChoice').map(({ attrs }) => attrs.identifier));
  for (const [identifier, text] of source.feedback) {
    const own = identifier.replace(/^PICKED/, '');
    if (generalComment.test(identifier) || /^ANSWER_\d+$/.test(identifier) || choices.has(own)) continue;
    source.lose('feedback', text.slice(0, 80));
  }
}

/** The text before the interactions, with the prompt that stands within one. */
function stemOf(source: ItemSource) {
  const asked: XmlNode[] = source.body.children
    .filter((node) => !isElement(node) || node.name !== 'rubricBlock')
    .map((node) => (isElement(node) ? without(node, source.interactions) : node));
  const prompts = source.interactions.flatMap((each) => childNamed(each, 'prompt')?.children ?? []);
  return source.rich([...asked, ...prompts]);
}

/** A block without the interactions in it, and without what they stand in where nothing else does. */
function without(node: XmlElement, interactions: readonly XmlElement[]): XmlNode {
  if (interactions.includes(node) || node.attrs.class === gapTextClass) return '';
  if (within(node, ...interactions.map(({ name }) => name)).length === 0) return node;
  const children = node.children.map((child) => (isElement(child) ? without(child, interactions) : child));
  const empty = children.every((child) => !isElement(child) && child.trim() === '');
  return empty ? '' : { ...node, children };
}

const rubrics = (item: XmlElement, view: string) =>
  within(item, 'rubricBlock').filter((each) => (each.attrs.view ?? '').split(' ').includes(view));

const interactionName = /(^|[a-z])interaction$/i;

function interactionsIn(node: XmlElement): XmlElement[] {
  return childElements(node).flatMap((child) =>
    interactionName.test(child.name) ? [child] : interactionsIn(child),
  );
}

function sourceFrom(
  item: XmlElement,
  body: XmlElement,
  { picture, lose }: { picture: BodyReader['picture']; lose: (code: LossCode, detail: string) => void },
): ItemSource {
  const declarations = new Map(
    childrenNamed(item, 'responseDeclaration').map((each) => [
      each.attrs.identifier ?? '',
      declarationFrom(each),
    ]),
  );
  const reader: BodyReader = { picture, lose };
  const rich: ItemSource['rich'] = (nodes) => richFrom(nodes, reader);
  const rules = childNamed(item, 'responseProcessing');
  const scorer = rubrics(item, 'scorer');
  return {
    interactions: interactionsIn(body),
    declarationOf: (interaction) => declarations.get(interaction.attrs.responseIdentifier ?? ''),
    body,
    scoring: scoringOf(rules),
    branches: rules ? branchesIn(rules) : [],
    max: maxOf(item, [...declarations.values()], rules),
    feedback: new Map(
      childrenNamed(item, 'modalFeedback').map((each) => [
        each.attrs.identifier ?? '',
        plainText(rich((childNamed(each, 'contentBody') ?? each).children.filter((node) => !isReadOn(node)))),
      ]),
    ),
    marking: markingFrom(scorer, rich),
    rich,
    id: idFor,
    lose: (code, detail = '') => lose(code, detail),
  };
}

/** A paragraph that is nothing but a link. */
const isReadOn = (node: XmlNode) =>
  isElement(node) && node.name === 'p' && node.children.length === 1 && within(node, 'a').length === 1;

function declarationFrom(node: XmlElement): Declaration {
  const mapping = childNamed(node, 'mapping');
  const { identifier = '', cardinality, baseType } = node.attrs;
  return {
    identifier,
    cardinality: cardinality === 'multiple' || cardinality === 'ordered' ? cardinality : 'single',
    baseType: (baseType ?? 'identifier') as Declaration['baseType'],
    correct: childrenNamed(childNamed(node, 'correctResponse') ?? element('none'), 'value').map((value) =>
      wordsIn(value).trim(),
    ),
    mapping: mapping && {
      entries: childrenNamed(mapping, 'mapEntry').map(({ attrs }) => ({
        key: attrs.mapKey ?? '',
        value: numberIn(attrs.mappedValue) ?? 0,
        caseSensitive: attrs.caseSensitive !== 'false',
      })),
      otherwise: numberIn(mapping.attrs.defaultValue) ?? 0,
      ...(numberIn(mapping.attrs.lowerBound) !== null && { lower: Number(mapping.attrs.lowerBound) }),
      ...(numberIn(mapping.attrs.upperBound) !== null && { upper: Number(mapping.attrs.upperBound) }),
    },
  };
}

function scoringOf(rules: XmlElement | undefined): ItemSource['scoring'] {
  if (!rules) return 'none';
  const template = rules.attrs.template ?? rules.attrs.templateLocation ?? '';
  if (/map_response(\.xml)?$/.test(template)) return 'map';
  if (/match_correct(\.xml)?$/.test(template)) return 'match';
  if (within(rules, 'mapResponse').length > 0) return 'map';
  if (within(rules, 'correct').length > 0) return 'match';
  return within(rules, 'setOutcomeValue').length > 0 ? 'other' : 'none';
}

function branchesIn(rules: XmlElement): ItemSource['branches'] {
  return within(rules, 'responseIf', 'responseElseIf').flatMap((branch) => {
    const [when] = childElements(branch);
    const set = childrenNamed(branch, 'setOutcomeValue').find((each) => each.attrs.identifier === 'SCORE');
    const score = numberIn(wordsIn(childNamed(set, 'baseValue')));
    return when && set && score !== null ? [{ when, score }] : [];
  });
}

/** What all the points of an item are: as declared, or the most that its mapping gives. */
function maxOf(
  item: XmlElement,
  declarations: readonly Declaration[],
  rules: XmlElement | undefined,
): number {
  const outcomes = childrenNamed(item, 'outcomeDeclaration');
  const named = (name: string) => outcomes.find((each) => each.attrs.identifier === name);
  const declared =
    numberIn(wordsIn(childNamed(childNamed(named('MAXSCORE'), 'defaultValue'), 'value'))) ??
    numberIn(named('SCORE')?.attrs.normalMaximum);
  if (declared !== null && declared > 0) return declared;
  const mapped = sumBy(declarations, (each) => (each.mapping ? mostOf(each) : 0));
  if (mapped > 0 && scoringOf(rules) === 'map') return mapped;
  const branches = rules ? branchesIn(rules).map(({ score }) => score) : [];
  return Math.max(0, ...branches) || 1;
}

function mostOf({ mapping, cardinality }: Declaration): number {
  const gains = mapping?.entries.map(({ value }) => value).filter((value) => value > 0) ?? [];
  const most = cardinality === 'single' ? Math.max(0, ...gains) : sum(gains);
  return Math.min(most, mapping?.upper ?? Infinity);
}

/** A scheme line as it is written: its words, and its points in brackets at the end. */
const schemeLine = /^(.*?)\s*\(([+-]?\d+(?:\.\d+)?)\)$/s;

/** What a group is called, and the most that it gives. */
const groupWords = /^(.*?)(?:\s*\(at most (\d+(?:\.\d+)?)\))?$/s;

function markingFrom(scorer: readonly XmlElement[], rich: ItemSource['rich']): ItemSource['marking'] {
  const scheme: SchemeLine[] = [];
  const schemeGroups: SchemeGroup[] = [];
  const model: string[] = [];
  const linesIn = (rows: readonly XmlElement[], groupId?: string) => {
    for (const row of rows) {
      const text = plainText(rich(row.children));
      const [, words = text, points = '0'] = schemeLine.exec(text) ?? [];
      const id = `line${scheme.length}`;
      scheme.push({ id, text: words, points: Number(points), ...(groupId !== undefined && { groupId }) });
    }
  };
  const isGroup = ({ name, attrs }: XmlElement) =>
    name === 'div' && (attrs.class === 'lines' || attrs.class === 'levels');
  for (const block of scorer) {
    if (block.attrs.class !== 'scheme') {
      model.push(plainText(rich(block.children)));
      continue;
    }
    const groups = within(block, 'div')
      .filter(isGroup)
      .slice(0, 12 - schemeGroups.length);
    const grouped = new Set(groups.flatMap((group) => within(group, 'li')));
    linesIn(within(block, 'li').filter((row) => !grouped.has(row)));
    for (const group of groups) {
      const id = `group${schemeGroups.length}`;
      const heading = plainText(rich(childNamed(group, 'p')?.children ?? []));
      const [, text = heading, cap] = groupWords.exec(heading) ?? [];
      schemeGroups.push({
        id,
        text: text.slice(0, 500),
        as: group.attrs.class === 'levels' ? 'levels' : 'lines',
        ...(cap !== undefined && { cap: Math.min(1000, Number(cap)) }),
      });
      linesIn(within(group, 'li'), id);
    }
  }
  return {
    modelAnswer: model.join('\n'),
    scheme: scheme.slice(0, 26),
    ...(schemeGroups.length > 0 && { schemeGroups }),
  };
}
