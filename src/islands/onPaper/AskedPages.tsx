import { Button, NativeSelect, NumberInput } from '@mantine/core';
import { useState } from 'react';
import { fullName } from '@/core/model/names';
import type { Scan } from '@/core/model/scan';
import type { OnPaper } from '@/store/onPaper';
import { throwOut } from '@/store/scans';
import { act } from '@/desk/act';
import { thisTab } from '@/desk/undoLast';
import { isoNow } from '@/ui/clock';
import { placeScanAs } from '@/workers/scans';
import { counted } from '@/words/format';
import { fromWords, unreadScanWords } from '@/words/onPaper';
import { PagePart } from '../kinds/PaperPictures';
import { pageSize } from '@/core/intake/paper/sheet';
import styles from './onPaper.module.css';

const drawn = 12;

/** Scanned pages of which nobody knows what they are: they are given their place, or thrown out. */
export function AskedPages({ sittingId, on }: { sittingId: string; on: OnPaper }) {
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
            <UnknownPage scan={scan} on={on} sittingId={sittingId} />
          </li>
        ))}
      </ul>
      {pages.length > drawn && <p className={styles.soft}>and {pages.length - drawn} more</p>}
    </section>
  );
}

function UnknownPage({ scan, on }: { scan: Scan; on: OnPaper; sittingId: string }) {
  const [printId, setPrintId] = useState(on.prints[0]?.id ?? '');
  const [copy, setCopy] = useState('');
  const [page, setPage] = useState(1);
  const [working, setWorking] = useState(false);
  const print = on.prints.find(({ id }) => id === printId);
  const place = async () => {
    setWorking(true);
    await act(placeScanAs(scan.id, { printId, copy: Number(copy), page }, thisTab(), isoNow()).result);
    setWorking(false);
  };
  const about = fromWords(scan.from);
  return (
    <div className={styles.unknown} role="group" aria-label={about}>
      {scan.picture && <PagePart fileId={scan.picture.id} at={{ x: 0, y: 0, ...pageSize }} label={about} />}
      <p>
        {about}: {scan.is === 'read' ? '' : unreadScanWords[scan.is]}
      </p>
      {on.prints.length > 1 && (
        <NativeSelect
          aria-label={`Which papers ${about} belongs to`}
          value={printId}
          onChange={(event) => setPrintId(event.currentTarget.value)}
          data={on.prints.map(({ id, name }) => ({ value: id, label: name || 'As in the paper' }))}
        />
      )}
      <div className={styles.row}>
        <NativeSelect
          aria-label={`Whose ${about} is`}
          value={copy}
          onChange={(event) => setCopy(event.currentTarget.value)}
          data={[
            { value: '', label: 'Whose is it?' },
            ...(print?.copies ?? []).map((id, index) => {
              const student = on.students.get(id ?? '');
              return { value: String(index + 1), label: student ? fullName(student) : `Paper ${index + 1}` };
            }),
          ]}
        />
        <NumberInput
          aria-label={`Which page ${about} is`}
          w={70}
          min={1}
          max={print?.pages.length ?? 1}
          clampBehavior="strict"
          value={page}
          onChange={(value) => typeof value === 'number' && setPage(value)}
        />
        <Button size="compact-sm" disabled={copy === '' || working} onClick={() => void place()}>
          Read it as that
        </Button>
        <Button size="compact-sm" onClick={() => void act(throwOut([scan], isoNow()))}>
          Throw out
        </Button>
      </div>
    </div>
  );
}
