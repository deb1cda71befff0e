import { lazy, Suspense, useContext } from 'react';
import type { FileRef } from '@/core/basics/file';
import { isPicture } from '@/core/basics/fileRules';
import { markedPages, surfaces } from '@/core/marking/work/layer';
import type { WorkMark } from '@/core/model/workMark';
import { harmlessType, useFileAddress } from '@/ui/files';
import { Markable, Surface } from '../Surface';
import { fileSize } from '@/words/format';
import styles from './file.module.css';

// What draws pages is large: it comes when a page is to be seen.
const FilePages = lazy(() => import('./FilePages'));

interface FileLineProps {
  file: FileRef;
  small?: boolean;
  /** What a marker marked on it. */
  work?: readonly WorkMark[] | undefined;
}

/**
 * One file of an answer: a picture to look at, a PDF page by page where it is marked, anything else by its name; a press opens
 * or saves it.
 */
export function FileLine({ file, small = false, work }: FileLineProps) {
  const marking = useContext(Markable) !== null;
  const address = useFileAddress(file.id);
  const name = (
    <>
      {file.name} <span className={styles.size}>{fileSize(file.size)}</span>
    </>
  );
  if (address === 'missing') return <span className={styles.missing}>{file.name} hasn’t arrived yet</span>;
  if (address === 'coming') return <span>{name}</span>;
  const picture = isPicture(file) && (
    <img className={small ? styles.small : styles.picture} src={address.href} alt={file.name} />
  );
  if (small) return <span>{picture || name}</span>;
  const pages =
    file.mediaType === 'application/pdf' && (marking || markedPages(work ?? [], file.id).length > 0);
  const opens = harmlessType(file.mediaType) !== 'application/octet-stream';
  return (
    <div className={styles.line}>
      {picture && (
        <Surface on={surfaces.file(file.id)} label={file.name} work={work}>
          {picture}
        </Surface>
      )}
      {pages && (
        <Suspense fallback={null}>
          <FilePages file={file} work={work} />
        </Suspense>
      )}
      <a
        href={address.href}
        {...(opens ? { target: '_blank', rel: 'noopener noreferrer' } : { download: file.name })}
      >
        {name}
      </a>
    </div>
  );
}
