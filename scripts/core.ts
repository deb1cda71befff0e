import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { sheetFigures } from '@/core/analysis/sheetFigures';
import { tableFrom } from '@/core/formats/csv/table';
import { readPage } from '@/core/intake/paper/readPage';
import { nearPiles } from '@/core/marking/near/piles';
import { usualThreshold } from '@/core/marking/near/threshold';
import { AnswerPaper } from '@/core/model/answerPaper';

/**
 * Parts of core from the command line, so that anyone can check them.
 *
 *   npm run --silent core -- near answers.json
 *
 * `answers.json`: {"answers": ["…"], "language": "en", "threshold": 0.65}; the last may be left out. Prints {"piles": [[places]…]}:
 * each place once, counted from 0.
 *
 *   npm run --silent core -- figures points.csv [--max 2 | --max 1,2,2 | --max row] [--key a,b,c | --key row] [--group COLUMN]
 *
 * A sheet with a heading, one row a person: points, or picks where there is a key. `row`: it stands in the first row below the heading. Prints all
 * figures as JSON: docs/figures.md.
 *
 *   npm run --silent core -- scan scans.pdf --print print.json
 *
 * Scans of printed answer papers and the map of their regions. Prints what was read of each page as JSON: docs/guide/06-paper.md.
 */

const usage = `Usage: npm run --silent core -- near answers.json
       npm run --silent core -- figures points.csv [--max N | N,N… | row] [--key K,K… | row] [--group COLUMN]
       npm run --silent core -- scan scans.pdf --print print.json`;

const NearQuestion = z.object({
  answers: z.string().array(),
  language: z.string().default('en'),
  threshold: z.number().min(0).max(1).default(usualThreshold),
});

function near(text: string) {
  const { answers, language, threshold } = NearQuestion.parse(JSON.parse(text));
  return { piles: nearPiles(answers, language, threshold) };
}

function figures(text: string, { max, key, group }: { max?: string; key?: string; group?: string }) {
  const [heading, ...body] = tableFrom(text).map(({ cells }) => cells);
  if (!heading) throw new RangeError('there is no heading');
  const groupAt = group === undefined ? -1 : heading.indexOf(group);
  if (group !== undefined && groupAt < 0) throw new RangeError(`there is no column “${group}”`);
  const asked = (cells: readonly string[]) =>
    heading.flatMap((_, at) => (at === groupAt ? [] : [cells[at] ?? '']));
  const names = asked(heading);
  /** A list for all columns; one alone is for each. */
  const listed = (given: string | undefined): string[] | undefined => {
    if (given === undefined) return undefined;
    const list = given === 'row' ? asked(body.shift() ?? []) : given.split(',').map((each) => each.trim());
    const whole = list.length === 1 ? names.map(() => list[0] ?? '') : list;
    if (whole.length !== names.length)
      throw new RangeError(`${list.length} given for ${names.length} questions: ${given}`);
    return whole;
  };
  const keys = listed(key);
  const maxima = listed(max)?.map(Number);
  return sheetFigures({
    names,
    rows: body.map(asked),
    ...(keys && { key: keys }),
    ...(maxima && { max: maxima }),
    ...(groupAt >= 0 && { groups: body.map((cells) => (cells[groupAt] ?? '').trim()) }),
  });
}

/** What was read of each page. */
async function scan(pdf: Uint8Array, map: string) {
  // Only here: pictures and codes are read by packages that the rest does without.
  const { findCodes, grayOf, pagesOf } = await import('./paperNode');
  const print = AnswerPaper.parse(JSON.parse(map));
  const prints = new Map([[print.id, print]]);
  const pages = [];
  for (const [index, page] of (await pagesOf(pdf)).entries()) {
    const outcome = await readPage(grayOf(page), prints, findCodes);
    pages.push({
      scan: index + 1,
      is: outcome.is,
      ...('code' in outcome && { copy: outcome.code.copy, page: outcome.code.page }),
      ...(outcome.is === 'read' && {
        boxes: outcome.boxes.map(({ region: { questionId, part, box }, state, ink }) => ({
          ...{ questionId, part, box, is: state },
          ink: Number(ink.toFixed(3)),
        })),
      }),
    });
  }
  return pages;
}

try {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      max: { type: 'string' },
      key: { type: 'string' },
      group: { type: 'string' },
      print: { type: 'string' },
    },
  });
  const [what, file] = positionals;
  if (file === undefined) throw new RangeError(usage);
  if (what === 'near') console.log(JSON.stringify(near(readFileSync(file, 'utf8'))));
  else if (what === 'figures') console.log(JSON.stringify(figures(readFileSync(file, 'utf8'), values)));
  else if (what === 'scan' && values.print !== undefined)
    console.log(JSON.stringify(await scan(readFileSync(file), readFileSync(values.print, 'utf8'))));
  else throw new RangeError(usage);
} catch (error) {
  console.error(
    error instanceof z.ZodError
      ? z.prettifyError(error)
      : error instanceof Error
        ? error.message
        : String(error),
  );
  process.exit(1);
}
