import type { DeskPart } from './deskWorker';
import { runPart } from './runPart';

void runPart<DeskPart>({
  backup: () => import('./backup.worker'),
  copies: () => import('./copies.worker'),
  deskSync: () => import('./deskSync.worker'),
  intake: () => import('./intake.worker'),
  near: () => import('./near.worker'),
  packets: () => import('./packets.worker'),
  qti: () => import('./qti.worker'),
  rehearsal: () => import('./rehearsal.worker'),
  sheet: () => import('./sheet.worker'),
  takeOver: () => import('./takeOver.worker'),
});
