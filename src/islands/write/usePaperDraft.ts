import { useMemo } from 'react';
import type { Paper } from '@/core/model/paper';
import { changePaper } from '@/store/papers';
import { desk } from '@/store/tables';
import { useDraft, type DraftSource, type KeepDraft } from '@/desk/useDraft';

/** Keeps a changed paper; `field` names what is being typed in. */
export type KeepPaper = KeepDraft<Paper>;

/** The paper as it is being written. */
export function usePaperDraft(paperId: string): { paper: Paper | null | undefined; keep: KeepPaper } {
  const source = useMemo(
    (): DraftSource<Paper> => ({ read: async () => desk.papers.get(paperId), change: changePaper }),
    [paperId],
  );
  const { draft, keep } = useDraft(source);
  return { paper: draft, keep };
}
