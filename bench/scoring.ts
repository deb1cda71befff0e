import { scoreAttempt } from '@/core/scoring/scoreAttempt';
import { bigAttempts, fiftyQuestions } from './bigDesk';
import { median, row } from './measure';

/** Scoring 10,000 attempts × 50 questions in core, against a plain loop over the same answers. */

const questions = fiftyQuestions();
const attempts = bigAttempts(questions, 10_000);

/** The least that has to be done: look at every answer and compare it with one string. */
function plainLoop(): number {
  const keys = new Map(
    questions.map((question) => [question.id, 'key' in question ? String(question.key) : '118']),
  );
  let right = 0;
  for (const attempt of attempts)
    for (const question of questions) {
      const response = attempt.answers[question.id]?.response;
      if (!response) continue;
      const given =
        'picked' in response
          ? response.picked.join(',')
          : 'text' in response
            ? response.text.trim().toLowerCase()
            : '';
      if (given === keys.get(question.id)) right++;
    }
  return right;
}

function scored(): number {
  let total = 0;
  for (const attempt of attempts) total += scoreAttempt(questions, attempt, []).total;
  return total;
}

plainLoop();
scored();
const plain = await median(7, plainLoop);
const core = await median(7, scored);
row('plain loop over 10,000 × 50 answers', `${plain.toFixed(0)} ms`);
row('scoreAttempt over the same answers', `${core.toFixed(0)} ms`);
row('ratio', (core / plain).toFixed(1));
