import { replaceDesk } from '@/store/backup';
import { buildDemo } from './buildDemo';

/** Lays the demo course out on this desk. Only called on a fresh profile. */
export async function layOutDemo(now: number): Promise<void> {
  await replaceDesk(buildDemo(now));
}
