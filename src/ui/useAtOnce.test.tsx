// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useAtOnce } from './useAtOnce';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** Something kept elsewhere, and a way of keeping it that takes as long as it likes. */
function shown() {
  const writes: (() => void)[] = [];
  const hook = renderHook(({ kept }) => useAtOnce(kept), { initialProps: { kept: 'old' } });
  return {
    is: () => hook.result.current[0],
    change: (next: string) =>
      act(() => hook.result.current[1](next, new Promise<void>((written) => writes.push(written)))),
    written: (at: number) => act(async () => writes[at]?.()),
    readBack: (kept: string) => act(() => hook.rerender({ kept })),
    later: (ms: number) => act(() => vi.advanceTimersByTime(ms)),
  };
}

describe('what is changed here', () => {
  it('shows until it is kept, however long that takes, and what is read back then is shown at once', async () => {
    const field = shown();
    field.change('new');
    field.later(60_000);
    expect(field.is()).toBe('new');
    await field.written(0);
    field.readBack('new');
    field.readBack('undone');
    expect(field.is()).toBe('undone');
  });

  it('is not gone from because an earlier change is read back', async () => {
    const field = shown();
    field.change('one');
    field.change('two');
    await field.written(0);
    field.readBack('one');
    field.later(60_000);
    expect(field.is()).toBe('two');
    await field.written(1);
    field.readBack('two');
    expect(field.is()).toBe('two');
  });

  it('goes where it was kept and nothing else is read back', async () => {
    const field = shown();
    field.change('new');
    await field.written(0);
    expect(field.is()).toBe('new');
    field.later(1_000);
    expect(field.is()).toBe('old');
  });
});
