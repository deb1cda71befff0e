import type { Question } from '../../kinds';
import { plainText } from '../../basics/richWords';
import { bodyFrom } from '../../kinds/qti/body';
import { element, type XmlElement } from '../../kinds/qti/element';
import {
  and,
  base,
  correct,
  gt,
  gte,
  lt,
  lte,
  mapResponse,
  match,
  scoreBranches,
  setScore,
  sum,
  variable,
} from '../../kinds/qti/expressions';
import { identifierOf } from '../../kinds/qti/identifiers';
import type { Declaration, Feedback, ItemForm, Scoring } from '../../kinds/qti/ItemForm';
import { qtiOf } from './kinds';

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
      when: commentPart.trim() ? lte(score, none) : lt(score, all),
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
