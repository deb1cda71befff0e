import { Button } from '@mantine/core';
import type { Scan } from '@/core/model/scan';
import type { OnPaper } from '@/store/onPaper';
import { throwOut } from '@/store/scans';
import { act } from '@/desk/act';
import { isoNow } from '@/ui/clock';
import { counted } from '@/words/format';
import { fromWords, unreadScanWords } from '@/words/onPaper';
import { PagePart } from '../kinds/PaperPictures';
import { pageSize } from '@/core/intake/paper/sheet';
import { PlacePage } from './PlacePage';
import styles from './onPaper.module.css';

const drawn = 12;

/** Scanned pages of which nobody knows what they are: they are given their place, or thrown out. */
export function AskedPages({ on }: { on: OnPaper }) {
  const pages = on.scans.filter(({ is, thrownOutAt }) => is !== 'read' && thrownOutAt === undefined);
  if (pages.length === 0) return null;
  return (
    <section aria-label="Pages to look at" className={styles.asked}>
      <div className={styles.head}>
        <h2>{counted(pages.length, 'page')} to look at: nobody knows what they are</h2>
        <Button onClick={() => void act(throwOut(pages, isoNow()))}>
          Throw out {counted(pages.length, 'page')}
        </Button>
      </div>
      <ul className={styles.pages}>
        {pages.slice(0, drawn).map((scan) => (
          <li key={scan.id}>
            <UnknownPage scan={scan} on={on} />
          </li>
        ))}
      </ul>
      {pages.length > drawn && <p className={styles.soft}>and {pages.length - drawn} more</p>}
    </section>
  );
}

function UnknownPage({ scan, on }: { scan: Scan; on: OnPaper }) {
  const about = fromWords(scan.from);
  return (
    <div role="group" aria-label={about}>
      <PagePart fileId={scan.picture.id} at={{ x: 0, y: 0, ...pageSize }} label={about} />
      <p>
        {about}: {scan.is === 'read' ? '' : unreadScanWords[scan.is]}
      </p>
      <PlacePage scan={scan} on={on} does="Read it as that" />
      <Button
        size="compact-sm"
        aria-label={`Throw out ${about}`}
        onClick={() => void act(throwOut([scan], isoNow()))}
      >
        Throw out
      </Button>
    </div>
  );
}
