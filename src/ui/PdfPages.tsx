import { useEffect, useRef, useState } from 'react';
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import styles from './PdfPages.module.css';

/** The pages of a PDF, as they are. */
export function PdfPages({ bytes, label }: { bytes: Uint8Array; label: string }) {
  const [pages, setPages] = useState<PDFPageProxy[]>([]);
  useEffect(() => {
    let here = true;
    let open: PDFDocumentProxy | null = null;
    void (async () => {
      const pdf = await import('pdfjs-dist');
      pdf.GlobalWorkerOptions.workerSrc = new URL(
        'pdfjs-dist/build/pdf.worker.min.mjs',
        import.meta.url,
      ).toString();
      // It takes the bytes for itself.
      open = await pdf.getDocument({ data: bytes.slice() }).promise;
      const all: PDFPageProxy[] = [];
      for (let number = 1; number <= open.numPages; number++) all.push(await open.getPage(number));
      if (here) setPages(all);
    })();
    return () => {
      here = false;
      void open?.destroy();
    };
  }, [bytes]);
  return (
    <div className={styles.pages} role="region" aria-label={label} tabIndex={0}>
      {pages.map((page) => (
        <PdfPage key={page.pageNumber} page={page} of={pages.length} />
      ))}
    </div>
  );
}

const scale = 1.4;

function PdfPage({ page, of }: { page: PDFPageProxy; of: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const viewport = page.getViewport({ scale });
    element.width = viewport.width;
    element.height = viewport.height;
    const drawing = page.render({ canvas: element, viewport });
    // Taken away while it is drawn: nothing to say.
    drawing.promise.catch(() => undefined);
    return () => drawing.cancel();
  }, [page]);
  return (
    <canvas ref={canvas} className={styles.page} role="img" aria-label={`Page ${page.pageNumber} of ${of}`} />
  );
}
