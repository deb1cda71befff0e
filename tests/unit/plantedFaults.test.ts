import { describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import type { LooksWrongCode } from '@/core/analysis/looksWrong';
import { sittingLooksWrong } from '@/core/analysis/sittingLooksWrong';
import { madeUpClass, type Fault } from './madeUpClass';

const all: Fault[] = ['wrongKey', 'twoRight', 'ambiguous', 'noTime', 'biasedMarker'];
/** What names each fault. */
const named: Record<Fault, LooksWrongCode[]> = {
  wrongKey: ['wrongKey'],
  twoRight: ['twoRight', 'wrongKey'],
  ambiguous: ['acceptIt'],
  noTime: ['noTime'],
  biasedMarker: ['markerApart'],
};

/** How many planted faults are found, and how many sound questions are named, over classes of n. */
function measured(n: number, classes: number) {
  const found = Object.fromEntries(all.map((fault) => [fault, 0])) as Record<Fault, number>;
  let [sound, falsely] = [0, 0];
  const codes = new Map<string, number>();
  for (let seed = 1; seed <= classes; seed++) {
    // Every other class has no faults at all.
    for (const faults of [all, []]) {
      const { questions, seats, planted, late } = madeUpClass(n, faults, seed * 977 + faults.length);
      const suspects = sittingLooksWrong(questions, seats) ?? [];
      const of = new Map(suspects.map(({ question, findings }) => [question.id, findings]));
      for (const question of questions) {
        const findings = of.get(question.id) ?? [];
        const fault = planted.get(question.id);
        if (fault && findings.some(({ code }) => named[fault].includes(code))) found[fault]++;
        if (fault) continue;
        if (late.includes(question.id)) {
          if (findings.some(({ code }) => code === 'noTime')) found.noTime++;
          continue;
        }
        sound++;
        if (findings.length > 0) falsely++;
        for (const { code } of findings) codes.set(code, (codes.get(code) ?? 0) + 1);
      }
    }
  }
  return { found, sound, falsely, codes };
}

// Made-up classes of our own: common practice has no such set. The thresholds were set on other seeds than these.
describe('faults planted in made-up classes', () => {
  for (const [n, classes] of [
    [60, 60],
    [120, 30],
    [300, 12],
  ] as const)
    it(`with ${n} students, 95 % of them are found and at most 2 % of the sound questions are named`, () => {
      const { found, sound, falsely, codes } = measured(n, classes);
      const words = JSON.stringify({ found, sound, falsely, codes: [...codes] });
      const planted = sumBy(all, (fault) => found[fault]);
      expect(planted / (classes * all.length), words).toBeGreaterThanOrEqual(0.95);
      for (const fault of all) expect(found[fault] / classes, words).toBeGreaterThanOrEqual(0.88);
      expect(falsely / sound, words).toBeLessThanOrEqual(0.02);
    });

  it('below 30 students nothing is said', () => {
    const { questions, seats } = madeUpClass(29, all, 1);
    expect(sittingLooksWrong(questions, seats)).toBeNull();
  });
});
