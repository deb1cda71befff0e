import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { sheetFigures } from '@/core/analysis/sheetFigures';
import { tableFrom } from '@/core/formats/csv/table';
import { nearPiles, usualThreshold } from '@/core/marking/near/piles';

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
 */

const usage = `Usage: npm run --silent core -- near answers.json
       npm run --silent core -- figures points.csv [--max N | N,N… | row] [--key K,K… | row] [--group COLUMN]`;

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

try {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { max: { type: 'string' }, key: { type: 'string' }, group: { type: 'string' } },
  });
  const [what, file] = positionals;
  if (file === undefined || (what !== 'near' && what !== 'figures')) throw new RangeError(usage);
  const text = readFileSync(file, 'utf8');
  console.log(JSON.stringify(what === 'near' ? near(text) : figures(text, values)));
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
