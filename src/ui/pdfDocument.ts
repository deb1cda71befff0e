import type { PDFDocumentProxy } from 'pdfjs-dist';

/** Opens a PDF. What draws it is large, and comes with the first. @throws where it is none that can be read */
export async function openedPdf(bytes: Uint8Array): Promise<PDFDocumentProxy> {
  const pdf = await import('pdfjs-dist');
  pdf.GlobalWorkerOptions.workerSrc = new URL(
    'pdfjs-dist/build/pdf.worker.min.mjs',
    import.meta.url,
  ).toString();
  // It takes the bytes for itself.
  return pdf.getDocument({ data: bytes.slice() }).promise;
}
