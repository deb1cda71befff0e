import type { CountRule, Sitting, SittingManner } from '../model/sitting';
import type { Shows } from '../model/release';
import { givesKeyAway } from '../handback/readiness';

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
  const { oneByOne, noBack, shuffle, after, afterMs, practice, forgivenMs } = sitting;
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
    afterMs,
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

const tells = (after: Shows | undefined) => after !== undefined && givesKeyAway(after);

/** Where settings get in each other's way, or give away what others still have to sit. */
export type SettingsWarning =
  | { code: 'windowTooShort' }
  /** Students who start later do not have the whole time. */
  | { code: 'lessTimeAfter'; at: string }
  | {
      code:
        'toldToOthers' | 'toldForNextAttempt' | 'noWayBackToTry' | 'lastTriesForNothing' | 'againstTheClock';
    };

export function settingsWarnings(settings: SittingSettings): SettingsWarning[] {
  const { after, attempts, practice, noBack, timeLimitMs } = settings;
  const warnings: SettingsWarning[] = [];
  const close = closeWarning(settings);
  if (close) warnings.push(close);
  if (tells(after) && !practice) warnings.push({ code: 'toldToOthers' });
  if (tells(after) && attempts > 1 && !practice) warnings.push({ code: 'toldForNextAttempt' });
  if (practice && noBack) warnings.push({ code: 'noWayBackToTry' });
  if (practice && practice.lossPerTry > 0 && practice.tries !== null) {
    const least = 1 - practice.lossPerTry * (practice.tries - 1);
    if (least <= 0) warnings.push({ code: 'lastTriesForNothing' });
  }
  if (practice && timeLimitMs !== null) warnings.push({ code: 'againstTheClock' });
  return warnings;
}

function closeWarning({ opensAt, closesAt, timeLimitMs }: SittingSettings): SettingsWarning | null {
  if (closesAt === null || timeLimitMs === null) return null;
  const lastFull = Date.parse(closesAt) - timeLimitMs;
  if (opensAt !== null && lastFull < Date.parse(opensAt)) return { code: 'windowTooShort' };
  return { code: 'lessTimeAfter', at: new Date(lastFull).toISOString() };
}
