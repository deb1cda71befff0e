import { describe, expect, it } from 'vitest';
import { worked, type Stretch } from './pause';

const minute = 60_000;
/** Acts at these minutes: at which of them a pause was said to be due. */
function dueAt(minutes: number[], after: number | null): number[] {
  let stretch: Stretch | null = null;
  return minutes.filter((at) => {
    const next = worked(stretch, at * minute, after === null ? null : after * minute);
    stretch = next.stretch;
    return next.due;
  });
}

describe('a reminder of a pause', () => {
  it('comes once for each stretch of marking', () => {
    const acts = Array.from({ length: 31 }, (_, n) => n * 2);
    expect(dueAt(acts, 45)).toEqual([46]);
  });

  it('begins anew after a pause, and never comes when it is off', () => {
    expect(dueAt([0, 4, 8, 20, 24, 28], 10)).toEqual([]);
    expect(dueAt([0, 4, 8, 12, 30, 34, 38, 40], 10)).toEqual([12, 40]);
    expect(dueAt([0, 4, 8, 12], null)).toEqual([]);
  });
});
