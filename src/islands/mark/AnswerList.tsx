import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useRef, type RefObject } from 'react';
import type { Question } from '@/core/kinds';
import type { OfferedComment } from '@/core/marking/commentBank';
import type { AnswerEntry } from '@/core/marking/piles/arrange';
import type { LikeMark } from '@/core/marking/piles/like';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import type { Seat } from '@/core/seats/seats';
import { Moving, useMoving } from '@/ui/Moving';
import { useHeld } from '@/ui/useHeld';
import { useSoonHere } from '@/ui/useSoonHere';
import { useSteady } from '@/ui/useSteady';
import { textFields } from '@/ui/textFields';
import { AnswerRow, commentOfAll, givenWords, workOn } from './AnswerRow';
import { CommentField } from './CommentField';
import { CurrentAnswer, laterInAnswer, type WholePage, type WorkActs } from './CurrentAnswer';
import { toAnswers } from './toAnswers';
import type { ActedAnswers } from './useActed';
import styles from './mark.module.css';

interface AnswerListProps {
  question: Question;
  entries: AnswerEntry[];
  current: SameAnswers | undefined;
  /** How many answers are marked together with the current ones, themselves among them. */
  together: number;
  /** Where the current row is to stand: in sight, or at the top with what comes after it. */
  align: RefObject<'auto' | 'start'>;
  /** The seats to take names from; null while names are hidden. */
  names: Seat[] | null;
  enterDoes: string;
  goTo: (id: string) => void;
  /** True when the key was taken; `pressedAt`: ms, by the clock of events. */
  onKey: (key: string, shift: boolean, pressedAt: number) => boolean;
  /** Told which answers are in sight, each whole, in their order, whenever that was drawn. */
  seen: (ids: string[]) => void;
  /** Is given what looks which they are at this moment: a key may come before the list was drawn where it stands now. */
  looking: RefObject<() => string[]>;
  comment: (group: SameAnswers, comment: string) => void;
  /** What is put forward, by the id of the row. */
  likes: ReadonlyMap<string, LikeMark>;
  /** Answers that were given points which are not drawn yet. */
  acted: ActedAnswers;
  /** Marks on the text of the current answers. */
  work: WorkActs;
  /** Whether the whole page is shown of an answer on paper. */
  page: WholePage;
  offered: () => readonly OfferedComment[];
  /** A comment of the bank was taken for these answers. */
  chosen: (group: SameAnswers, comment: OfferedComment) => void;
}

/** The answers beneath one another; the current one takes the keys. Only what is in sight is drawn. */
export function AnswerList({
  question,
  entries,
  current,
  together,
  align,
  names,
  enterDoes,
  goTo,
  onKey,
  seen,
  looking,
  comment,
  likes,
  acted,
  work,
  page,
  offered,
  chosen,
}: AnswerListProps) {
  useSoonHere(laterInAnswer);
  const scroller = useRef<HTMLDivElement>(null);
  const currentIndex = entries.findIndex(({ group }) => group.id === current?.id);
  // What stands where is reckoned anew only when another answer stands somewhere.
  const ids = useHeld(entries.map(({ group }) => group.id));
  const rows = useVirtualizer({
    count: entries.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 44,
    getItemKey: useCallback((index: number) => ids[index] ?? index, [ids]),
    overscan: 6,
    // The list is never higher: what is in sight is drawn at once, before it is measured.
    initialRect: { width: 0, height: window.innerHeight },
    // Drawn with what else changes, not once more in between.
    useFlushSync: false,
  });
  const focusing = useRef(false);
  const focusRow = useRef<() => void>(() => undefined);
  useEffect(() => {
    focusRow.current = () => {
      focusing.current = true;
      scroller.current
        ?.querySelector<HTMLElement>(`[data-row="${currentIndex}"]`)
        ?.focus({ preventScroll: true });
      focusing.current = false;
    };
  });
  useEffect(() => {
    if (currentIndex < 0) return;
    // At the top stands what was done last, with what comes after it.
    if (align.current === 'start') rows.scrollToIndex(Math.max(0, currentIndex - 1), { align: 'start' });
    else rows.scrollToIndex(currentIndex, { align: 'auto' });
    const focusFirst = () => {
      // Drawing may come late: who is writing by then goes on writing.
      const at = document.activeElement;
      if (!(at instanceof HTMLElement && takesKeys(at, 'a'))) focusRow.current();
    };
    // At once, so that a Tab that follows goes on from here; and once more when a row is drawn that was out of sight.
    focusFirst();
    const frame = requestAnimationFrame(() => {
      focusFirst();
      const row = scroller.current?.querySelector<HTMLElement>(`[data-index="${currentIndex}"]`);
      // A long answer is read from its first line.
      if (row && scroller.current && row.offsetHeight > scroller.current.clientHeight)
        rows.scrollToIndex(currentIndex, { align: 'start' });
    });
    return () => cancelAnimationFrame(frame);
    // Other answers may stand in the same place by now.
  }, [currentIndex, current?.id, rows, align]);
  useKeysOfList(onKey, focusRow);
  const commentHost = useMoving();
  const choose = useSteady((id: string) => goTo(id));
  useEffect(() => {
    const whole = (from: number) => {
      const height = rows.scrollRect?.height ?? 0;
      return rows.getVirtualItems().flatMap(({ index, start, end }) => {
        const [top, bottom] = [start - from, end - from];
        const inSight = bottom > 0 && top < height;
        const all = top >= -1 && bottom <= height + 1;
        const id = entries[index]?.group.id;
        // One that is higher than the list is as whole as it can be.
        return id !== undefined && (all || (inSight && end - start >= height)) ? [id] : [];
      });
    };
    // A key may come before the list has told that it was scrolled.
    looking.current = () => whole(scroller.current?.scrollTop ?? 0);
    seen(whole(rows.scrollOffset ?? 0));
  });
  return (
    <div ref={scroller} className={styles.scroller}>
      <ol className={styles.answers} style={{ height: rows.getTotalSize() }} aria-label="Answers">
        {rows.getVirtualItems().map((item) => {
          const entry = entries[item.index];
          if (!entry) return null;
          const { group } = entry;
          const like = likes.get(group.id);
          const isCurrent = item.index === currentIndex;
          return (
            <li
              key={item.key}
              ref={rows.measureElement}
              data-index={item.index}
              className={styles.place}
              // Not moved by a transform, which what sticks inside would not know of.
              style={{ top: item.start }}
              aria-setsize={entries.length}
              aria-posinset={item.index + 1}
            >
              <AnswerRow
                question={question}
                entry={entry}
                index={item.index}
                current={isCurrent}
                names={names}
                focusing={focusing}
                choose={choose}
                forward={like ? givenWords(like, question) : null}
                byParts={like?.from === 'parts'}
                acted={acted}
              >
                {isCurrent && (
                  <CurrentAnswer
                    question={question}
                    group={group}
                    marked={workOn(group)}
                    enterDoes={enterDoes}
                    comment={commentHost}
                    work={work}
                    page={page}
                  />
                )}
              </AnswerRow>
            </li>
          );
        })}
      </ol>
      {current && (
        <CommentOf
          current={current}
          together={together}
          host={commentHost}
          comment={comment}
          offered={offered}
          chosen={chosen}
        />
      )}
    </div>
  );
}

type CommentOfProps = Pick<AnswerListProps, 'together' | 'comment' | 'offered' | 'chosen'> & {
  current: SameAnswers;
  host: HTMLElement;
};

/** The comment for the current answers, in the one field that goes with them from row to row. */
function CommentOf({ current, together, host, comment, offered, chosen }: CommentOfProps) {
  const keep = useSteady(comment);
  const take = useSteady(chosen);
  // For the answers that it is for when it is drawn: the last words are kept once others stand there.
  const keepFor = useCallback((text: string) => keep(current, text), [keep, current]);
  const takeFor = useCallback((taken: OfferedComment) => take(current, taken), [take, current]);
  return (
    <Moving host={host}>
      <CommentField
        label="Comment the student sees once handed back"
        placeholder="Press Tab to comment for the student"
        value={commentOfAll(current)}
        about={current.id}
        answers={together}
        keep={keepFor}
        offered={offered}
        chosen={takeFor}
        done={toAnswers}
      />
    </Moving>
  );
}

/**
 * The keys of the list, taken on the document, so that none is lost while the focus moves from row to row: held keys come faster
 * than rows are drawn. What is typed in a field or a dialog stays there; on a control, what the control itself does with it.
 */
function useKeysOfList(onKey: AnswerListProps['onKey'], focusRow: RefObject<() => void>): void {
  const taken = useSteady(onKey);
  useEffect(() => {
    const keyed = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const target = event.target;
      if (!(target instanceof HTMLElement)) return;
      if (takesKeys(target, event.key)) return;
      if (taken(event.key, event.shiftKey, event.timeStamp)) event.preventDefault();
    };
    // What was pressed with a pointer has done its work: the hand goes back to the answers.
    const pressed = (event: MouseEvent) => {
      const target = event.target;
      if (event.detail === 0 || !(target instanceof HTMLElement) || takesKeys(target, 'a')) return;
      if (target.closest('main button, main input, main label'))
        requestAnimationFrame(() => focusRow.current());
    };
    document.addEventListener('keydown', keyed);
    document.addEventListener('click', pressed);
    return () => {
      document.removeEventListener('keydown', keyed);
      document.removeEventListener('click', pressed);
    };
  }, [focusRow, taken]);
}

const written = `${textFields}, select, [role="slider"]`;

/** Whether a key belongs to where the focus is: to a field that is written in, a dialog, or a control that it works. */
function takesKeys(target: HTMLElement, key: string): boolean {
  if (target.closest('[role="dialog"], [data-own-keys]') || target.matches(written)) return true;
  if (target.matches('[data-row]')) return false;
  return (
    (key === 'Enter' || key === ' ') && target.closest('button, a, input, summary, [role="switch"]') !== null
  );
}
