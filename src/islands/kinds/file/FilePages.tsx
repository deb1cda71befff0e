import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import type { FileRef } from '@/core/basics/file';
import { markedPages, surfaces } from '@/core/marking/work/layer';
import type { WorkMark } from '@/core/model/workMark';
import { useFiles } from '@/ui/files';
import { PdfPage } from '@/ui/PdfPage';
import { openedPdf } from '@/ui/pdfDocument';
import { Button } from '@/ui/plain/Button';
import { Surface } from '../Surface';
import styles from './file.module.css';

interface FilePagesProps {
  file: FileRef;
  work: readonly WorkMark[] | undefined;
}

/** A PDF page by page, with the marks that lie on each. */
export default function FilePages({ file, work = [] }: FilePagesProps) {
  const files = useFiles();
  const [pdf, setPdf] = useState<PDFDocumentProxy | 'broken' | null>(null);
  const [number, setNumber] = useState(() => markedPages(work, file.id)[0] ?? 1);
  const [page, setPage] = useState<PDFPageProxy | null>(null);
  useEffect(() => {
    let here = true;
    let open: PDFDocumentProxy | null = null;
    void (async () => {
      const found = await files.get(file.id);
      if (!found || !here) return;
      open = await openedPdf(found.bytes);
      if (here) setPdf(open);
    })().catch(() => here && setPdf('broken'));
    return () => {
      here = false;
      void open?.destroy();
    };
  }, [files, file.id]);
  useEffect(() => {
    let here = true;
    if (pdf && pdf !== 'broken')
      void pdf.getPage(Math.min(number, pdf.numPages)).then((found) => here && setPage(found));
    return () => {
      here = false;
    };
  }, [pdf, number]);
  const place = useRef<HTMLDivElement>(null);
  const most = pdf && pdf !== 'broken' ? pdf.numPages : 1;
  // Wherever in it the keys go, also to what is marked on the page; there before a surface in it is given the keys.
  useLayoutEffect(() => {
    const element = place.current;
    const turn = (event: KeyboardEvent) => {
      const by = event.key === 'PageDown' ? 1 : event.key === 'PageUp' ? -1 : 0;
      if (by === 0) return;
      event.preventDefault();
      event.stopPropagation();
      setNumber((before) => Math.min(most, Math.max(1, before + by)));
    };
    element?.addEventListener('keydown', turn);
    return () => element?.removeEventListener('keydown', turn);
  }, [most, page]);
  if (pdf === 'broken') return <p className={styles.missing}>{file.name} can’t be shown as pages.</p>;
  if (!pdf || !page) return <p className={styles.missing}>Opening {file.name}…</p>;
  const all = pdf.numPages;
  const go = (by: number) => setNumber(Math.min(all, Math.max(1, number + by)));
  const marked = markedPages(work, file.id);
  return (
    <div ref={place} className={styles.pages} role="group" aria-label={`Pages of ${file.name}`}>
      {all > 1 && (
        <div className={styles.turn}>
          <Button size="compact-md" disabled={number <= 1} onClick={() => go(-1)}>
            Page before
          </Button>
          <span role="status">
            Page {number} of {all}
            {marked.length > 0 && `, marks on ${marked.join(', ')}`}
          </span>
          <Button size="compact-md" disabled={number >= all} onClick={() => go(1)}>
            Next page
          </Button>
        </div>
      )}
      <Surface
        on={surfaces.file(file.id, page.pageNumber)}
        label={`${file.name}, page ${page.pageNumber}`}
        work={work}
      >
        <PdfPage
          key={page.pageNumber}
          page={page}
          scale={sharpness}
          className={styles.page}
          label={`Page ${page.pageNumber} of ${file.name}`}
        />
      </Surface>
    </div>
  );
}

/** Drawn larger than it is shown, so that small writing can be read. */
const sharpness = 2;
