import { useEffect, useRef } from 'react';
import type { PDFPageProxy } from 'pdfjs-dist';

interface PdfPageProps {
  page: PDFPageProxy;
  label: string;
  /** Dots for each point of the page: more than are shown keeps small writing sharp. */
  scale: number;
  className: string | undefined;
}

/** One page of a PDF, as it is. */
export function PdfPage({ page, label, scale, className }: PdfPageProps) {
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
  }, [page, scale]);
  return <canvas ref={canvas} className={className} role="img" aria-label={label} />;
}
