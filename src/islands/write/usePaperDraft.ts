import { useLiveQuery } from 'dexie-react-hooks';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Paper } from '@/core/model/paper';
import { changePaper } from '@/store/papers';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { act } from '@/ui/desk/act';

/** Typing is kept this long after the last key; everything else at once. */
const restMs = 250;

interface Pending {
  paper: Paper;
  said: string;
  field: string;
  timer: ReturnType<typeof setTimeout>;
}

/** Keeps a changed paper; `field` names what is being typed in. */
export type KeepPaper = (paper: Paper, said: string, field?: string) => void;

/**
 * The paper as it is being written. What is typed shows at once and is kept a moment later; what changes it from
 * elsewhere (an undo, another tab) shows as soon as nothing typed is on its way.
 */
export function usePaperDraft(paperId: string): { paper: Paper | null | undefined; keep: KeepPaper } {
  const stored = useLiveQuery(async () => (await desk.papers.get(paperId)) ?? null, [paperId]);
  const [draft, setDraft] = useState<Paper | null>();
  const pending = useRef<Pending | null>(null);
  const underWay = useRef(0);

  const send = useCallback(async (paper: Paper, said: string, field?: string) => {
    underWay.current++;
    await act(changePaper(paper, said, field, isoNow()));
    underWay.current--;
  }, []);

  const flush = useCallback(() => {
    const last = pending.current;
    if (!last) return;
    clearTimeout(last.timer);
    pending.current = null;
    void send(last.paper, last.said, last.field);
  }, [send]);

  useEffect(() => {
    if (stored === undefined) return;
    let here = true;
    const settled = () => pending.current === null && underWay.current === 0;
    // What the query saw may be older than what was sent since, so it is read again once nothing is under way.
    if (settled())
      void desk.papers.get(paperId).then((paper) => {
        if (here && settled()) setDraft(paper ?? null);
      });
    return () => {
      here = false;
    };
  }, [stored, paperId]);

  useEffect(() => {
    window.addEventListener('pagehide', flush);
    window.addEventListener('focusout', flush);
    return () => {
      flush();
      window.removeEventListener('pagehide', flush);
      window.removeEventListener('focusout', flush);
    };
  }, [flush]);

  const keep = useCallback<KeepPaper>(
    (paper, said, field) => {
      setDraft(paper);
      if (pending.current && pending.current.field !== field) flush();
      if (field === undefined) return void send(paper, said);
      if (pending.current) clearTimeout(pending.current.timer);
      pending.current = { paper, said, field, timer: setTimeout(flush, restMs) };
    },
    [flush, send],
  );
  return { paper: draft, keep };
}
