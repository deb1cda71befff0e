import { PDFDocument } from '@cantoo/pdf-lib';
import { readFileSync, writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { chanceFrom } from '@/core/basics/chance';
import { codeFrom } from '@/core/intake/paper/sheet';
import { anyPen, filledPage } from '@/core/intake/standIn/madeUpCopy';
import { phoneFaults, scanned, usualFaults } from '@/core/intake/standIn/scanned';
import { AnswerPaper } from '@/core/model/answerPaper';
import { draw, findCodes, grayOf, jpegOf, pagesOf } from './paperNode';

/**
 * `npm run scan -- papers.pdf --print print.json --out scans.pdf [--seed 1] [--missing 0.02] [--double 0.02] [--phone 0.25]`: stands in
 * for a class and its scanner. It fills printed papers in and makes a PDF of scans, in any order, with pages missing and twice,
 * turned, upside down, noisy and in shadow; beside it, in scans.json, what was really filled in. From a seed.
 */
const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: {
    print: { type: 'string' },
    out: { type: 'string', default: 'scans.pdf' },
    seed: { type: 'string', default: '1' },
    missing: { type: 'string', default: '0.02' },
    double: { type: 'string', default: '0.02' },
    phone: { type: 'string', default: '0.25' },
  },
});
const [file] = positionals;
if (file === undefined || values.print === undefined) {
  console.error('Usage: npm run scan -- papers.pdf --print print.json --out scans.pdf');
  process.exit(2);
}
const print = AnswerPaper.parse(JSON.parse(readFileSync(values.print, 'utf8')));
const chance = chanceFrom(Number(values.seed));
const pens = new Map<number, ReturnType<typeof anyPen>>();
const scans: { jpeg: Buffer; truth: unknown }[] = [];
for (const canvas of await pagesOf(readFileSync(file))) {
  const [found] = await findCodes(grayOf(canvas));
  const code = found && codeFrom(found.text);
  if (code?.printId !== print.id) continue;
  const pen = pens.get(code.copy) ?? anyPen(chance);
  pens.set(code.copy, pen);
  const page = filledPage(
    print.pages[code.page - 1] ?? [],
    (_question, _part, boxes) => [chance.pick(boxes)],
    pen,
    chance,
  );
  draw(canvas, page.strokes);
  const truth = {
    ...code,
    boxes: page.boxes.map(({ region: { questionId, part, box }, truth: is }) => ({
      questionId,
      part,
      box,
      is,
    })),
  };
  const times = chance.happens(Number(values.missing)) ? 0 : chance.happens(Number(values.double)) ? 2 : 1;
  for (let time = 0; time < times; time++)
    scans.push({
      jpeg: jpegOf(
        scanned(grayOf(canvas), chance.happens(Number(values.phone)) ? phoneFaults : usualFaults, chance),
        60,
      ),
      truth,
    });
}
scans.sort(() => chance.share() - 0.5);
const pdf = await PDFDocument.create();
for (const { jpeg } of scans) {
  const picture = await pdf.embedJpg(jpeg);
  const page = pdf.addPage([595.28, 841.89]);
  page.drawImage(picture, { x: 0, y: 0, width: 595.28, height: 841.89 });
}
writeFileSync(values.out, await pdf.save());
writeFileSync(
  values.out.replace(/\.pdf$/, '') + '.json',
  JSON.stringify(
    scans.map(({ truth }) => truth),
    null,
    1,
  ),
);
console.log(`${scans.length} scans in ${values.out}`);
