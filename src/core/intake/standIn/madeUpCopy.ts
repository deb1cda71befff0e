import type { Chance } from '../../basics/chance';
import type { Region } from '../../model/answerPaper';
import type { Point } from '../paper/geometry';

/** A stroke of a pen on a page, in mm. */
export interface Stroke {
  points: Point[];
  /** In mm. */
  width: number;
  /** 0 black, 1 white. */
  grey: number;
}

/** What one made-up student did with one box. */
export type BoxTruth = 'empty' | 'ticked' | 'filled';

/** One page as it was filled in: the truth, and how it looks. */
export interface FilledPage {
  strokes: Stroke[];
  boxes: { region: Region; truth: BoxTruth }[];
  /** Areas that were written in. */
  written: Region[];
}

/** How often something happens that is not as it should be. */
export interface Habits {
  /** A tick that was taken back by filling its box. */
  takenBack: number;
  /** A question left blank. */
  blank: number;
  /** A stray stroke somewhere on the page. */
  stray: number;
}
export const usualHabits: Habits = { takenBack: 0.03, blank: 0.05, stray: 0.15 };

interface Pen {
  grey: number;
  width: number;
}

/** A page filled in by a made-up student, whose hand is his own on every page. */
export function filledPage(
  regions: readonly Region[],
  picksOf: (questionId: string, part: string, boxes: readonly string[]) => readonly string[],
  pen: Pen,
  chance: Chance,
  habits: Habits = usualHabits,
): FilledPage {
  const page: FilledPage = { strokes: [], boxes: [], written: [] };
  const rows = new Map<string, Region[]>();
  for (const region of regions) {
    if (region.box === null) {
      if (chance.happens(habits.blank)) continue;
      page.written.push(region);
      page.strokes.push(...handwriting(region, pen, chance));
      continue;
    }
    const key = `${region.questionId} ${region.part}`;
    rows.set(key, [...(rows.get(key) ?? []), region]);
  }
  for (const row of rows.values()) {
    const [first] = row;
    if (!first) continue;
    const picked = chance.happens(habits.blank)
      ? []
      : picksOf(
          first.questionId,
          first.part,
          row.map(({ box }) => box ?? ''),
        );
    const others = row.filter(({ box }) => !picked.includes(box ?? ''));
    // Taken back: another box was ticked first, then filled.
    const back =
      picked.length > 0 && others.length > 0 && chance.happens(habits.takenBack) ? chance.pick(others) : null;
    for (const region of row) {
      const truth: BoxTruth =
        region === back ? 'filled' : picked.includes(region.box ?? '') ? 'ticked' : 'empty';
      page.boxes.push({ region, truth });
      if (truth === 'ticked') page.strokes.push(...tick(region, pen, chance));
      if (truth === 'filled') page.strokes.push(...filling(region, pen, chance));
    }
  }
  if (chance.happens(habits.stray)) page.strokes.push(strayStroke(pen, chance));
  return page;
}

/** The pen of a student: a ball pen, a felt pen, a pale pencil. */
export const anyPen = (chance: Chance): Pen =>
  chance.pick([
    { grey: 0.12, width: 0.5 },
    { grey: 0.22, width: 0.45 },
    { grey: 0.05, width: 0.7 },
    { grey: 0.38, width: 0.55 },
    { grey: 0.48, width: 0.6 },
  ]);

const jitter = (chance: Chance, by: number) => (chance.share() - 0.5) * 2 * by;

function tick({ x, y, w, h }: Region, pen: Pen, chance: Chance): Stroke[] {
  const at = (across: number, down: number): Point => ({
    x: x + w * across + jitter(chance, 0.35),
    y: y + h * down + jitter(chance, 0.35),
  });
  const stroke = (...points: Point[]): Stroke => ({ points, width: pen.width, grey: pen.grey });
  const kind = chance.share();
  // A cross, a check mark whose tail runs out of the box, a slash.
  if (kind < 0.5) return [stroke(at(0.1, 0.1), at(0.9, 0.9)), stroke(at(0.9, 0.1), at(0.1, 0.9))];
  if (kind < 0.88) return [stroke(at(0.12, 0.5), at(0.42, 0.9), at(0.95 + chance.share() * 0.35, -0.15))];
  return [stroke(at(-0.05, 1.05), at(1.05, -0.05))];
}

/** Filled to and fro, edge to edge. */
function filling({ x, y, w, h }: Region, pen: Pen, chance: Chance): Stroke[] {
  const points: Point[] = [];
  const rows = Math.ceil(h / (pen.width * 0.55));
  for (let row = 0; row <= rows; row++) {
    const down = y + (h * row) / rows;
    const ends = [x + jitter(chance, 0.25), x + w + jitter(chance, 0.25)];
    points.push(...(row % 2 ? ends.reverse() : ends).map((across) => ({ x: across, y: down })));
  }
  return [{ points, width: pen.width * 1.35, grey: pen.grey }];
}

/** Loops and peaks that look like words. */
function handwriting({ x, y, w, h }: Region, pen: Pen, chance: Chance): Stroke[] {
  const strokes: Stroke[] = [];
  const rows = Math.max(1, Math.floor(h / 8));
  const full = chance.whole(1, rows);
  for (let row = 0; row < full; row++) {
    let across = x + 3;
    const end = x + w * (row === full - 1 ? 0.3 + 0.5 * chance.share() : 0.92);
    while (across < end) {
      const word = 6 + chance.share() * 14;
      const points: Point[] = [];
      for (let step = 0; step < word; step += 0.8)
        points.push({
          x: across + step,
          y: y + 8 * row + 6 - (points.length % 2) * (1 + 2 * chance.share()),
        });
      strokes.push({ points, width: pen.width, grey: pen.grey });
      across += word + 3;
    }
  }
  return strokes;
}

/** A slip of the pen in the right margin, where there are no boxes. */
function strayStroke(pen: Pen, chance: Chance): Stroke {
  const from = { x: 150 + chance.share() * 40, y: 60 + chance.share() * 200 };
  return {
    points: [from, { x: from.x + jitter(chance, 12), y: from.y + jitter(chance, 6) }],
    ...pen,
  };
}
