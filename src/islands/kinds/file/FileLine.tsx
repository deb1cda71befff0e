import type { FileRef } from '@/core/basics/file';
import { isPicture } from '@/core/basics/fileRules';
import { harmlessType, useFileAddress } from '@/ui/files';
import { fileSize } from '@/words/format';
import styles from './file.module.css';

/** One file of an answer: a picture to look at, anything else by its name; a press opens or saves it. */
export function FileLine({ file, small = false }: { file: FileRef; small?: boolean }) {
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
  const opens = harmlessType(file.mediaType) !== 'application/octet-stream';
  return (
    <span className={styles.line}>
      {picture}
      <a
        href={address.href}
        {...(opens ? { target: '_blank', rel: 'noopener noreferrer' } : { download: file.name })}
      >
        {name}
      </a>
    </span>
  );
}
