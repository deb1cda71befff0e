import { PDFDocument, PDFName } from '@cantoo/pdf-lib';

type Bytes = Uint8Array<ArrayBuffer>;

/**
 * A PDF without what is written beside its pages: title, author, program, dates, and the same again as XMP (ISO 32000-1, 14.3). One
 * that is damaged or locked is left as it is.
 *
 * @returns the same bytes where it is no PDF, or nothing can be taken out
 */
export async function withoutPdfMetadata(bytes: Bytes): Promise<Bytes> {
  // It may begin a little later (ISO 32000-1, annex H, 3.4.1).
  const begin = String.fromCharCode(...bytes.subarray(0, 1_024));
  if (!begin.includes('%PDF-')) return bytes;
  try {
    const pdf = await PDFDocument.load(bytes, { updateMetadata: false });
    const { trailerInfo } = pdf.context;
    if (trailerInfo.Info) {
      const info = pdf.context.lookup(trailerInfo.Info);
      // Kept as an empty one: readers look for it.
      if (info) pdf.context.assign(trailerInfo.Info as never, pdf.context.obj({}));
    }
    pdf.catalog.delete(PDFName.of('Metadata'));
    for (const page of pdf.getPages()) page.node.delete(PDFName.of('Metadata'));
    return new Uint8Array(await pdf.save({ updateFieldAppearances: false }));
  } catch {
    return bytes;
  }
}
