import { expose } from 'comlink';
import pdfMake from 'pdfmake/build/pdfmake';
import fonts from 'pdfmake/build/vfs_fonts';
import type { Student } from '@/core/model/people';
import { slipsDocument } from '@/core/formats/slips';

pdfMake.addVirtualFileSystem(fonts);

/** Documents are laid out here, so that the page goes on and can stop it. */
const pdfWorker = {
  slips: async (students: Student[], groupName: string, origin: string): Promise<Uint8Array<ArrayBuffer>> =>
    new Uint8Array(await pdfMake.createPdf(slipsDocument(students, groupName, origin)).getBuffer()),
};
export type PdfWorker = typeof pdfWorker;

expose(pdfWorker);
