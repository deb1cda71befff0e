import type { RichText } from '../../basics/richText';
import { isEmptyRich } from '../../basics/richWords';
import type { PaperContent, PaperPart } from '../../model/paper';
import { sectionsOf } from '../../model/parts';
import type { Question } from '../../kinds';
import { bodyFrom, richFrom, type BodyReader } from '../../kinds/qti/body';
import {
  childNamed,
  childrenNamed,
  element,
  numberIn,
  within,
  type XmlElement,
} from '../../kinds/qti/element';
import { idFor, identifierOf } from '../../kinds/qti/identifiers';
import { contentBody, toolName } from './writeItem';
import type { LossCode } from '../../kinds/qti/ItemForm';

/** A paper as a test, its parts as sections, the points of each question as the weight of its item. */
export function testFrom(
  paper: PaperContent,
  identifier: string,
  hrefOf: (question: Question) => string,
): XmlElement {
  const sections = sectionsOf(paper).filter(({ part, questions }) => part !== null || questions.length > 0);
  return element(
    'assessmentTest',
    {
      xmlns: 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0',
      identifier,
      title: paper.title || 'Paper',
      toolName,
    },
    element(
      'outcomeDeclaration',
      { identifier: 'SCORE', cardinality: 'single', baseType: 'float' },
      element('defaultValue', {}, element('value', {}, '0')),
    ),
    instructionsBlock(paper.instructions),
    element(
      'testPart',
      { identifier: 'PAPER', navigationMode: 'nonlinear', submissionMode: 'simultaneous' },
      ...sections.map(({ part, questions }) => sectionFrom(part, questions, paper.shuffle ?? false, hrefOf)),
    ),
    element(
      'outcomeProcessing',
      {},
      element(
        'setOutcomeValue',
        { identifier: 'SCORE' },
        element(
          'sum',
          {},
          element('testVariables', { variableIdentifier: 'SCORE', weightIdentifier: 'POINTS' }),
        ),
      ),
    ),
  );
}

function instructionsBlock(instructions: RichText): XmlElement | null {
  if (isEmptyRich(instructions)) return null;
  return element(
    'rubricBlock',
    { use: 'instructions', view: 'candidate' },
    contentBody(...bodyFrom(instructions)),
  );
}

function sectionFrom(
  part: PaperPart | null,
  questions: readonly Question[],
  shuffleStart: boolean,
  hrefOf: (question: Question) => string,
): XmlElement {
  const shuffle = part ? part.shuffle : shuffleStart;
  return element(
    'assessmentSection',
    {
      identifier: part ? identifierOf(part.id) : 'START',
      title: part?.title || (part ? 'Part' : 'Questions'),
      visible: part !== null,
    },
    part?.draw == null ? null : element('selection', { select: part.draw }),
    shuffle ? element('ordering', { shuffle: true }) : null,
    part && instructionsBlock(part.instructions),
    ...questions.map((question) =>
      element(
        'assessmentItemRef',
        { identifier: identifierOf(question.id), href: hrefOf(question) },
        element('weight', { identifier: 'POINTS', value: question.points }),
      ),
    ),
  );
}

/** An item as a test names it. */
export interface ItemRef {
  href: string;
  weight: number;
  partId: string | undefined;
}

export interface ReadTest {
  title: string;
  instructions: RichText;
  parts: PaperPart[];
  shuffle: boolean;
  items: ItemRef[];
}

/** What a test says of its paper; sections within sections become parts of their own. */
export function testOf(
  test: XmlElement,
  picture: BodyReader['picture'],
  lose: (code: LossCode, detail: string) => void,
): ReadTest {
  const rich = (blocks: readonly XmlElement[]) =>
    richFrom(
      blocks.flatMap((block) => (childNamed(block, 'contentBody') ?? block).children),
      { picture, lose },
    );
  const read: ReadTest = {
    title: (test.attrs.title ?? '').slice(0, 500),
    instructions: '',
    parts: [],
    shuffle: false,
    items: [],
  };
  for (const limit of within(test, 'timeLimits'))
    lose('timeLimit', String(Math.round((numberIn(limit.attrs.maxTime) ?? 0) / 60)));
  if (within(test, 'preCondition', 'branchRule').length > 0) lose('branching', '');
  const testParts = childrenNamed(test, 'testPart');
  read.instructions = rich([test, ...testParts].flatMap(candidateBlocks));
  const top = testParts.flatMap((each) => childrenNamed(each, 'assessmentSection'));
  top.forEach((section, index) => takeSection(section, '', index === 0, top.length === 1));
  return read;

  function takeSection(section: XmlElement, above: string, first: boolean, alone: boolean): void {
    const { identifier = '', title = '', visible } = section.attrs;
    const select = numberIn(childNamed(section, 'selection')?.attrs.select);
    const shuffle = childNamed(section, 'ordering')?.attrs.shuffle === 'true';
    const blocks = candidateBlocks(section);
    const inner = childrenNamed(section, 'assessmentSection');
    const plain =
      first &&
      select === null &&
      (visible === 'false' || (alone && inner.length === 0 && blocks.length === 0));
    const named = [above, title.slice(0, 200)].filter(Boolean).join(': ');
    const refs = childrenNamed(section, 'assessmentItemRef');
    const part = plain ? null : partFor();
    if (plain) read.shuffle = shuffle;
    for (const ref of refs)
      read.items.push({ href: ref.attrs.href ?? '', weight: weightOf(ref), partId: part?.id });
    for (const each of inner) takeSection(each, named, false, false);

    function partFor(): PaperPart | null {
      if (refs.length === 0 && inner.length > 0 && blocks.length === 0) return null;
      if (read.parts.length >= 50) return (lose('tooMany', named), null);
      const made: PaperPart = {
        id: idFor(identifier),
        title: named,
        instructions: rich(blocks),
        draw: select !== null && select >= 1 ? Math.min(500, Math.floor(select)) : null,
        shuffle,
        newPage: false,
      };
      read.parts.push(made);
      return made;
    }
  }
}

const candidateBlocks = (parent: XmlElement) =>
  childrenNamed(parent, 'rubricBlock').filter((each) => /candidate|^$/.test(each.attrs.view ?? ''));

/** The weight that is called points or, where none is, the first; 1 without any. */
function weightOf(ref: XmlElement): number {
  const weights = childrenNamed(ref, 'weight');
  const weight = weights.find(({ attrs }) => /^(points|weight)$/i.test(attrs.identifier ?? '')) ?? weights[0];
  return numberIn(weight?.attrs.value) ?? 1;
}
