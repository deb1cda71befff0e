import { groupBy } from '../../basics/groupBy';
import type { Response, StudentQuestion } from '../../kinds';
import { paperOf } from '../../kinds/papers';
import type { AnswerPaper, Region } from '../../model/answerPaper';
import type { NotRead } from '../../model/sitting';
import type { TickState } from '../../model/scan';

/** A box as it was read, or as somebody settled it. */
export interface SettledBox {
  region: Pick<Region, 'questionId' | 'part' | 'box'>;
  state: TickState;
  /** Somebody looked at it: whatever else was read of it, this is so. */
  settled?: boolean;
}

/** What one copy of an answer paper says. */
export interface AnswersOnPaper {
  /** By question, as far as ticks say it; blank ones too. */
  answers: Record<string, Response>;
  notRead: Record<string, NotRead>;
  /** Where there is something written to be looked at, by question. */
  written: Record<string, Region[]>;
  /** The rows of boxes that somebody has to look at, by question. */
  asked: Record<string, string[]>;
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
  const found: AnswersOnPaper = { answers: {}, notRead: {}, written: {}, asked: {} };
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
    const states = boxes.map(({ region, page }) => ({ region, ...stateOn(region, scans.get(page) ?? []) }));
    const rows = [...groupBy(states, ({ region }) => region.part)];
    const differ = rows.filter(([, row]) => row.some(({ state }) => state === null));
    const unsure = rows.filter(
      ([, row]) => row.some(({ state }) => state === 'doubtful') || filledAlone(row),
    );
    const fault = differ.length > 0 ? 'scansDiffer' : unsure.length > 0 ? 'doubtful' : null;
    const response = fault ? null : paperOf(question).fromTicks(question, ticksOf(states));
    if (response) found.answers[question.id] = response;
    else {
      found.notRead[question.id] = fault ?? 'tooManyTicks';
      const asked = fault ? [...differ, ...unsure] : rows;
      found.asked[question.id] = [...new Set(asked.map(([part]) => part))];
    }
  }
  return found;
}

interface Stated {
  region: Region;
  state: TickState | null;
  settled: boolean;
}

/** What all scans of a page say of a box; null where they differ. */
function stateOn(
  region: Region,
  scans: readonly (readonly SettledBox[])[],
): { state: TickState | null; settled: boolean } {
  const readings = scans.map((boxes) =>
    boxes.find(
      ({ region: { questionId, part, box } }) =>
        questionId === region.questionId && part === region.part && box === region.box,
    ),
  );
  const settled = readings.find((reading) => reading?.settled);
  if (settled) return { state: settled.state, settled: true };
  const states = new Set(readings.map((reading) => reading?.state ?? 'doubtful'));
  // One clear reading is enough: the other scan was worse.
  if (states.size > 1) states.delete('doubtful');
  const [only, another] = states;
  return { state: another === undefined ? (only ?? 'doubtful') : null, settled: false };
}

/** Whether in a row a box was filled and none ticked, and nobody said that this is meant. */
const filledAlone = (row: readonly Stated[]): boolean =>
  row.some(({ state, settled }) => state === 'filled' && !settled) &&
  row.every(({ state }) => state !== 'ticked');

function ticksOf(states: readonly Stated[]): Record<string, string[]> {
  const ticks: Record<string, string[]> = {};
  for (const { region, state } of states)
    if (state === 'ticked' && region.box !== null) (ticks[region.part] ??= []).push(region.box);
  return ticks;
}
