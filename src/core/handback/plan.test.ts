import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planSentence, showWords } from '@/words/releases';
import { attemptOf, at, markOf, paperQuestions } from '../../../tests/unit/samples';
import {
  isShown,
  letOutAt,
  showing,
  shownThings,
  stagesOf,
  timedStage,
  type PlanStage,
  type ReleasePlan,
  type Shown,
} from '../model/release';
import { planColumns } from './planColumns';
import {
  mendedPlan,
  planFindings,
  planTemplates,
  templateStages,
  type PlanCircumstances,
} from './planFindings';
import { periodAt, planPeriods } from './planPeriods';
import { scriptPacket, type ScriptPacket } from './script';

const start = Date.parse(at);
const iso = (ms: number) => new Date(start + ms).toISOString();
const hour = 3_600_000;

const anyStage: fc.Arbitrary<PlanStage> = fc
  .record({
    id: fc.nat(1e6).map(String),
    starts: fc.constantFrom('handedBack', 'at', 'marked', 'sat', 'hand'),
    at: fc.option(fc.nat(100)),
    until: fc.option(fc.nat(150)),
    lastsMs: fc.option(fc.integer({ min: 1, max: 80 })),
    shows: fc.subarray([...shownThings]).map((what) => showing(...what)),
  })
  .map(({ at: begins, until, ...stage }) => ({
    ...stage,
    at: stage.starts === 'handedBack' || begins === null ? null : iso(begins),
    until: until === null ? null : iso(until),
  }));
const anyPlan = fc.uniqueArray(anyStage, { maxLength: 5, selector: ({ id }) => id });

const source = {
  sittingId: 'sitting1',
  title: 'Tides',
  questions: paperQuestions,
  attempt: attemptOf({
    handedInAt: at,
    answers: { q1: { response: { picked: ['b'] }, at }, q3: { response: { text: 'east' }, at } },
  }),
  marks: [markOf({ points: 2, comment: 'Say which way it sets.' })],
  releasedAt: at,
  firstName: 'Amara',
  scale: { by: 'percent' as const, lines: [{ grade: 'pass', from: 0.5 }] },
  classTotals: [4, 5, 6, 7, 8, 9],
};

/** What a packet holds, of what can be seen in it whatever was answered. */
function heldIn(packet: ScriptPacket | null): Shown[] {
  if (!packet) return [];
  const some = (of: (row: ScriptPacket['questions'][0]) => boolean) => packet.questions.some(of);
  const has: Partial<Record<Shown, boolean>> = {
    total: packet.total !== undefined,
    percent: packet.share !== undefined,
    topics: packet.topics !== undefined,
    figures: packet.figures !== undefined,
    points: some(({ points }) => points !== undefined),
    answers: some(({ response }) => response !== undefined),
    rightOrWrong: some(({ verdict }) => verdict !== undefined),
    accepted: some(({ accepted }) => accepted !== undefined),
    comments: some(({ comments }) => comments !== undefined),
  };
  return shownThings.filter((what) => has[what]);
}
const seen: readonly Shown[] = [
  ...([
    'total',
    'percent',
    'points',
    'answers',
    'rightOrWrong',
    'accepted',
    'comments',
    'topics',
    'figures',
  ] as const),
];

describe('a plan of handing back', () => {
  it('what the packet holds at an instant is what the sentence says of it, and never more than open stages show', () => {
    fc.assert(
      fc.property(anyPlan, fc.nat(220), (stages, ms) => {
        const plan: ReleasePlan = { sittingId: 'sitting1', stages, at };
        const timed = stagesOf({ sittingId: 'sitting1', studentId: 'a', releasedAt: at }, plan);
        const now = start + ms;
        const letOut = letOutAt({ stages: timed, releasedAt: at }, now);
        const held = heldIn(letOut && scriptPacket(source, letOut.shows));
        const period = periodAt(planPeriods(timed, at), now);
        const said = planSentence(period ? [period] : [], [], 'now', iso(ms), {
          when: (instant) => instant,
          howLong: String,
        });
        for (const what of seen) {
          expect(held.includes(what)).toBe(said.includes(showWords[what]));
          const open = timed.some(
            ({ from, until, shows }) =>
              isShown(shows, what) && (from ?? at) <= iso(ms) && (until === null || iso(ms) < until),
          );
          expect(held.includes(what)).toBe(open);
        }
      }),
    );
  });

  it('its periods follow one another without a gap, and each differs from the one before', () => {
    fc.assert(
      fc.property(anyPlan, (stages) => {
        const timed = stages.flatMap((stage) => timedStage(stage, at) ?? []);
        const periods = planPeriods(timed, at);
        expect(periods[0]?.from).toBeNull();
        expect(periods.at(-1)?.until).toBeNull();
        for (const [index, period] of periods.entries())
          if (index > 0) {
            expect(period.from).toBe(periods[index - 1]?.until);
            const before = letOutAt({ stages: timed, releasedAt: at }, Date.parse(period.from ?? at) - 1);
            expect(JSON.stringify(before?.shows ?? null)).not.toBe(JSON.stringify(period.shows));
          }
      }),
    );
  });

  const stage = (part: Partial<PlanStage>): PlanStage => ({
    ...{ id: 'a', starts: 'at', at: iso(hour), until: null, lastsMs: null, shows: showing('total') },
    ...part,
  });
  const about: PlanCircumstances = { releasedAt: at, lastMaySit: null, mayStillSit: 0 };
  const codes = (stages: PlanStage[], more = about) => planFindings(stages, more).map(({ code }) => code);

  it('says of an end and a length which never takes effect, and mends it', () => {
    const both = [stage({ until: iso(3 * hour), lastsMs: hour })];
    const [finding] = planFindings(both, about);
    expect(finding).toMatchObject({ code: 'deadLimit', limit: 'until' });
    expect(finding && mendedPlan(both, finding)[0]).toMatchObject({ until: null, lastsMs: hour });
    expect(planFindings([stage({ until: iso(3 * hour), lastsMs: 9 * hour })], about)[0]).toMatchObject({
      limit: 'lastsMs',
    });
  });

  it('says of stages that undo each other, that never open, and that add nothing', () => {
    expect(codes([stage({ until: iso(0) })])).toEqual(['neverOpens']);
    expect(
      codes([stage({ shows: showing('total', 'points') }), stage({ id: 'b', at: iso(2 * hour) })]),
    ).toEqual(['addsNothing']);
    const ends = stage({ until: iso(2 * hour), shows: showing('total', 'accepted') });
    expect(codes([ends, stage({ id: 'b', at: iso(2 * hour) })])).toEqual(['takesAway']);
    expect(codes([ends, stage({ id: 'b', at: iso(5 * hour) })])).toEqual(['gap']);
    // A window that is over is no fault.
    expect(codes([ends])).toEqual([]);
  });

  it('says of what would tell those who still have to sit it, and mends it by waiting for them', () => {
    const tells = [stage({ shows: showing('total', 'accepted') })];
    const still = { releasedAt: at, lastMaySit: start + 9 * hour, mayStillSit: 3 };
    const [finding] = planFindings(tells, still);
    expect(finding).toMatchObject({ code: 'spoils', mayStillSit: 3 });
    expect(finding && mendedPlan(tells, finding)[0]).toMatchObject({ starts: 'sat', at: iso(9 * hour) });
    expect(codes([stage({ at: iso(9 * hour), shows: showing('accepted') })], still)).toEqual([]);
    expect(codes([stage({ shows: showing('total') })], still)).toEqual([]);
  });

  it('mended until nothing is found, a plan has nothing to find', () => {
    fc.assert(
      fc.property(anyPlan, (plan) => {
        let stages: PlanStage[] = plan;
        for (let turn = 0; turn < 60; turn++) {
          const [finding] = planFindings(stages, { ...about, lastMaySit: start + 50, mayStillSit: 2 });
          if (!finding) return;
          stages = mendedPlan(stages, finding);
        }
        expect(stages).toBe('mended');
      }),
    );
  });

  it('templates have nothing wrong with them', () => {
    let next = 0;
    for (const template of planTemplates)
      expect(codes(templateStages(template, iso(hour), () => String(next++)))).toEqual([]);
  });

  it('as columns: every bar lies between its turns, what is not known yet comes last', () => {
    fc.assert(
      fc.property(anyPlan, fc.boolean(), fc.nat(220), (stages, after, ms) => {
        const { turns, bars, nowAt } = planColumns(stages, { releasedAt: at, now: start + ms, after });
        expect(bars).toHaveLength(stages.length);
        for (const { from, to, known, stage: each } of bars) {
          expect(from).toBeGreaterThanOrEqual(after ? 1 : 0);
          expect(to).toBeGreaterThan(from);
          expect(to).toBeLessThanOrEqual(turns.length);
          expect(known).toBe(timedStage(each, at) !== null);
        }
        expect(nowAt).toBeLessThan(turns.length);
        const firstUnknown = turns.findIndex(({ known }) => !known);
        if (firstUnknown >= 0) expect(turns.slice(firstUnknown).some(({ known }) => known)).toBe(false);
      }),
    );
  });
});
