import type { PaperContent } from '@/core/model/paper';
import type { Sitting } from '@/core/model/sitting';
import type { Standing } from '@/core/running/standing';
import { stripOf, type StageName } from '@/core/running/strip';
import { paperFindings } from '@/core/scoring/paperFindings';
import { givenCount, paperPoints } from '@/core/model/parts';
import { counted, dayAndTime, percent, pointsWords } from '../format';
import type { StripStage } from '../Strip';

/** The strip of one sitting, in words. */
export function stripStages(
  sitting: Sitting,
  paper: PaperContent,
  standing: Standing,
  now: number,
): StripStage[] {
  const times = {
    opensAt: Date.parse(sitting.opensAt),
    closesAt: sitting.closesAt === null ? null : Date.parse(sitting.closesAt),
  };
  const words: Record<StageName, string> = {
    write: `${counted(givenCount(paper), 'question')}, ${pointsWords(paperPoints(paper))}`,
    run: runWords(standing, times, now),
    mark: markWords(standing),
    analyse: analyseWords(standing),
    handBack: handBackWords(standing),
  };
  const at = `/sittings/${sitting.id}`;
  const href: Record<StageName, string> = {
    write: `/papers/${sitting.paperId}?sitting=${sitting.id}`,
    run: `${at}/run`,
    mark: `${at}/mark`,
    analyse: `${at}/analyse`,
    handBack: `${at}/hand-back`,
  };
  return stripOf(standing, times, now).map((status) => ({
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
  const left = findings.length === 0 ? 'ready' : `${counted(findings.length, 'thing')} to look at`;
  const stage = (name: StageName, words: string, href: string | null, next = false): StripStage => ({
    stage: name,
    words,
    href,
    next,
    done: name === 'write' ? (ready ? 1 : 0.5) : 0,
  });
  return [
    stage('write', `${size} · ${left}`, `/papers/${paperId}`, !ready),
    stage('run', ready ? 'give it out' : 'once it is ready', ready ? `/papers/${paperId}/give` : null, ready),
    stage('mark', '–', null),
    stage('analyse', '–', null),
    stage('handBack', '–', null),
  ];
}

function runWords(
  standing: Standing,
  times: { opensAt: number; closesAt: number | null },
  now: number,
): string {
  if (standing.students === 0) return 'no students in the group';
  if (now < times.opensAt) return `opens ${dayAndTime(times.opensAt, now)}`;
  if (standing.in === standing.students) return `all ${standing.in} in`;
  const over = times.closesAt !== null && now >= times.closesAt;
  const parts: string[] = [];
  if (standing.working > 0) parts.push(`${standing.working} still working`);
  if (standing.notStarted > 0)
    parts.push(over ? `${standing.notStarted} never started` : `${standing.notStarted} to start`);
  if (standing.in > 0) parts.push(`${standing.in} in`);
  return parts.join(', ');
}

function markWords(standing: Standing): string {
  if (standing.in === 0) return 'nothing in yet';
  const parts: string[] = [];
  if (standing.waiting > 0)
    parts.push(`${counted(standing.waiting, 'answer')} ${standing.waiting === 1 ? 'waits' : 'wait'}`);
  if (standing.forward > 0) parts.push(`${standing.forward} put forward`);
  if (standing.aside > 0) parts.push(`${standing.aside} put aside`);
  if (standing.noKey > 0) parts.push(`${standing.noKey} without a key`);
  return parts.length ? parts.join(', ') : 'all marked';
}

function analyseWords(standing: Standing): string {
  if (standing.meanShare === null) return 'nothing in yet';
  const final = standing.waiting + standing.noKey + standing.aside === 0;
  return `mean ${percent(standing.meanShare)}${final ? '' : ' of what is marked'}`;
}

function handBackWords(standing: Standing): string {
  if (standing.in === 0) return 'nothing in yet';
  if (standing.released === 0)
    return standing.ready > 0 ? `${standing.ready} ready, none back` : 'none ready yet';
  if (standing.released < standing.in) return `${standing.released} of ${standing.in} have it`;
  return `all have it, ${standing.opened} opened`;
}
