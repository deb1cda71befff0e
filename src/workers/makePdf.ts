import type { Remote } from 'comlink';
import type { Slide } from '@/core/formats/classSlides';
import type { ReportContent } from '@/core/formats/reportDocument';
import type { Student } from '@/core/model/people';
import type { PdfWorker } from './pdf.worker';
import { stoppable, type Work } from './stoppable';
import { paperWorker } from './paperWorker';

type Pdf = Uint8Array<ArrayBuffer>;

const inWorker = (job: (worker: Remote<PdfWorker>) => Promise<Pdf>): Work<Pdf> =>
  stoppable<PdfWorker, Pdf>(paperWorker('pdf'), job);

/** The join slips of a group as PDF. */
export const slipsPdf = (students: Student[], groupName: string, origin: string): Work<Pdf> =>
  inWorker((worker) => worker.slips(students, groupName, origin));

/** What is gone through with the class, a question a page. */
export const slidesPdf = (title: string, slides: Slide[]): Work<Pdf> =>
  inWorker((worker) => worker.slides(title, slides));

/** The report of a sitting. */
export const reportPdf = (content: ReportContent): Work<Pdf> => inWorker((worker) => worker.report(content));
