import { chanceFrom } from '@/core/basics/chance';
import { wholeTotals } from '@/core/handback/wholeTotals';
import { limitedScript, scriptPacket } from '@/core/handback/script';
import { letOutAt, showing, shownThings, stagesOf, type ReleasePlan } from '@/core/model/release';
import type { MarkBook } from '@/core/model/markBook';
import { studentTotal, type BookCell } from '@/core/markbook/total';
import type { Answer } from '@/core/model/sitting';
import { seatsOf, type SittingRecords } from '@/core/seats/seats';
import { attemptOf, at, samples, sittingOf, studentOf } from '../tests/unit/samples';
import { middle, row } from './measure';

/** 550 results made for an instant, and a mark book of 550 × 40 totalled. In Node, medians of five. */

const now = Date.parse(at) + 1_000;
const chance = chanceFrom(11);

function timed(work: () => unknown): number {
  const times: number[] = [];
  for (let turn = 0; turn < 7; turn++) {
    const begin = performance.now();
    work();
    times.push(performance.now() - begin);
  }
  return middle(times.slice(2));
}

const kinds = Object.values(samples);
const questions = Array.from({ length: 50 }, (_, index) => ({
  ...(kinds[index % kinds.length] ?? samples.oneChoice),
  id: `q${index}`,
}));
const students = Array.from({ length: 550 }, (_, person) => studentOf({ id: `s${person}` }));
const records: SittingRecords = {
  sitting: sittingOf(),
  questions,
  students,
  attempts: students.map(({ id }, person) =>
    attemptOf({
      ...{ id: `a${person}`, studentId: id, handedInAt: at },
      questionIds: questions.map((question) => question.id),
      answers: Object.fromEntries(
        questions.flatMap(({ id: questionId, kind }): [string, Answer][] =>
          kind === 'oneChoice' || kind === 'trueFalse'
            ? [[questionId, { response: { picked: [chance.pick(['a', 'b', 'c'])] }, at }]]
            : kind === 'shortText' || kind === 'openText'
              ? [[questionId, { response: { text: `words ${chance.whole(1, 90)}` }, at }]]
              : [],
        ),
      ),
    }),
  ),
  ...{ allowances: [], marks: [], releases: [], openings: [] },
};
const plan: ReleasePlan = {
  sittingId: 'sitting1',
  at,
  stages: [
    {
      id: 'a',
      starts: 'handedBack',
      at: null,
      until: null,
      lastsMs: null,
      shows: showing('total', 'points'),
    },
    { id: 'b', starts: 'at', at, until: null, lastsMs: null, shows: showing(...shownThings) },
  ],
};
const made = timed(() => {
  const seats = seatsOf(records, now);
  const classTotals = wholeTotals(seats);
  return seats.map(({ student, attempt, scorecard, marks }) => {
    const stages = stagesOf({ sittingId: 'sitting1', studentId: student.id, releasedAt: at }, plan);
    const letOut = letOutAt({ stages, releasedAt: at }, now);
    if (!attempt || !letOut) throw new Error('nothing is let out');
    const source = {
      sittingId: 'sitting1',
      title: 'Tides',
      questions,
      attempt,
      marks,
      scorecard,
      classTotals,
    };
    const packet = scriptPacket({ ...source, releasedAt: at, firstName: student.givenName }, letOut.shows);
    return limitedScript(packet, letOut.shows, letOut.at);
  });
});
row('550 results of 50 questions made for an instant, scored anew', `${made.toFixed(0)} ms`);

const columns = Array.from({ length: 40 }, (_, index) => ({
  ...{ id: `c${index}`, kind: 'sitting' as const, sittingId: `s${index}`, categoryId: `k${index % 4}` },
  ...{ weight: 1 + (index % 3), bonus: index % 13 === 0, dropped: false, excused: [] },
}));
const book: MarkBook = {
  ...{ id: 'book', title: 'Navigation', groupIds: [], columns, missing: 'nothing', decimals: 0 },
  categories: [0, 1, 2, 3].map((n) => ({ id: `k${n}`, name: `K${n}`, weight: 25, best: 7 })),
  scale: { by: 'percent', lines: [{ grade: 'pass', from: 0.5 }] },
  ...{ createdAt: at, changedAt: at },
};
const cellsOf = students.map(
  () =>
    new Map<string, BookCell>(
      columns.map(({ id }) => [
        id,
        chance.happens(0.1) ? { is: 'missing' } : { is: 'points', points: chance.whole(0, 20), max: 20 },
      ]),
    ),
);
const totals = timed(() =>
  students.map(({ id }, person) => studentTotal(book, cellsOf[person] ?? new Map(), id)),
);
row('a mark book of 550 × 40 totalled, the best 7 of each category', `${totals.toFixed(1)} ms`);
