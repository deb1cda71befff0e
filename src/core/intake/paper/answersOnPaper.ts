import type { Response, StudentQuestion } from '../../kinds';
import { paperOf } from '../../kinds/papers';
import type { AnswerPaper, Region } from '../../model/answerPaper';
import type { TickState } from './ticks';

/** A box as it was read, or as somebody settled it. */
export interface SettledBox {
  region: Pick<Region, 'questionId' | 'part' | 'box'>;
  state: TickState;
}

/** Why there is no answer yet that anything could be said of: it is not read, which is neither wrong nor blank. */
export type NotRead =
  /** A page it stands on was not scanned. */
  | 'pageMissing'
  /** What stands in a box only a person can say; or the one ticked box of a row was filled. */
  | 'doubtful'
  /** Two scans of its page say different things. */
  | 'scansDiffer'
  /** More is ticked than can be an answer. */
  | 'tooManyTicks';

/** What one copy of an answer paper says. */
export interface AnswersOnPaper {
  /** By question, as far as ticks say it; blank ones too. */
  answers: Record<string, Response>;
  notRead: Record<string, NotRead>;
  /** Where there is something written to be looked at, by question. */
  written: Record<string, Region[]>;
}

/**
 * The answers that the scanned pages of one copy hold. A filled box is a tick that was taken back; where nothing else of its row is
 * ticked, it may have been meant, and is asked about.
 *
 * @param questions as they were printed
 * @param scans by page, from 1: the boxes of each scan of it
 */
export function answersOnPaper(
  print: Pick<AnswerPaper, 'pages'>,
  questions: readonly StudentQuestion[],
  scans: ReadonlyMap<number, readonly (readonly SettledBox[])[]>,
): AnswersOnPaper {
  const found: AnswersOnPaper = { answers: {}, notRead: {}, written: {} };
  for (const question of questions) {
    const regions = print.pages.flatMap((page, index) =>
      page
        .filter(({ questionId }) => questionId === question.id)
        .map((region) => ({ region, page: index + 1 })),
    );
    const areas = regions.flatMap(({ region }) => (region.box === null ? [region] : []));
    if (areas.length > 0) found.written[question.id] = areas;
    const boxes = regions.filter(({ region }) => region.box !== null);
    if (regions.some(({ page }) => (scans.get(page)?.length ?? 0) === 0)) {
      found.notRead[question.id] = 'pageMissing';
      continue;
    }
    if (boxes.length === 0) continue;
    const states = boxes.map(({ region, page }) => ({
      region,
      state: stateOn(region, scans.get(page) ?? []),
    }));
    const fault = states.some(({ state }) => state === null)
      ? 'scansDiffer'
      : states.some(({ state }) => state === 'doubtful') || filledAlone(states)
        ? 'doubtful'
        : null;
    const response = fault ? null : paperOf(question).fromTicks(question, ticksOf(states));
    if (response) found.answers[question.id] = response;
    else found.notRead[question.id] = fault ?? 'tooManyTicks';
  }
  return found;
}

interface Stated {
  region: Region;
  state: TickState | null;
}

/** What all scans of a page say of a box; null where they differ. */
function stateOn(region: Region, scans: readonly (readonly SettledBox[])[]): TickState | null {
  const states = new Set(
    scans.map(
      (boxes) =>
        boxes.find(
          ({ region: { questionId, part, box } }) =>
            questionId === region.questionId && part === region.part && box === region.box,
        )?.state ?? 'doubtful',
    ),
  );
  // One clear reading is enough: the other scan was worse.
  if (states.size > 1) states.delete('doubtful');
  const [only, another] = states;
  return another === undefined ? (only ?? 'doubtful') : null;
}

/** Whether in some row a box was filled and none ticked. */
function filledAlone(states: readonly Stated[]): boolean {
  const parts = new Set(states.map(({ region }) => region.part));
  return [...parts].some((part) => {
    const row = states.filter(({ region }) => region.part === part);
    return row.some(({ state }) => state === 'filled') && row.every(({ state }) => state !== 'ticked');
  });
}

function ticksOf(states: readonly Stated[]): Record<string, string[]> {
  const ticks: Record<string, string[]> = {};
  for (const { region, state } of states)
    if (state === 'ticked' && region.box !== null) (ticks[region.part] ??= []).push(region.box);
  return ticks;
}
