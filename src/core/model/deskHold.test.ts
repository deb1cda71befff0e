import { describe, expect, it } from 'vitest';
import { holdAfter, mayChange, waitingFor, type DeskHold, type HoldAct } from './deskHold';

const now = '2026-11-26T12:00:00.000Z';
const later = '2026-11-26T12:00:30.000Z';
const school = { id: 'a', name: 'School' };
const home = { id: 'b', name: 'Home' };
const deskId = 'abc234';
const copyAt = '2026-11-26T11:59:00.000Z';

const after = (hold: DeskHold | null, act: object, newest: string | null = copyAt, at = now) =>
  holdAfter(hold, { deskId, ...act } as HoldAct, newest, at);
const held = (of: unknown): DeskHold => {
  if (typeof of === 'string') throw new Error(of);
  return of as DeskHold;
};
const atSchool = held(after(null, { act: 'begin', computer: school }, null));

describe('who holds a desk', () => {
  it('the first that says so; another one does not get it by saying the same', () => {
    expect(atSchool).toMatchObject({ computer: school, turn: 1, since: now, sentAt: null });
    expect(after(atSchool, { act: 'begin', computer: home })).toBe('elsewhere');
    const named = held(
      after(atSchool, { act: 'begin', computer: { ...school, name: 'Room 12' } }, null, later),
    );
    expect(named).toMatchObject({ computer: { name: 'Room 12' }, turn: 1, since: now });
  });

  it('is asked, hears it, gives all there is; then another takes it', () => {
    const asked = held(after(atSchool, { act: 'ask', computer: home }));
    expect(asked).toMatchObject({ asked: { computer: home, heard: false }, computer: school, given: false });
    const heard = held(after(asked, { act: 'hear', computer: school }));
    expect(heard.asked?.heard).toBe(true);
    const given = held(after(heard, { act: 'give', computer: school }));
    expect(given.given).toBe(true);
    const taken = held(after(given, { act: 'take', computer: home, turn: 1, copyAt }, copyAt, later));
    expect(taken).toMatchObject({ computer: home, turn: 2, since: later, asked: null, given: false });
    expect(after(taken, { act: 'give', computer: school })).toBe('elsewhere');
    expect([mayChange(taken, 'a'), mayChange(taken, 'b'), mayChange(null, 'a')]).toEqual([false, true, true]);
  });

  it('of two that take it at once one gets it; nor is it taken where a newer copy came meanwhile', () => {
    const first = held(after(atSchool, { act: 'take', computer: home, turn: 1, copyAt }));
    expect(after(first, { act: 'take', computer: { id: 'c', name: 'Library' }, turn: 1, copyAt })).toBe(
      'changed',
    );
    expect(after(atSchool, { act: 'take', computer: home, turn: 1, copyAt }, later)).toBe('changed');
  });

  it('taken again by whoever has it, because putting it in place was cut short, the turn stays', () => {
    const first = held(after(atSchool, { act: 'take', computer: home, turn: 1, copyAt }));
    expect(after(first, { act: 'take', computer: home, turn: 2, copyAt })).toMatchObject({
      turn: 2,
      computer: home,
    });
  });

  it('who asked and did not come back is not waited for', () => {
    const asked = held(after(atSchool, { act: 'ask', computer: home }));
    expect(waitingFor(asked, Date.parse(later))).toEqual(home);
    expect(waitingFor(asked, Date.parse(now) + 60_000)).toBeNull();
    expect(waitingFor(atSchool, Date.parse(now))).toBeNull();
  });
});
