import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { counter, samples } from '../../../../tests/unit/samples';
import { kindNamed, kindOf, type Question } from '../../kinds';
import { csvFrom, tableFrom } from '../csv/table';
import { guessQuestionColumns, type QuestionColumn } from './questionColumns';
import { questionRows, questionTable } from './questionRows';
import { workbookFrom, workbookRows } from './workbook';

const read = (text: string) => {
  const rows = tableFrom(text);
  const { hasHeader, meanings } = guessQuestionColumns(rows);
  return questionRows(hasHeader ? rows.slice(1) : rows, meanings, counter('n'));
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
      ['shortText', 'flood; flood stream; flod (50 %)', 1],
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
  const plain: Question[] = [
    { ...samples.oneChoice, tags: ['tides', 'twelfths'] },
    samples.severalChoices,
    samples.trueFalse,
    samples.shortText,
    { ...samples.openText, scheme: [] } as Question,
  ];

  it('scores the same, asks the same and is worth the same', () => {
    const { rows, left } = questionTable(plain);
    expect(left).toEqual([]);
    const { good, bad } = read(csvFrom(rows, true));
    expect(bad).toEqual([]);
    good.forEach(({ question }, index) => {
      const before = plain[index];
      if (!before) throw new Error('one too many');
      expect([question.kind, question.stem, question.points, question.tags]).toEqual([
        before.kind,
        before.stem,
        before.points,
        before.tags,
      ]);
      expect(keyOf(question)).toBe(keyOf(before));
      expect([question.commentRight, question.commentWrong]).toEqual([
        before.commentRight,
        before.commentWrong,
      ]);
    });
  });

  it('what a row cannot hold is named, never dropped in silence', () => {
    const { left } = questionTable(Object.values(samples));
    expect(left.map((question) => question.kind)).toEqual(
      Object.values(samples)
        .filter((question) =>
          ['openText', 'number', 'gaps', 'matching', 'ordering', 'categories', 'working', 'file'].includes(
            question.kind,
          ),
        )
        .map((question) => question.kind),
    );
  });

  it('a text that looks like a formula comes back as it was, and is none in between', () => {
    const stem = '=SUM(1;2) or -1?';
    const question = { ...kindNamed('openText').empty(counter('q')), stem, scheme: [] } as Question;
    const csv = csvFrom(questionTable([question]).rows, false);
    expect(csv).not.toMatch(/(^|,)"?=/m);
    expect(read(csv).good[0]?.question.stem).toBe(stem);
  });
});

describe('workbooks', () => {
  it('questions go out as XLSX and come back the same', () => {
    const { rows } = questionTable([samples.oneChoice, samples.trueFalse]);
    const table = workbookRows(workbookFrom(rows, 'Tides: [1]'));
    const { hasHeader, meanings } = guessQuestionColumns(table);
    expect(hasHeader).toBe(true);
    const { good, bad } = questionRows(table.slice(1), meanings, counter('n'));
    expect(bad).toEqual([]);
    expect(good.map(({ question }) => keyOf(question))).toEqual(['B  3/12', 'True']);
  });

  it('a text that looks like a formula is a text there', () => {
    expect(workbookRows(workbookFrom([['=1+1', 2]], 'x'))).toEqual([{ line: 1, cells: ['=1+1', '2'] }]);
  });

  it('what is no workbook is refused with a word, not guessed at', () => {
    expect(() => workbookRows(new TextEncoder().encode('<html><table><tr><td>x'))).toThrow(/no XLSX or ODS/);
    expect(() => workbookRows(new Uint8Array([0x50, 0x4b, 3, 4, 0, 0]))).toThrow();
    expect(() => workbookRows(new Uint8Array(10_000_001))).toThrow(/10 MB/);
  });
});
