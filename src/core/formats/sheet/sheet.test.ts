import { utils, write } from '@e965/xlsx';
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { counter, samples } from '../../../../tests/unit/samples';
import { kindNamed, kindNames, kindOf, type Question } from '../../kinds';
import { bodyOf } from '../csv/heading';
import { csvFrom, tableFrom } from '../csv/table';
import { plainText } from '../../basics/richWords';
import { orRefused } from '../../basics/refused';
import { largestSheet } from './bounds';
import { guessQuestionColumns, type QuestionColumn } from './questionColumns';
import { questionRows, questionTable } from './questionRows';
import { sheetRows } from './sheetRows';
import { workbookFrom } from './workbook';

const read = (text: string) => {
  const rows = tableFrom(text);
  const { heading, meanings } = guessQuestionColumns(rows);
  return questionRows(bodyOf(rows, heading), meanings, counter('n'));
};
const keyOf = (question: Question | undefined) => (question ? kindOf(question).keyText(question) : null);

describe('columns of a sheet of questions', () => {
  const guess = (text: string) => guessQuestionColumns(tableFrom(text)).meanings;

  it.each<[string, QuestionColumn[]]>([
    ['Question,A,B,C,Correct,Points', ['stem', 'option', 'option', 'option', 'key', 'points']],
    [
      'Type;Stem;Option 1;Option 2;Key;Feedback;Topic',
      ['kind', 'stem', 'option', 'option', 'key', 'commentWrong', 'tags'],
    ],
    ['Item\tAnswer\tRight answer\tMarks\tExplanation', ['stem', 'option', 'key', 'points', 'commentWrong']],
  ])('%s', (header, meanings) => expect(guess(`${header}\n${'x,'.repeat(3)}`)).toEqual(meanings));

  it('without a header: the first column asks, letters are keys, a last column of numbers are points', () => {
    expect(guess('Which side?,port,starboard,A,1\nWhich light?,red,green,B,2')).toEqual([
      'stem',
      'option',
      'option',
      'key',
      'points',
    ]);
    expect(guess('Opposite of ebb?\tflood\nOpposite of neap?\tspring')).toEqual(['stem', 'key']);
  });
});

describe('questions from a sheet', () => {
  it('one choice by letter, by number and by words; several choices where several are named', () => {
    const { good, bad } = read(
      'Question,A,B,C,Key\nSide 1?,port,starboard,,B\nSide 2?,port,starboard,,1\nSide 3?,port,starboard,,Starboard\nSides?,port,starboard,stern,"A, C"\nNo key,port,starboard,,',
    );
    expect(bad).toEqual([]);
    expect(good.map(({ question }) => [question.kind, keyOf(question)])).toEqual([
      ['oneChoice', 'B  starboard'],
      ['oneChoice', 'A  port'],
      ['oneChoice', 'B  starboard'],
      ['severalChoices', 'A  port; C  stern'],
      ['oneChoice', ''],
    ]);
  });

  it('without options the key says what it is', () => {
    const { good } = read(
      'Question;Key;Points;Tags\nA stern light is white;true;1;lights\nHow far?;15 ± 0.5 nm;2,5;\nVariation?;6.9 to 7.1;1;\nOpposite of ebb?;flood|flood stream|flod (50 %);1;tides, streams\nWhy?;;4;',
    );
    expect(good.map(({ question }) => [question.kind, keyOf(question), question.points])).toEqual([
      ['trueFalse', 'True', 1],
      ['number', '15 ± 0.5 nm', 2.5],
      ['number', '6.9 to 7.1', 1],
      ['shortText', 'flood; flood stream; flod (50%)', 1],
      ['openText', '', 4],
    ]);
    expect(good[3]?.question.tags).toEqual(['tides', 'streams']);
  });

  it('names each row that is no question by its line, what is wrong and the cell', () => {
    const { good, bad } = read(
      'Kind,Question,A,B,Key,Points\n,,port,starboard,A,1\n,Side?,port,starboard,D,1\n,Side?,port,starboard,A,lots\nEssay,Why?,,,,1\nNumber,How far?,,,far,1\n,Good?,port,starboard,A,1',
    );
    expect(bad).toEqual([
      { line: 2, reason: 'noStem', cell: '' },
      { line: 3, reason: 'keyMatchesNothing', cell: 'D' },
      { line: 4, reason: 'badPoints', cell: 'lots' },
      { line: 5, reason: 'unknownKind', cell: 'Essay' },
      { line: 6, reason: 'badNumber', cell: 'far' },
    ]);
    expect(good).toHaveLength(1);
  });

  it('every question read is one of its kind', () => {
    const cell = fc.constantFrom(
      '',
      'A',
      'B',
      '2',
      'true',
      '12.5',
      'port',
      '<b>x</b>',
      '=1+1',
      'a|b',
      '3 to 4',
    );
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 6, maxLength: 6 }), { maxLength: 8 }), (table) => {
        const rows = table.map((cells, index) => ({ line: index + 1, cells }));
        const meanings: QuestionColumn[] = ['stem', 'option', 'option', 'key', 'points', 'tags'];
        const { good, bad } = questionRows(rows, meanings, counter('n'));
        expect(good.length + bad.length).toBe(rows.length);
        for (const { question } of good)
          expect(kindOf(question).schema.safeParse(question).error).toBeUndefined();
      }),
    );
  });
});

describe('questions to a sheet and back', () => {
  const numbers = samples.number.kind === 'number' ? samples.number.accepted : [];
  const answers = samples.shortText.kind === 'shortText' ? samples.shortText.accepted : [];
  const eighth = { id: 'e', text: 'northwest', share: 0.125, comment: '' };
  const sampled: Question[] = [
    ...Object.values(samples),
    { ...samples.oneChoice, tags: ['tides', 'twelfths'] },
    { ...samples.oneChoice, tags: ['speed, time, distance'] },
    { ...samples.oneChoice, tags: ['speed, time, distance', 'tides'] },
    { ...samples.categories, wrongTakesOff: false } as Question,
    { ...kindNamed('working').empty(counter('w')), stem: 'Plot it' },
    { ...kindNamed('file').empty(counter('f')), stem: 'Your plan' },
    { ...kindNamed('number').empty(counter('v')), stem: 'How far?', accepted: numbers } as Question,
    { ...samples.shortText, accepted: [...answers, eighth] } as Question,
  ];

  it('a row of every kind comes back the same, but for what is named as left out', () => {
    const { rows, left } = questionTable(sampled);
    const held = sampled.filter((each) => !left.some(({ question }) => question === each));
    expect(new Set(held.map(({ kind }) => kind)).size).toBe(kindNames.length);
    const { good, bad } = read(csvFrom(rows));
    expect(bad).toEqual([]);
    expect(good).toHaveLength(held.length);
    good.forEach(({ question }, index) => {
      const before = held[index];
      if (!before) throw new Error('one too many');
      expect([question.kind, plainText(question.stem), question.points, question.tags]).toEqual([
        before.kind,
        plainText(before.stem),
        before.points,
        before.tags,
      ]);
      expect(keyOf(question)).toBe(keyOf(before));
      expect([question.commentRight, question.commentWrong]).toEqual([
        before.commentRight,
        before.commentWrong,
      ]);
      const best = kindOf(before).rightAnswer?.(before);
      // What is right in words is right in the one that came back.
      if (best && before.kind === 'shortText') expect(kindOf(question).score(question, best)?.share).toBe(1);
    });
  });

  it('12.5 % of the points stays 12.5 %', () => {
    const { rows } = questionTable([sampled.at(-1) as Question]);
    expect(csvFrom(rows, { mark: false })).toContain('northwest (12.5 %)');
    const [{ question } = { question: null }] = read(csvFrom(rows, { mark: false })).good;
    expect(question?.kind === 'shortText' && question.accepted.at(-1)?.share).toBe(0.125);
  });

  it('a scheme goes out with its points, half ones and those taken off too', () => {
    const scheme = [
      { id: 'a', text: 'Names a light', points: 1 },
      { id: 'b', text: 'with its bearing', points: 0.5 },
      { id: 'c', text: 'Mixes up true and magnetic', points: -1 },
    ];
    const { rows, left } = questionTable([{ ...samples.openText, scheme } as Question]);
    expect(left).toEqual([]);
    const [{ question } = { question: null }] = read(csvFrom(rows, { mark: false })).good;
    expect(
      question && 'scheme' in question && question.scheme.map(({ text, points }) => [text, points]),
    ).toEqual(scheme.map(({ text, points }) => [text, points]));
  });

  it('what a row cannot hold is named with the fields that it cannot, never dropped in silence', () => {
    const rich = {
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Bold', marks: [{ type: 'bold' }] }] }],
    };
    const { rows, left } = questionTable([
      { ...samples.oneChoice, stem: rich } as Question,
      { ...samples.shortText, forgive: { case: false, spaces: true, accents: true } } as Question,
      { ...samples.severalChoices, rule: 'allOrNothing' } as Question,
      samples.trueFalse,
    ]);
    expect(rows).toHaveLength(2);
    expect(left.map(({ fields }) => fields)).toEqual([['stem'], ['forgive'], ['rule']]);
  });

  it('a text that looks like a formula comes back as it was, and is none in between', () => {
    const stem = '=SUM(1;2) or -1?';
    const question = { ...kindNamed('openText').empty(counter('q')), stem, scheme: [] } as Question;
    const csv = csvFrom(questionTable([question]).rows, { mark: false });
    expect(csv).not.toMatch(/(^|,)"?=/m);
    expect(read(csv).good[0]?.question.stem).toBe(stem);
  });
});

describe('workbooks', () => {
  it('questions go out as XLSX and come back the same', async () => {
    const { rows } = questionTable([samples.oneChoice, samples.trueFalse]);
    const table = await sheetRows(workbookFrom(rows, 'Tides: [1]'));
    const { heading, meanings } = guessQuestionColumns(table);
    expect(heading).toBe(0);
    const { good, bad } = questionRows(bodyOf(table, heading), meanings, counter('n'));
    expect(bad).toEqual([]);
    expect(good.map(({ question }) => keyOf(question))).toEqual(['B  3/12', 'True']);
  });

  it('a text that looks like a formula is a text there', async () => {
    expect(await sheetRows(workbookFrom([['=1+1', 2]], 'x'))).toEqual([{ line: 1, cells: ['=1+1', '2'] }]);
  });

  // ISO/IEC 29500-1, 18.8.30: a number format is how a value is shown, "0%" without decimals.
  it('a long number and a percentage keep all their digits, leading zeros of a format stay', async () => {
    const sheet = utils.aoa_to_sheet([[20240001234567, 0.125, 7, 12.5]]);
    (sheet.B1 as { z: string }).z = '0%';
    (sheet.C1 as { z: string }).z = '000';
    const book = utils.book_new();
    utils.book_append_sheet(book, sheet, 'x');
    for (const bookType of ['xlsx', 'ods'] as const) {
      const bytes = new Uint8Array(write(book, { type: 'array', bookType }) as ArrayBuffer);
      const [row] = await sheetRows(bytes);
      expect(row?.cells[0]).toBe('20240001234567');
      if (bookType === 'xlsx') expect(row?.cells).toEqual(['20240001234567', '12.5%', '007', '12.5']);
    }
  });

  const refusal = async (bytes: Uint8Array) => {
    const reply = await orRefused(() => sheetRows(bytes));
    return 'refused' in reply ? [reply.refused.why, reply.refused.place] : 'taken';
  };
  const zipOf = (files: Record<string, string>) =>
    zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));

  it('what is no sheet is refused with the place, not guessed at', async () => {
    expect(await refusal(new Uint8Array([0x50, 0x4b, 3, 4, 0, 0]))).toEqual(['notZip', '']);
    expect(await refusal(new Uint8Array(largestSheet + 1))).toEqual(['tooLarge', '']);
    const named = await orRefused(() => sheetRows(strToU8('PK broken'), 'students.XLSX'));
    expect(named).toMatchObject({ refused: { why: 'notWorkbook' } });
    expect(await refusal(zipOf({ 'a.txt': 'a' }))).toEqual(['notWorkbook', 'xl/workbook.xml, content.xml']);
    expect(await refusal(zipOf({ 'content.xml': '<a>\n<b></a>' }))).toEqual([
      'notXml',
      'content.xml, line 2',
    ]);
    expect(await refusal(strToU8('Name,No\nAmara,\u0001'))).toEqual(['notSheet', 'line 2']);
    expect(await refusal(strToU8('Name,No\n"Amara,1\nLinh,2'))).toEqual(['openQuote', 'line 2']);
    const whole = workbookFrom([['Question', 'Key']], 'x');
    expect(await refusal(whole.map((byte, at) => (at === 400 ? byte ^ 1 : byte)))).not.toBe('taken');
  });

  it('a small file cannot grow to fill the memory', async () => {
    const rows = `<table:table-row table:number-rows-repeated="1000000"><table:table-cell office:value-type="string" table:number-columns-repeated="16000"/></table:table-row>`;
    expect(await refusal(zipOf({ 'content.xml': `<a>${rows}</a>` }))).toEqual([
      'tooManyCells',
      'content.xml',
    ]);
    const grown = zipSync({ 'xl/workbook.xml': new Uint8Array(100 * 1024 * 1024) }, { level: 9 });
    expect(grown.length).toBeLessThan(300_000);
    expect(await refusal(grown)).toEqual(['tooLarge', 'xl/workbook.xml']);
    const long = 'a,b\n'.repeat(20_001);
    expect(await refusal(strToU8(long))).toEqual(['tooManyCells', 'line 20001']);
  });
});

describe('what is shown as good can be kept', () => {
  it('a tag of 600 letters is named with its line, and the others are good', () => {
    const { good, bad } = read(
      `Question,A,B,Key,Tags\nSide?,port,starboard,A,${'x'.repeat(600)}\nLight?,red,green,A,y`,
    );
    expect(bad).toEqual([{ line: 2, reason: 'tooLong', cell: `${'x'.repeat(40)}…` }]);
    expect(good).toHaveLength(1);
  });

  it('a title above the heading makes no question', () => {
    const { good, bad } = read('Tides and lights,,,\n,,,\nQuestion,A,B,Key\nSide?,port,starboard,A');
    expect(bad).toEqual([]);
    expect(good.map(({ line }) => line)).toEqual([4]);
  });
});
