import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { z } from 'zod';

/** What is seen of a question, step by step. */
export const steps = { question: 0, answers: 1, key: 2, comment: 3 } as const;

const Place = z.object({
  questionId: z.string(),
  step: z.number().int().min(0).max(3),
  /** The line that is pointed at; null: none. */
  pointer: z.number().int().min(0).nullable(),
  /** Wordings that were picked to be shown. */
  said: z.string().array(),
});
type Place = z.infer<typeof Place>;

const News = z.union([z.object({ place: Place }), z.object({ asks: z.literal(true) })]);

export type ClassScreen = ReturnType<typeof useClassScreen>;

/**
 * The screen in front of the class, the same in every window that shows it, moved by keys in any of them.
 *
 * @param order the ids of the questions, in the order in which they are gone through
 * @param lineCount how many lines a question shows at a step
 */
export function useClassScreen(
  sittingId: string,
  order: readonly string[],
  lineCount: (at: Pick<Place, 'questionId' | 'said' | 'step'>) => number,
) {
  const asked = new URLSearchParams(location.search).get('question');
  const [place, put] = usePlaceInAll(sittingId, asked ?? '');
  const index = Math.max(0, order.indexOf(place.questionId));
  const at: Place = { ...place, questionId: order[index] ?? '' };
  const move = (change: Partial<Place>) => put({ ...at, ...change });
  const goTo = (questionId: string, step: number = steps.question) =>
    move({ questionId, step, pointer: null });
  const question = (by: number, step: number = steps.question) => {
    const next = order[index + by];
    if (next !== undefined) goTo(next, step);
  };
  const forward = () => (at.step < steps.comment ? move({ step: at.step + 1 }) : question(1));
  const back = () => (at.step > steps.question ? move({ step: at.step - 1 }) : question(-1, steps.comment));
  const point = (by: number) => {
    const count = lineCount(at);
    if (count === 0) return;
    const next = at.pointer === null ? (by > 0 ? 0 : count - 1) : at.pointer + by;
    move({ pointer: next < 0 || next >= count ? null : next });
  };
  const keys: Record<string, () => void> = {
    ArrowRight: forward,
    ArrowLeft: back,
    PageDown: () => question(1),
    PageUp: () => question(-1),
    ArrowDown: () => point(1),
    ArrowUp: () => point(-1),
  };
  useKeys(keys);
  const nextDoes = ['Show what was answered', 'Show the key', 'Show the comment', 'Next question'][at.step];
  return {
    at,
    forward,
    back,
    goTo,
    nextDoes: nextDoes ?? '',
    show: (id: string, shown: boolean) =>
      move({ said: shown ? [...at.said, id] : at.said.filter((each) => each !== id) }),
  };
}

/** Where the screen is, in all windows that show it: what one of them puts, the others have; a new one asks. */
function usePlaceInAll(sittingId: string, first: string): [Place, (next: Place) => void] {
  const [place, setPlace] = useState<Place>({
    questionId: first,
    step: steps.question,
    pointer: null,
    said: [],
  });
  const channel = useRef<BroadcastChannel | null>(null);
  const here = useRef(place);
  useLayoutEffect(() => {
    here.current = place;
  });
  useEffect(() => {
    const opened = new BroadcastChannel(`gribbet-class-${sittingId}`);
    channel.current = opened;
    opened.onmessage = ({ data }) => {
      const news = News.safeParse(data);
      if (!news.success) return;
      if ('place' in news.data) setPlace(news.data.place);
      else opened.postMessage({ place: here.current });
    };
    opened.postMessage({ asks: true });
    return () => opened.close();
  }, [sittingId]);
  const put = (next: Place) => {
    setPlace(next);
    channel.current?.postMessage({ place: next });
  };
  return [place, put];
}

/** What keys do on the whole page, but where one types. */
function useKeys(keys: Record<string, () => void>): void {
  const pressed = useRef(keys);
  useLayoutEffect(() => {
    pressed.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { target } = event;
      const typing =
        target instanceof HTMLElement && target.matches('input:not([type=checkbox]), textarea, select');
      const does = pressed.current[event.key];
      if (!does || typing || event.ctrlKey || event.altKey || event.metaKey) return;
      event.preventDefault();
      does();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
