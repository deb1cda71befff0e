import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import {
  attemptOf,
  at,
  markOf,
  openQuestion,
  runDistance,
  springChoices,
  sternLight,
  tideChoice,
} from '../../../tests/unit/samples';
import { paperPacket } from '../formats/packet/paper';
import { withHeading } from '../formats/takeout/exportTable';
import { gradesTable } from '../formats/takeout/grades';
import { scriptPacket } from '../handback/script';
import { kindOf, type Question } from '../kinds';
import { itemsOf, workingId } from '../kinds/items';
import { numbersOf } from '../kinds/itemNumbers';
import { paperFindings, questionFindings } from '../scoring/paperFindings';
import { scoreAttempt } from '../scoring/scoreAttempt';
import { openableLink } from '../basics/link';
import type { PaperContent, PaperPart } from './paper';
import { drawnQuestions, givenCount, paperPoints, sectionsOf } from './parts';

const part = (id: string, change: Partial<PaperPart> = {}): PaperPart => ({
  id,
  title: `Part ${id}`,
  instructions: '',
  draw: null,
  shuffle: false,
  newPage: false,
  ...change,
});
const placed = (id: string, partId?: string, points = 1): Question =>
  ({ ...tideChoice, id, points, ...(partId && { partId }) }) as Question;

const paper = {
  title: 'Tides',
  instructions: '',
  questions: [placed('a'), ...[1, 2, 3, 4, 5].map((n) => placed(`p${n}`, 'P')), placed('z', 'Q', 3)],
  parts: [part('P', { draw: 2, shuffle: true }), part('Q')],
} satisfies PaperContent;

describe('parts', () => {
  it('what is in no part comes first, then each part in its order', () => {
    expect(sectionsOf(paper).map((section) => [section.part?.id, section.questions.length])).toEqual([
      [undefined, 1],
      ['P', 5],
      ['Q', 1],
    ]);
    expect(sectionsOf({ questions: [], parts: [] })).toEqual([{ part: null, questions: [] }]);
  });

  it('two of five are drawn for each student: always as many, never twice, the same for the same attempt', () => {
    fc.assert(
      fc.property(fc.string(), (seed) => {
        const ids = drawnQuestions(paper, seed).map((question) => question.id);
        expect(ids).toHaveLength(4);
        expect(ids[0]).toBe('a');
        expect(ids[3]).toBe('z');
        expect(new Set(ids).size).toBe(4);
        expect(drawnQuestions(paper, seed).map((question) => question.id)).toEqual(ids);
      }),
    );
  });

  it('different students get different ones, each question about as often', () => {
    const counts = new Map<string, number>();
    for (let attempt = 0; attempt < 2000; attempt++)
      for (const { id } of drawnQuestions(paper, `attempt ${attempt}`))
        counts.set(id, (counts.get(id) ?? 0) + 1);
    // Each of five is drawn with probability 2/5: 800 times, with a standard deviation of √(2000 · 0.4 · 0.6) = 22.
    for (const n of [1, 2, 3, 4, 5]) expect(Math.abs((counts.get(`p${n}`) ?? 0) - 800)).toBeLessThan(4 * 22);
  });

  it('a drawn part that is not shuffled keeps the order of the paper', () => {
    const still = { ...paper, parts: [part('P', { draw: 3 })] };
    for (let attempt = 0; attempt < 50; attempt++) {
      const ids = drawnQuestions(still, `${attempt}`).map((question) => question.id);
      expect(ids.filter((id) => id.startsWith('p'))).toEqual(ids.filter((id) => id.startsWith('p')).sort());
    }
  });

  it('the number of questions and points are those that a student gets', () => {
    expect(givenCount(paper)).toBe(4);
    expect(paperPoints(paper)).toEqual({ least: 6, most: 6 });
    const uneven = { ...paper, questions: [...paper.questions, placed('p6', 'P', 4)] };
    expect(paperPoints(uneven)).toEqual({ least: 6, most: 9 });
  });

  it('a draw larger than its pool stops the paper; uneven points and a wrong total are worth a look', () => {
    const codes = (change: Partial<PaperContent>) =>
      paperFindings({ ...paper, ...change }).map(({ code, level }) => `${level} ${code}`);
    expect(codes({})).toEqual([]);
    expect(codes({ parts: [part('P', { draw: 6 }), part('Q')] })).toEqual(['stops drawTooMany']);
    expect(codes({ questions: [...paper.questions, placed('p6', 'P', 4)] })).toEqual(['look unevenDraw']);
    expect(codes({ parts: [...paper.parts, part('R')] })).toEqual(['look emptyPart']);
    expect(codes({ wantedPoints: 10 })).toEqual(['look wrongTotal']);
    expect(codes({ wantedPoints: 6 })).toEqual([]);
  });

  it('students read the parts but not how they are drawn', () => {
    const questionIds = drawnQuestions(paper, 'attempt1').map((question) => question.id);
    const packet = paperPacket(paper, attemptOf({ questionIds }));
    expect(packet.parts).toEqual([
      { id: 'P', title: 'Part P', instructions: '' },
      { id: 'Q', title: 'Part Q', instructions: '' },
    ]);
    expect(packet.questions.map((question) => question.id)).toEqual(questionIds);
    expect(packet.questions.map((question) => question.partId)).toEqual([undefined, 'P', 'P', 'Q']);
  });
});

describe('working beside the answer', () => {
  const asked = {
    ...runDistance,
    points: 5,
    working: {
      keyShare: 0.4,
      modelAnswer: 'SECRET-WAY',
      scheme: [
        { id: 's1', text: 'SECRET-TIME', points: 1 },
        { id: 's2', text: 'SECRET-UNITS', points: 2 },
      ],
    },
  } as Question;
  const items = itemsOf([sternLight, asked, openQuestion]);
  const answers = {
    q6: { response: { text: '18 nm' }, at },
    [workingId('q6')]: { response: { text: '1.5 h × 12 kn' }, at },
  };
  const attempt = attemptOf({ questionIds: items.map((item) => item.id), answers });

  it('is an item of its own, with the rest of the points and its own number', () => {
    expect(items.map((item) => [item.id, item.points, item.kind])).toEqual([
      ['q5', 1, 'trueFalse'],
      ['q6', 2, 'number'],
      ['q6.working', 3, 'openText'],
      ['q4', 3, 'openText'],
    ]);
    expect([...numbersOf(items).values()]).toEqual(['1', '2', '2 w', '3']);
  });

  it('no points are lost or made, whatever the share', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 4000 }),
        fc.integer({ min: 0, max: 100 }),
        (quarters, percent) => {
          const question = {
            ...asked,
            points: quarters / 4,
            working: { keyShare: percent / 100, modelAnswer: '', scheme: [] },
          } as Question;
          const total = sumBy(itemsOf([question]), (item) => item.points);
          expect(total).toBeCloseTo(quarters / 4, 9);
        },
      ),
    );
  });

  it('the key gives its share at once; the working waits and is marked by its scheme', () => {
    const card = scoreAttempt(items, attempt, []);
    expect(card.awards.map((award) => [award.state, award.points])).toEqual([
      ['notAnswered', 0],
      ['byKey', 2],
      ['waiting', null],
      ['waiting', null],
    ]);
    const marked = scoreAttempt(items, attempt, [
      markOf({ questionId: 'q6.working', points: 2, lines: ['s2'] }),
    ]);
    expect(marked.total).toBe(4);
    expect(marked.max).toBe(9);
  });

  it('a student is asked for it under the question and gets none of its scheme', () => {
    const packet = paperPacket({ title: 'T', instructions: '', questions: [asked] }, attempt);
    expect(packet.questions.map((question) => question.id)).toEqual(['q6', 'q6.working']);
    expect(JSON.stringify(packet)).not.toContain('SECRET');
  });

  it('its result comes back as "2 w", and the grades have a column for it', () => {
    const shows = {
      total: true,
      points: true,
      answers: true,
      rightOrWrong: true,
      accepted: false,
      comments: false,
    };
    const script = scriptPacket(
      {
        sittingId: 's',
        title: 'T',
        questions: items,
        attempt,
        marks: [],
        firstName: 'Amara',
        releasedAt: at,
      },
      shows,
    );
    expect(script.questions.map((row) => row.number)).toEqual(['1', '2', '2 w', '3']);
    expect(withHeading(gradesTable({ questions: items, seats: [], groups: [], now: 0 })).join()).toContain(
      '"Q2 (2)","Q2 w (3)"'.replaceAll('"', ''),
    );
  });

  it('a kind marked by hand has no working beside it', () => {
    const both = { ...openQuestion, working: asked.working } as Question;
    expect(itemsOf([both])).toHaveLength(1);
  });

  it('is checked like any question marked by hand', () => {
    const bare = { ...asked, working: { keyShare: 0.5, modelAnswer: '', scheme: [] } } as Question;
    expect(questionFindings(bare)).toMatchObject([{ code: 'noScheme', questionId: 'q6', field: 'working' }]);
  });
});

describe('what else is looked at in a question', () => {
  const codes = (question: Question) => questionFindings(question).map((finding) => finding.code);
  const options = (...texts: string[]) =>
    texts.map((text, index) => ({ id: `o${index}`, text, comment: '' }));

  it('a right option much longer than every other', () => {
    const giveaway = {
      ...tideChoice,
      options: options('Ebb', 'Flood', 'The stream that sets away from the coast after high water'),
      key: 'o2',
    } as Question;
    expect(codes(giveaway)).toEqual(['longestRight']);
    expect(codes({ ...giveaway, key: 'o0' } as Question)).toEqual([]);
  });

  it('“all of the above” where options are shuffled, unless it is pinned', () => {
    const [a, b, c] = options('Port', 'Starboard', 'All of the above');
    const shuffledOptions = { ...tideChoice, options: [a, b, c], key: 'o0', shuffle: true } as Question;
    expect(codes(shuffledOptions)).toEqual(['aboveShuffled']);
    expect(codes({ ...shuffledOptions, options: [a, b, { ...c, pinned: true }] } as Question)).toEqual([]);
    expect(codes({ ...shuffledOptions, shuffle: false } as Question)).toEqual([]);
  });

  it('a link that cannot be opened', () => {
    const linked = (href: string) => ({ ...sternLight, link: { href, text: '' } }) as Question;
    expect(codes(linked('https://example.org/tides'))).toEqual([]);
    expect(codes(linked(''))).toEqual([]);
    for (const href of ['example.org', 'javascript:alert(1)', 'ftp://example.org', 'data:text/html,x'])
      expect(codes(linked(href))).toEqual(['badLink']);
  });

  it('only http and https are ever opened', () => {
    expect(openableLink(' HTTPS://Example.org/a b ')).toBe('https://example.org/a%20b');
    // WHATWG URL Standard, "special schemes": javascript and data are none; a tab inside the scheme is dropped.
    expect(openableLink('java\tscript:alert(1)')).toBeNull();
    expect(openableLink('//example.org')).toBeNull();
  });

  it('a comment for part of the points, else the one for not wholly right', () => {
    const question = { ...springChoices, commentPart: 'Nearly', commentWrong: 'Look again' } as Question;
    const comments = (picked: string[]) => {
      const attempt = attemptOf({ questionIds: ['q2'], answers: { q2: { response: { picked }, at } } });
      return scriptPacket(
        {
          sittingId: 's',
          title: 'T',
          questions: [question],
          attempt,
          marks: [],
          firstName: 'Amara',
          releasedAt: at,
        },
        { total: false, points: false, answers: false, rightOrWrong: false, accepted: false, comments: true },
      ).questions[0]?.comments;
    };
    expect(comments(['o0'])).toEqual(['Nearly']);
    expect(comments(['o3'])).toEqual(['SECRET-OPTION-COMMENT', 'Look again']);
    expect(kindOf(question).hasKey(question)).toBe(true);
  });

  it('the link comes back with the comments, and only then', () => {
    const question = { ...sternLight, link: { href: 'https://example.org/lights', text: '' } } as Question;
    const source = {
      sittingId: 's',
      title: 'T',
      questions: [question],
      attempt: attemptOf({ questionIds: ['q5'] }),
      marks: [],
      firstName: 'Amara',
      releasedAt: at,
    };
    const none = {
      total: false,
      points: true,
      answers: false,
      rightOrWrong: false,
      accepted: false,
      comments: false,
    };
    expect(scriptPacket(source, none).questions[0]?.link).toBeUndefined();
    expect(scriptPacket(source, { ...none, comments: true }).questions[0]?.link).toEqual({
      href: 'https://example.org/lights',
      text: 'https://example.org/lights',
    });
    const bad = { ...question, link: { href: 'javascript:alert(1)', text: 'x' } } as Question;
    expect(
      scriptPacket({ ...source, questions: [bad] }, { ...none, comments: true }).questions[0]?.link,
    ).toBeUndefined();
  });
});
