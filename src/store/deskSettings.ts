import { z } from 'zod';
import { desk } from './tables';

/** How this desk began: with the demo course or empty. Absent on a fresh profile. */
const begunKey = 'begun';
const savedKey = 'backupSavedAt';

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
