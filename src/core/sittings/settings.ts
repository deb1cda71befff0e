import type { CountRule, PracticeRules, Sitting, SittingManner } from '../model/sitting';
import type { Shows } from '../model/release';
import { givesKeyAway } from '../handback/readiness';
import { showsSentence } from '../handback/releaseSentence';

/** What a teacher chooses when giving a paper out. */
export interface SittingSettings extends SittingManner {
  /** Whether someone on no list may come in with the access code. */
  guests: boolean;
  groupIds: string[];
  /** Null: at once. */
  opensAt: string | null;
  /** Null: no end. */
  closesAt: string | null;
  timeLimitMs: number | null;
  accessCode: string;
  /** How many attempts everyone may make, and which of them counts. */
  attempts: number;
  counts: CountRule;
}

/** The settings of a sitting that was given out. */
export function settingsOf(sitting: Sitting): SittingSettings {
  const { groupIds, opensAt, closesAt, timeLimitMs, accessCode, attempts, counts, guests } = sitting;
  const { oneByOne, noBack, shuffle, after, practice, forgivenMs } = sitting;
  return {
    groupIds,
    opensAt,
    closesAt,
    timeLimitMs,
    accessCode,
    attempts: attempts ?? 1,
    counts: counts ?? 'last',
    guests: guests === true,
    oneByOne,
    noBack,
    shuffle,
    after,
    practice,
    forgivenMs,
  };
}

/**
 * A sitting with other settings. What is not changed is as it was: a field that was absent stays absent.
 *
 * @param now ISO; when it opens where it is to open at once
 */
export function changedBySettings(sitting: Sitting, settings: SittingSettings, now: string): Sitting {
  const before = settingsOf(sitting);
  const changed = Object.entries(settings).filter(
    ([name, value]) => JSON.stringify(value) !== JSON.stringify(before[name as keyof SittingSettings]),
  );
  const next = { ...sitting, ...(Object.fromEntries(changed) as Partial<Sitting>) };
  return { ...next, opensAt: settings.opensAt ?? now };
}

export type SettingsFault = 'noGroup' | 'closesBeforeOpening' | 'closesInThePast' | 'guestsWithoutCode';

/** The first thing that keeps a sitting with these settings from working; null when nothing does. */
export function settingsFault(settings: SittingSettings, now: number): SettingsFault | null {
  if (settings.guests && settings.accessCode.trim() === '') return 'guestsWithoutCode';
  if (settings.groupIds.length === 0 && !settings.guests) return 'noGroup';
  if (settings.closesAt === null) return null;
  const closes = Date.parse(settings.closesAt);
  if (settings.opensAt !== null && closes <= Date.parse(settings.opensAt)) return 'closesBeforeOpening';
  return closes <= now ? 'closesInThePast' : null;
}

/** The least time a question takes to be read and answered. Common practice, no source. */
const leastPerQuestionMs = 20_000;

/** True when a time limit leaves less than twenty seconds for each question. */
export function tooShortFor(timeLimitMs: number | null, questions: number): boolean {
  return timeLimitMs !== null && timeLimitMs < questions * leastPerQuestionMs;
}

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
  const from = settings.opensAt === null ? 'at once' : `from ${words.when(settings.opensAt)}`;
  const until = settings.closesAt === null ? ', without an end' : ` until ${words.when(settings.closesAt)}`;
  const limit =
    settings.timeLimitMs === null ? 'with no time limit' : `with ${words.howLong(settings.timeLimitMs)} each`;
  const code = settings.accessCode ? `, after giving the access code “${settings.accessCode}”` : '';
  return [
    `${who} can start ${from}${until}, ${limit}${code}.`,
    attemptsSentence(settings),
    settings.guests && groups.length > 0
      ? 'Guests come in with the access code and a typed name, and are kept apart.'
      : '',
    mannerSentence(settings),
    settings.practice ? practiceSentence(settings.practice) : '',
    afterSentence(settings),
    settings.forgivenMs !== undefined
      ? `What was typed before the end still counts when it arrives up to ${words.howLong(settings.forgivenMs)} later over a broken connection.`
      : '',
    settings.closesAt !== null && settings.timeLimitMs === null
      ? 'At the end, what is there is taken in.'
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
  return attempts === 1 ? '' : `Each may sit it ${attempts} times; ${countWords[counts]} counts.`;
}

/** "Questions come one at a time, without a way back." */
function mannerSentence({ oneByOne, noBack, shuffle }: SittingManner): string {
  const order = shuffle ? 'each in an order of their own' : '';
  if (!oneByOne) return order ? 'Each student has the questions in an order of their own.' : '';
  const back = noBack ? 'without a way back' : 'and can be gone back to';
  return `Questions come one at a time, ${[order, back].filter(Boolean).join(', ')}.`;
}

/** What practice amounts to, in words. */
export function practiceSentence({ tries, lossPerTry, hints, showAnswer }: PracticeRules): string {
  const often = tries === null ? 'as often as wanted' : tries === 1 ? 'once' : `up to ${tries} times`;
  const loss =
    lossPerTry > 0 && tries !== 1
      ? `, each try after the first for ${Math.round(lossPerTry * 100)} % of the points less`
      : '';
  const help = hints ? ' Hints can be taken for what they cost.' : '';
  const shown = showAnswer
    ? ' The accepted answer is shown on giving up, and then no more points are to be had.'
    : '';
  return `It is practice: each question says at once how it was answered, and can be tried ${often}${loss}.${help}${shown}`;
}

function afterSentence({ after }: SittingManner): string {
  return after ? `Straight after handing in, a student sees ${showsSentence(after)}.` : '';
}

const tells = (after: Shows | undefined) => after !== undefined && givesKeyAway(after);

/** Where settings get in each other's way, or give away what others still have to sit: a sentence each. */
export function settingsWarnings(settings: SittingSettings, words: TimeWords): string[] {
  const { after, attempts, practice, noBack, timeLimitMs } = settings;
  const warnings: string[] = [];
  const close = closeWarning(settings, words);
  if (close) warnings.push(close);
  if (tells(after) && !practice)
    warnings.push('Whoever hands in early can tell those who still sit it what is right.');
  if (tells(after) && attempts > 1 && !practice)
    warnings.push('After the first attempt the right answers are known for the next.');
  if (practice && noBack)
    warnings.push('Without a way back, a question cannot be tried again once it is left.');
  if (practice && practice.lossPerTry > 0 && practice.tries !== null) {
    const least = 1 - practice.lossPerTry * (practice.tries - 1);
    if (least <= 0) warnings.push('The last tries are for no points at all.');
  }
  if (practice && timeLimitMs !== null)
    warnings.push('It is practice against the clock: time for hints and tries counts.');
  return warnings;
}

function closeWarning({ opensAt, closesAt, timeLimitMs }: SittingSettings, words: TimeWords): string {
  if (closesAt === null || timeLimitMs === null) return '';
  const lastFull = Date.parse(closesAt) - timeLimitMs;
  if (opensAt !== null && lastFull < Date.parse(opensAt))
    return 'The window is shorter than the time limit: nobody has all of it.';
  return `Whoever starts after ${words.when(new Date(lastFull).toISOString())} has less time, for it closes before the limit is over.`;
}
