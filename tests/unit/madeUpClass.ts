import { chanceFrom, type Chance } from '@/core/basics/chance';
import { oneChoice } from '@/core/kinds/oneChoice';
import { openText } from '@/core/kinds/openText';
import { shortText } from '@/core/kinds/shortText';
import type { Question, Response } from '@/core/kinds';
import type { HandMark } from '@/core/model/mark';
import { seatsOf, type Seat } from '@/core/seats/seats';
import { at, attemptOf, markOf, sittingOf, studentOf } from './samples';

export type Fault = 'wrongKey' | 'twoRight' | 'ambiguous' | 'noTime' | 'biasedMarker';

/** What each question of a made-up class is like. */
interface Item {
  question: Question;
  /** How hard, in standard deviations of ability. */
  hard: number;
  fault?: Fault;
}

const options = ['a', 'b', 'c', 'd'].map((id) => ({ id, text: `Option ${id}`, comment: '' }));
const choice = (id: string, key: string): Question => ({
  ...oneChoice.empty(() => id),
  ...{ kind: 'oneChoice', id, points: 1, options, key },
});
const text = (id: string): Question => ({
  ...shortText.empty(() => id),
  ...{ kind: 'shortText', id, points: 1 },
  accepted: [{ id: 'x', text: 'ebb', share: 1, comment: '' }],
});
const open = (id: string): Question => ({ ...openText.empty(() => id), kind: 'openText', id, points: 4 });

const wrongWords = ['flood', 'slack', 'neap', 'spring', 'current', 'set', 'drift', 'swell'];
const markers = ['me', 'second', 'third'];

/** Someone of an ability has it right with this probability: a two-parameter curve with a chance to guess. */
const knows = (ability: number, hard: number) => 1 / (1 + Math.exp(-1.6 * (ability - hard)));

/** A class that sat twenty questions, some with faults, from a seed. */
export function madeUpClass(n: number, faults: readonly Fault[], seed: number) {
  const chance = chanceFrom(seed);
  const items: Item[] = [
    ...Array.from({ length: 14 }, (_, index) => ({ question: choice(`c${index}`, 'a') })),
    ...Array.from({ length: 4 }, (_, index) => ({ question: text(`t${index}`) })),
    ...Array.from({ length: 2 }, (_, index) => ({ question: open(`o${index}`) })),
  ].map((item) => ({ ...item, hard: chance.share() * 2.2 - 1.2 }));
  const plant = (fault: Fault, at: number) => {
    const item = items[at];
    if (item) Object.assign(item, { fault, hard: chance.share() * 1.2 - 1 });
  };
  if (faults.includes('wrongKey')) plant('wrongKey', chance.whole(0, 5));
  if (faults.includes('twoRight')) plant('twoRight', chance.whole(6, 10));
  if (faults.includes('ambiguous')) plant('ambiguous', chance.whole(14, 17));
  if (faults.includes('biasedMarker')) plant('biasedMarker', 19);
  for (const item of items) if (item.fault === 'wrongKey') item.question = choice(item.question.id, 'b');
  const order = items.map(({ question }) => question);
  // The last ones of all are choices without a fault of their own.
  order.unshift(...order.splice(14, 6));
  const late = faults.includes('noTime') ? order.slice(-3).map(({ id }) => id) : [];
  const marks: HandMark[] = [];
  const attempts = Array.from({ length: n }, (_, row) => {
    const ability = chance.normal();
    const outOfTime = late.length > 0 && chance.happens(0.45);
    const answers: Record<string, { response: Response; at: string }> = {};
    for (const item of items) {
      const { id } = item.question;
      if (outOfTime && late.includes(id)) continue;
      if (item.question.kind === 'openText') marks.push(markedBy(chance, row, item, ability));
      answers[id] = { response: answered(chance, item, ability), at };
    }
    return attemptOf({
      ...{ id: `a${row}`, studentId: `s${row}`, handedInAt: at, answers },
      questionIds: order.map(({ id }) => id),
    });
  });
  const seats: Seat[] = seatsOf(
    {
      sitting: sittingOf({ closesAt: null, timeLimitMs: null }),
      questions: order,
      students: attempts.map(({ studentId }) => studentOf({ id: studentId })),
      ...{ allowances: [], attempts, marks, releases: [], openings: [] },
    },
    Date.parse(at) + 1000,
  );
  const planted = new Map(items.flatMap(({ question, fault }) => (fault ? [[question.id, fault]] : [])));
  return { questions: order, seats, planted, late };
}

function answered(chance: Chance, { question, hard, fault }: Item, ability: number): Response {
  const right = chance.happens(knows(ability, hard));
  switch (question.kind) {
    case 'oneChoice': {
      if (right) return { picked: [fault === 'twoRight' && chance.happens(0.5) ? 'c' : 'a'] };
      return { picked: [chance.pick(['a', 'b', 'c', 'd'], [2, 3, 3, 2])] };
    }
    case 'shortText':
      if (right) return { text: fault === 'ambiguous' && chance.happens(0.4) ? 'outgoing stream' : 'ebb' };
      return { text: chance.pick(wrongWords) };
    default:
      return { text: 'words of one’s own' };
  }
}

/** The points of an open answer in halves, by one of three markers. */
function markedBy(chance: Chance, row: number, { question, hard, fault }: Item, ability: number): HandMark {
  const markerId = markers[row % 3] ?? 'me';
  const bias = fault === 'biasedMarker' && markerId === 'second' ? -1.3 : 0;
  const meant = 2.2 + 0.9 * (ability - hard) + 0.6 * chance.normal() + bias;
  const points = Math.min(4, Math.max(0, Math.round(meant * 2) / 2));
  return markOf({ attemptId: `a${row}`, questionId: question.id, markerId, points });
}
