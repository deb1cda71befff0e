import type { PaperPart } from './paperWorker';
import { runPart } from './runPart';

void runPart<PaperPart>({
  madeUpScans: () => import('./madeUpScans.worker'),
  pdf: () => import('./pdf.worker'),
  prints: () => import('./prints.worker'),
  scans: () => import('./scans.worker'),
  scripts: () => import('./scripts.worker'),
});
