import { useState } from 'react';
import { marksOn, surfaces } from '@/core/marking/work/layer';
import { pageSize } from '@/core/intake/paper/sheet';
import type { Rect } from '@/core/basics/rect';
import type { AnswerPicture } from '@/core/model/sitting';
import type { WorkMark } from '@/core/model/workMark';
import { useFileAddress } from '@/ui/files';
import { Button } from '@/ui/plain/Button';
import { Surface } from './Surface';
import styles from './paperPictures.module.css';

interface PaperPicturesProps {
  pictures: readonly AnswerPicture[];
  work?: readonly WorkMark[] | undefined;
  small?: boolean;
  /** Whether the whole pages are shown; absent: a button shows them. */
  whole?: boolean;
  /** Its words say it already: it is shown by a button. */
  folded?: boolean;
}

/** What stands on paper of an answer: its places on the pages, as wide as there is room, or the whole pages. */
export function PaperPictures({ pictures, work, small = false, whole, folded = false }: PaperPicturesProps) {
  const [opened, setOpened] = useState(false);
  const marked = pictures.some(({ fileId }) => marksOn(work ?? [], surfaces.file(fileId)).length > 0);
  const [shown, setShown] = useState(!folded || marked);
  const pages = whole ?? opened;
  const files = [...new Set(pictures.map(({ fileId }) => fileId))];
  if (small)
    return pictures.map(({ fileId, at }, index) => (
      <PagePart key={index} fileId={fileId} at={at} label="Answer on paper" />
    ));
  if (!shown)
    return (
      <div>
        <Button size="compact-md" onClick={() => setShown(true)}>
          Show on paper
        </Button>
      </div>
    );
  return (
    <div className={styles.pictures}>
      {pages
        ? files.map((fileId) => (
            <Surface key={fileId} on={surfaces.file(fileId)} label="Whole page" work={work}>
              <PagePart fileId={fileId} at={wholePage} label="Whole page" />
            </Surface>
          ))
        : pictures.map(({ fileId, at }, index) => (
            <Surface
              key={`${fileId} ${index}`}
              on={surfaces.file(fileId)}
              label="Answer on paper"
              work={work}
              view={inThousandths(at)}
            >
              <PagePart fileId={fileId} at={at} label="Answer on paper" />
            </Surface>
          ))}
      {whole === undefined && (
        <Button size="compact-md" onClick={() => setOpened(!opened)}>
          {opened ? 'Show only the answer' : 'Show the whole page'}
        </Button>
      )}
    </div>
  );
}

const wholePage: Rect = { x: 0, y: 0, ...pageSize };

/** Marks lie in thousandths of the width of the page. */
const inThousandths = ({ x, y, w, h }: Rect): Rect => {
  const unit = 1000 / pageSize.w;
  return { x: x * unit, y: y * unit, w: w * unit, h: h * unit };
};

/** A part of a page that was set straight, as wide as there is room. */
export function PagePart({ fileId, at: { x, y, w, h }, label }: { fileId: string; at: Rect; label: string }) {
  const address = useFileAddress(fileId);
  const share = (part: number, of: number) => `${(part / of) * 100}%`;
  return (
    <span className={styles.part} style={{ aspectRatio: `${w} / ${h}` }}>
      {address === 'missing' && <span className={styles.missing}>The picture of this page isn’t here.</span>}
      {typeof address === 'object' && (
        <img
          src={address.href}
          alt={label}
          style={{ width: share(pageSize.w, w), left: share(-x, w), top: share(-y, h) }}
        />
      )}
    </span>
  );
}
