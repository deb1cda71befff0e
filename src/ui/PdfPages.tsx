import { useEffect, useState } from 'react';
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import { PdfPage } from './PdfPage';
import { openedPdf } from './pdfDocument';
import styles from './PdfPages.module.css';

/** The pages of a PDF, as they are. */
export function PdfPages({ bytes, label }: { bytes: Uint8Array; label: string }) {
  const [pages, setPages] = useState<PDFPageProxy[]>([]);
  useEffect(() => {
    let here = true;
    let open: PDFDocumentProxy | null = null;
    void (async () => {
      open = await openedPdf(bytes);
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
        <PdfPage
          key={page.pageNumber}
          page={page}
          scale={scale}
          className={styles.page}
          label={`Page ${page.pageNumber} of ${pages.length}`}
        />
      ))}
    </div>
  );
}

const scale = 1.4;
