import type { PictureRef } from '@/core/basics/file';
import { lacksWords } from '@/core/basics/fileRules';
import { useFileAddress } from './files';
import styles from './Picture.module.css';

/** A picture, in its own size where there is room. */
export function Picture({ picture }: { picture: PictureRef }) {
  const address = useFileAddress(picture.asset);
  const alt = picture.decoration ? '' : picture.alt.trim() || 'picture without a description';
  if (address === 'missing')
    return <span className={styles.missing}>[picture missing{alt && `: ${alt}`}]</span>;
  return (
    <img
      className={styles.picture}
      src={address === 'coming' ? emptyPicture : address.href}
      alt={alt}
      data-lacks-words={lacksWords(picture) || undefined}
      width={picture.width}
      height={picture.height}
      // Its own shape from the start: that of the point in its place is another.
      style={{ aspectRatio: `${picture.width} / ${picture.height}` }}
    />
  );
}

/** Takes the place of a picture until its bytes are there: one transparent point. */
const emptyPicture = 'data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7';
