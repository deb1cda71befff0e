import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { nearPiles, usualThreshold } from '@/core/marking/near/piles';

/**
 * Parts of core from the command line, so that anyone can check them.
 *
 *   npm run --silent core -- near answers.json
 *
 * `answers.json`: {"answers": ["…"], "language": "en", "threshold": 0.65}; the last may be left out. Prints {"piles": [[places]…]}:
 * each place once, counted from 0.
 */

const NearQuestion = z.object({
  answers: z.string().array(),
  language: z.string().default('en'),
  threshold: z.number().min(0).max(1).default(usualThreshold),
});

const [what, file] = process.argv.slice(2);
if (what !== 'near' || file === undefined) {
  console.error('Usage: npm run --silent core -- near answers.json');
  process.exit(1);
}
try {
  const { answers, language, threshold } = NearQuestion.parse(JSON.parse(readFileSync(file, 'utf8')));
  console.log(JSON.stringify({ piles: nearPiles(answers, language, threshold) }));
} catch (error) {
  console.error(`${file}: ${error instanceof z.ZodError ? z.prettifyError(error) : String(error)}`);
  process.exit(1);
}
