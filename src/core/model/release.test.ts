import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { attemptOf, at, markOf, paperQuestions } from '../../../tests/unit/samples';
import { limitedScript, scriptPacket } from '../handback/script';
import {
  everLetOut,
  letOutAt,
  nextTurn,
  showing,
  shownThings,
  stagesOf,
  timedStage,
  type PlanStage,
  type ReleaseStage,
  type Shows,
} from './release';

const start = Date.parse(at);
const iso = (ms: number) => new Date(start + ms).toISOString();
const anyShows: fc.Arbitrary<Shows> = fc.subarray([...shownThings]).map((what) => showing(...what));
const anyStage: fc.Arbitrary<ReleaseStage> = fc
  .record({
    from: fc.option(fc.nat(100)),
    length: fc.option(fc.integer({ min: 1, max: 100 })),
    shows: anyShows,
  })
  .map(({ from, length, shows }) => ({
    from: from === null ? null : iso(from),
    until: length === null ? null : iso((from ?? 0) + length),
    shows,
  }));
const names = shownThings;

describe('what is let out at an instant', () => {
  it('is what the open stages show, and never more; between two turns nothing changes', () => {
    fc.assert(
      fc.property(fc.array(anyStage, { maxLength: 5 }), fc.nat(220), (stages, ms) => {
        const now = start + ms;
        const release = { stages, releasedAt: at };
        const open = stages.filter(
          ({ from, until }) => (from ?? at) <= iso(ms) && (until === null || iso(ms) < until),
        );
        const letOut = letOutAt(release, now);
        expect(letOut !== null).toBe(open.length > 0);
        for (const name of names)
          expect(letOut?.shows[name] ?? false).toBe(open.some(({ shows }) => shows[name]));
        // What is made once for all that is ahead holds whatever is let out from now on.
        const ever = everLetOut(stages, now);
        for (let later = ms; later <= 220; later += 7)
          for (const name of names)
            if (letOutAt(release, start + later)?.shows[name]) expect(ever?.[name]).toBe(true);
        const turn = nextTurn(stages, now);
        if (turn !== Infinity) expect(letOutAt(release, turn - 1)).toEqual(letOut);
        else expect(letOutAt(release, now + 1e9)).toEqual(letOut);
      }),
    );
  });

  it('held back is nothing; shown by itself is that, whatever the plan says', () => {
    const shows = {
      total: true,
      points: false,
      answers: false,
      rightOrWrong: false,
      accepted: false,
      comments: false,
    };
    const begins = { id: 'a', starts: 'at' as const, at: iso(10), until: null, lastsMs: null, shows };
    const plan = { sittingId: 's', at, stages: [begins] };
    const release = { sittingId: 's', studentId: 'a', releasedAt: at };
    expect(stagesOf(release, plan)).toEqual([{ from: iso(10), until: null, shows }]);
    expect(stagesOf(release, null)).toEqual([]);
    expect(stagesOf({ ...release, shows }, plan)).toEqual([{ from: null, until: null, shows }]);
    expect(stagesOf({ ...release, shows, heldBack: { at, reason: '' } }, plan)).toEqual([]);
  });

  it('a script cut to what is let out is the script made so', () => {
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
    const whole = scriptPacket(source, showing(...shownThings));
    fc.assert(
      fc.property(anyShows, (shows) => {
        expect(limitedScript(whole, shows, at)).toEqual(scriptPacket(source, shows));
      }),
    );
  });

  it('a stage is over by its end or its length, whichever comes first, and one that is over before it begins is none', () => {
    const stage: PlanStage = {
      ...{ id: 'a', starts: 'at', at: iso(100), until: iso(5_000), lastsMs: 1_000 },
      shows: showing('total'),
    };
    expect(timedStage(stage, at)).toMatchObject({ from: iso(100), until: iso(1_100) });
    expect(timedStage({ ...stage, lastsMs: 10_000 }, at)).toMatchObject({ until: iso(5_000) });
    expect(timedStage({ ...stage, until: iso(50) }, at)).toBeNull();
    expect(timedStage({ ...stage, starts: 'hand', at: null }, at)).toBeNull();
    // What begins with the handing back lasts from there.
    expect(timedStage({ ...stage, starts: 'handedBack', at: null }, at)).toMatchObject({
      from: null,
      until: iso(1_000),
    });
  });
});
