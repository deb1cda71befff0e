import { describe, expect, it } from 'vitest';
import { strToU8, zipSync } from 'fflate';
import { counter } from '../../../../tests/unit/samples';
import { kindOf } from '../../kinds';
import { plainText } from '../../basics/richWords';
import { papersFromQti } from './readPackage';
import { withPictures } from './withPictures';

/**
 * Items as other programs write them: QTI 2.1 and 2.2 in the shapes that the IMS Implementation Guide 2.1 (2012),
 * section 3.2 "Simple items", shows for each interaction; the words and keys are ours.
 */
const item = (id: string, declarations: string, body: string, rest = '', attrs = '') => `<?xml version="1.0"?>
<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="${id}" title="${id}" adaptive="false" timeDependent="false" ${attrs}>
${declarations}
<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>
<itemBody>${body}</itemBody>
${rest}
</assessmentItem>`;

const template = (name: string) =>
  `<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/${name}"/>`;

const declared = (cardinality: string, baseType: string, correct: string[], mapping = '', id = 'RESPONSE') =>
  `<responseDeclaration identifier="${id}" cardinality="${cardinality}" baseType="${baseType}">${
    correct.length > 0
      ? `<correctResponse>${correct.map((value) => `<value>${value}</value>`).join('')}</correctResponse>`
      : ''
  }${mapping}</responseDeclaration>`;

function packageOf(
  items: Record<string, string>,
  extra: Record<string, string | Uint8Array> = {},
  test?: string,
) {
  const resources = Object.keys(items).map(
    (name) =>
      `<resource identifier="${name}" type="imsqti_item_xmlv2p1" href="items/${name}.xml"><file href="items/${name}.xml"/></resource>`,
  );
  const testResource = test ? '<resource identifier="T" type="imsqti_test_xmlv2p1" href="test.xml"/>' : '';
  const files: Record<string, Uint8Array> = {
    'imsmanifest.xml': strToU8(
      `<manifest xmlns="http://www.imsglobal.org/xsd/imscp_v1p1"><resources>${testResource}${resources.join('')}</resources></manifest>`,
    ),
    ...(test && { 'test.xml': strToU8(test) }),
  };
  for (const [name, text] of Object.entries(items)) files[`items/${name}.xml`] = strToU8(text);
  for (const [name, content] of Object.entries(extra))
    files[name] = typeof content === 'string' ? strToU8(content) : content;
  return zipSync(files);
}

async function readOne(xml: string) {
  const { papers, losses } = await papersFromQti(packageOf({ only: xml }), 'file', counter('n'));
  const question = papers[0]?.questions[0];
  return { question, losses: losses.map(({ code }) => code) };
}

describe('items of QTI 2.1', () => {
  it('a choice with a prompt, matched with its correct response (guide 3.2.1)', async () => {
    const { question, losses } = await readOne(
      item(
        'choice',
        declared('single', 'identifier', ['ChoiceA']),
        `<p>Look at the <b>buoy</b>.</p><choiceInteraction responseIdentifier="RESPONSE" shuffle="true" maxChoices="1">
          <prompt>Which side do you leave it on?</prompt>
          <simpleChoice identifier="ChoiceA">Port</simpleChoice>
          <simpleChoice identifier="ChoiceB" fixed="true">Starboard<feedbackInline outcomeIdentifier="FEEDBACK" identifier="ChoiceB" showHide="show">That is the green one.</feedbackInline></simpleChoice>
        </choiceInteraction>`,
        template('match_correct'),
      ),
    );
    expect(losses).toEqual([]);
    expect(question).toMatchObject({ kind: 'oneChoice', shuffle: true, points: 1 });
    expect(plainText(question?.stem ?? '')).toBe('Look at the buoy.\nWhich side do you leave it on?');
    if (question?.kind !== 'oneChoice') throw new Error('no choice');
    expect(question.options.map(({ text, comment, pinned }) => [text, comment, pinned])).toEqual([
      ['Port', '', undefined],
      ['Starboard', 'That is the green one.', true],
    ]);
    expect(kindOf(question).keyText(question)).toBe('A  Port');
  });

  // QTI 2.1 Implementation Guide, 3.2.2: a multiple response with a mapping from −2 to 2, lowerBound 0, upperBound 2.
  it('a multiple response with its mapping keeps what each choice gives', async () => {
    const { question } = await readOne(
      item(
        'multiple',
        declared(
          'multiple',
          'identifier',
          ['H', 'O'],
          `<mapping lowerBound="0" upperBound="2" defaultValue="-2"><mapEntry mapKey="H" mappedValue="1"/><mapEntry mapKey="O" mappedValue="1"/><mapEntry mapKey="Cl" mappedValue="-1"/></mapping>`,
        ),
        `<choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="0"><prompt>What is water made of?</prompt>
          ${['H', 'He', 'C', 'O', 'N', 'Cl'].map((each) => `<simpleChoice identifier="${each}">${each}</simpleChoice>`).join('')}</choiceInteraction>`,
        template('map_response'),
      ),
    );
    if (question?.kind !== 'severalChoices') throw new Error('no choices');
    expect(question.points).toBe(2);
    const id = (text: string) => question.options.find((option) => option.text === text)?.id ?? '';
    const share = (...picked: string[]) => kindOf(question).score(question, { picked: picked.map(id) }).share;
    expect(share('H', 'O')).toBe(1);
    expect(share('H')).toBe(0.5);
    expect(share('H', 'O', 'Cl')).toBe(0.5);
    expect(share('H', 'He')).toBe(0);
    expect(share('Cl')).toBe(0);
  });

  it('a text entry with a mapping, and one that stands in a sentence', async () => {
    const mapping = `<mapping defaultValue="0"><mapEntry mapKey="York" mappedValue="1"/><mapEntry mapKey="york" mappedValue="0.5"/></mapping>`;
    const alone = (
      await readOne(
        item(
          'entry',
          declared('single', 'string', ['York'], mapping),
          '<p>Which town? <textEntryInteraction responseIdentifier="RESPONSE"/></p>',
          template('map_response'),
        ),
      )
    ).question;
    expect(alone).toMatchObject({
      kind: 'shortText',
      accepted: [
        { text: 'York', share: 1 },
        { text: 'york', share: 0.5 },
      ],
      forgive: { case: false },
    });
    const within = (
      await readOne(
        item(
          'cloze',
          declared('single', 'string', ['ebb']),
          '<p>Fill in.</p><p>The <textEntryInteraction responseIdentifier="RESPONSE"/> goes out.</p>',
          template('match_correct'),
        ),
      )
    ).question;
    expect(within).toMatchObject({ kind: 'gaps', stem: 'Fill in.', text: 'The [1] goes out.' });
    expect(within && kindOf(within).hasKey(within)).toBe(true);
  });

  it('comments under other conditions are named with their words', async () => {
    const feedback = (identifier: string, text: string) =>
      `<modalFeedback outcomeIdentifier="FEEDBACK" identifier="${identifier}" showHide="show"><p>${text}</p></modalFeedback>`;
    const { question, losses } = await readOne(
      item(
        'comments',
        declared('single', 'identifier', ['A']),
        '<choiceInteraction responseIdentifier="RESPONSE" maxChoices="1"><prompt>?</prompt><simpleChoice identifier="A">a</simpleChoice><simpleChoice identifier="B">b</simpleChoice></choiceInteraction>',
        `${template('match_correct')}${feedback('correct', 'Well done.')}${feedback('incorrect', 'Look again.')}${feedback('B', 'Not b.')}${feedback('late', 'You took long.')}`,
      ),
    );
    expect(losses).toEqual(['feedback']);
    expect(question).toMatchObject({
      commentRight: 'Well done.',
      commentWrong: 'Look again.',
      options: [{ comment: '' }, { comment: 'Not b.' }],
    });
  });

  it('a number with a tolerance, from its rule (QTI 2.1, 15.4.13 equal)', async () => {
    const { question } = await readOne(
      item(
        'number',
        declared('single', 'float', ['15']),
        '<p>How far? <textEntryInteraction responseIdentifier="RESPONSE"/></p>',
        `<responseProcessing><responseCondition><responseIf><equal toleranceMode="absolute" tolerance="0.5 0.5"><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></equal><setOutcomeValue identifier="SCORE"><baseValue baseType="float">2</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing>`,
      ),
    );
    expect(question).toMatchObject({
      kind: 'number',
      points: 2,
      accepted: [{ form: 'plusMinus', value: 15, tolerance: 0.5, share: 1 }],
    });
  });

  it('inline choices and text entries together are one text with gaps', async () => {
    const { question, losses } = await readOne(
      item(
        'gaps',
        declared('single', 'identifier', ['Y'], '', 'R1') + declared('single', 'string', ['six'], '', 'R2'),
        `<p>High water is <inlineChoiceInteraction responseIdentifier="R1" shuffle="false"><inlineChoice identifier="X">an hour</inlineChoice><inlineChoice identifier="Y">about twelve hours</inlineChoice></inlineChoiceInteraction> apart,</p><p>low water <textEntryInteraction responseIdentifier="R2"/> hours after it.</p>`,
      ),
    );
    expect(losses).toEqual([]);
    if (question?.kind !== 'gaps') throw new Error('no gaps');
    expect(question.text).toBe('High water is [1] apart,\nlow water [2] hours after it.');
    expect(kindOf(question).keyText(question)).toContain('[about twelve hours]');
    expect(kindOf(question).keyText(question)).toContain('[six]');
  });

  it('matches, associations, gap matches and orders', async () => {
    const choices = (name: string, max: number, ...ids: string[]) =>
      ids.map((id) => `<${name} identifier="${id}" matchMax="${max}">${id}</${name}>`).join('');
    const match = (
      await readOne(
        item(
          'match',
          declared('multiple', 'directedPair', ['C R', 'D M', 'L M']),
          `<matchInteraction responseIdentifier="RESPONSE" shuffle="true"><prompt>Who is in which play?</prompt><simpleMatchSet>${choices('simpleAssociableChoice', 1, 'C', 'D', 'L')}</simpleMatchSet><simpleMatchSet>${choices('simpleAssociableChoice', 4, 'M', 'R', 'T')}</simpleMatchSet></matchInteraction>`,
          template('match_correct'),
        ),
      )
    ).question;
    expect(match?.kind).toBe('categories');
    expect(match && kindOf(match).keyText(match)).toBe('C → R; D → M; L → M');
    const associate = (
      await readOne(
        item(
          'associate',
          declared('multiple', 'pair', ['A P', 'B Q']),
          `<associateInteraction responseIdentifier="RESPONSE" shuffle="true" maxAssociations="2">${choices('simpleAssociableChoice', 1, 'A', 'P', 'B', 'Q')}</associateInteraction>`,
          template('match_correct'),
        ),
      )
    ).question;
    expect(associate?.kind).toBe('matching');
    expect(associate && kindOf(associate).keyText(associate)).toBe('A → P; B → Q');
    const gapMatch = (
      await readOne(
        item(
          'gapMatch',
          declared('multiple', 'directedPair', ['W G1', 'Su G2']),
          `<gapMatchInteraction responseIdentifier="RESPONSE" shuffle="false"><gapText identifier="W" matchMax="1">winter</gapText><gapText identifier="Su" matchMax="1">summer</gapText><blockquote><p>Now is the <gap identifier="G1"/> made glorious <gap identifier="G2"/></p></blockquote></gapMatchInteraction>`,
          template('match_correct'),
        ),
      )
    ).question;
    expect(gapMatch).toMatchObject({ kind: 'gaps', text: 'Now is the [1] made glorious [2]' });
    expect(gapMatch && kindOf(gapMatch).keyText(gapMatch)).toBe('Now is the [winter] made glorious [summer]');
    const order = (
      await readOne(
        item(
          'order',
          declared('ordered', 'identifier', ['DriverC', 'DriverA', 'DriverB']),
          `<orderInteraction responseIdentifier="RESPONSE" shuffle="true">${['DriverA', 'DriverB', 'DriverC'].map((id) => `<simpleChoice identifier="${id}">${id}</simpleChoice>`).join('')}</orderInteraction>`,
          template('match_correct'),
        ),
      )
    ).question;
    if (order?.kind !== 'ordering') throw new Error('no order');
    expect(order.items.map(({ text }) => text)).toEqual(['DriverC', 'DriverA', 'DriverB']);
  });

  it('texts, uploads and drawings are marked by hand, by their rubric', async () => {
    const essay = (
      await readOne(
        item(
          'essay',
          declared('single', 'string', []),
          '<rubricBlock view="scorer"><p>Names the set and the drift.</p></rubricBlock><extendedTextInteraction responseIdentifier="RESPONSE"><prompt>Explain leeway.</prompt></extendedTextInteraction>',
        ),
      )
    ).question;
    expect(essay).toMatchObject({
      kind: 'openText',
      stem: 'Explain leeway.',
      modelAnswer: 'Names the set and the drift.',
    });
    const upload = (
      await readOne(
        item(
          'upload',
          declared('single', 'file', []),
          '<uploadInteraction responseIdentifier="RESPONSE" type="application/pdf"><prompt>Hand in.</prompt></uploadInteraction>',
        ),
      )
    ).question;
    expect(upload).toMatchObject({ kind: 'file', sorts: ['pdf'] });
  });

  it('what asks in several ways at once becomes a question a way, with its part of the points', async () => {
    const { papers, losses } = await papersFromQti(
      packageOf({
        mixed: item(
          'mixed',
          declared('single', 'identifier', ['A'], '', 'R1') + declared('single', 'string', [], '', 'R2'),
          `<p>A red can.</p><div><choiceInteraction responseIdentifier="R1" maxChoices="1"><prompt>Which side?</prompt><simpleChoice identifier="A">port</simpleChoice><simpleChoice identifier="B">starboard</simpleChoice></choiceInteraction><p>Say why.</p><extendedTextInteraction responseIdentifier="R2"/></div>`,
          `<responseProcessing><responseCondition><responseIf><match><variable identifier="R1"/><correct identifier="R1"/></match><setOutcomeValue identifier="SCORE"><baseValue baseType="float">4</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing>`,
        ),
      }),
      'file',
      counter('n'),
    );
    expect(losses).toMatchObject([{ code: 'split', detail: '2' }]);
    expect(papers[0]?.questions.map(({ kind, stem, points }) => [kind, stem, points])).toEqual([
      ['oneChoice', 'A red can.\nWhich side?', 2],
      ['openText', 'Say why.', 2],
    ]);
  });

  it('maths without TeX is put together from its elements', async () => {
    const { question } = await readOne(
      item(
        'maths',
        declared('single', 'string', ['x']),
        '<p>Find <m:math xmlns:m="http://www.w3.org/1998/Math/MathML"><m:mfrac><m:msup><m:mi>x</m:mi><m:mn>2</m:mn></m:msup><m:msqrt><m:mn>3</m:mn></m:msqrt></m:mfrac></m:math></p><textEntryInteraction responseIdentifier="RESPONSE"/>',
      ),
    );
    expect(plainText(question?.stem ?? '')).toBe('Find \\frac{{x}^{2}}{\\sqrt{3}}');
  });
});

describe('a package of QTI 2.2 with a test', () => {
  const choice = (id: string, picture = '') =>
    item(
      id,
      declared('single', 'identifier', ['A']),
      `<p>${id}${picture}</p><choiceInteraction responseIdentifier="RESPONSE" maxChoices="1"><simpleChoice identifier="A">yes</simpleChoice><simpleChoice identifier="B">no</simpleChoice></choiceInteraction>`,
      template('match_correct'),
    );
  const ref = (id: string, weight?: number) =>
    `<assessmentItemRef identifier="${id}" href="items/${id}.xml">${weight ? `<weight identifier="W" value="${weight}"/>` : ''}</assessmentItemRef>`;
  const test = `<assessmentTest xmlns="http://www.imsglobal.org/xsd/imsqti_v2p2" identifier="T" title="Day skipper, trial paper">
    <timeLimits maxTime="3600"/>
    <testPart identifier="P" navigationMode="nonlinear" submissionMode="simultaneous">
      <assessmentSection identifier="S1" title="Lights" visible="true"><selection select="1"/><ordering shuffle="true"/><rubricBlock view="candidate"><p>Answer <i>one</i>.</p></rubricBlock>${ref('q1', 3)}${ref('q2', 3)}</assessmentSection>
      <assessmentSection identifier="S2" title="Tides" visible="true">${ref('q3')}<assessmentSection identifier="S3" title="Streams" visible="true">${ref('q4')}</assessmentSection></assessmentSection>
    </testPart></assessmentTest>`;
  const png = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 9]);
  const reading = papersFromQti(
    packageOf(
      {
        q1: choice('q1', '<img src="../img/a%20buoy.png" alt="A red can" width="40" height="30"/>'),
        q2: choice('q2', '<img src="https://example.org/x.png" alt="Far away"/>'),
        q3: choice('q3'),
        q4: item(
          'q4',
          declared('single', 'point', []),
          '<hotspotInteraction responseIdentifier="RESPONSE"/>',
        ),
        loose: choice('loose'),
      },
      { 'img/a buoy.png': png },
      test,
    ),
    'file',
    counter('n'),
  );

  it('sections become parts, weights points, and loose items a paper of their own', async () => {
    const read = await reading;
    expect(read.papers.map(({ title, questions }) => [title, questions.length])).toEqual([
      ['Day skipper, trial paper', 3],
      ['file', 1],
    ]);
    const [paper] = read.papers;
    expect(
      paper?.parts?.map(({ title, draw, shuffle, instructions }) => [
        title,
        draw,
        shuffle,
        plainText(instructions),
      ]),
    ).toEqual([
      ['Lights', 1, true, 'Answer one.'],
      ['Tides', null, false, ''],
      ['Tides: Streams', null, false, ''],
    ]);
    expect(paper?.questions.map(({ points }) => points)).toEqual([3, 3, 1]);
    const ids = paper?.parts?.map(({ id }) => id);
    expect(paper?.questions.map(({ partId }) => ids?.indexOf(partId ?? ''))).toEqual([0, 0, 1]);
  });

  it('what cannot be carried is named with its place', async () => {
    const read = await reading;
    expect(read.losses.map(({ place, code, detail }) => `${place} | ${code} ${detail}`)).toEqual([
      'test.xml | timeLimit 60',
      '2: q2 | picture https://example.org/x.png',
      '4: q4 | interaction hotspotInteraction',
    ]);
  });

  it('pictures are found beside their items, and named as they are kept', async () => {
    const read = await reading;
    expect(read.pictures.map(({ name, bytes }) => [name, bytes.length])).toEqual([
      ['a buoy.png', png.length],
    ]);
    const [paper] = read.papers;
    if (!paper) throw new Error('no paper');
    const id = read.pictures[0]?.id ?? '';
    const kept = withPictures(paper, new Map([[id, { asset: 'sha', width: 40, height: 30 }]]));
    expect(JSON.stringify(kept.questions[0]?.stem)).toContain('"asset":"sha"');
    expect(JSON.stringify(kept.questions[0]?.stem)).toContain('"alt":"A red can"');
    expect(JSON.stringify(withPictures(paper, new Map()).questions[0]?.stem)).not.toContain('picture');
  });
});
