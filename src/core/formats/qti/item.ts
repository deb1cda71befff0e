import { z } from 'zod';
import { kindNamed, Question } from '../../kinds';
import { emptyQuestionFields } from '../../kinds/QuestionKind';
import { plainText } from '../../model/richText';
import { bodyFrom, gapTextClass, richFrom, type BodyReader } from './body';
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
} from './element';
import {
  base,
  correct,
  gt,
  gte,
  lt,
  mapResponse,
  match,
  scoreBranches,
  setScore,
  sum,
  variable,
} from './expressions';
import { and } from './expressions';
import { idFor, identifierOf } from './identifiers';
import type { Declaration, Feedback, ItemForm, ItemSource, LossCode, Scoring } from './ItemForm';
import { qtiOf, qtiKinds } from './kinds';

export const toolName = 'Gribbet';
const itemNamespace = 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0';
const templates = 'https://purl.imsglobal.org/spec/qti/v3p0/rptemplates';

/** A question as an item of QTI 3.0. Its points are no part of it: they are its weight in the test. */
export function itemFrom(question: Question): XmlElement {
  const form = qtiOf(question.kind).write(question);
  const comments = [...(form.feedback ?? []), ...generalFeedback(question, form.scoring)].filter(
    ({ text }) => text.trim() !== '',
  );
  return element(
    'assessmentItem',
    {
      xmlns: itemNamespace,
      identifier: identifierOf(question.id),
      title: plainText(question.stem).replace(/\s+/g, ' ').trim().slice(0, 120) || 'Question',
      adaptive: false,
      timeDependent: false,
      toolName,
    },
    ...form.declarations.map(declarationElement),
    outcome('SCORE', 'single', 'float', 0),
    outcome('MAXSCORE', 'single', 'float', 1),
    comments.length > 0 ? outcome('FEEDBACK', 'multiple', 'identifier', null) : null,
    element(
      'itemBody',
      {},
      ...(form.rubric ?? []),
      question.note.trim()
        ? element('rubricBlock', { use: 'note', view: 'author' }, contentBody(...lines(question.note)))
        : null,
      ...bodyFrom(question.stem),
      ...form.interactions,
    ),
    processing(form, comments),
    ...comments.map(({ identifier, text }) =>
      element(
        'modalFeedback',
        { outcomeIdentifier: 'FEEDBACK', identifier, showHide: 'show' },
        contentBody(
          ...lines(text),
          identifier === 'RIGHT' || identifier === 'WRONG' ? readOn(question) : null,
        ),
      ),
    ),
  );
}

/** Lines of plain text, a paragraph each. */
export const lines = (text: string) => bodyFrom(text);

export const contentBody = (...inside: (XmlElement | null)[]) => element('contentBody', {}, ...inside);

/** A link to read on, as a link in the comment. */
function readOn({ link }: Question): XmlElement | null {
  return link?.href
    ? element('p', {}, element('a', { href: link.href }, link.text.trim() || link.href))
    : null;
}

function outcome(identifier: string, cardinality: string, baseType: string, value: number | null) {
  const inside = value === null ? null : element('defaultValue', {}, element('value', {}, String(value)));
  return element('outcomeDeclaration', { identifier, cardinality, baseType }, inside);
}

function declarationElement({ identifier, cardinality, baseType, correct: values, mapping }: Declaration) {
  return element(
    'responseDeclaration',
    { identifier, cardinality, baseType },
    values.length > 0
      ? element('correctResponse', {}, ...values.map((value) => element('value', {}, value)))
      : null,
    mapping
      ? element(
          'mapping',
          { defaultValue: mapping.otherwise ?? 0, lowerBound: mapping.lower, upperBound: mapping.upper },
          ...mapping.entries.map(({ key, value, caseSensitive }) =>
            element('mapEntry', { mapKey: key, mappedValue: rounded(value), caseSensitive }),
          ),
        )
      : null,
  );
}

/** Without the noise of binary fractions: twelve figures. */
const rounded = (value: number) => Number(value.toPrecision(12));

/** Comments that go by the score alone. */
function generalFeedback(question: Question, scoring: Scoring): Feedback[] {
  if (scoring === 'hand') return [];
  const score = variable('SCORE');
  // Parts of a third do not add up to one in binary: a millionth less is still all.
  const [none, all] = [base('float', 0), base('float', 0.999999)];
  const { commentRight, commentPart = '', commentWrong } = question;
  const part = { identifier: 'PART', text: commentPart, when: and(gt(score, none), lt(score, all)) };
  return [
    { identifier: 'RIGHT', text: commentRight, when: gte(score, all) },
    ...(commentPart.trim() ? [part] : []),
    {
      identifier: 'WRONG',
      text: commentWrong,
      when: commentPart.trim() ? element('lte', {}, score, none) : lt(score, all),
    },
  ];
}

function processing(form: ItemForm, comments: readonly Feedback[]): XmlElement | null {
  if (form.scoring === 'hand') return null;
  const keyed = form.declarations.some(({ correct: values, mapping }) => values.length > 0 || mapping);
  if (!keyed && typeof form.scoring === 'string') return null;
  const [only] = form.declarations;
  const simple = comments.length === 0 && form.declarations.length === 1 && only?.identifier === 'RESPONSE';
  if (simple && typeof form.scoring === 'string')
    return element('responseProcessing', {
      template: `${templates}/${form.scoring === 'match' ? 'match_correct' : 'map_response'}.xml`,
    });
  return element('responseProcessing', {}, ...scoringRules(form), ...comments.map(feedbackRule));
}

function scoringRules({ scoring, declarations }: ItemForm): XmlElement[] {
  if (typeof scoring !== 'string') return scoring;
  const ids = declarations.map(({ identifier }) => identifier);
  if (scoring === 'map') {
    const parts = ids.map(mapResponse);
    return [setScore(parts.length === 1 && parts[0] ? parts[0] : sum(...parts))];
  }
  const all = ids.map((id) => match(variable(id), correct(id)));
  return scoreBranches([{ when: all.length === 1 && all[0] ? all[0] : and(...all), score: 1 }]);
}

function feedbackRule({ identifier, when }: Feedback): XmlElement {
  const shown = element('multiple', {}, variable('FEEDBACK'), base('identifier', identifier));
  return element(
    'responseCondition',
    {},
    element('responseIf', {}, when, element('setOutcomeValue', { identifier: 'FEEDBACK' }, shown)),
  );
}

/** A question as it was read from an item, with what all its points were in the item. */
export interface ReadItem {
  question: Question;
  max: number;
}

/** What QTI has no word for, kept beside the item for whoever reads it here again. */
const Kept = z.record(z.string().max(40), z.object({ is: z.json().optional(), read: z.json() }));
export type Kept = z.infer<typeof Kept>;

/**
 * Reads an item. Null, with the reason lost, where no kind of question fits it.
 *
 * @param lose called for everything in it that cannot be carried
 */
export function questionFrom(
  item: XmlElement,
  picture: BodyReader['picture'],
  lose: (code: LossCode, detail: string) => void,
): ReadItem | null {
  const body = childNamed(item, 'itemBody');
  if (!body) return (lose('unreadItem', ''), null);
  const source = sourceFrom(item, body, { picture, lose });
  if (item.attrs.adaptive === 'true') lose('adaptive', '');
  if (childrenNamed(item, 'templateDeclaration', 'templateProcessing').length > 0) lose('template', '');
  if (source.interactions.length === 0) return (lose('noInteraction', ''), null);
  for (const { read } of qtiKinds) {
    const own = read(source);
    if (!own) continue;
    const question = whole(item, source, own);
    return question && { question: withKept(question, item, lose), max: source.max };
  }
  const names = [...new Set(source.interactions.map(({ name }) => name))].join(', ');
  lose(source.interactions.length > 1 ? 'mixedInteractions' : 'interaction', names);
  return null;
}

function whole(item: XmlElement, source: ItemSource, own: { kind: Question['kind'] }): Question | null {
  const { feedback } = source;
  const general = (name: RegExp) => [...feedback].find(([identifier]) => name.test(identifier))?.[1] ?? '';
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
  const { modelAnswer, scheme } = schemeFrom(scorer, rich);
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
    modelAnswer,
    scheme,
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
  const mapped = declarations.reduce((total, each) => total + (each.mapping ? mostOf(each) : 0), 0);
  if (mapped > 0 && scoringOf(rules) === 'map') return mapped;
  const branches = rules ? branchesIn(rules).map(({ score }) => score) : [];
  return Math.max(0, ...branches) || 1;
}

function mostOf({ mapping, cardinality }: Declaration): number {
  const gains = mapping?.entries.map(({ value }) => value).filter((value) => value > 0) ?? [];
  const most = cardinality === 'single' ? Math.max(0, ...gains) : gains.reduce((a, b) => a + b, 0);
  return Math.min(most, mapping?.upper ?? Infinity);
}

/** A scheme line as it is written: its words, and its points in brackets at the end. */
const schemeLine = /^(.*?)\s*\(([+-]?\d+(?:\.\d+)?)\)$/s;

function schemeFrom(scorer: readonly XmlElement[], rich: ItemSource['rich']) {
  const scheme: ItemSource['scheme'] = [];
  const model: string[] = [];
  for (const block of scorer) {
    if (block.attrs.class !== 'scheme') {
      model.push(plainText(rich(block.children)));
      continue;
    }
    for (const row of within(block, 'li')) {
      const text = plainText(rich(row.children));
      const [, words = text, points = '0'] = schemeLine.exec(text) ?? [];
      scheme.push({ id: `line${scheme.length}`, text: words, points: Number(points) });
    }
  }
  return { modelAnswer: model.join('\n'), scheme: scheme.slice(0, 26) };
}

/** The fields that the test and the manifest carry, or that mean something on this desk only. */
const carriedElsewhere = new Set(['id', 'points', 'partId', 'bankId', 'tags']);

/**
 * The fields of a question that an item does not give back as they are. With each, what the item does give back: only
 * while it still does is the kept one taken again.
 */
export function keptFields(question: Question, read: Question | null): Kept {
  const kept: Kept = {};
  const fields = Object.keys({ ...question, ...read }).filter((name) => !carriedElsewhere.has(name));
  for (const name of fields) {
    const is = plain(Reflect.get(question, name));
    const was = plain(read ? Reflect.get(read, name) : undefined);
    if (JSON.stringify(is) === JSON.stringify(was)) continue;
    const value: unknown = Reflect.get(question, name);
    kept[name] = { read: was, ...(value !== undefined && { is: z.json().parse(value) }) };
  }
  return kept;
}

/** A value to compare: keys in one order, the ids of rows left out, and what is false or not there. */
function plain(value: unknown): z.core.util.JSONType {
  if (Array.isArray(value)) return value.map(plain);
  if (value !== null && typeof value === 'object')
    return Object.fromEntries(
      Object.entries(value)
        .filter(([name, inside]) => name !== 'id' && inside !== undefined && inside !== false)
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([name, inside]) => [name, plain(inside)]),
    );
  return value === undefined ? null : z.json().parse(value);
}

/** Takes up again what was kept beside the item, as long as the item still says what it said then. */
function withKept(
  question: Question,
  item: XmlElement,
  lose: (code: LossCode, detail: string) => void,
): Question {
  const body = childNamed(item, 'itemBody');
  const text = body?.attrs.dataGribbet;
  if (!text) return question;
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return (lose('changedElsewhere', ''), question);
  }
  const kept = Kept.safeParse(json);
  const taken: Record<string, unknown> = { ...question };
  for (const [name, { is, read }] of Object.entries(kept.data ?? {})) {
    if (carriedElsewhere.has(name)) continue;
    if (JSON.stringify(plain(Reflect.get(question, name))) !== JSON.stringify(plain(read)))
      return (lose('changedElsewhere', name), question);
    if (is === undefined) Reflect.deleteProperty(taken, name);
    else taken[name] = is;
  }
  const parsed = Question.safeParse(taken);
  return parsed.success ? parsed.data : (lose('changedElsewhere', ''), question);
}

/** The element of an item with what was kept written beside its body. */
export function itemWithKept(item: XmlElement, kept: Kept): XmlElement {
  if (Object.keys(kept).length === 0) return item;
  const children = item.children.map((child) =>
    isElement(child) && child.name === 'itemBody'
      ? { ...child, attrs: { ...child.attrs, dataGribbet: JSON.stringify(kept) } }
      : child,
  );
  return { ...item, children };
}
