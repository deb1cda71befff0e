import type { CountRule, PracticeRules, SittingManner } from '@/core/model/sitting';
import type { SettingsFault, SettingsWarning, SittingSettings } from '@/core/sittings/settings';
import { afterSentence } from './releases';

/** How times read to this reader. */
export interface TimeWords {
  when: (instant: string) => string;
  howLong: (ms: number) => string;
}

/** One plain paragraph that says what the settings amount to. */
export function settingsSentence(
  settings: SittingSettings,
  groups: readonly string[],
  words: TimeWords,
): string {
  const who =
    groups.length === 0
      ? settings.guests
        ? 'Guests'
        : 'Nobody'
      : groups.length === 1
        ? groups[0]
        : `${groups.slice(0, -1).join(', ')} and ${groups.at(-1)}`;
  const from = settings.opensAt === null ? 'straight away' : `from ${words.when(settings.opensAt)}`;
  const until =
    settings.closesAt === null ? ', with no closing time' : ` until ${words.when(settings.closesAt)}`;
  const limit =
    settings.timeLimitMs === null ? 'with no time limit' : `with ${words.howLong(settings.timeLimitMs)} each`;
  const code = settings.accessCode ? `, after giving the access code “${settings.accessCode}”` : '';
  return [
    `${who} can start ${from}${until}, ${limit}${code}.`,
    attemptsSentence(settings),
    settings.guests && groups.length > 0
      ? 'Guests join with the access code and their name, and are listed separately.'
      : '',
    mannerSentence(settings),
    settings.practice ? practiceSentence(settings.practice) : '',
    afterHandingIn(settings, words),
    settings.forgivenMs !== undefined
      ? `Answers typed before the end still count if they arrive up to ${words.howLong(settings.forgivenMs)} later because of a lost connection.`
      : '',
    settings.closesAt !== null && settings.timeLimitMs === null
      ? 'Answers are collected at closing time.'
      : '',
  ]
    .filter(Boolean)
    .join(' ');
}

const countWords: Record<CountRule, string> = {
  last: 'the last',
  best: 'the best',
  first: 'the first',
  mean: 'the mean of all',
};

/** "Each may sit it 3 times; the best counts." */
export function attemptsSentence({ attempts, counts }: Pick<SittingSettings, 'attempts' | 'counts'>): string {
  return attempts === 1 ? '' : `Each student may sit it ${attempts} times; ${countWords[counts]} counts.`;
}

/** "Questions come one at a time, and students can’t go back." */
function mannerSentence({ oneByOne, noBack, shuffle }: SittingManner): string {
  const order = shuffle ? 'in a different order for each student' : '';
  if (!oneByOne) return order ? 'Each student gets the questions in a different order.' : '';
  const back = noBack ? 'and students can’t go back' : 'and students can go back';
  return `Questions come one at a time, ${[order, back].filter(Boolean).join(', ')}.`;
}

/** What practice amounts to, in words. */
export function practiceSentence({ tries, lossPerTry, hints, showAnswer }: PracticeRules): string {
  const often = tries === null ? 'as often as they like' : tries === 1 ? 'once' : `up to ${tries} times`;
  const loss =
    lossPerTry > 0 && tries !== 1
      ? `; each further try loses ${Math.round(lossPerTry * 100)}% of the points`
      : '';
  const help = hints ? ' Students can use hints; each costs points.' : '';
  const shown = showAnswer
    ? ' Students can give up and see the accepted answer, and then get no more points.'
    : '';
  return `This is practice: students see at once how they did on each question, and can try ${often}${loss}.${help}${shown}`;
}

function afterHandingIn({ after, afterMs }: SittingManner, words: TimeWords): string {
  return afterSentence(after, afterMs, words.howLong);
}

/** A warning as a sentence. */
export function settingsWarningWords(warning: SettingsWarning, { when }: TimeWords): string {
  switch (warning.code) {
    case 'windowTooShort':
      return 'The window is shorter than the time limit: nobody gets the full time.';
    case 'lessTimeAfter':
      return `Students who start after ${when(warning.at)} get less than the full time.`;
    case 'toldToOthers':
      return 'Early finishers could pass on answers.';
    case 'toldForNextAttempt':
      return 'After the first attempt, students know the right answers for the next.';
    case 'noWayBackToTry':
      return 'Students who can’t go back can’t retry a question they have left.';
    case 'lastTriesForNothing':
      return 'The last tries earn no points at all.';
    case 'againstTheClock':
      return 'This is practice against the clock: hints and tries take time too.';
  }
}

/** Why settings cannot be used, as a sentence. */
export const settingsFaultWords: Record<SettingsFault, string> = {
  noGroup: 'Choose at least one group.',
  closesBeforeOpening: 'It would close before it opens.',
  closesInThePast: 'It would already be closed.',
  guestsWithoutCode: 'Guests need an access code to join.',
};
