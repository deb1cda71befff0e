import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { SharedPresence } from './sharedPresence';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** Two servers that hear each other. */
function shared() {
  const hearers = new Set<(message: string) => void>();
  const told: string[] = [];
  const store = {
    tell: (message: string) => {
      told.push(message);
      for (const hear of hearers) hear(message);
    },
    hear: (heard: (message: string) => void) => {
      hearers.add(heard);
      return () => hearers.delete(heard);
    },
  };
  return { one: new SharedPresence(store), other: new SharedPresence(store), store, told };
}

it('signs of life are told to the other server, together and in messages that are short enough', () => {
  const { one, other, told } = shared();
  for (let n = 0; n < 250; n++) one.saw(`attempt-${n}`.padEnd(21, 'x'), 1_764_000_000_000 + n);
  expect(other.since(0)).toEqual([]);
  vi.advanceTimersByTime(1_000);
  expect(other.since(0)).toHaveLength(250);
  expect(other.at('attempt-7'.padEnd(21, 'x'))).toBe(1_764_000_000_007);
  expect(told).toHaveLength(3);
  for (const message of told) expect(Buffer.byteLength(message)).toBeLessThan(7_500);
  // What was heard from the other is not told again.
  vi.advanceTimersByTime(10_000);
  expect(told).toHaveLength(3);
});

it('what another version tells is missed, and ends nothing', () => {
  const { other, store } = shared();
  for (const message of ['', '{', '{"seen":1}', '{"later":[]}']) store.tell(message);
  store.tell('{"seen":[["a",5]]}');
  expect(other.since(0)).toEqual([['a', 5]]);
});
