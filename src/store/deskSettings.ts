import { z } from 'zod';
import { desk } from './tables';

/** How this desk began: with the demo course or empty. Absent on a fresh profile. */
const begunKey = 'begun';
const savedKey = 'backupSavedAt';
export const deskIdKey = 'deskId';

/** What tells this desk's copies from those of another; null until one is drawn. */
export async function knownDeskId(): Promise<string | null> {
  const found = await desk.settings.get(deskIdKey);
  return typeof found?.value === 'string' ? found.value : null;
}

export async function begunWith(): Promise<'demo' | 'empty' | null> {
  const row = await desk.settings.get(begunKey);
  return row ? z.enum(['demo', 'empty']).catch('empty').parse(row.value) : null;
}

export async function setBegunWith(value: 'demo' | 'empty'): Promise<void> {
  await desk.settings.put({ key: begunKey, value });
}

/** When the whole desk was last saved to a file; null when never. */
export async function backupSavedAt(): Promise<string | null> {
  const row = await desk.settings.get(savedKey);
  return row ? z.iso.datetime().nullable().catch(null).parse(row.value) : null;
}

export async function setBackupSavedAt(now: string): Promise<void> {
  await desk.settings.put({ key: savedKey, value: now });
}

/** Whose desk this is, where that is known: the demo course names itself. */
export async function deskName(): Promise<string> {
  const row = await desk.settings.get('deskName');
  return z
    .string()
    .catch('')
    .parse(row?.value ?? '');
}

/** Below which a question and a student stand out, as shares of the points. */
export interface Lines {
  question: number;
  student: number;
}

/** Common practice, no source: a question under 60 % and a student under 70 % stand out. */
export const usualLines: Lines = { question: 0.6, student: 0.7 };

const StoredLines = z.object({ question: z.number().min(0).max(1), student: z.number().min(0).max(1) });

const linesKey = (course: string) => `lines ${course}`;

/** The lines of a course; the usual ones where none were set. @param course '' for sittings without one */
export async function linesOf(course: string): Promise<Lines> {
  const row = await desk.settings.get(linesKey(course));
  return StoredLines.catch(usualLines).parse(row?.value);
}

export async function setLines(course: string, lines: Lines): Promise<void> {
  await desk.settings.put({ key: linesKey(course), value: StoredLines.parse(lines) });
}

const reportKey = (sittingId: string) => `report ${sittingId}`;

/** The teacher's own words at the top of a report. */
export async function reportWordsOf(sittingId: string): Promise<string> {
  const row = await desk.settings.get(reportKey(sittingId));
  return z
    .string()
    .catch('')
    .parse(row?.value ?? '');
}

export async function setReportWords(sittingId: string, words: string): Promise<void> {
  await desk.settings.put({ key: reportKey(sittingId), value: words });
}

const scriptsKey = (sittingId: string) => `scripts ${sittingId}`;

/** What each student’s script said when scripts were last saved as files; empty where they never were. By student id. */
export async function scriptsSaved(sittingId: string): Promise<ReadonlyMap<string, string>> {
  const row = await desk.settings.get(scriptsKey(sittingId));
  return new Map(Object.entries(z.record(z.string(), z.string()).catch({}).parse(row?.value)));
}

export async function setScriptsSaved(sittingId: string, said: ReadonlyMap<string, string>): Promise<void> {
  await desk.settings.put({ key: scriptsKey(sittingId), value: Object.fromEntries(said) });
}
