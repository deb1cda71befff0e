import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { sumBy } from 'remeda';
import type { RepairRule } from '@/core/kinds/repaired';
import { pointsTold } from '@/core/scoring/counts';
import { describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../tests/unit/samples';
import { reads } from '../../tests/unit/studentSide';
import { questionFigures, totalFigures } from '@/core/analysis/sittingFigures';
import { withHeading } from '@/core/formats/takeout/exportTable';
import { gradesTable } from '@/core/formats/takeout/grades';
import { csvFrom } from '@/core/formats/csv/table';
import { readinessOf } from '@/core/handback/readiness';
import { whatWaits } from '@/core/marking/whatWaits';
import type { Attempt, CountRule } from '@/core/model/sitting';
import { settledMarker, type HandMark } from '@/core/model/mark';
import { inFigures, isIn, seatsOf } from '@/core/seats/seats';
import { SeatBook, seatTables } from '@/core/seats/seatBook';
import { keptProgress } from '@/core/analysis/keptProgress';
import { progressOf } from '@/core/seats/progress';
import { tableOf } from '@/core/seats/tableOf';
import { previewRescore } from '@/core/repair/rescore';
import { sittingRecords } from './queries';
import { desk } from './tables';

/** Whatever is asked about a sitting, from wherever: one answer. */

const limitMs = 600_000;
const every = {
  total: true,
  points: true,
  answers: true,
  rightOrWrong: true,
  accepted: true,
  comments: true,
};
const codes = ['AAAAA2', 'AAAAA3', 'AAAAA4', 'AAAAA5', 'AAAAA6'];

const anyAttempt = fc.record({
  who: fc.nat(4),
  picked: fc.constantFrom('a', 'b', 'c', null),
  text: fc.constantFrom('ebb', 'Neaps', '', 'something'),
  state: fc.constantFrom('in' as const, 'in' as const, 'running' as const, 'aside' as const),
  points: fc.option(fc.integer({ min: 0, max: 3 })),
  /** What another marker gave, too. */
  others: fc.option(fc.integer({ min: 0, max: 3 })),
  /** What was settled where they differed, before or after the teacher marked, too. */
  settled: fc.option(fc.record({ points: fc.integer({ min: 0, max: 3 }), later: fc.boolean() })),
  /** Words of the teacher's, without points. */
  words: fc.boolean(),
  late: fc.constantFrom(null, true, false),
});
/** A question that was repaired by a rule. */
const anyRepair = fc.record({
  which: fc.nat(3),
  rule: fc.constantFrom<RepairRule>(
    { kind: 'everyone' },
    { kind: 'answered' },
    { kind: 'dropped', maximum: 'smaller' },
    { kind: 'dropped', maximum: 'same' },
  ),
  nobodyLoses: fc.boolean(),
});
const anyAllowance = fc.record({ who: fc.nat(4), minutes: fc.integer({ min: 1, max: 20 }) });
type AnyAttempt = typeof anyAttempt extends fc.Arbitrary<infer T> ? T : never;

function rowsOf(list: readonly AnyAttempt[]): { attempts: Attempt[]; marks: HandMark[] } {
  const attempts: Attempt[] = [];
  const marks: HandMark[] = [];
  list.forEach(({ who, picked, text, state, points, others, settled, words, late }, index) => {
    const number = attempts.filter(({ studentId }) => studentId === `s${who}`).length + 1;
    const last = !list.slice(index + 1).some((each) => each.who === who);
    attempts.push(
      attemptOf({
        id: `a${index}`,
        studentId: `s${who}`,
        number,
        // Only the last can still run.
        handedInAt: state === 'running' && last ? null : at,
        ...(state === 'aside' && { setAsideAt: at }),
        answers: {
          ...(picked && { q1: { response: { picked: [picked] }, at } }),
          q3: { response: { text }, at },
          q4: { response: { text }, at },
        },
        ...(late !== null && {
          late: [
            {
              questionId: 'q1',
              response: { picked: ['b'] },
              at,
              typedAt: at,
              decision: { counts: late, by: 'teacher' as const, reason: '', at },
            },
          ],
        }),
      }),
    );
    const place = { attemptId: `a${index}`, questionId: 'q4' };
    if (others !== null) marks.push(markOf({ ...place, points: others, markerId: 'colleague' }));
    if (points !== null) marks.push(markOf({ ...place, points }));
    else if (words) marks.push(markOf({ ...place, comment: 'Which chart?' }));
    if (settled !== null)
      marks.push(
        markOf({
          ...{ ...place, points: settled.points, markerId: settledMarker },
          at: new Date(Date.parse(at) + (settled.later ? 1 : -1) * 60_000).toISOString(),
        }),
      );
  });
  return { attempts, marks };
}

describe('desk, student’s page, preview and files give one answer', () => {
  it('for any attempts, set aside, running, several under each rule, allowances, late answers, two markers, what was settled, repairs', async () => {
    const elapsed = fc.constantFrom(limitMs / 2, limitMs * 1.5);
    const allowed = fc.array(anyAllowance, { maxLength: 3 });
    const attemptsOf = fc.array(anyAttempt, { maxLength: 8 });
    const rules = fc.constantFrom<CountRule>('last', 'best', 'first', 'mean');
    const repaired = fc.array(anyRepair, { maxLength: 2 });
    await fc.assert(
      fc.asyncProperty(
        attemptsOf,
        rules,
        allowed,
        elapsed,
        repaired,
        async (list, counts, more, after, repairs) => {
          const now = Date.parse(at) + after;
          await desk.delete();
          await desk.open();
          const { attempts, marks } = rowsOf(list);
          const sitting = sittingOf({ counts, attempts: 9, closesAt: null, timeLimitMs: limitMs });
          await desk.groups.bulkAdd(sitting.groupIds.map((id) => ({ id, name: id, createdAt: at })));
          await desk.sittings.add(sitting);
          await desk.papers.add({
            id: sitting.paperId,
            title: 'Tides',
            instructions: '',
            questions: paperQuestions,
            createdAt: at,
            changedAt: at,
          });
          const version = { title: 'Tides', instructions: '', questions: paperQuestions, frozenAt: at };
          await desk.paperVersions.add({ ...version, paperId: sitting.paperId, version: 1 });
          await desk.repairs.bulkAdd(
            repairs.flatMap(({ which, rule, nobodyLoses }, index) => {
              const before = paperQuestions[which];
              if (!before) return [];
              const ids = {
                id: `r${index}`,
                sittingId: sitting.id,
                questionId: before.id,
                itemId: before.id,
              };
              return [
                {
                  ...ids,
                  ...{ reason: 'Not taught', rule, nobodyLoses, before },
                  at: new Date(Date.parse(at) + index).toISOString(),
                },
              ];
            }),
          );
          await desk.students.bulkAdd(
            codes.map((joinCode, index) =>
              studentOf({
                id: `s${index}`,
                joinCode,
                groupIds: index < 3 ? sitting.groupIds : [],
                // A guest is marked and has a result; figures are of the students it was set for.
                ...(index === 4 && { role: 'guest' as const, onlySittingId: sitting.id }),
                // One of them is the teacher trying it out: counted nowhere.
                ...(index === 3 && { role: 'tryOut' as const, onlySittingId: sitting.id }),
              }),
            ),
          );
          await desk.attempts.bulkAdd(attempts);
          await desk.marks.bulkAdd(marks);
          await desk.allowances.bulkAdd(
            more.map(({ who, minutes }, index) => ({
              id: `m${index}`,
              kind: 'minutes' as const,
              minutes,
              sittingId: sitting.id,
              studentId: `s${who}`,
              reason: '',
              at,
            })),
          );
          await desk.releases.bulkAdd(
            [0, 1, 2, 4].map((index) => ({
              sittingId: sitting.id,
              studentId: `s${index}`,
              shows: every,
              releasedAt: at,
            })),
          );
          const records = await sittingRecords(sitting.id);
          if (!records) throw new Error('no sitting');
          const seats = seatsOf(records, now);
          expect(seats).toHaveLength(attempts.some(({ studentId }) => studentId === 's4') ? 4 : 3);

          const book = new SeatBook(records);
          for (const table of seatTables) for (const row of records[table]) book.set(table, row as never);
          expect(book.at(now).seats).toEqual(seats);

          for (const [index, seat] of seats.entries()) {
            const script = await reads(codes[Number(seat.student.id.slice(1))] ?? '', sitting.id, now);
            const card = seat.scorecard;
            expect(script?.total ?? null, `student ${index}`).toEqual(
              card && { points: card.total, max: card.max },
            );
            for (const row of script?.questions ?? []) {
              const award = card?.awards.find(({ questionId }) => questionId === row.question.id);
              expect(row.points ?? null).toBe(award ? pointsTold(award) : null);
            }
          }

          const inside = seats.filter(isIn);
          const stands = progressOf(records, now);
          expect(stands.in).toBe(inside.length);
          expect(stands.ready).toBe(inside.filter((seat) => readinessOf(seat).ready).length);
          expect(stands.waiting).toBe(sumBy(inside, ({ scorecard }) => scorecard?.waiting ?? 0));
          const waits = whatWaits(records, now);
          expect(sumBy(waits, ({ waiting }) => waiting)).toBe(stands.waiting);
          const figures = totalFigures(inFigures(seats));
          const preview = previewRescore(seats, seats);
          expect(preview).toMatchObject({
            students: inside.length,
            answersChanged: 0,
            studentsUp: 0,
            studentsDown: 0,
          });
          const questions = questionFigures(records.questions, inFigures(seats));
          for (const { questionId, facility } of keptProgress(records, now).questions)
            expect(questions.find(({ question }) => question.id === questionId)?.facility).toBe(facility);
          if (figures) {
            expect(preview.before.points).toBeCloseTo(figures.mean, 9);
            expect(stands.meanShare).toBeCloseTo(figures.meanShare, 12);
          }
          if (counts === 'last' || counts === 'first') {
            const table = tableOf(records.questions, seats);
            for (const { question, waiting, putForward } of waits)
              expect(table.countsOf(question.id)).toMatchObject({ waiting, forward: putForward });
            expect(sumBy(waits, ({ putForward }) => putForward)).toBe(stands.forward);
          }

          const lines = csvFrom(
            withHeading(gradesTable({ questions: records.questions, seats, groups: records.groups, now })),
            { mark: false },
          ).split('\r\n');
          for (const [index, seat] of seats.entries()) {
            const cells = lines[index + 1]?.split(',') ?? [];
            if (seat.scorecard) expect(Number(cells[5])).toBe(seat.scorecard.total);
          }
        },
      ),
      { numRuns: 150 },
    );
  });
});
