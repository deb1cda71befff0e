import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { quizTexts } from '../../../../tests/reference/quizTexts/texts';
import { plainText } from '../../basics/richWords';
import { kindOf, type Question } from '../../kinds';
import { sectionsOf } from '../../model/parts';
import { quizPaper, withQuiz } from './quizPaper';
import { linesFrom } from './signs';

let made = 0;
const newId = () => `id${++made}`;
const read = (text: string) => quizPaper(linesFrom(text), newId);

/** A question as the reference says it. */
function said(question: Question): string {
  const stem = plainText(question.stem);
  const points = question.points === 1 ? '' : ` (${question.points})`;
  switch (question.kind) {
    case 'oneChoice':
    case 'severalChoices': {
      const right = new Set([question.key].flat());
      const options = question.options.map(({ id, text }) => `${right.has(id) ? '*' : ''}${plainText(text)}`);
      return `${question.kind === 'oneChoice' ? 'one' : 'several'}: ${[stem, ...options].join(' | ')}${points}`;
    }
    case 'trueFalse':
      return `tf: ${stem} = ${question.key}${points}`;
    case 'shortText':
      return `short: ${stem} = ${question.accepted.map(({ text }) => text).join(' / ')}${points}`;
    case 'number':
      return `number: ${stem} = ${kindOf(question).keyText(question)}${points}`;
    case 'gaps': {
      const key = question.gaps
        .map(({ accepted }) => accepted.map(({ text }) => text).join(' / '))
        .join('; ');
      return `gaps: ${[stem, question.text].filter(Boolean).join(' ')} = ${key}${points}`;
    }
    case 'openText':
      return `open: ${stem} = ${question.modelAnswer}${points}`.replace(/ = $/, ' =').replace('=  (', '= (');
    default:
      return question.kind;
  }
}

describe('a quiz as people write it', () => {
  it('is understood in at least 95 % of its questions over forty habits, and no line is lost', () => {
    const wrong: string[] = [];
    let all = 0;
    for (const { habit, text, questions, title } of quizTexts) {
      const { paper, roles } = read(text);
      const got = paper.questions.map(said);
      all += questions.length;
      questions.forEach((question, at) => {
        if (got[at] !== question) wrong.push(`${habit}\n  wanted ${question}\n  got    ${got[at]}`);
      });
      if (got.length > questions.length)
        wrong.push(`${habit}\n  too many: ${got.slice(questions.length).join('; ')}`);
      if (title !== undefined) expect(paper.title, habit).toBe(title);
      expect(roles.length).toBe(linesFrom(text).length);
      expect(roles, habit).not.toContain('unclear');
    }
    expect(quizTexts.length).toBeGreaterThanOrEqual(40);
    expect(wrong.length, wrong.join('\n')).toBeLessThanOrEqual(all * 0.05);
  });

  it('names what it does not understand, and leaves it out', () => {
    const { roles, paper } = read(
      '1. Which?\na) this *\nb) that\n\nSee the chart on the wall.\n\n2. And?\na) one\nb) two *',
    );
    expect(roles[4]).toBe('unclear');
    expect(paper.questions.map(said)).toEqual(['one: Which? | *this | that', 'one: And? | one | *two']);
  });

  it('says where an answer is none of the options', () => {
    const { read: found, paper } = read(
      '1. Which?\na) this\nb) that\nAnswer: E\n2. And?\na) one\nb) two\nAnswer: A',
    );
    expect(found).toEqual([
      { line: 0, badKey: true },
      { line: 4, badKey: false },
    ]);
    expect(paper.questions.map((question) => kindOf(question).hasKey(question))).toEqual([false, true]);
  });

  it('leaves out and names a question that holds more than a question can', () => {
    const options = Array.from({ length: 60 }, (_, at) => `[ ] option ${at}`).join('\n');
    const { roles, paper } = read(`1. Which?\n${options}\n2. And?\na) one *\nb) two`);
    expect(paper.questions.map(said)).toEqual(['one: And? | *one | two']);
    expect(roles[0]).toBe('unclear');
  });

  it('keeps comments, hints and parts', () => {
    const { paper } = read(
      'Part A: Lights\n1. Which?\na) this *\nb) that\nHint: look\nExplanation: it is so',
    );
    expect(paper.parts).toMatchObject([{ title: 'Part A: Lights' }]);
    expect(paper.questions[0]).toMatchObject({
      ...{ partId: paper.parts?.[0]?.id, commentRight: 'it is so', hints: [{ text: 'look' }] },
    });
  });

  it('comes at the end of a paper, whatever parts both have, and keeps the words that are there', () => {
    const whole = read('Sounds\nListen.\n1. Loose\nAnswer: a\nPart B: Signals\n2. In it\nAnswer: b').paper;
    const paper = withQuiz(read('Lights\nLook.\nPart A: Marks\n1. First\nAnswer: c').paper, whole);
    expect(paper).toMatchObject({ title: 'Lights', instructions: 'Look.' });
    expect(
      sectionsOf(paper).map(({ part, questions }) => [part?.title, questions.map(({ stem }) => stem)]),
    ).toEqual([
      ['Part A: Marks', ['First', 'Loose']],
      ['Part B: Signals', ['In it']],
    ]);
    const empty = withQuiz({ title: '', instructions: '', questions: [] }, whole);
    expect([empty.title, empty.instructions, empty.questions.length]).toEqual(['Sounds', 'Listen.', 2]);
  });

  it('takes any lines in any order: each is in the paper, or in a key, or named', () => {
    const pool = quizTexts.flatMap(({ text }) => text.split('\n'));
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...pool), { maxLength: 30 }), (lines) => {
        const { roles, paper } = read(lines.join('\n'));
        expect(roles.length).toBe(Math.max(1, lines.length));
        const all = JSON.stringify(paper).toLowerCase();
        for (const [at, role] of roles.entries()) {
          if (!['title', 'instructions', 'part', 'stem', 'option', 'remark'].includes(role)) continue;
          // Signs, points and words for true and false are understood; other words are there.
          const line = (lines[at] ?? '').replace(
            /true|false|t\/f|correct|points?|pts|marks?|question|explanation|hint|comment/gi,
            '',
          );
          for (const word of line.toLowerCase().match(/\p{L}{4,}/gu) ?? [])
            if (!all.includes(word)) throw new Error(`${word} of “${lines[at]}”, taken for ${role}, is lost`);
        }
      }),
      { numRuns: 300 },
    );
  });
});
