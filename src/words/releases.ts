import type { Shows } from '@/core/model/release';

/** What each thing to show is called in the sentence. */
export const showWords: Record<keyof Shows, string> = {
  total: 'their total',
  points: 'the points for each question',
  answers: 'their own answers',
  rightOrWrong: 'what was right or wrong',
  accepted: 'the accepted answers',
  comments: 'the comments',
};

/** One plain sentence that says what a student will see. */
export function releaseSentence(shows: Shows): string {
  const seen = (Object.keys(showWords) as (keyof Shows)[])
    .filter((what) => shows[what])
    .map((what) => showWords[what]);
  const hidden = (Object.keys(showWords) as (keyof Shows)[])
    .filter((what) => !shows[what])
    .map((what) => showWords[what]);
  if (seen.length === 0) return 'Students see only that you have their paper.';
  return `Students see ${listed(seen)}${hidden.length ? `, but not ${listed(hidden, 'or')}` : ''}.`;
}

/** What is seen, as the end of a sentence: "their total and the comments". */
export function showsSentence(shows: Shows): string {
  const seen = (Object.keys(showWords) as (keyof Shows)[]).filter((what) => shows[what]);
  return seen.length === 0 ? 'only that you have their paper' : listed(seen.map((what) => showWords[what]));
}

/** What of it tells what is right: "the accepted answers and the comments". */
export function givenAwayWords(shows: Shows): string {
  const telling = (['rightOrWrong', 'accepted', 'comments'] as const).filter((what) => shows[what]);
  return listed(telling.map((what) => showWords[what]));
}

function listed(words: string[], last = 'and'): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} ${last} ${words.at(-1)}`;
}
