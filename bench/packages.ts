import { unzipSync } from 'fflate';
import { XMLParser } from 'fast-xml-parser';
import { papersFromQti } from '@/core/formats/qti/readPackage';
import { qtiPackage } from '@/core/formats/qti/writePackage';
import type { Question } from '@/core/kinds';
import { samples } from '../tests/unit/samples';
import { median, row } from './measure';

/** A package of 500 items of all kinds: written, read, and read by the XML library alone. */

const kinds = Object.values(samples);
const questions = Array.from({ length: 500 }, (_, index): Question => {
  const question = kinds[index % kinds.length];
  if (!question) throw new Error('no samples');
  return { ...question, id: `q${index}`, stem: `Question ${index}: ${String(question.stem)}` };
});
const paper = { title: 'Five hundred', instructions: '', questions };
let count = 0;
const newId = () => `n${count++}`;

const { bytes } = qtiPackage(paper, []);
const write = await median(5, () => qtiPackage(paper, []));
const read = await median(5, () => papersFromQti(bytes, 'file', newId));
const plain = await median(5, () => {
  const parser = new XMLParser({ preserveOrder: true, ignoreAttributes: false });
  const files = unzipSync(bytes);
  for (const [name, content] of Object.entries(files))
    if (name.endsWith('.xml')) parser.parse(new TextDecoder().decode(content));
});

const read500 = (await papersFromQti(bytes, 'file', newId)).papers[0]?.questions.length;
if (read500 !== 500) throw new Error(`only ${read500} came back`);
row('write a QTI package of 500 questions', `${write.toFixed(0)} ms`);
row('unzip and parse its XML, the libraries alone', `${plain.toFixed(0)} ms`);
row('read it: 500 questions of all kinds', `${read.toFixed(0)} ms`);
row('ratio', (read / plain).toFixed(1));
