import type { CountRule } from '../model/sitting';

/** What a teacher chooses when giving a paper out. */
export interface SittingSettings {
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

export type SettingsFault = 'noGroup' | 'closesBeforeOpening' | 'closesInThePast';

/** The first thing that keeps a sitting with these settings from working; null when nothing does. */
export function settingsFault(settings: SittingSettings, now: number): SettingsFault | null {
  if (settings.groupIds.length === 0) return 'noGroup';
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

/** One plain paragraph that says what the settings amount to, with a warning where they get in each other's way. */
export function settingsSentence(
  settings: SittingSettings,
  groups: readonly string[],
  words: TimeWords,
): string {
  const who =
    groups.length === 0
      ? 'Nobody'
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
    closeWarning(settings, words),
  ]
    .filter(Boolean)
    .join(' ');
}

const countWords: Record<CountRule, string> = { last: 'the last', best: 'the best', first: 'the first' };

/** "Each may sit it 3 times; the best counts." */
export function attemptsSentence({ attempts, counts }: Pick<SittingSettings, 'attempts' | 'counts'>): string {
  return attempts === 1 ? '' : `Each may sit it ${attempts} times; ${countWords[counts]} counts.`;
}

function closeWarning({ opensAt, closesAt, timeLimitMs }: SittingSettings, words: TimeWords): string {
  if (closesAt === null) return '';
  if (timeLimitMs === null) return 'At the end, what is there is taken in.';
  const lastFull = Date.parse(closesAt) - timeLimitMs;
  if (opensAt !== null && lastFull < Date.parse(opensAt))
    return 'The window is shorter than the time limit: nobody has all of it.';
  return `Whoever starts after ${words.when(new Date(lastFull).toISOString())} has less time, for it closes before the limit is over.`;
}
