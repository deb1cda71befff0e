import { useState } from 'react';
import type { FileRef } from '@/core/basics/file';
import { Rect } from '@/core/basics/rect';
import { numbersOf } from '@/core/kinds/itemNumbers';
import type { AnswerPaper } from '@/core/model/answerPaper';
import type { SittingData } from '@/desk/useSitting';
import type { NewQuestion } from '@/store/answerPapers';
import { newId } from '@/store/ids';
import type { Drawn } from './RegionPage';

/** What the name stands under, beside the ids of questions; and what makes a new question. */
export const nameOf = '#name';
export const newOf = '#new';

/** The regions drawn on blank pages: where the name stands and where each answer does, and the questions made of them. */
export function useRegions({ questions: asked, sitting }: SittingData) {
  const [regions, setRegions] = useState<Drawn[]>([]);
  const [what, setWhat] = useState(nameOf);
  const [fresh, setFresh] = useState<NewQuestion[]>([]);
  const questions = [...asked, ...fresh];
  const numbers = numbersOf(questions);
  // Once it is sat, a paper stays as it is.
  const canGrow = sitting.paperVersion === null;
  return {
    regions,
    /** Questions that are made of regions. */
    fresh,
    questions,
    numbers,
    canGrow,
    /** What the next region is. */
    what,
    setWhat,
    labelOf: (id: string) =>
      id === nameOf ? 'Name' : id === newOf ? 'a new question' : `Question ${numbers.get(id) ?? ''}`,
    put: (page: number, at: Rect) => {
      const of = what === newOf ? newId() : what;
      if (what === newOf) setFresh([...fresh, { id: of, stem: '', points: 1 }]);
      setRegions([...regions, { id: newId(), of, page, at }]);
      if (what === newOf) return;
      // The name once; then question by question.
      const all = [nameOf, ...questions.map(({ id }) => id), ...(canGrow ? [newOf] : [])];
      const next = all[all.indexOf(what) + 1];
      if (next !== undefined) setWhat(next);
    },
    move: (id: string, at: Rect) =>
      setRegions(regions.map((each) => (each.id === id ? { ...each, at } : each))),
    remove: (id: string) => {
      const left = regions.filter((each) => each.id !== id);
      setRegions(left);
      setFresh(fresh.filter((question) => left.some(({ of }) => of === question.id)));
    },
    changeQuestion: (id: string, part: Partial<NewQuestion>) =>
      setFresh(fresh.map((each) => (each.id === id ? { ...each, ...part } : each))),
    /** Takes the regions of another paper, as far as this one has pages. */
    copyFrom: (print: AnswerPaper, pages: number) =>
      setRegions(regionsOf(print).filter(({ of, page }) => of === nameOf || page <= pages)),
    /** As they are kept with the blank pages. */
    made: (blanks: readonly FileRef[]) => {
      const name = regions.find(({ of }) => of === nameOf);
      return {
        nameAt: name ? { ...name.at, page: name.page } : null,
        fresh: fresh.map((each) => ({
          ...each,
          stem: each.stem.trim() || `Question ${numbers.get(each.id) ?? ''}`,
        })),
        regions: blanks.map((_, index) =>
          regions
            .filter(({ of, page }) => of !== nameOf && page === index + 1)
            .map(({ id, of, at }) => ({ ...at, questionId: of, part: id, box: null })),
        ),
      };
    },
  };
}

export type Regions = ReturnType<typeof useRegions>;

/** The regions of a paper that is kept. */
function regionsOf(print: AnswerPaper): Drawn[] {
  const { page = 1, ...at } = print.foreign?.name ?? {};
  const name = Rect.safeParse(at);
  const head: Drawn[] = name.success ? [{ id: newId(), of: nameOf, page, at: name.data }] : [];
  const answers = print.pages.flatMap((each, index) =>
    each.map(({ x, y, w, h, questionId }): Drawn => ({
      ...{ id: newId(), of: questionId, page: index + 1, at: { x, y, w, h } },
    })),
  );
  return [...head, ...answers];
}
