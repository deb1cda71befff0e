import { describe, expect, it, vi } from 'vitest';
import { markOf } from '../../../tests/unit/samples';
import { sameGroup } from '../../../tests/unit/sameGroup';
import { ActedAnswers } from './useActed';

const waits = sameGroup('iron', [markOf({ points: null })]);
const entry = (group = waits) => ({ group, pile: null, heads: true });
const given = (acted: ActedAnswers, worth = 2) =>
  acted.put([{ group: waits, drawn: waits }], () => ({ waiting: 0, points: worth }));

describe('answers as they were acted on', () => {
  it('show their points at once, and tell who draws them', () => {
    const acted = new ActedAnswers();
    const told = vi.fn();
    acted.subscribe(told);
    given(acted);
    expect([acted.pointsOf(waits), acted.of(waits).waiting, acted.wasGiven('iron')]).toEqual([2, 0, true]);
    expect(told).toHaveBeenCalledTimes(1);
  });

  it('hold until they are stored and drawn otherwise: what was drawn since speaks for itself', async () => {
    const acted = new ActedAnswers();
    await given(acted)(Promise.resolve());
    acted.drawn([entry()]);
    expect(acted.pointsOf(waits)).toBe(2);
    const marked = sameGroup('iron', [markOf({ points: 2 })]);
    expect(acted.pointsOf(marked)).toBeUndefined();
    acted.drawn([entry(marked)]);
    expect(acted.wasGiven('iron')).toBe(false);
  });

  it('have what they had where it could not be stored; what waits for room goes on to hold', async () => {
    const acted = new ActedAnswers();
    const full = Object.assign(new Error('no room'), { name: 'QuotaExceededError' });
    await expect(given(acted)(Promise.reject(full))).rejects.toBe(full);
    expect(acted.pointsOf(waits)).toBe(2);
    await expect(given(acted, 3)(Promise.reject(new Error('the disk is gone')))).rejects.toThrow('gone');
    expect([acted.pointsOf(waits), acted.wasGiven('iron')]).toEqual([undefined, false]);
  });
});
