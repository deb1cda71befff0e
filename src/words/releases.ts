import type { PlanFinding, PlanTemplate } from '@/core/handback/planFindings';
import type { PlanPeriod } from '@/core/handback/planPeriods';
import { tellingThings } from '@/core/handback/readiness';
import {
  isShown,
  shownThings,
  type PlanStage,
  type Shown,
  type Shows,
  type StageStart,
} from '@/core/model/release';
import { counted } from '@/core/basics/counted';

/** What each thing to show is called in the sentence. */
export const showWords: Record<Shown, string> = {
  total: 'their total',
  percent: 'their percentage',
  grade: 'their grade',
  points: 'the points for each question',
  answers: 'their own answers',
  rightOrWrong: 'what was right or wrong',
  accepted: 'the accepted answers',
  comments: 'the comments',
  work: 'the marks on their work',
  lines: 'the scheme lines they met',
  scheme: 'all scheme lines',
  topics: 'their points by topic',
  figures: 'the mean and spread of the class',
  place: 'their place in the class',
};

/** The same in few words. */
const shortWords: Record<Shown, string> = {
  total: 'total',
  percent: 'percentage',
  grade: 'grade',
  points: 'points',
  answers: 'own answers',
  rightOrWrong: 'right or wrong',
  accepted: 'accepted answers',
  comments: 'comments',
  work: 'marks on the work',
  lines: 'lines met',
  scheme: 'all lines',
  topics: 'topics',
  figures: 'class figures',
  place: 'place',
};

const seenIn = (shows: Shows) => shownThings.filter((what) => isShown(shows, what));

/** With these there is nothing of one's own that is not seen, but for what hangs on a scale or a scheme. */
const whole: readonly Shown[] = ['total', 'points', 'answers', 'rightOrWrong', 'accepted', 'comments'];
const ofClass: readonly Shown[] = ['figures', 'place'];

/** What a student sees, in few words: "total, points, comments". */
export function seenShort(shows: Shows | null): string {
  if (!shows) return 'nothing';
  const all = seenIn(shows);
  const seen = whole.every((what) => all.includes(what))
    ? ['everything', ...all.filter((what) => ofClass.includes(what)).map((what) => shortWords[what])]
    : all.map((what) => shortWords[what]);
  return seen.length === 0 ? 'only that you have it' : seen.join(', ');
}

/** What is seen, as the end of a sentence: "their total and the comments". */
export function showsSentence(shows: Shows): string {
  const seen = seenIn(shows);
  return seen.length === 0 ? 'only that you have their paper' : listed(seen.map((what) => showWords[what]));
}

/** What of it tells what is right: "the accepted answers and the comments". */
export function givenAwayWords(shows: Shows): string {
  return listed(tellingThings.filter((what) => isShown(shows, what)).map((what) => showWords[what]));
}

export function listed(words: readonly string[], last = 'and'): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} ${last} ${words.at(-1)}`;
}

/** How instants and lengths read to this reader. */
export interface PlanTimes {
  when: (instant: string) => string;
  howLong: (ms: number) => string;
}

/** What a stage waits for, as the beginning of a sentence. */
const startWords: Record<StageStart, string> = {
  handedBack: 'Once handed back',
  at: 'From then on',
  marked: 'Once everything is marked and nobody can still sit the paper',
  sat: 'Once nobody can still sit the paper',
  hand: 'Once you open it',
};

/** What a stage waits for, as a choice. */
export const startChoices: Record<StageStart, string> = {
  handedBack: 'when handed back',
  at: 'on a date',
  marked: 'when all is marked and nobody can still sit it',
  sat: 'when nobody can still sit it',
  hand: 'when I open it',
};

const leads = { now: 'Now', back: 'Once handed back,', draft: 'With this draft' };

/**
 * One sentence a period that says who sees what when; then what is still waited for.
 *
 * @param periods of someone who has the result, or gets it now
 * @param waiting the stages of which nobody knows yet when they begin
 * @param of what it is said of: what holds now, what will once something is handed back, or what a draft would let out
 * @param now ISO
 */
export function planSentence(
  periods: readonly PlanPeriod[],
  waiting: readonly PlanStage[],
  of: 'now' | 'back' | 'draft',
  now: string,
  { when, howLong }: PlanTimes,
): string {
  const ahead = periods.filter(({ until }) => until === null || until > now);
  const sentences = ahead.map(({ from, shows }, index) => {
    const seen = shows ? showsSentence(shows) : index === 0 ? 'nothing yet' : 'nothing more';
    if (index > 0 && from) return `From ${when(from)}: ${seen}.`;
    if (!from || from <= now) return `${leads[of]} students see ${seen}.`;
    return `${of === 'draft' ? `${leads.draft} from` : 'From'} ${when(from)} students see ${seen}.`;
  });
  const last = ahead.at(-1)?.shows ?? null;
  const later = waiting.map((stage) => {
    const until = stage.until ? `, until ${when(stage.until)}` : '';
    const length = stage.lastsMs ? `, for ${howLong(stage.lastsMs)}` : '';
    const more = shownThings.filter((what) => isShown(stage.shows, what) && !(last && isShown(last, what)));
    const seen = last
      ? more.length > 0
        ? `also ${listed(more.map((what) => showWords[what]))}`
        : 'nothing more'
      : showsSentence(stage.shows);
    return `${startWords[stage.starts]}: ${seen}${until}${length}.`;
  });
  return [...sentences, ...later].join(' ');
}

/** What a student sees straight after handing in, and for how long. */
export function afterSentence(
  after: Shows | undefined,
  afterMs: number | undefined,
  howLong: PlanTimes['howLong'],
) {
  if (!after) return '';
  const length = afterMs === undefined ? '' : ` for ${howLong(afterMs)}`;
  return `Straight after handing in, a student sees ${showsSentence(after)}${length}.`;
}

/** A finding, and what the button beside it does. */
export function planFindingWords(
  finding: PlanFinding,
  when: PlanTimes['when'],
): { text: string; mend: string } {
  switch (finding.code) {
    case 'neverOpens':
      return { text: 'This stage ends before it begins: nobody sees it.', mend: 'Remove its end' };
    case 'deadLimit':
      return finding.limit === 'until'
        ? { text: 'It is over by its length before its end date is reached.', mend: 'Remove the end date' }
        : { text: 'Its end date comes before its length is over.', mend: 'Remove the length' };
    case 'addsNothing':
      return { text: 'Students see all of this without it.', mend: 'Remove this stage' };
    case 'takesAway':
      return {
        text: `On ${when(finding.at)} students lose what they had seen: ${listed(finding.lost.map((what) => showWords[what]))}.`,
        mend: 'Let it go on',
      };
    case 'gap':
      return {
        text: `From ${when(finding.at)} to ${when(finding.until)} students see nothing.`,
        mend: 'Let it go on',
      };
    case 'spoils':
      return {
        text: `${counted(finding.mayStillSit, 'student')} can still sit this paper when others see what is right.`,
        mend: 'Wait until nobody can sit it',
      };
  }
}

export const templateWords: Record<PlanTemplate, string> = {
  all: 'Everything at once',
  pointsThenAll: 'Points first, the rest when I say so',
  pointsThenSat: 'Points first, the rest when nobody can still sit it',
  dayThenSat: 'Points on Friday at 16:00, the rest when nobody can still sit it',
  cameIn: 'Only that it came in, everything once all is marked',
};
