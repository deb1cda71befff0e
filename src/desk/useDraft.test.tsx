// @vitest-environment jsdom
import { CommandFault } from '@/core/model/commandFault';
import 'fake-indexeddb/auto';
import { act, renderHook, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import Dexie from 'dexie';
import { merged } from '@/core/basics/merge';
import { unsavedWords } from './act';
import { useDraft, type DraftSource } from './useDraft';

interface Row {
  id: string;
  title: string;
}

describe('a row as it is being written', () => {
  it('typing on does not put keeping off: it is never more than half a second behind', async () => {
    const kept: string[] = [];
    const source: DraftSource<Row> = {
      read: async () => ({ id: 'p', title: '' }),
      change: async ({ title }) => (kept.push(title), { result: [] }),
    };
    const { result } = renderHook(() => useDraft(source));
    await waitFor(() => expect(result.current.draft).toEqual({ id: 'p', title: '' }));
    vi.useFakeTimers();
    try {
      // Thirty keys, one every 100 ms, without a rest: three seconds.
      for (let n = 1; n <= 30; n++) {
        act(() => result.current.keep({ id: 'p', title: 'x'.repeat(n) }, 'Title', 'title'));
        vi.advanceTimersByTime(100);
        // Five keys are half a second.
        expect(n - (kept.at(-1)?.length ?? 0)).toBeLessThanOrEqual(5);
      }
      expect(kept.length).toBeGreaterThanOrEqual(9);
    } finally {
      vi.useRealTimers();
    }
  });

  it('what could not be stored stays on the page, and is stored as soon as there is room', async () => {
    let room = false;
    let stored: Row = { id: 'p', title: 'Before' };
    const source: DraftSource<Row> = {
      read: async () => stored,
      change: async (row) => {
        if (!room) throw Object.assign(new Error('full'), { name: 'QuotaExceededError' });
        stored = row;
        return { result: [] };
      },
    };
    const { result } = renderHook(() => useDraft(source));
    await waitFor(() => expect(result.current.draft?.title).toBe('Before'));
    act(() => result.current.keep({ id: 'p', title: 'Refused' }, 'Title'));
    await waitFor(() => expect(result.current.draft?.title).toBe('Refused'));
    expect(stored.title).toBe('Before');
    room = true;
    await waitFor(() => expect(stored.title).toBe('Refused'), { timeout: 12_000 });
    expect(result.current.draft?.title).toBe('Refused');
  });

  it('what another tab changed stays, also when the page has read it but not drawn it yet', async () => {
    type Noted = Row & { note: string };
    const db = new Dexie('useDraft');
    db.version(1).stores({ rows: 'id' });
    const rows = db.table<Noted>('rows');
    await rows.put({ id: 'p', title: 'Two tabs', note: '' });
    let reads = 0;
    let drawn: Noted | null | undefined;
    const source: DraftSource<Noted> = {
      read: () => {
        const found = new Promise<Noted | undefined>((resolve) => void rows.get('p').then(resolve));
        // The first read is the query's, the second the draft's: after it, and before it is drawn.
        if (++reads === 2) void found.then(() => queueMicrotask(changeHere));
        return found;
      },
      change: async (row, _said, _field, _now, base) => {
        const { row: both, clashes } = merged(base ?? row, row, (await rows.get('p')) ?? row);
        await rows.put(both);
        return { result: clashes };
      },
    };
    const { result } = renderHook(() => {
      const { draft, keep } = useDraft(source);
      drawn = draft;
      return { draft, keep };
    });
    const changeHere = () => drawn && result.current.keep({ ...drawn, note: 'from here' }, 'Note');
    await waitFor(() => expect(drawn?.title).toBe('Two tabs'));
    reads = 0;
    await rows.update('p', { title: 'From the other tab' });
    await waitFor(() => expect(drawn).toEqual({ id: 'p', title: 'From the other tab', note: 'from here' }));
    expect(await rows.get('p')).toEqual(drawn);
  });

  it('what another tab changed stays, also when an editor still has the draft of before', async () => {
    let stored: Row & { note: string } = { id: 'p', title: 'Two tabs', note: '' };
    const source: DraftSource<Row & { note: string }> = {
      read: async () => stored,
      change: async (row, _said, _field, _now, base) => {
        stored = merged(base ?? row, row, stored).row;
        return { result: [] };
      },
    };
    const { result, rerender } = renderHook(({ from }) => useDraft(from), { initialProps: { from: source } });
    await waitFor(() => expect(result.current.draft?.title).toBe('Two tabs'));
    const before = result.current;
    stored = { ...stored, title: 'From the other tab' };
    // Read again, and drawn: but whoever was given the draft of before changes that one.
    rerender({ from: { ...source, read: async () => stored } });
    await waitFor(() => expect(result.current.draft?.title).toBe('From the other tab'));
    await act(async () => before.keep({ ...(before.draft ?? stored), note: 'from an editor' }, 'Note'));
    expect(stored).toEqual({ id: 'p', title: 'From the other tab', note: 'from an editor' });
  });

  it('no room is said in words, with what to do; the browser’s own name for it is not', () => {
    const inner = Object.assign(new Error('x'), { name: 'QuotaExceededError' });
    const words = unsavedWords(Object.assign(new Error('AbortError'), { inner }));
    expect(words).toMatch(/^Not saved: this browser is out of space/);
    expect(words).not.toMatch(/Quota/);
    expect(unsavedWords(new CommandFault('paperInUse'))).toBe(
      'Not saved: A paper that was given out can’t be deleted',
    );
    // What comes out of a worker has its message alone.
    expect(unsavedWords(new Error('fileChanged chart.png'))).toBe(
      'Not saved: The file chart.png has changed since it was saved',
    );
    const silent = vi.spyOn(console, 'error').mockReturnValue();
    expect(unsavedWords(new Error('ConstraintError: key already exists'))).toBe(
      'Not saved: Something unexpected went wrong. Try again',
    );
    expect(silent).toHaveBeenCalledOnce();
    silent.mockRestore();
  });
});
