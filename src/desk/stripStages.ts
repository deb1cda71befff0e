import type { PaperContent } from '@/core/model/paper';
import type { Sitting } from '@/core/model/sitting';
import type { SittingProgress } from '@/core/seats/progress';
import { stripOf, type StageName } from '@/core/seats/strip';
import { paperFindings } from '@/core/scoring/paperFindings';
import { givenCount, paperPoints } from '@/core/model/parts';
import { counted, dayAndTime, percent, pointsWords } from '@/words/format';
import type { StripStage } from '../ui/Strip';

/** The strip of one sitting, in words. @param pending whether its paper was changed since it was sat */
export function stripStages(
  sitting: Sitting,
  paper: PaperContent,
  progress: SittingProgress,
  now: number,
  pending = false,
): StripStage[] {
  const times = {
    opensAt: Date.parse(sitting.opensAt),
    closesAt: sitting.closesAt === null ? null : Date.parse(sitting.closesAt),
  };
  const words: Record<StageName, string> = {
    write: `${counted(givenCount(paper), 'question')}, ${pointsWords(paperPoints(paper))}${pending ? ' · changed in Write, not scored yet' : ''}`,
    run: runWords(progress, times, now),
    mark: markWords(progress),
    analyse: analyseWords(progress),
    handBack: handBackWords(progress),
  };
  const at = `/sittings/${sitting.id}`;
  const href: Record<StageName, string> = {
    write: `/papers/${sitting.paperId}?sitting=${sitting.id}`,
    run: `${at}/run`,
    mark: `${at}/mark`,
    analyse: `${at}/analyse`,
    handBack: `${at}/hand-back`,
  };
  // A share of a colleague's is marked, and nothing else is done with it here.
  const stages = stripOf(progress, times, now).filter(({ stage }) => !sitting.share || stage === 'mark');
  return stages.map((status) => ({
    ...status,
    words: words[status.stage],
    href: href[status.stage],
  }));
}

/** The strip of a paper that has not been given out: only its writing has begun. */
export function paperStages(paperId: string, paper: PaperContent): StripStage[] {
  const findings = paperFindings(paper);
  const stops = findings.filter((finding) => finding.level === 'stops').length;
  const size = `${counted(givenCount(paper), 'question')}, ${pointsWords(paperPoints(paper))}`;
  const ready = paper.questions.length > 0 && stops === 0;
  const left = findings.length === 0 ? 'ready' : `${counted(findings.length, 'thing')} to check`;
  const stage = (name: StageName, words: string, href: string | null, next = false): StripStage => ({
    stage: name,
    words,
    href,
    next,
    done: name === 'write' ? (ready ? 1 : 0.5) : 0,
  });
  return [
    stage('write', `${size} · ${left}`, `/papers/${paperId}`, !ready),
    stage('run', ready ? 'give out' : 'once it is ready', ready ? `/papers/${paperId}/give` : null, ready),
    stage('mark', '–', null),
    stage('analyse', '–', null),
    stage('handBack', '–', null),
  ];
}

function runWords(
  progress: SittingProgress,
  times: { opensAt: number; closesAt: number | null },
  now: number,
): string {
  if (progress.students === 0) return 'no students in the group';
  if (now < times.opensAt) return `opens ${dayAndTime(times.opensAt, now)}`;
  if (progress.in === progress.students) return `all ${progress.in} handed in`;
  const over = times.closesAt !== null && now >= times.closesAt;
  const parts: string[] = [];
  if (progress.working > 0) parts.push(`${progress.working} still working`);
  if (progress.notStarted > 0)
    parts.push(over ? `${progress.notStarted} not started` : `${progress.notStarted} not started`);
  if (progress.in > 0) parts.push(`${progress.in} handed in`);
  return parts.join(', ');
}

function markWords(progress: SittingProgress): string {
  if (progress.in === 0) return 'nothing handed in';
  const parts: string[] = [];
  if (progress.waiting > 0)
    parts.push(`${counted(progress.waiting, 'answer')} ${progress.waiting === 1 ? 'waits' : 'wait'}`);
  if (progress.forward > 0) parts.push(`${progress.forward} put forward`);
  if (progress.aside > 0) parts.push(`${progress.aside} set aside`);
  if (progress.notRead > 0) parts.push(`${progress.notRead} not read yet`);
  if (progress.noKey > 0) parts.push(`${progress.noKey} without a key`);
  return parts.length ? parts.join(', ') : 'all marked';
}

function analyseWords(progress: SittingProgress): string {
  if (progress.meanShare === null) return 'nothing handed in';
  const final = progress.waiting + progress.noKey + progress.notRead + progress.aside === 0;
  return `mean ${percent(progress.meanShare)}${final ? '' : ' of what is marked'}`;
}

function handBackWords(progress: SittingProgress): string {
  if (progress.in === 0) return 'nothing handed in';
  if (progress.released === 0)
    return progress.ready > 0 ? `${progress.ready} ready to hand back` : 'nothing ready';
  if (progress.released < progress.in) return `handed back to ${progress.released} of ${progress.in}`;
  return `handed back to all, ${progress.opened} opened`;
}
