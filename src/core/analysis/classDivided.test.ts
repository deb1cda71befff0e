import { describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import { madeUpClass } from '../../../tests/unit/madeUpClass';
import { studentOf } from '../../../tests/unit/samples';
import { answersTable, questionsTable } from '../formats/figureTables';
import { kindOf, type Question } from '../kinds';
import { repairOffers } from '../repair/offers';
import type { Seat } from '../seats/seats';
import { answerFigures } from './answerFigures';
import { classRows, shownRows } from './classRows';
import { commonTags, pairedResults } from './pairedResults';
import { partShare, subgroups } from './subgroups';

const { questions, seats } = madeUpClass(60, ['ambiguous'], 5);
const tagged = (all: readonly Question[], tag: string): Question[] =>
  all.map((question, index) => ({ ...question, tags: index % 2 === 0 ? [tag] : [] }) as Question);
const grouped: Seat[] = seats.map((seat, index) => ({
  ...seat,
  student: studentOf({
    id: seat.student.id,
    groupIds: [index < 20 ? 'a' : 'b'],
    fields: { Boat: index % 3 === 0 ? 'own' : 'none' },
  }),
}));
const groups = ['a', 'b'].map((id) => ({ id, name: `Group ${id}`, createdAt: '2026-01-01T00:00:00.000Z' }));

describe('a class divided', () => {
  it('by group, field and topic, each student once in a part; not by what all have in common', () => {
    const dividers = subgroups(groups, [...tagged(questions, 'tides')], [], grouped);
    const of = (id: string) =>
      dividers.find((each) => each.id === id)?.parts.map(({ name, shares }) => [name, shares.length]);
    expect(of('group')).toEqual([
      ['Group a', 20],
      ['Group b', 40],
    ]);
    expect(of('field Boat')).toEqual([
      ['none', 40],
      ['own', 20],
    ]);
    // One topic alone is nothing to compare, nor is one attempt each, nor the same questions for all.
    expect(dividers.map(({ id }) => id)).toEqual(['group', 'field Boat']);
    const two = questions.map(
      (question, index) => ({ ...question, tags: [index < 10 ? 'first' : 'second'] }) as Question,
    );
    const topics = subgroups(groups, two, [], grouped).find(({ id }) => id === 'topic');
    expect(topics).toMatchObject({ same: true, parts: [{ name: 'first' }, { name: 'second' }] });
    const [seat] = grouped;
    const ids = new Set(two.slice(0, 10).map(({ id }) => id));
    expect(topics?.parts[0]?.shares[0]).toBe(seat && partShare(seat, ids));
  });

  it('by the questions that were drawn, in whatever order each had them', () => {
    const drawn = grouped.map((seat, index): Seat => {
      const ids = seat.attempt?.questionIds ?? [];
      const own = index % 3 === 0 ? ids.slice(1) : index % 3 === 1 ? [...ids].reverse() : ids;
      return seat.attempt ? { ...seat, attempt: { ...seat.attempt, questionIds: own } } : seat;
    });
    const versions = subgroups(groups, questions, [], drawn).find(({ id }) => id === 'questions');
    expect(versions?.parts.map(({ name }) => name)).toEqual(['Version 1', 'Version 2']);
    expect(versions?.parts.map(({ shares }) => shares.length).sort()).toEqual([20, 40]);
  });
});

describe('the same students in two sittings', () => {
  it('are paired by who they are; a topic is over its own questions', () => {
    const before = { questions: tagged(questions, 'tides'), seats: grouped.slice(0, 40) };
    const after = { questions: tagged(questions, 'tides'), seats: grouped.slice(20) };
    expect(pairedResults(before, after)).toHaveLength(20);
    expect(pairedResults(before, after).every((pair) => pair.before === pair.after)).toBe(true);
    expect(commonTags(before, after)).toEqual(['tides']);
    expect(commonTags(before, { ...after, questions: tagged(questions, 'lights') })).toEqual([]);
    const [topic] = pairedResults(before, after, 'tides');
    const whole = pairedResults(before, after)[0];
    expect(topic?.student).toBe(whole?.student);
    expect(topic?.before).not.toBe(whole?.before);
  });
});

describe('what a class is shown', () => {
  it('has no words that one student alone wrote, and gives no accepted answer away', () => {
    const text = questions.find(({ kind }) => kind === 'shortText') as Question;
    const lonely = grouped.map((seat, index) =>
      index > 0 || !seat.attempt
        ? seat
        : {
            ...seat,
            attempt: {
              ...seat.attempt,
              answers: {
                ...seat.attempt.answers,
                [text.id]: { response: { text: 'only me' }, at: '2026-01-01T00:00:00.000Z' },
              },
            },
          },
    );
    const rows = classRows(text, answerFigures(text, lonely));
    expect(rows.some(({ label }) => label === 'only me')).toBe(false);
    expect(rows.filter(({ said }) => said).every(({ count }) => count > 1)).toBe(true);
    const choice = questions.find(({ kind }) => kind === 'oneChoice') as Question;
    expect(classRows(choice, answerFigures(choice, grouped)).map(({ said }) => said)).toEqual([
      false,
      false,
      false,
      false,
    ]);
  });
});

describe('what of it stands there', () => {
  it('is nothing that gives the key away before it is shown, and only what was picked', () => {
    const text = questions.find(({ kind }) => kind === 'shortText') as Question;
    const rows = classRows(text, answerFigures(text, grouped));
    const [said] = rows.filter((row) => row.said);
    expect(shownRows(rows, [], false)).toEqual([]);
    expect(shownRows(rows, [said?.id ?? ''], false)).toEqual([said]);
    expect(shownRows(rows, [], true).map(({ label }) => label)).toEqual(['ebb']);
    const choice = questions.find(({ kind }) => kind === 'oneChoice') as Question;
    expect(shownRows(classRows(choice, answerFigures(choice, grouped)), [], false)).toHaveLength(4);
  });
});

describe('what the answers suggest for a repair', () => {
  it('is the commonest that give less, as the key or accepted too; nothing of open answers', () => {
    const offersOf = (kind: Question['kind']) => {
      const question = questions.find((each) => each.kind === kind) as Question;
      return repairOffers(question, answerFigures(question, grouped), grouped, () => 'new');
    };
    const [choice] = offersOf('oneChoice');
    expect(choice?.keyed).toMatchObject({ key: choice?.category.id });
    const [all] = choice?.accepting ?? [];
    expect(all && kindOf(all.changed).score(all.changed, { picked: [choice?.category.id ?? ''] }).share).toBe(
      1,
    );
    const [text] = offersOf('shortText');
    expect(text?.keyed).toBeNull();
    expect(text?.accepting.map(({ share }) => share)).toEqual([1, 0.5]);
    const half = text?.accepting[1]?.changed;
    expect(half && kindOf(half).score(half, { text: text?.category.label ?? '' }).share).toBe(0.5);
    expect(offersOf('openText')).toEqual([]);
  });
});

describe('tables of figures', () => {
  it('have every question and every answer, with numbers as numbers', () => {
    const rows = questions.map((question, index) => ({
      ...{ number: String(index + 1), stem: 'Stem', max: question.points, given: 60, scored: 60, blank: 0 },
      ...{ facility: 1 / 3, meanPoints: 0.5, discrimination: null, upperLower: 0.25, alphaWithout: 0.8 },
      answers: answerFigures(question, grouped),
    }));
    const table = questionsTable(rows);
    expect(table).toHaveLength(questions.length + 1);
    expect(table[1]?.[6]).toBe(0.3333);
    expect(table[1]?.[8]).toBeNull();
    expect(new Set(table.map((row) => row.length)).size).toBe(1);
    const answers = answersTable(rows);
    const ofFirst = answers.filter(([number]) => number === '3');
    expect(sumBy(ofFirst, (row) => Number(row[3]))).toBe(60);
  });
});

describe('what was answered', () => {
  it('does not hang on the order of students or questions', () => {
    const turned = [...grouped].reverse();
    for (const question of questions) {
      const [here, there] = [answerFigures(question, grouped), answerFigures(question, turned)];
      const counts = (figures: typeof here) =>
        figures.categories.map(({ id, count, correlation: r }) => [id, count, r?.toFixed(9)]).sort();
      expect(counts(there)).toEqual(counts(here));
      expect(here.thirds).toEqual([20, 20, 20]);
      expect(here.categories.every(({ thirds, count }) => thirds[0] + thirds[1] + thirds[2] === count)).toBe(
        true,
      );
    }
  });
});
