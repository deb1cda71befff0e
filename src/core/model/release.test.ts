import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { attemptOf, at, markOf, paperQuestions } from '../../../tests/unit/samples';
import { limitedScript, scriptPacket } from '../handback/script';
import { everLetOut, letOutAt, nextTurn, stagesOf, type ReleaseStage, type Shows } from './release';

const start = Date.parse(at);
const iso = (ms: number) => new Date(start + ms).toISOString();
const anyShows: fc.Arbitrary<Shows> = fc.record({
  total: fc.boolean(),
  points: fc.boolean(),
  answers: fc.boolean(),
  rightOrWrong: fc.boolean(),
  accepted: fc.boolean(),
  comments: fc.boolean(),
});
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
const names = ['total', 'points', 'answers', 'rightOrWrong', 'accepted', 'comments'] as const;

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
    const plan = { sittingId: 's', at, stages: [{ from: iso(10), until: null, shows }] };
    const release = { sittingId: 's', studentId: 'a', releasedAt: at };
    expect(stagesOf(release, plan)).toEqual(plan.stages);
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
    };
    const all = {
      total: true,
      points: true,
      answers: true,
      rightOrWrong: true,
      accepted: true,
      comments: true,
    };
    const whole = scriptPacket(source, all);
    fc.assert(
      fc.property(anyShows, (shows) => {
        expect(limitedScript(whole, shows, at)).toEqual(scriptPacket(source, shows));
      }),
    );
  });
});
