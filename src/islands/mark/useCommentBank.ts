import { useLiveQuery } from 'dexie-react-hooks';
import { useCallback, useRef } from 'react';
import { offeredComments, type OfferedComment } from '@/core/marking/commentBank';
import type { HandMark } from '@/core/model/mark';
import { bankCommentsFor, commentsElsewhere } from '@/store/comments';

/** The comments that can be used again at a question. They are put together when they are asked for. */
export function useCommentBank(sittingId: string, questionId: string, marks: readonly HandMark[]) {
  const bank = useLiveQuery(() => bankCommentsFor(questionId), [questionId]);
  const elsewhere = useLiveQuery(() => commentsElsewhere(sittingId, questionId), [sittingId, questionId]);
  const known = useRef<{ of: unknown[]; offered: OfferedComment[] } | null>(null);
  return useCallback((): OfferedComment[] => {
    const of = [questionId, marks, bank, elsewhere];
    if (known.current?.of.every((each, at) => each === of[at])) return known.current.offered;
    const offered = offeredComments(questionId, [...marks, ...(elsewhere ?? [])], bank ?? []);
    known.current = { of, offered };
    return offered;
  }, [questionId, marks, bank, elsewhere]);
}
