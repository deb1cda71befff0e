import { expose } from 'comlink';
import pdfMake from 'pdfmake/build/pdfmake';
import fonts from 'pdfmake/build/vfs_fonts';
import type { Student } from '@/core/model/people';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { slidesDocument, type Slide } from '@/core/formats/classSlides';
import { reportDocument, type ReportContent } from '@/core/formats/reportDocument';
import { slipsDocument } from '@/core/formats/slips';

pdfMake.addVirtualFileSystem(fonts);

const bytesOf = async (document: TDocumentDefinitions): Promise<Uint8Array<ArrayBuffer>> =>
  new Uint8Array(await pdfMake.createPdf(document).getBuffer());

/** Documents are laid out here, so that the page goes on and can stop it. */
const pdfWorker = {
  slips: (students: Student[], groupName: string, origin: string): Promise<Uint8Array<ArrayBuffer>> =>
    bytesOf(slipsDocument(students, groupName, origin)),
  slides: (title: string, slides: Slide[]): Promise<Uint8Array<ArrayBuffer>> =>
    bytesOf(slidesDocument(title, slides)),
  report: (content: ReportContent): Promise<Uint8Array<ArrayBuffer>> => bytesOf(reportDocument(content)),
};
export type PdfWorker = typeof pdfWorker;

expose(pdfWorker);
