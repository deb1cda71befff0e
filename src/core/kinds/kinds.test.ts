import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  blanks,
  counter,
  courseText,
  openQuestion,
  samples,
  springChoices,
  tideChoice,
} from '../../../tests/unit/samples';
import { chanceFrom } from '../basics/chance';
import { forgiveAll, forgiven } from './forgiving';
import { kindNames, kindOf, Response as ResponseSchema, type Question } from './index';
import { optionLetter } from './optionLetter';
import { partPointsShare } from './severalChoices/partPoints';

const otherWords = 'In other words';

describe('every kind', () => {
  it.each(kindNames)('%s: an empty question is one of its kind, and is not ready', (name) => {
    const kind = kindOf(samples[name]);
    const empty = kind.empty(counter('n'));
    expect(kind.schema.parse(empty)).toEqual(empty);
    expect(kind.findings(empty).length).toBeGreaterThan(0);
  });

  it.each(kindNames)('%s: a copy has new ids, the same key and the same words', (name) => {
    const question = samples[name];
    const kind = kindOf(question);
    const copy = kind.copy(question, counter('copy'));
    expect(copy.id).not.toBe(question.id);
    expect(kind.keyText(copy)).toBe(kind.keyText(question));
    const ids = JSON.stringify(copy).match(/"id":"([^"]+)"/g) ?? [];
    expect(ids.every((id) => id.includes('copy'))).toBe(true);
  });

  // The whole point of a packet: whatever is secret in a question is absent from what a student gets.
  it.each(kindNames)('%s: what a student gets holds no key, scheme, note or comment', (name) => {
    const question = samples[name];
    const text = JSON.stringify(kindOf(question).forStudent(question, 'attempt1'));
    expect(text).not.toContain('SECRET');
    expect(text).not.toMatch(
      /"(key|accepted|scheme|modelAnswer|note|rule|forgive|tags|comment\w*|weights|units|figures|wrongTakesOff)"/,
    );
    expect(text).toContain(question.stem);
  });

  it.each(kindNames)('%s: without its key it holds no secret, and is the same to every student', (name) => {
    const kind = kindOf(samples[name]);
    const bare = kind.withoutKey(samples[name]);
    expect(kind.schema.parse(bare)).toEqual(bare);
    expect(kind.hasKey(bare)).toBe(false);
    expect(kind.rightAnswer(bare)).toBeNull();
    const text = JSON.stringify(bare);
    expect(text).not.toContain('SECRET');
    expect(text).not.toMatch(/"(hints|link|commentPart|weights|bankId)"/);
    for (const seed of ['attempt1', 'attempt2'])
      expect(kind.forStudent(bare, seed)).toEqual(kind.forStudent(samples[name], seed));
  });

  it.each(kindNames)('%s: the same attempt sees the same question each time', (name) => {
    const kind = kindOf(samples[name]);
    expect(kind.forStudent(samples[name], 'attempt1')).toEqual(kind.forStudent(samples[name], 'attempt1'));
    expect(kind.studentSchema.parse(kind.forStudent(samples[name], 'x'))).toEqual(
      kind.forStudent(samples[name], 'x'),
    );
  });

  it.each(kindNames)('%s: a blank answer is the same as any other blank', (name) => {
    const kind = kindOf(samples[name]);
    const blank = kind.responseSchema.parse(blanks[name]);
    expect(kind.isBlank(blank)).toBe(true);
    expect(kind.sameAs(samples[name], blank)).toBe('');
  });

  it.each(kindNames)('%s: its right answer gets all the points and reads as the key does', (name) => {
    const kind = kindOf(samples[name]);
    const right = kind.rightAnswer(samples[name]);
    if (right === null) return expect(kind.scoredBy).toBe('hand');
    expect(kind.score(samples[name], kind.responseSchema.parse(right)).share).toBeCloseTo(1, 12);
    expect(kind.isBlank(right)).toBe(false);
    for (const category of kind.categoriesOf(samples[name], right)) expect(category.share).toBe(1);
    expect(kind.rightAnswer(kind.empty(counter('n'))) === null || kind.scoredBy === 'key').toBe(true);
  });

  it.each(kindNames)(
    '%s: keyed by an answer, that answer is right; by a blank one, nothing changes',
    (name) => {
      const kind = kindOf(samples[name]);
      const typed = Object.keys(blanks[name]).find((field) => field === 'text' || field === 'words');
      const response = kind.responseSchema.parse(
        kind.scoredBy === 'hand'
          ? { ...blanks[name], ...(typed && { [typed]: otherWords }) }
          : (kind.partlyRight(samples[name]) ?? kind.guess(samples[name], chanceFrom(1))),
      );
      const keyed = kind.keyedBy(samples[name], response, counter('new'));
      expect(kind.schema.parse(keyed)).toEqual(keyed);
      // A file is no key that could be shown.
      if (name === 'file') expect(keyed).toEqual(samples.file);
      else if (kind.scoredBy === 'hand') expect(kind.keyText(keyed)).toBe(otherWords);
      else if (name !== 'trueFalse' && name !== 'gaps' && name !== 'severalChoices')
        expect(kind.score(keyed, response).share).toBe(1);
      const blank = kind.responseSchema.parse(blanks[name]);
      expect(kind.keyText(kind.keyedBy(samples[name], blank, counter('new')))).toBe(
        kind.keyText(samples[name]),
      );
    },
  );

  it.each(kindNames)('%s: what is partly right gives more than nothing and less than all', (name) => {
    const kind = kindOf(samples[name]);
    const response = kind.partlyRight(samples[name]);
    if (response === null)
      // Most kinds that the key scores have something between right and wrong to show.
      return expect(['severalChoices', 'shortText', 'number', 'gaps', 'matching', 'ordering']).not.toContain(
        name,
      );
    const { share } = kind.score(samples[name], kind.responseSchema.parse(response));
    expect(share).toBeGreaterThan(0);
    expect(share).toBeLessThan(1);
    expect(kind.asText(samples[name], response)).not.toBe('');
  });

  it.each(kindNames)('%s: a response is read back as what it was', (name) => {
    const kind = kindOf(samples[name]);
    const response = kind.partlyRight(samples[name]) ?? blanks[name];
    expect(ResponseSchema.parse(response)).toEqual(response);
  });
});

describe('making an option right by its place', () => {
  const keyAfter = (question: Question, ...places: number[]) =>
    places.reduce<Question | null>(
      (each, place) => each && (kindOf(each).withOptionRight?.(each, place) ?? null),
      question,
    );

  it('one choice and true or false: it takes the place of what was right', () => {
    expect(keyAfter(tideChoice, 0, 2)).toMatchObject({ key: 'c' });
    expect(keyAfter(samples.trueFalse, 1)).toMatchObject({ key: false });
  });

  it('several choices: it comes and goes, in the order of the paper', () => {
    expect(keyAfter(springChoices, 3, 0)).toMatchObject({ key: ['o1', 'o2', 'o3'] });
    expect(keyAfter(springChoices, 1, 1)).toMatchObject({ key: ['o0', 'o1', 'o2'] });
  });

  it('there is nothing at a place without an option, nor in a kind without any', () => {
    expect(keyAfter(tideChoice, 3)).toBeNull();
    expect(keyAfter(samples.trueFalse, 2)).toBeNull();
    expect(kindOf(courseText).withOptionRight).toBeUndefined();
  });
});

describe('several choices: part points', () => {
  // Formulas: measures.md, "Part points", worked by hand for R = 3 right of o = 5, one right missed, one wrong picked.
  it.each([
    ['allOrNothing', 0],
    ['rightMinusWrong', 1 / 3],
    ['everyOption', 3 / 5],
  ] as const)('%s gives %d', (rule, share) => {
    expect(partPointsShare(rule, { right: 3, hit: 2, falsePicks: 1, options: 5, weight: 0 })).toBeCloseTo(
      share,
      12,
    );
  });

  it('two of three right and nothing wrong gives two thirds of the points', () => {
    expect(kindOf(springChoices).score(springChoices, { picked: ['o0', 'o1'] }).share).toBeCloseTo(2 / 3, 12);
  });

  it('more wrong than right never goes below 0', () => {
    expect(kindOf(springChoices).score(springChoices, { picked: ['o3'] }).share).toBe(0);
  });

  it('always lies between 0 and 1, and is 1 for exactly the key', () => {
    const picks = fc.subarray(['o0', 'o1', 'o2', 'o3']);
    const rules = fc.constantFrom('allOrNothing', 'rightMinusWrong', 'everyOption');
    fc.assert(
      fc.property(picks, rules, (picked, rule) => {
        const question = { ...springChoices, rule } as Question;
        const { share } = kindOf(question).score(question, { picked });
        expect(share).toBeGreaterThanOrEqual(0);
        expect(share).toBeLessThanOrEqual(1);
        const exact = picked.length === 3 && !picked.includes('o3');
        expect(share === 1).toBe(exact);
      }),
    );
  });
});

describe('one choice', () => {
  it('gives its comment to whoever picked the option that has one', () => {
    expect(kindOf(tideChoice).score(tideChoice, { picked: ['c'] })).toEqual({
      share: 0,
      comments: ['SECRET-OPTION-COMMENT'],
    });
  });

  it('two options picked at once are not right, though one of them is', () => {
    expect(kindOf(tideChoice).score(tideChoice, { picked: ['a', 'b'] }).share).toBe(0);
  });

  it('finds two equal options, an empty one, and a missing key', () => {
    const question = {
      ...tideChoice,
      options: ['ebb', 'Ebb ', ''].map((text, index) => ({ id: `x${index}`, text, comment: '' })),
      key: 'gone',
    } as Question;
    expect(
      kindOf(question)
        .findings(question)
        .map((finding) => finding.code),
    ).toEqual(['equalOptions', 'emptyOption', 'noKey']);
  });
});

describe('short text', () => {
  const short = { ...courseText } as Extract<Question, { kind: 'shortText' }>;
  const withAccepted = (...accepted: [string, number][]): Question => ({
    ...short,
    accepted: accepted.map(([text, share], index) => ({ id: `k${index}`, text, share, comment: '' })),
  });

  it('an answer for half the points gets half, the best of equal ones counts', () => {
    const question = withAccepted(['west', 0.5], ['West', 1], ['east', 0.25]);
    expect(kindOf(question).score(question, { text: ' WEST ' }).share).toBe(1);
    expect(kindOf(question).score(question, { text: 'East' }).share).toBe(0.25);
    expect(kindOf(question).score(question, { text: 'wset' }).share).toBe(0);
  });

  it('is strict where nothing is forgiven', () => {
    const question = {
      ...withAccepted(['Étale', 1]),
      forgive: { case: false, spaces: false, accents: false },
    } as Question;
    expect(kindOf(question).score(question, { text: 'étale' }).share).toBe(0);
    expect(kindOf(question).score(question, { text: 'Etale' }).share).toBe(0);
    expect(kindOf(question).score(question, { text: ' Étale ' }).share).toBe(1);
  });

  it('counts a wrong answer under its own words, and an accepted one under its own', () => {
    const question = withAccepted(['118', 1]);
    expect(kindOf(question).categoriesOf(question, { text: '122 °' })[0]).toMatchObject({
      label: '122 °',
      offered: false,
      share: 0,
    });
    expect(kindOf(question).categoriesOf(question, { text: '118' })[0]).toMatchObject({
      id: 'k0',
      offered: true,
      share: 1,
    });
  });
});

describe('forgiving', () => {
  // Unicode Standard Annex 15: NFKC folds the ligature ﬁ to fi and full-width digits to digits; canonical equivalence of é.
  it('folds compatibility forms and composed letters', () => {
    expect(forgiven('ﬁx １２', forgiveAll)).toBe('fix12');
    expect(forgiven('caf\u0065\u0301', forgiveAll)).toBe(forgiven('CAF\u00c9', forgiveAll));
  });

  // Unicode CaseFolding.txt: ß folds to ss, and final sigma to sigma.
  it('meets capital and small letters the way Unicode folds them', () => {
    expect(forgiven('Straße', forgiveAll)).toBe(forgiven('STRASSE', forgiveAll));
    expect(forgiven('ΟΔΟΣ', { ...forgiveAll, accents: false })).toBe(
      forgiven('οδοσ', { ...forgiveAll, accents: false }),
    );
  });

  it('leaves alone what is not forgiven', () => {
    expect(forgiven(' Alto stratus ', { case: false, spaces: false, accents: true })).toBe('Alto stratus');
    expect(forgiven('naïve', { case: true, spaces: true, accents: false })).toBe('naïve');
  });

  it('is the same when done twice, for every single letter there is', () => {
    const odd: string[] = [];
    for (let code = 0; code < 0x20000; code++) {
      const letter = String.fromCodePoint(code);
      const once = forgiven(letter, forgiveAll);
      if (forgiven(once, forgiveAll) !== once) odd.push(code.toString(16));
    }
    expect(odd).toEqual([]);
    expect(forgiven('STRAẞE', forgiveAll)).toBe(forgiven('strasse', forgiveAll));
  });

  it('is the same when done twice', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme' }),
        (text) => forgiven(forgiven(text, forgiveAll), forgiveAll) === forgiven(text, forgiveAll),
      ),
    );
  });
});

describe('open text', () => {
  it('warns when its scheme cannot reach its points', () => {
    const question = { ...openQuestion, points: 5 } as Question;
    expect(kindOf(question).findings(question)).toMatchObject([{ code: 'schemeBelowPoints', detail: '3' }]);
  });
});

it('options are lettered on past Z', () => {
  expect([0, 25, 26, 27, 51, 52].map(optionLetter)).toEqual(['A', 'Z', 'AA', 'AB', 'AZ', 'BA']);
});

describe('a choice that takes a second option', () => {
  const both = { ...tideChoice, also: [{ id: 'c', share: 0.5 }] } as Question;

  it('gives its share, says so in the key, and is accepted from an answer', () => {
    const kind = kindOf(both);
    const shares = ['a', 'b', 'c'].map((id) => kind.score(both, { picked: [id] }).share);
    expect(shares).toEqual([0, 1, 0.5]);
    expect(kind.keyText(both)).toMatch(/\(50%\)$/);
    expect(kind.offered(both).map(({ share }) => share)).toEqual([0, 1, 0.5]);
    expect(kind.unaccepted?.(both, { picked: ['a'] })).toMatchObject([{ id: 'a' }]);
    expect(kind.unaccepted?.(both, { picked: ['c'] })).toEqual([]);
    const accepting = kind.accepting?.(both, { id: 'a', text: '' }, 1, () => 'new') ?? both;
    expect(kind.score(accepting, { picked: ['a'] }).share).toBe(1);
  });

  it('becomes the key without being taken twice, keeps its ids in a copy, and gets out to nobody', () => {
    const kind = kindOf(both);
    const keyed = kind.keyedBy(both, { picked: ['c'] }, () => 'new');
    expect(keyed).toMatchObject({ key: 'c' });
    expect('also' in keyed).toBe(false);
    let made = 0;
    const copy = kind.copy(both, () => `n${made++}`);
    const also = 'also' in copy ? copy.also : undefined;
    const ids = 'options' in copy ? copy.options.map(({ id }) => id) : [];
    expect(ids).toContain(also?.[0]?.id);
    expect(JSON.stringify([kind.withoutKey(both), kind.forStudent(both, 's')])).not.toContain('also');
  });
});
