import { useLiveQuery } from 'dexie-react-hooks';
import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import { isoNow } from '../ui/clock';
import { onLeaving } from '../ui/leaving';
import type { Clash } from '@/core/basics/merge';
import type { RichText } from '@/core/basics/richText';
import { plainText } from '@/core/basics/richWords';
import { act, sayToRead } from './act';

/** What is typed is kept at most so much later, also while typing goes on; everything else at once. */
const restMs = 250;

/** What could not be kept is tried again after so long. */
const againMs = 5_000;

/** What is to be kept, and the row it was made of. */
interface Change<T> {
  row: T;
  said: string;
  field: string | undefined;
  base: T | undefined;
}

interface Pending<T> extends Change<T> {
  timer: ReturnType<typeof setTimeout>;
}

/** Keeps a changed row; `field` names what is being typed in. */
export type KeepDraft<T> = (row: T, said: string, field?: string) => void;

/** Where a row is read from and kept; the same object as long as it is the same row. */
export interface DraftSource<T> {
  read: () => Promise<T | undefined>;
  /** Puts it on top of what is stored now. @param base as it was stored when the draft was made of it */
  change: (
    row: T,
    said: string,
    field: string | undefined,
    now: string,
    base: T | undefined,
  ) => Promise<{ result: Clash[] }>;
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
  /** Whether something changed elsewhere that could not be shown yet, and how it is looked at again. */
  const missed = useRef(false);
  const look = useRef<() => void>(() => undefined);
  const { send, underWay, failed } = useSending(change, pending, () => missed.current && look.current());

  const flush = useCallback(() => {
    const last = pending.current;
    if (!last) return;
    clearTimeout(last.timer);
    pending.current = null;
    void send(last);
  }, [send]);

  useEffect(() => {
    if (stored === undefined) return;
    let here = true;
    const settled = () => pending.current === null && underWay.current === 0;
    // What the query saw may be older than what was sent since, so it is read again once nothing is under way.
    look.current = () => {
      missed.current = !settled();
      if (missed.current) return;
      void read().then((row) => {
        if (!here || failed.current) return;
        missed.current = !settled();
        if (!missed.current) setDraft(row ?? null);
      });
    };
    look.current();
    return () => {
      here = false;
    };
  }, [stored, read]);

  useFlushOnLeaving(flush);

  // Made anew with each draft: whoever changes a row goes by the one that it was given together with, also where that
  // is not the latest any more, as an editor's does that still waits for the next one.
  const keep = useCallback<KeepDraft<T>>(
    (row, said, field) => {
      setDraft(row);
      if (pending.current && pending.current.field !== field) flush();
      const unsent = [pending.current, failed.current].find((each) => each?.row === draft);
      const base = unsent ? unsent.base : (draft ?? undefined);
      if (field === undefined) return void send({ row, said, field, base });
      // The first key starts the clock: typing on does not put it off.
      const timer = pending.current?.timer ?? setTimeout(flush, restMs);
      pending.current = { row, said, field, base, timer };
    },
    [draft, flush, send],
  );
  return { draft, keep };
}

/**
 * Sends changes to be kept; what cannot be is tried again.
 *
 * @param sent called whenever one was kept, or could not be
 */
function useSending<T>(
  change: DraftSource<T>['change'],
  pending: RefObject<Pending<T> | null>,
  sent: () => void,
) {
  const underWay = useRef(0);
  /** What could not be kept: it is tried again. */
  const failed = useRef<Change<T> | null>(null);
  const again = useRef<() => void>(() => undefined);
  const arrived = useRef(sent);

  const send = useCallback(
    async ({ row, said, field, base }: Change<T>) => {
      underWay.current++;
      const done = await act(change(row, said, field, isoNow(), base));
      underWay.current--;
      arrived.current();
      if (done) {
        failed.current = null;
        if (done.result.length > 0) sayToRead(clashWords(done.result));
      } else {
        // It stays on the page, is not called kept, and goes with whatever is kept next, or by itself.
        failed.current = { row, said, field, base };
        setTimeout(() => again.current(), againMs);
      }
    },
    [change],
  );

  useEffect(() => {
    arrived.current = sent;
    again.current = () => {
      const last = failed.current;
      if (last && underWay.current === 0 && !pending.current) void send(last);
    };
  });
  return { send, underWay, failed };
}

/** What is typed is on its way before the field, the tab or the page is left. */
function useFlushOnLeaving(flush: () => void): void {
  useEffect(() => {
    const hidden = () => document.visibilityState === 'hidden' && flush();
    const stay = onLeaving(flush);
    window.addEventListener('focusout', flush);
    document.addEventListener('visibilitychange', hidden);
    return () => {
      flush();
      stay();
      window.removeEventListener('focusout', flush);
      document.removeEventListener('visibilitychange', hidden);
    };
  }, [flush]);
}

/** What another tab changed at the same place: what is here is kept, and the other words are told. */
function clashWords(clashes: readonly Clash[]): string {
  const words = clashes.map(({ path, theirs }) => {
    const field = path.findLast((part) => /^[a-z][A-Za-z]+$/.test(part)) ?? 'a field';
    return `${field}: “${textOf(theirs)}”`;
  });
  return `Also changed in another tab. Yours was saved; the other version was ${words.join('; ')}`;
}

function textOf(value: unknown): string {
  if (value === undefined || value === null || value === '') return 'empty';
  if (typeof value === 'object' && 'content' in value) return plainText(value as RichText); // a rich text has content
  return typeof value === 'string' || typeof value === 'number' ? String(value) : JSON.stringify(value);
}
