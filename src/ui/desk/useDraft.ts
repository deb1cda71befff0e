import { useLiveQuery } from 'dexie-react-hooks';
import { useCallback, useEffect, useRef, useState } from 'react';
import { isoNow } from '../clock';
import { act } from './act';

/** Typing is kept this long after the last key; everything else at once. */
const restMs = 250;

interface Pending<T> {
  row: T;
  said: string;
  field: string;
  timer: ReturnType<typeof setTimeout>;
}

/** Keeps a changed row; `field` names what is being typed in. */
export type KeepDraft<T> = (row: T, said: string, field?: string) => void;

/** Where a row is read from and kept; the same object as long as it is the same row. */
export interface DraftSource<T> {
  read: () => Promise<T | undefined>;
  change: (row: T, said: string, field: string | undefined, now: string) => Promise<unknown>;
}

/**
 * A row as it is being written. What is typed shows at once and is kept a moment later; what changes it from
 * elsewhere (an undo, another tab) shows as soon as nothing typed is on its way.
 *
 * @returns the row: undefined while it is read, null when there is none
 */
export function useDraft<T>({ read, change }: DraftSource<T>): {
  draft: T | null | undefined;
  keep: KeepDraft<T>;
} {
  const stored = useLiveQuery(async () => (await read()) ?? null, [read]);
  const [draft, setDraft] = useState<T | null>();
  const pending = useRef<Pending<T> | null>(null);
  const underWay = useRef(0);

  const send = useCallback(
    async (row: T, said: string, field?: string) => {
      underWay.current++;
      await act(change(row, said, field, isoNow()));
      underWay.current--;
    },
    [change],
  );

  const flush = useCallback(() => {
    const last = pending.current;
    if (!last) return;
    clearTimeout(last.timer);
    pending.current = null;
    void send(last.row, last.said, last.field);
  }, [send]);

  useEffect(() => {
    if (stored === undefined) return;
    let here = true;
    const settled = () => pending.current === null && underWay.current === 0;
    // What the query saw may be older than what was sent since, so it is read again once nothing is under way.
    if (settled())
      void read().then((row) => {
        if (here && settled()) setDraft(row ?? null);
      });
    return () => {
      here = false;
    };
  }, [stored, read]);

  useEffect(() => {
    window.addEventListener('pagehide', flush);
    window.addEventListener('focusout', flush);
    return () => {
      flush();
      window.removeEventListener('pagehide', flush);
      window.removeEventListener('focusout', flush);
    };
  }, [flush]);

  const keep = useCallback<KeepDraft<T>>(
    (row, said, field) => {
      setDraft(row);
      if (pending.current && pending.current.field !== field) flush();
      if (field === undefined) return void send(row, said);
      if (pending.current) clearTimeout(pending.current.timer);
      pending.current = { row, said, field, timer: setTimeout(flush, restMs) };
    },
    [flush, send],
  );
  return { draft, keep };
}
